export { handFindings, handNeed, handPlaces } from './by-hand.js';
export type { Checked } from './checks/checked.js';
export { type BestWay, bestWay, type Facing, spread, undercutMm2, type WayCone, wayCone } from './draw.js';
export { facingOf, facingTogether } from './facing.js';
export { PREP_CHECKS, type PrepCheck, type PrepFinding, type PrepState, worstState } from './finding.js';
export type { FinishByHand } from './finish-found.js';
export { CORNER_LIMITS, FINISH_LIMITS } from './finish-limits.js';
export {
  HAND_LIMITS,
  HAND_PLACES,
  HAND_WAYS,
  type HandPlace,
  type HandReading,
  type HandWay,
} from './hand-words.js';
export type { Laid as LaidLater } from './laid.js';
export { PREP_LIMITS, type PrepLimit } from './limits.js';
export type { Recut } from './recut.js';
export type { ZoneRoom } from './room.js';
export { SHELL_LIMITS, SHELL_WALL_MM, type ShellBind, type ShellOn } from './shell.js';
export { tippingLimitDeg } from './tipping.js';
