import { SEEN_FROM_FRONT } from '../smile/front-sight.js';
import { type FrontKind, RATIO_UNWORN, RATIO_WORN, RECURRING_RATIO_SOURCE, WIDTH } from '../teeth/norms.js';
import { MEASURED, published, type Source } from '../working/working.js';

/** The schools by which widths are set; the first is the default: it needs no tooth that is already right. */
export const SCHOOLS = [
  {
    id: 'ratio',
    name: 'width to length',
    reason: 'Lengths from the edge level, widths from the ratio of unworn teeth, shared out over the space there is.',
    cost: 'Moves every tooth towards the mean; small characterful irregularities go.',
  },
  {
    id: 'ratio-worn',
    name: 'width to length, worn',
    reason: 'The same with the ratio of worn teeth: broader for their length, as an older mouth has them.',
    cost: 'Looks settled and a little tired; rarely what is asked for.',
  },
  {
    id: 'reference',
    name: 'reference tooth',
    reason: 'The tooth that is right sets length and width; the others follow it, each in the proportion of its kind.',
    cost: 'Carries over the faults of the reference tooth.',
  },
  {
    id: 'recurring',
    name: 'recurring ratio',
    reason: 'Seen from the front each tooth is the same share of the one before it; the share is yours to choose.',
    cost: 'Speaks of the front view alone: side teeth come out as the arch turns them.',
  },
  {
    id: 'golden',
    name: 'golden ratio',
    reason: 'The recurring ratio at 0.618: strong centrals, narrow sides.',
    cost: 'Few natural mouths have it; laterals and canines come out narrow.',
  },
  {
    id: 'natural',
    name: 'natural means',
    reason:
      'Front-view widths as they were measured in people: lateral 0.66 of the central, canine 0.84 of the lateral.',
    cost: 'A mean of people, not of beautiful ones.',
  },
  {
    id: 'population',
    name: 'population widths',
    reason: 'Each tooth its mean width: 8.5, 6.5 and 7.5 mm, shared out over the space.',
    cost: 'Takes no notice of this mouth’s lengths.',
  },
  {
    id: 'liked',
    name: 'a smile that is liked',
    reason: 'The front-view proportions of a photograph that the patient likes, measured there and carried over.',
    cost: 'Another mouth’s teeth: see whether lengths and arch bear them.',
  },
] as const;

export type SchoolId = (typeof SCHOOLS)[number]['id'];

/** Widths of a lateral and a canine over the tooth before them, as seen from the front. */
export interface FrontSeries {
  readonly lateral: number;
  readonly canine: number;
}

const LEVIN = published('Levin 1978, J Prosthet Dent 40:244');
const PRESTON = published('Preston 1993, J Prosthodont 2:247');

/** Levin's ratio. */
export const GOLDEN = 2 / (1 + Math.sqrt(5));

export interface SchoolSetting {
  readonly school: SchoolId;
  /** Ratio of the recurring school, 0.5–1. */
  readonly ratio?: number;
  readonly liked?: FrontSeries;
}

/** What a school wishes of widths, as shares of one another, and where that comes from. */
export interface WidthRule {
  /** Crown widths by kind over the central's. Undefined where the widths follow from each tooth's length. */
  readonly shares?: Readonly<Record<FrontKind, number>>;
  /** Width over length by kind, %. */
  readonly ratios?: Readonly<Record<FrontKind, number>>;
  readonly source: Source;
}

/** Front-view widths to crown widths: each divided by the share of it that the front shows. */
function fromFront(series: FrontSeries): Record<FrontKind, number> {
  const seen = (kind: FrontKind) => SEEN_FROM_FRONT[kind].width;
  return {
    central: 1,
    lateral: (series.lateral * seen('central')) / seen('lateral'),
    canine: (series.lateral * series.canine * seen('central')) / seen('canine'),
  };
}

/** Natural front-view means (Preston 1993, from memory). */
export const NATURAL_SERIES: FrontSeries = { lateral: 0.66, canine: 0.84 };

/** The rule of a school; the reference tooth's has the norms' widths, which its own tooth then scales. */
export function widthRule(s: SchoolSetting): WidthRule {
  switch (s.school) {
    case 'ratio':
      return { ratios: byKind((k) => RATIO_UNWORN[k].value), source: RATIO_UNWORN.central.source };
    case 'ratio-worn':
      return { ratios: byKind((k) => RATIO_WORN[k].value), source: RATIO_WORN.central.source };
    case 'recurring': {
      const k = s.ratio ?? 0.7;
      return { shares: fromFront({ lateral: k, canine: k }), source: RECURRING_RATIO_SOURCE };
    }
    case 'golden':
      return { shares: fromFront({ lateral: GOLDEN, canine: GOLDEN }), source: LEVIN };
    case 'natural':
      return { shares: fromFront(NATURAL_SERIES), source: PRESTON };
    case 'liked':
      return { shares: fromFront(s.liked ?? NATURAL_SERIES), source: MEASURED };
    default:
      return { shares: byKind((k) => WIDTH[k].value / WIDTH.central.value), source: WIDTH.central.source };
  }
}

const byKind = (of: (k: FrontKind) => number): Record<FrontKind, number> => ({
  central: of('central'),
  lateral: of('lateral'),
  canine: of('canine'),
});
