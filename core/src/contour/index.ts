export { type AlignedTooth, alignedFirst, WORTH_MOVING_MM3 } from './align-first.js';
export {
  type ArchCurve,
  type ArchPlace,
  AXIS,
  alongArch,
  archSide,
  frameToArch,
  frontOf,
  MEDIUM_ARCH,
  meshToArch,
  placesAlong,
  placeTeeth,
  quadrantOf,
  type Room,
  rotateTooth,
  rowOf,
  type Stand,
  standingFrame,
  turnedOver,
} from './arch.js';
export {
  type Contact,
  contactBetween,
  contactLeftOf,
  contacts,
  madeRoom,
  type NarrowedSide,
  setContacts,
  TIGHT_MM,
} from './contacts.js';
export {
  CROWN_RING,
  CROWN_RINGS,
  type Crown,
  type CrownSize,
  crown,
  crownFace,
  ringVertex,
  usualDepth,
} from './crown.js';
export { contourDifference, contourDifferenceQuick } from './difference.js';
export {
  archTurn,
  type ExistingArch,
  type ExistingTooth,
  existingArch,
  type FittedArch,
  fitArch,
} from './fit.js';
export { type CrownForm, FORMS_EDITION } from './form.js';
export { type Hiding, type LaidSmile, type LaidTooth, laidSmile, type PhotoWish } from './laid-smile.js';
export { LOWER_CROWN_FORMS } from './lower-forms.js';
export { facialOutline } from './outline.js';
export {
  CROWN_CHARACTERS,
  CROWN_LIMITS,
  type CrownCharacter,
  type CrownShape,
  type Limit,
  PLAN_DEFAULTS,
  PLAN_LIMITS,
  type PlanExtra,
  type PlanNumber,
} from './parameters.js';
export { HELD_MM, type MarkedWidth, photoMarks, type ToothPlaces, toothPlaces } from './photo-marks.js';
export { type PhotoOnScan, photoOnScan, type SharedPlace } from './photo-on-scan.js';
export {
  type ContourPlan,
  type CrownMaker,
  type CrownTarget,
  crownSize,
  crownZenith,
  FIRST_GAP_MM,
  type FromWaxUp,
  firstContour,
  inMouth,
  isPlannable,
  type PlannedTooth,
  planFromWaxUp,
  plannedTooth,
  planOfExisting,
  planOfTooth,
  type ToothPlan,
  takenIn,
  widthsToMidline,
} from './plan.js';
export { FLOSS_MM, proposedCrowns, type RoomMade, roomAmong } from './proposed.js';
export { LINE_ANGLE_DEG, type ReflectingFace, reflectingFace } from './reflecting-face.js';
export { hasToothNumbers, readScan, type SegmentedScan } from './scan.js';
export {
  BRUSH_LIMITS,
  LEAST_WALL_MM,
  mirroredStroke,
  requireStroke,
  Sculptor,
  type Stroke,
  sculpted,
} from './sculpt.js';
export { CROWN_FORMS } from './upper-forms.js';
export { change as solidChange, type VolumeChange, volumeChange } from './volume.js';
