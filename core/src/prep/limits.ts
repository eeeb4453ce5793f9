import { COMMON_PRACTICE, published, type Source } from '../working/working.js';
import { CORNER_LIMITS } from './finish-limits.js';

/** A limit of a check, and where it comes from. */
export interface PrepLimit {
  readonly value: number;
  readonly source: Source;
}

const HOUSE: Source = { mark: 'house', text: 'house value' };
const WALLS = published('Goodacre, Campagni, Aquilino 2001, J Prosthet Dent 85:363');

/** Beyond these a check speaks, once the measurement is sure of it. */
export const PREP_LIMITS = {
  /** Still to cut, or cut too much, over most of a zone, mm. */
  short: { value: 0.1, source: HOUSE },
  over: { value: 0.2, source: HOUSE },
  /** The same of a crown, under which enamel is gone anyway and walls are led by the way out, mm. */
  overCrown: { value: 0.4, source: HOUSE },
  /** An edge that is less level than it was to be, mm. */
  uneven: { value: 0.2, source: HOUSE },
  /** A face that falls short in its middle against its ends, mm. */
  flat: { value: 0.12, source: HOUSE },
  /** Area that hangs over on the way out, mm². */
  undercut: { value: 1, source: HOUSE },
  /** Both walls of a pair together, degrees. */
  pairLeast: { value: 6, source: COMMON_PRACTICE },
  /** And more than the target's own, which follows the planned contour. */
  pairOver: { value: 4, source: HOUSE },
  pairMost: { value: 20, source: WALLS },
  /** Front teeth and premolars, mm; and of the height to the base. */
  wallHeight: { value: 3, source: WALLS },
  heightShare: { value: 0.4, source: WALLS },
  /** A finish line that ends higher or lower than it was to, mm: over most of a stretch. */
  level: { value: 0.4, source: HOUSE },
  /** How far the course of a finish line may leap from its own mean, mm, for nine places in ten. */
  ragged: { value: 0.15, source: HOUSE },
  /** How much deeper a groove inside the finish line may be than the cut behind it, mm: outside it stands a lip. */
  lip: { value: 0.12, source: HOUSE },
  /** A ledge narrower than this share of what was asked. */
  ledgeShare: { value: 0.6, source: HOUSE },
  /** What a mill's smallest tool can go round, mm of radius, where a house has not set its own. */
  corner: { value: CORNER_LIMITS.usual, source: COMMON_PRACTICE },
  /** From a post or a core to the teeth across, mm. */
  coreRoom: { value: 1, source: COMMON_PRACTICE },
  /** Between a crown's side and the tooth beside it, mm. */
  contactRoom: { value: 0.5, source: COMMON_PRACTICE },
  /** A veneer that ends half way into the contact, or leaves it: how far that may have opened, mm. */
  contactHalfWay: { value: 0.25, source: HOUSE },
  contactOpened: { value: 0.1, source: HOUSE },
  /** How far a cut may lie off a smooth surface, mm root mean square: a scanner's noise is a part of it. */
  rough: { value: 0.04, source: HOUSE },
  /** Depth to which a neighbour may differ from before, mm. */
  nick: { value: 0.1, source: HOUSE },
} as const satisfies Readonly<Record<string, PrepLimit>>;
