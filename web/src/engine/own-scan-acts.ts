import type { ByHand, Fdi, FrameMatrix, Jaw, ThreePlaces, Vec3 } from '@radiant/core';

/** One thing that a hand did to a scan on its way to numbered teeth. Its vertices are those of the mended scan. */
export type Lay =
  | { readonly do: 'lay'; readonly jaw: Jaw; readonly unitMm: number }
  | { readonly do: 'layBy'; readonly places: ThreePlaces }
  | {
      readonly do: 'layOn';
      readonly jaw: Jaw;
      readonly url: string;
      readonly places?: readonly [own: ThreePlaces, first: ThreePlaces] | undefined;
    }
  | { readonly do: 'layByBite'; readonly jaw: Jaw; readonly other: FrameMatrix | null }
  | { readonly do: 'layByHand'; readonly url: string; readonly hand: ByHand };

export type Pick =
  | { readonly do: 'renumber'; readonly from: Fdi; readonly to?: Fdi | undefined }
  | { readonly do: 'add'; readonly vertex: number; readonly tooth: Fdi }
  | { readonly do: 'pull'; readonly tooth: Fdi; readonly from: Vec3; readonly to: Vec3 }
  | {
      readonly do: 'paint';
      readonly vertices: readonly number[];
      readonly radiusMm: number;
      readonly tooth: Fdi | 0;
    };

export type Act = Lay | Pick;

export const isLay = (act: Act): act is Lay => act.do.startsWith('lay');

/** What was done to a scan, in order: it gives the same teeth again when it is done again. */
export interface ScanWork {
  /** Whether the scan was mended before; its vertices are numbered by it. */
  readonly mend: boolean;
  /** Teeth that the record called missing when it was opened. */
  readonly missing: readonly Fdi[];
  readonly acts: readonly Act[];
  /** When the last of it was done, ISO 8601. */
  readonly at: string;
}
