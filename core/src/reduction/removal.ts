import { overThirds } from '../restoration/thickness.js';
import { FACIAL_ENAMEL } from '../teeth/norms.js';
import type { Fdi } from '../teeth/notation.js';
import { SCAN_PM_MM } from '../working/accuracy.js';
import { COMMON_PRACTICE, DERIVED, type Figure, MEASURED, type Source } from '../working/working.js';

/** Below this a removal counts as none, mm: less than any bur or scan resolves. Common practice, no source. */
export const NOTHING_MM = 0.02;

/** A tooth that stands in front of the plan by less than its scan is sure of is not called proud, mm. */
export const PROUD_MM = SCAN_PM_MM;

/** How deep to cut at one place. mm. */
export interface Removal {
  readonly needed: number;
  /** Planned contour in front of (+) or behind (−) the tooth. */
  readonly gap: number;
  /** What is cut in all, never below zero. */
  readonly remove: Figure;
  /** The part of it that only brings a proud tooth back to the plan. */
  readonly alignFirst: number;
  /**
   * What goes at least over the middle of the zone, from line angle to line angle, and what of it is left once the tooth
   * stands in line: a groove that is cut into the tooth itself may be no deeper, or it stays.
   */
  readonly least: { readonly removedMm: number; readonly inLineMm: number };
}

/**
 * removal = needed thickness − gap to the planned contour, never below zero. A negative gap means that the tooth stands
 * proud of the plan: it is first cut back into line by that much.
 */
export function removal(needed: number, gap: number, source: Source = COMMON_PRACTICE): Removal {
  const raw = needed - gap;
  const value = raw <= NOTHING_MM ? 0 : raw;
  return {
    needed,
    gap,
    alignFirst: Math.max(0, -gap),
    least: { removedMm: value, inLineMm: Math.max(0, value - Math.max(0, -gap)) },
    remove: {
      value,
      pm: value === 0 ? 0 : SCAN_PM_MM,
      unit: 'mm',
      working: {
        formula: 'removal = needed thickness − gap to the planned contour, not below zero',
        inputs: [
          { name: 'needed thickness', value: needed, unit: 'mm', source },
          { name: 'gap, tooth to planned contour', value: round(gap), unit: 'mm', source: MEASURED },
          { name: 'scan accuracy', value: `±${SCAN_PM_MM}`, unit: 'mm', source: COMMON_PRACTICE },
        ],
        ...(gap < 0
          ? { note: `The tooth stands ${(-gap).toFixed(2)} mm proud of the plan: bring it into line first.` }
          : {}),
      },
    },
  };
}

/**
 * The same where the target preparation says what goes: it ends the thickness softly at the finish line and rounds its
 * edge, so that in a zone's middle it may be a little off what needed thickness and gap say.
 * @param cut what goes in the middle of the zone, and the part of it that only brings the tooth into line; `least` of the
 * removal
 */
export function removalBy(
  needed: number,
  gap: number,
  cut: { readonly removedMm: number; readonly alignMm: number; readonly least?: Removal['least'] },
  source: Source = COMMON_PRACTICE,
): Removal {
  const plain = removal(needed, gap, source);
  const value = cut.removedMm <= NOTHING_MM ? 0 : cut.removedMm;
  const { working } = plain.remove;
  return {
    ...plain,
    alignFirst: value === 0 ? 0 : Math.min(value, cut.alignMm),
    least: cut.least ?? { removedMm: value, inLineMm: Math.max(0, value - cut.alignMm) },
    remove: {
      ...plain.remove,
      value,
      pm: value === 0 ? 0 : SCAN_PM_MM,
      working: {
        ...working,
        formula: 'removal = from the tooth to the target: the planned contour moved inward by the needed thickness',
        inputs: [
          ...working.inputs,
          { name: 'needed less gap', value: round(plain.remove.value), unit: 'mm', source: DERIVED },
        ],
      },
    },
  };
}

export type EnamelState = 'kept' | 'doubtful' | 'gone';

/** Enamel left after a cut, against the norm at that level. mm. */
export interface EnamelLeft {
  readonly from: number;
  readonly to: number;
  readonly state: EnamelState;
  readonly source: Source;
}

/** The enamel that is left as it is told on screen and paper, mm. */
export const enamelWords = ({ state, from, to }: EnamelLeft): string =>
  state === 'gone' ? 'gone' : `${Math.max(0, from).toFixed(2)}–${to.toFixed(2)}`;

/** Facial enamel at a place, mm, from..to. */
export interface EnamelNorm {
  readonly from: number;
  readonly to: number;
  readonly source: Source;
}

/** What of a patient's mouth changes what is safe to cut. */
export interface Mouth {
  /** Reflux or acid: enamel may be thin everywhere. */
  readonly acid?: boolean | undefined;
  /** Clenches or grinds: edges carry more. */
  readonly grinding?: boolean | undefined;
  /** How old, where it is known: a young pulp is large. */
  readonly ageYears?: number | null | undefined;
  /** Teeth with a post or a core in them. */
  readonly cores?: readonly Fdi[] | undefined;
}

/** Acid may have taken so much of the enamel's thin end. House value, no source. */
export const ACID_LEAVES = 0.5;

/**
 * The norm at a height of the tooth's own crown: each third's in its middle, straight between them, none on the root.
 * @param share of the crown's height, 0 at the edge, 1 at the zenith
 * @param mouth where acid has been at work the thin end is halved
 */
export function enamelNormAt(share: number, { acid }: Mouth = {}): EnamelNorm {
  const { cervical, middle, incisal } = FACIAL_ENAMEL;
  const over = (at: (norm: EnamelNorm) => number) =>
    share > 1 ? 0 : overThirds({ cervical: at(cervical), middle: at(middle), incisal: at(incisal) }, share);
  const thin = acid ? ACID_LEAVES : 1;
  return { from: thin * over((n) => n.from), to: over((n) => n.to), source: middle.source };
}

/**
 * `doubtful` when the thin end of the norm may be cut through, `gone` when the thick end is.
 * @param pmMm half-width of the error of the depth: what it could hide is not called kept
 */
export function enamelLeft(norm: EnamelNorm, removeMm: number, pmMm = 0): EnamelLeft {
  const from = norm.from - removeMm;
  const to = norm.to - removeMm;
  return { from, to, state: to <= 0 ? 'gone' : from - pmMm <= 0 ? 'doubtful' : 'kept', source: norm.source };
}

const round = (v: number) => Math.round(v * 1000) / 1000;
