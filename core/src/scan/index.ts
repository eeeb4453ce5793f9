export { asSegmented, closedTooth, partOf } from './closed-tooth.js';
export { type Doubt, SHORT_MM } from './doubts.js';
export { type FrameMatrix, frameInHead, isFrameMatrix, matrixInto, mouthBy } from './kept-frame.js';
export { type Ground, groundOf, type LaidOn, layOnto, startFromPlaces } from './lay-onto.js';
export { frameFromClicks, JAW_MM, type MouthProposal, mouthFrame } from './mouth-frame.js';
export { neckLines, PULL_SIDE_MM, pulledLine, pullShare } from './neck-line.js';
export { type LookedAt, lookAtJaw, type Picked, pickedAs, pickTeeth, placeAtVertex } from './own-scan.js';
export { type PickedCrown, type PickedSize, pickedCrowns } from './picked-crown.js';
export {
  inMouthOf,
  type LaidByShape,
  laidByClicks,
  laidByShape,
  laidFrom,
  lookedAnew,
  nearerFrame,
} from './refine.js';
export { type Repair, type Repaired, type RepairKind, repaired, vectorArea, withCaps } from './repair.js';
export { onRow, type RowCurve, type RowSight, rowCurve, rowSight, type ToothRoom } from './row.js';
export { likeliestRow, type NumberedRow } from './row-path.js';
