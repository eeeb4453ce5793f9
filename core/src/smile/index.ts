export { alignOnTwo, moved, type Similarity } from './align.js';
export { type FittedCurve, fitArchCurve, type Place } from './arch-fit.js';
export { type BoxOutline, outlineInBox, type ToothBox } from './box-outline.js';
export { type Calibration, LANDMARK_SD_MM, type Px, scaleOf, Z95 } from './calibration.js';
export {
  type CameraMatch,
  cameraAxes,
  lineOfSight,
  matchCamera,
  mmAPixelAt,
  type PhotoCamera,
  type PhotoMark,
  photoPoint,
  photoProjector,
  stoodBy,
} from './camera-match.js';
export { type ArchForm, archDepthFrom, depthsFrom } from './depths.js';
export { type FaceMesh, facePoints } from './face-points.js';
export { byNotice, difference, type Finding, findings } from './findings.js';
export { freeAngle, freeLength } from './free.js';
export { LOWER_CENTRAL_LENGTH, measureFrontDetails } from './front-details.js';
export { FRONT_SD_MM, type FrontSeen, SEEN_FROM_FRONT } from './front-sight.js';
export { gapsBetween, neighbourGap } from './gaps.js';
export {
  LANDMARK_KINDS,
  type LandmarkKind,
  type LandmarkSet,
  levelled,
  requireLandmarks,
  rollOf,
  type ToothLandmarks,
} from './landmarks.js';
export { type Level, levelOfPupils, levelOfTeeth } from './level.js';
export { type Linked, linked, type Sided } from './linked.js';
export {
  edgeCourse,
  type LipContext,
  lipCurve,
  measureRest,
  measureSmile,
  type NeckSeen,
  neckSeen,
  STRAIGHT_BELOW_PERCENT,
} from './lips.js';
export { measureTeeth, ratioFigure, type ToothMeasure } from './measures.js';
export {
  CORRIDOR_JUDGED,
  type Corridor,
  corridor,
  type Deviation,
  DISPLAY_BY_AGE,
  DISPLAY_BY_LIP,
  DISPLAY_BY_SEX,
  displayAtRest,
  displayWords,
  EDGE_CURVE_SHARE,
  type EdgeCurve,
  type LengthWish,
  LIP_LINE_SHARE,
  type LipLine,
  lipLine,
  NOTICED_MM,
  type Notice,
  noticedBy,
  noticedWords,
  type Sex,
  type ValueNorm,
} from './norms.js';
export { type ArchStanding, archFromBelow, measureArch } from './occlusal.js';
export { type Doubtful, doubtfulMeasures } from './plausible.js';
export { measureCantOfCanines, measurePortrait } from './portrait.js';
export { type Marked, propagated } from './propagate.js';
export { along, directionDeg, type ViewFigure, type ViewReading } from './reading.js';
export { type ReferenceCandidate, rankReference } from './reference.js';
export { type Repeat, type Spread, spreadLearned } from './repeats.js';
export { type FoundRuler, findRuler } from './ruler.js';
export { measureSide } from './side.js';
export { type CameraStand, type CameraStood, type ScannedDepth, STRAIGHT, standOf } from './sight.js';
export { type Patch, snapToEdge } from './snap.js';
export { mirrored } from './symmetry.js';
export { type ScannedTooth, scannedSize, usedMeasures } from './used-measures.js';
export { CONTACT_SHARE_PERCENT, type FindingContext, viewFindings } from './view-findings.js';
export { guessView, type ViewGuess } from './view-guess.js';
export { measureView } from './view-measures.js';
export {
  contactsOf,
  LIP_KNOTS,
  type PointSpec,
  pointSpec,
  pointsOf,
  VIEW_IDS,
  VIEW_POINT_IDS,
  type ViewId,
  type ViewPoints,
} from './views.js';
export {
  byScan,
  checkScale,
  type KnownLength,
  PUPILS_MM,
  printed,
  pupils,
  type ScaleCheck,
  type ScaleWay,
  scaleDoubts,
  scaleFrom,
  toothWidth,
} from './ways-of-scale.js';
