import type { CaseFile } from '@radiant/contract';
import type { Cells, Jaw, Opened, PickedView } from '@radiant/core';
import type { GlimpseView, LaidView } from '../../../engine/raw-jaw.worker.js';

/** A jaw as it is drawn. */
export interface ShownJaw {
  readonly jaw: Jaw;
  readonly laid: LaidView;
  readonly picked: PickedView;
  /** Its triangles by their place, for what lies under the pointer; a little later than the rest. */
  readonly cells?: Cells;
}

/** A scan that lies in the mouth, with the teeth that were picked out of it. */
export interface LaidScan extends ShownJaw {
  readonly state: 'laid';
  readonly opened: Opened;
}

export type OwnScanState =
  | { readonly state: 'reading'; readonly what: string; readonly share: number; readonly seen?: ShownJaw }
  | { readonly state: 'failed'; readonly sentence: string }
  | { readonly state: 'asking'; readonly opened: Opened; readonly sentence?: string }
  | LaidScan;

/** Where a scan comes from: a file, or its address in the case's record. */
export interface ScanSource {
  /** Another scan has another one. */
  readonly key: string;
  readonly from: string | File;
  /** Of the file in the case's record; while it is on its way nothing. */
  readonly id: string | undefined;
  readonly onRecord: Promise<Pick<CaseFile, 'id'>>;
}

/** A jaw whose teeth nobody has told apart yet, to be looked at only. */
export function untold({ jaw, mesh }: GlimpseView): ShownJaw {
  const picked: PickedView = {
    tooth: new Uint8Array(mesh.positions.length / 3).fill(1),
    teeth: [],
    doubts: [],
    necks: [],
  };
  return { jaw, laid: { mesh, symmetry: 1, picked }, picked };
}
