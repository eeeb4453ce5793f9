import { deltaE00, type Lab } from '../../colour/lab.js';
import { ceramicOf } from '../../material/ceramics.js';
import type { Deeper } from '../../material/deeper.js';
import type { EnamelGuess } from '../../material/dentin.js';
import type { CementId, CeramicId } from '../../material/ids.js';
import {
  cuttingDeeper,
  type Match,
  type MatchQuestion,
  matched,
  type UnderCement,
  underCements,
} from '../../material/match.js';
import { enamelNormAt, type Mouth } from '../../reduction/removal.js';
import type { DesignChoice } from '../../restoration/restoration.js';
import { THIRDS } from '../../restoration/thickness.js';
import type { FacialThird } from '../../teeth/norms.js';
import type { Fdi } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';
import { zonesOf } from './reduction.js';

/** What is asked of the colour of one third of a tooth's face. */
export interface ColourChoice
  extends Pick<MatchQuestion, 'tooth' | 'stump' | 'toothSpectrum' | 'stumpSpectrum' | 'wanted' | 'cement'> {
  readonly third: FacialThird;
  readonly ceramic: CeramicId;
}

/** What the ceramics look like over the stump of one third, under the plan as it stands. */
export interface ThirdMatch extends Match {
  readonly wanted: Lab;
  /** Of what was read last to what is wanted. */
  readonly nowDE: number;
  readonly cutMm: number;
  readonly ceramicMm: number;
  /** The middle of the norm at that height. */
  readonly enamelMm: number;
  readonly cements: readonly UnderCement[];
  readonly deeper?: Readonly<Record<EnamelGuess, Deeper>> | undefined;
  readonly cement: CementId;
}

/**
 * The colour of one third of a planned tooth under each ceramic, as thick as the plan makes it there and over what the
 * cut leaves. Nothing where no thickness is planned, as over a root.
 * @throws Refusal of `CaseEngine.crown`, `reading-missing` where neither tooth nor stump was read, `spectrum-wrong`
 */
export function colourOverStump(
  engine: CaseEngine,
  tooth: Fdi,
  choice: DesignChoice,
  { third, ceramic, ...colour }: ColourChoice,
  mouth: Mouth = {},
): ThirdMatch | undefined {
  const zone = zonesOf(engine, tooth, choice, mouth).zones.find((z) => z.zone === third)?.removal;
  if (!zone) return undefined;
  const norm = enamelNormAt(THIRDS[third].middle, mouth);
  const q: MatchQuestion = {
    ...colour,
    enamelMm: (norm.from + norm.to) / 2,
    cutMm: zone.remove.value,
    // Where the plan leaves more room than is needed the ceramic fills it.
    ceramicMm: Math.max(0.1, zone.needed, zone.gap + zone.remove.value),
  };
  const own = matched(q);
  const now = colour.stump ?? colour.tooth;
  return {
    ...own,
    wanted: colour.wanted,
    nowDE: now ? deltaE00(now, colour.wanted) : 0,
    cutMm: q.cutMm,
    ceramicMm: q.ceramicMm,
    enamelMm: q.enamelMm,
    cements: underCements(q, ceramicOf(ceramic)),
    deeper: cuttingDeeper(q, ceramicOf(ceramic)),
    cement: colour.cement,
  };
}
