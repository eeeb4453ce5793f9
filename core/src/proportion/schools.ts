import { SEEN_FROM_FRONT } from '../smile/front-sight.js';
import {
  type FrontKind,
  type Norm,
  RATIO_CLINICAL,
  RATIO_UNWORN,
  RATIO_WORN,
  RECURRING_RATIO_SOURCE,
  WIDTH,
} from '../teeth/norms.js';
import { MEASURED, published, type Source } from '../working/working.js';

/** The schools by which widths are set; the first is the default: it needs no tooth that is already right. */
export const SCHOOLS = [
  {
    id: 'ratio',
    name: 'width to length',
    reason:
      'Lengths from the edge level, widths from the ratio of unworn anatomical crowns, shared out over the space there is.',
    cost: 'Small characterful irregularities go; the gum covers some of an anatomical crown, so teeth come out slender.',
  },
  {
    id: 'clinical',
    name: 'living crowns',
    reason: 'The same with the ratio of clinical crowns, edge to gum, as they were measured in living people.',
    cost: 'A mean of people as they are, some wear included: broader than the crowns of young teeth.',
  },
  {
    id: 'ratio-worn',
    name: 'worn crowns',
    reason: 'The same with the ratio of worn anatomical crowns: broader for their length, as an older mouth has them.',
    cost: 'Looks settled and a little tired; rarely what is asked for.',
  },
  {
    id: 'reference',
    name: 'reference tooth',
    reason:
      'The tooth that is right sets edge, length and width; the others follow it, each in the proportion of its kind, and where their length does not fit between edge and gum it is told how far the gum would have to move.',
    cost: 'Carries over the faults of the reference tooth.',
  },
  {
    id: 'recurring',
    name: 'recurring ratio',
    reason:
      'Seen from the front each tooth is the same share of the one before it: the share at which the centrals come to 78 % of their height, or one of your own.',
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

/** Norms of width over length, %, and of which crowns they are. */
export interface RatioNorms {
  readonly of: Readonly<Record<FrontKind, Norm>>;
  readonly words: string;
}

/** What is measured in the mouth is compared with this. */
export const LIVING: RatioNorms = { of: RATIO_CLINICAL, words: 'living crowns' };

/** What a school's targets are compared with: the crowns that it takes for its model, else those of living people. */
export function ratioNormsOf(school: SchoolId): RatioNorms {
  if (school === 'ratio') return { of: RATIO_UNWORN, words: 'whole unworn crowns' };
  return school === 'ratio-worn' ? { of: RATIO_WORN, words: 'whole worn crowns' } : LIVING;
}

/**
 * The recurring ratio by the height of the teeth: tall centrals want a smaller one, short ones a larger one. The one at
 * which the central comes to 78 % of its height, within the ratios that its author gives for very tall and very short
 * teeth, 0.62 to 0.80 (Ward 2001, from memory).
 * @param spaceMm along the arch from canine to canine
 * @param heightMm of the centrals as they are planned
 */
export function ratioByHeight(spaceMm: number, heightMm: number): number {
  const { tall, short, share } = BY_HEIGHT;
  const central = (k: number) => {
    const s = fromFront({ lateral: k, canine: k });
    return spaceMm / (2 * (s.central + s.lateral + s.canine));
  };
  // The smaller the ratio, the wider the central.
  let [low, high] = [tall, short] as [number, number];
  if (central(low) <= share * heightMm) return low;
  if (central(high) >= share * heightMm) return high;
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (central(middle) > share * heightMm) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

const BY_HEIGHT = { tall: 0.62, short: 0.8, share: 0.78 } as const;

/** Natural front-view means (Preston 1993, from memory). */
export const NATURAL_SERIES: FrontSeries = { lateral: 0.66, canine: 0.84 };

/** The rule of a school; the reference tooth's has the norms' widths, which its own tooth then scales. */
export function widthRule(s: SchoolSetting): WidthRule {
  switch (s.school) {
    case 'ratio':
      return { ratios: byKind((k) => RATIO_UNWORN[k].value), source: RATIO_UNWORN.central.source };
    case 'clinical':
      return { ratios: byKind((k) => RATIO_CLINICAL[k].value), source: RATIO_CLINICAL.central.source };
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
