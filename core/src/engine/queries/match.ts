import type { Lab } from '../../colour/lab.js';
import { CERAMIC_CLASSES, ceramicOfClass } from '../../material/ceramics.js';
import type { Deeper } from '../../material/deeper.js';
import type { EnamelGuess } from '../../material/dentin.js';
import {
  cuttingDeeper,
  type Match,
  type MatchQuestion,
  matched,
  type UnderCement,
  underCements,
} from '../../material/match.js';
import { ceramicOfPlate, type MeasuredCeramic } from '../../material/measured.js';
import { enamelNormAt, type Mouth } from '../../reduction/removal.js';
import type { DesignChoice } from '../../restoration/restoration.js';
import { THIRDS } from '../../restoration/thickness.js';
import type { FacialThird } from '../../teeth/norms.js';
import type { Fdi } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';
import { zonesOf } from './reduction.js';

/** What was read of one third of a tooth's face, and what is wanted. */
export type ReadColour = Pick<
  MatchQuestion,
  'tooth' | 'stump' | 'toothSpectrum' | 'stumpSpectrum' | 'wanted' | 'cement' | 'rough'
>;

/** What is asked of the colour of one third of a tooth's face. */
export interface ColourChoice extends ReadColour {
  readonly third: FacialThird;
  /** A class, or a plate of the house's. */
  readonly ceramic: string;
  readonly plates?: readonly MeasuredCeramic[] | undefined;
}

/** What the ceramics look like over the stump of one third, under the plan as it stands. */
export interface ThirdMatch extends Match {
  readonly wanted: Lab;
  readonly cutMm: number;
  readonly ceramicMm: number;
  /** The middle of the norm at that height. */
  readonly enamelMm: number;
  readonly cements: readonly UnderCement[];
  readonly deeper?: Readonly<Record<EnamelGuess, Deeper>> | undefined;
}

/** Less than this is no ceramic, mm. House value. */
const LEAST_CERAMIC_MM = 0.1;

/** The question of one third under the plan as it stands; nothing where no ceramic is planned, as over a root. */
export function questionOf(
  engine: CaseEngine,
  tooth: Fdi,
  choice: DesignChoice,
  third: FacialThird,
  colour: ReadColour,
  mouth: Mouth,
): MatchQuestion | undefined {
  const zone = zonesOf(engine, tooth, choice, mouth).zones.find((z) => z.zone === third)?.removal;
  if (!zone) return undefined;
  // Where the plan leaves more room than is needed the ceramic fills it.
  const ceramicMm = Math.max(zone.needed, zone.gap + zone.remove.value);
  if (ceramicMm < LEAST_CERAMIC_MM) return undefined;
  const norm = enamelNormAt(THIRDS[third].middle, mouth);
  return { ...colour, enamelMm: (norm.from + norm.to) / 2, cutMm: zone.remove.value, ceramicMm };
}

/**
 * The colour of one third of a planned tooth under each ceramic, as thick as the plan makes it there and over what the
 * cut leaves; nothing where none is planned.
 * @throws Refusal of `CaseEngine.crown`, `reading-missing` where neither tooth nor stump was read, `spectrum-wrong`
 */
export function colourOverStump(
  engine: CaseEngine,
  tooth: Fdi,
  choice: DesignChoice,
  { third, ceramic, plates = [], ...colour }: ColourChoice,
  mouth: Mouth = {},
): ThirdMatch | undefined {
  const q = questionOf(engine, tooth, choice, third, colour, mouth);
  if (!q) return undefined;
  const { wanted, cutMm, ceramicMm, enamelMm } = q;
  const all = [...CERAMIC_CLASSES.map(ceramicOfClass), ...plates.map(ceramicOfPlate)];
  // A plate that the house no longer has: the first class stands in, and the screen says so.
  const own = all.find((c) => c.id === ceramic) ?? (all[0] as (typeof all)[number]);
  return {
    ...matched(q, all),
    wanted,
    cutMm,
    ceramicMm,
    enamelMm,
    cements: underCements(q, own),
    deeper: cuttingDeeper(q, own),
  };
}
