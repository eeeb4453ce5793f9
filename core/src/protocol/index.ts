export { type AtVisit, type Cut, usualCord, WHOLE_ARCH_FROM } from './at-visit.js';
export { type Lot, lotOf } from './lot.js';
export { type Answer, HOLD_UPS, type HoldUp, type Looked, nextLook, type Trial, tightContacts } from './not-home.js';
export {
  type Beware,
  hasGlass,
  isAdhesive,
  isResin,
  type MouthNow,
  type Piece,
  type PieceMaterial,
  usualCement,
} from './piece.js';
export { fixing, laidOut, type Protocol, protocolOf, teethOfVisit } from './protocol.js';
export { BLEACH_REST_DAYS, LIGHT_THROUGH_MM, lightThroughMm, type MustNot, mustNot } from './refuse.js';
export { inRow, pairsOf, type SeatGroup, seatOrder, touch, untouchedContacts } from './seat-order.js';
export type { Step } from './step.js';
export { type StockRow, stockFromRows } from './stock.js';
export { OWN_TIMES_FROM, type OwnTimes, ownTimes, type Taken } from './taken.js';
export { type Clock, type Look, leftMs, lookAgain, startClock, type Timer, timeOf } from './timers.js';
export {
  BASES,
  type Base,
  CEMENT_KINDS,
  type CementKind,
  CORDS,
  type Cord,
  GATES,
  type GateId,
  OLD_WORKS,
  type OldWork,
  PROVISIONALS,
  type Provisional,
} from './words.js';
