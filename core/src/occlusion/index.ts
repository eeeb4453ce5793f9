export { CANINE_WEAR_MM, type LeadSaid, leadSaid, SIDE_STEP_MM, type SideLead } from './guidance.js';
export { biteGrid, HEIGHT_STEP_MM, type HeightField, heightField, type JawTooth } from './heights.js';
export { type LeadBack, type LeadStep, leadBack } from './lead-back.js';
export {
  alongAngle,
  clearances,
  closing,
  type Direction,
  type JawShift,
  type Lead,
  leadOf,
  type Movement,
  type MovementStep,
  onTheTeeth,
  spaceOver,
  spaceUnder,
  TOUCH_MM,
  type ToothClearance,
} from './movement.js';
export { type Overlap, overlapOf } from './overlap.js';
export { type Resting, restingOn } from './resting.js';
