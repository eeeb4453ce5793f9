import type { Vec3 } from '../geometry/vec.js';
import type { TargetZone } from '../reduction/target-zones.js';
import type { Fdi } from '../teeth/notation.js';
import type { Source } from '../working/working.js';

/** What a preparation is checked for, in the order in which it is told. */
export const PREP_CHECKS = {
  room: 'room for the material',
  edge: 'cut edge',
  face: 'planes of the face',
  bite: 'room in the bite',
  provisional: 'provisional',
  draw: 'way out',
  walls: 'walls',
  finish: 'finish line',
  corners: 'corners',
  contacts: 'contacts',
  neighbours: 'neighbours',
  surface: 'surface',
} as const;
export type PrepCheck = keyof typeof PREP_CHECKS;

/**
 * How a check comes out: as it should be; more to cut; more gone than asked; to be looked at, where cutting alone does
 * not mend it; or not told, where the scan does not show it.
 */
export type PrepState = 'right' | 'cut' | 'over' | 'look' | 'unknown';

/** One thing that was checked on a prepared tooth. */
export interface PrepFinding {
  readonly check: PrepCheck;
  readonly tooth: Fdi;
  readonly state: PrepState;
  /** Where, in words: a zone, a side, a third. */
  readonly place: string;
  readonly zone?: TargetZone;
  readonly value: number;
  readonly pm: number;
  readonly unit: 'mm' | '°' | 'mm²' | 'share';
  readonly limit: number;
  readonly source: Source;
  /** What was found, a sentence; `{11}` stands for a tooth number. */
  readonly says: string;
  /** What to do about it. */
  readonly todo?: string;
  /** How much more is to be cut there, mm; deeper, or where it says so further along the surface. */
  readonly cutMm?: number;
  readonly along?: true;
  /** In the arch's own frame. */
  readonly at?: Vec3;
}

const WORST: readonly PrepState[] = ['cut', 'over', 'look', 'unknown', 'right'];

/** The most pressing state of several findings. */
export const worstState = (all: readonly Pick<PrepFinding, 'state'>[]): PrepState =>
  WORST.find((s) => all.some((f) => f.state === s)) ?? 'unknown';
