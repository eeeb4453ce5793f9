import type { Tree } from '../../geometry/tree/build.js';
import type { Vec3 } from '../../geometry/vec.js';
import type { Mouth } from '../../reduction/removal.js';
import type { Fdi } from '../../teeth/notation.js';
import type { Placed } from '../facing.js';
import type { PrepFinding } from '../finding.js';
import type { PrepMap, PrepTooth } from '../prep-tooth.js';
import type { ProvisionalOver } from '../provisional.js';
import type { SeenField } from '../seen.js';

/** A tooth beside a prepared one, before and after. */
export interface Beside {
  readonly tooth: Fdi;
  readonly before: SeenField;
  readonly after: SeenField;
  /** Whether it was to be cut too. */
  readonly cut: boolean;
}

/** A prepared tooth with everything that checks look at, measured once. */
export interface Checked extends PrepTooth {
  readonly map: PrepMap;
  readonly facing: Placed;
  /** 1 where x of the target's frame goes to the distal side. */
  readonly distal: 1 | -1;
  /** Half-width of the error of what is measured between scan and plan, mm. */
  readonly pmMm: number;
  readonly mouth: Mouth;
  /** What the house's mill can go round, mm of radius; the usual where it has not said. */
  readonly cornerMm?: number;
  /** What of the scan was picked as no tooth. */
  readonly rest?: Tree;
  /** Where somebody has drawn the end of the cut, by direction. */
  readonly drawn?: ReadonlyMap<number, number>;
  readonly beside: readonly Beside[];
  /**
   * Distance of each of the scan's vertices to the teeth across, mm: closed, and the least on the way aside and
   * forward.
   */
  readonly bite?: { readonly closed: Float32Array; readonly moved: Float32Array };
  /** The provisional's scan over it, and how surely that lies, mm. */
  readonly provisional?: ProvisionalOver & { readonly pmMm: number };
}

/** One check of one tooth. */
export type Check = (c: Checked) => PrepFinding[];

/** A vertex of the scan. */
export const scanPlace = ({ scan: { mesh } }: PrepTooth, v: number): Vec3 => [
  mesh.positions[3 * v] as number,
  mesh.positions[3 * v + 1] as number,
  mesh.positions[3 * v + 2] as number,
];

export const mm = (v: number): string => v.toFixed(2);
