export { CARD_LIMITS, CARD_REFLECTS, type PatchRgb, roughColour } from './colour/grey-card.js';
export { deltaE00, differenceWords, type Lab, VISIBLE } from './colour/lab.js';
export {
  type Optics,
  opticsFrom,
  over,
  type Sheet,
  SURFACE,
  sheetOf,
  throughSurface,
  underSurface,
} from './colour/layer.js';
export { LIGHTS, type LightId, OBSERVER } from './colour/observer.js';
export {
  READING_LIGHTS,
  READING_OF,
  READING_ZONES,
  type ReadingLight,
  type ReadingOf,
  type ReadingZone,
} from './colour/reading-words.js';
export { type ColourReading, readingsOfRows, rowsOfReadings } from './colour/readings-table.js';
export { smoothestSpectrum } from './colour/recover.js';
export { rowsOfScale, shadesOfRows } from './colour/scale-table.js';
export { labOfLight, lightOf, screenColour, screenRgb, shownLight } from './colour/screen.js';
export { SCALE_LIMITS, SHADE_NAMES } from './colour/shade-names.js';
export { LETTER_SCALE, nearestShades, type Shade, type ShadeScale, shadeOf } from './colour/shades.js';
export { evenSpectrum, labOf, type Spectrum, spectrumOf, xyzOf } from './colour/spectrum.js';
export { COLOUR_LIMITS, WAVELENGTHS } from './colour/table.js';
export { NM } from './colour/wavelengths.js';
export { type AlignedTooth, alignedFirst, WORTH_MOVING_MM3 } from './contour/align-first.js';
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
} from './contour/arch.js';
export {
  type Contact,
  contactBetween,
  contactLeftOf,
  contacts,
  madeRoom,
  type NarrowedSide,
  setContacts,
  TIGHT_MM,
} from './contour/contacts.js';
export {
  CROWN_RING,
  CROWN_RINGS,
  type Crown,
  type CrownSize,
  crown,
  crownFace,
  ringVertex,
  usualDepth,
} from './contour/crown.js';
export { contourDifference, contourDifferenceQuick } from './contour/difference.js';
export {
  archTurn,
  type ExistingArch,
  type ExistingTooth,
  existingArch,
  type FittedArch,
  fitArch,
} from './contour/fit.js';
export { type CrownForm, FORMS_EDITION } from './contour/form.js';
export { type Hiding, type LaidSmile, type LaidTooth, laidSmile, type PhotoWish } from './contour/laid-smile.js';
export { LOWER_CROWN_FORMS } from './contour/lower-forms.js';
export { facialOutline } from './contour/outline.js';
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
} from './contour/parameters.js';
export { HELD_MM, type MarkedWidth, photoMarks, type ToothPlaces, toothPlaces } from './contour/photo-marks.js';
export { type PhotoOnScan, photoOnScan, type SharedPlace } from './contour/photo-on-scan.js';
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
} from './contour/plan.js';
export { FLOSS_MM, proposedCrowns, type RoomMade, roomAmong } from './contour/proposed.js';
export { LINE_ANGLE_DEG, type ReflectingFace, reflectingFace } from './contour/reflecting-face.js';
export { hasToothNumbers, readScan, type SegmentedScan } from './contour/scan.js';
export {
  BRUSH_LIMITS,
  LEAST_WALL_MM,
  mirroredStroke,
  requireStroke,
  Sculptor,
  type Stroke,
  sculpted,
} from './contour/sculpt.js';
export { CROWN_FORMS } from './contour/upper-forms.js';
export { change as solidChange, type VolumeChange, volumeChange } from './contour/volume.js';
export { type CeramicDifference, NO_FIGURES, type OptionFigures, type ToothFacts } from './decide/facts.js';
export { type Holding, holdingOf } from './decide/holding.js';
export {
  HOLDING_WALL_MM,
  OPTION_IDS,
  type OptionId,
  RULE_IDS,
  RULE_LIMITS,
  type RuleId,
  type RuleLimitRange,
} from './decide/ids.js';
export { type Holds, isCrown, isVeneer, OPTIONS, type Option, optionOf } from './decide/options.js';
export { ALL_RULES, type HouseRules, type Ranked, ranked, type Said } from './decide/rank.js';
export { type Effect, RULES, type Rule, type Verdict } from './decide/rules.js';
export {
  STRENGTH_CLASSES,
  STRENGTH_SOURCE,
  type StrengthClass,
  strengthClassOf,
  strengthOf,
} from './decide/strength.js';
export * from './direct/index.js';
export type { BiteView, BiteWish, CentralOverlap, Guidance } from './engine/bite.js';
export { Bite } from './engine/bite.js';
export {
  CaseEngine,
  LATER_STATES,
  type LaterState,
  type PlanChange,
  planChange,
  ScannedJaw,
} from './engine/case-engine.js';
export { type PickedTooth, type PickedView, Picking } from './engine/picking.js';
export type { CutView } from './engine/queries/cut.js';
export type { Difference } from './engine/queries/difference.js';
export type { DirectTold, PlacedBody } from './engine/queries/direct.js';
export type { DirectColours, ThirdLayers } from './engine/queries/direct-colours.js';
export type { ClosedGap } from './engine/queries/direct-gaps.js';
export type { CanineLead } from './engine/queries/direct-lead.js';
export { type DirectView, TOOTH_PLACES, type ToothPlace } from './engine/queries/direct-view.js';
export type { ExistingSummary } from './engine/queries/existing.js';
export type { FaceOfTooth } from './engine/queries/faces.js';
export type { Guide } from './engine/queries/guide.js';
export { ask, type QueryInput, type QueryName, type QueryOutput } from './engine/queries/index.js';
export type { ColourChoice, ReadColour, ThirdMatch } from './engine/queries/match.js';
export type { OptionsTold } from './engine/queries/options.js';
export {
  type CommonWay,
  type PreparedView,
  type PrepStanding,
  type PrepToothVerdict,
  type PrepVerdict,
  type ShellTried,
  verdictOf,
} from './engine/queries/preparation.js';
export type { CutChoice, ToldTarget } from './engine/queries/reduction.js';
export type { ToothLook, ToothRead } from './engine/queries/smile-colours.js';
export type { WhatIf } from './engine/queries/what-if.js';
export {
  type ByHand,
  type FirstScan,
  firstScan,
  type Laid,
  type Opened,
  type Progress,
  RawJaw,
  type ThreePlaces,
  type WorkingCopy,
} from './engine/raw-jaw.js';
export { Refusal, type RefusalCode } from './errors.js';
export { type AnyMesh, MOST_TRIANGLES, meshFormat, readMesh, requireMesh } from './formats/any-mesh.js';
export { isObj, readObj, writeObj } from './formats/obj.js';
export { withoutOwner } from './formats/picture-owner.js';
export { isPly, type PlyContent, readPly, writePly } from './formats/ply.js';
export { readStl, type StlContent, writeStlAscii, writeStlBinary } from './formats/stl.js';
export {
  type Adjacency,
  acrossOf,
  adjacencyOf,
  CROWDED,
  neighbourhoodOf,
  OPEN,
  openLoops,
} from './geometry/adjacency.js';
export { type Axes, type ColumnGrid, eachMeeting, gridOver, lengthOutside, spans } from './geometry/columns.js';
export { type Curve, monotoneCurve, smoothstep } from './geometry/curve.js';
export {
  directionToParent,
  type Frame,
  frameFrom,
  inverse,
  nested,
  shift,
  toLocal,
  toParent,
  turn,
  WORLD,
} from './geometry/frame.js';
export {
  area,
  type Bounds,
  bounds,
  cutOut,
  type Mesh,
  mergeMeshes,
  meshInFrame,
  pieces,
  placeMesh,
  triangleArea,
  triangleCount,
  vertex,
  vertexCount,
  vertexNormals,
  volume,
  weld,
} from './geometry/mesh.js';
export { type CutGraph, cutInTwo } from './geometry/min-cut.js';
export { type AlignOptions, alignFrame } from './geometry/register.js';
export { enclosedArea, reachAtLevel, type SectionLine, section } from './geometry/section.js';
export { box, cylinder, sphere } from './geometry/shapes.js';
export { leastSquares, solve } from './geometry/solve.js';
export { buildTree, refitTree, type Tree } from './geometry/tree/build.js';
export { type Cells, cellsOf, firstThrough } from './geometry/tree/cells.js';
export { type ClosestPoints, closestPoint, closestPoints } from './geometry/tree/closest.js';
export { liesInside, type RayCaster, type RayHit, rayCaster } from './geometry/tree/ray.js';
export { faceNormals, type SignedField, sheetDistances, signedDistances, signedField } from './geometry/tree/signed.js';
export { type Defect, describeDefects, inspectMesh, type MeshReport, requireSound } from './geometry/validate.js';
export * from './geometry/vec.js';
export {
  type AtThickness,
  colourOver,
  hidesFrom,
  type Layer,
  layersOf,
  type Made,
  overThickness,
  seenOver,
  stumpFrom,
  THICKNESSES,
  translucency,
} from './material/appearance.js';
export { CEMENT_MM, CEMENTS, type Cement, cementOf } from './material/cement.js';
export {
  CERAMIC_CLASSES,
  type Ceramic,
  type CeramicClass,
  ceramicIn,
  ceramicOf,
  ceramicOfClass,
  TISSUES,
} from './material/ceramics.js';
export { type AtDepth, beneath, type Deeper, deeper, stumpAfter, type ToothColour } from './material/deeper.js';
export { DARK_L, dentinUnder, ENAMEL_IN_THE_MOUTH, type EnamelGuess } from './material/dentin.js';
export {
  CEMENT_IDS,
  CERAMIC_IDS,
  type CementId,
  type CeramicId,
  isPlateId,
  PLATE_LIMITS,
  plateId,
} from './material/ids.js';
export {
  type Candidate,
  cuttingDeeper,
  lookedUp,
  MATCH_PM,
  type Match,
  type MatchQuestion,
  matched,
  plannedDifference,
  type Through,
  throughCeramic,
  type UnderCement,
  underCements,
} from './material/match.js';
export {
  ceramicOfPlate,
  type MeasuredCeramic,
  measuredOptics,
  PLATE_READINGS,
  plateFault,
  plateOfRows,
  rowsOfPlate,
} from './material/measured.js';
export { CANINE_WEAR_MM, type LeadSaid, leadSaid, SIDE_STEP_MM, type SideLead } from './occlusion/guidance.js';
export { biteGrid, HEIGHT_STEP_MM, type HeightField, heightField, type JawTooth } from './occlusion/heights.js';
export { type LeadBack, type LeadStep, leadBack } from './occlusion/lead-back.js';
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
} from './occlusion/movement.js';
export { type Overlap, overlapOf } from './occlusion/overlap.js';
export { type Resting, restingOn } from './occlusion/resting.js';
export * from './prep/index.js';
export {
  adviseEdge,
  adviseGum,
  DEEP_OVERBITE_MM,
  type EdgeAdvice,
  type EdgeFacts,
  type EdgeOutcome,
  edgeOutcome,
  type GumFacts,
  type LevelMouth,
  levelMouth,
  roomToLowerLip,
  SPEECH_MARGIN_MM,
  type SpeechRoom,
  speechRoom,
} from './proportion/edge.js';
export { LIKED_BORDERS, likedSeries } from './proportion/liked.js';
export { EDGE_LIMITS, GUM_LIMITS } from './proportion/limits.js';
export { gumUpOf } from './proportion/notes.js';
export { LATERAL_EDGE_UP_MM, propose, recurringWidths } from './proportion/proposal.js';
export {
  type FrontSeries,
  GOLDEN,
  LIVING,
  NATURAL_SERIES,
  type RatioNorms,
  ratioByHeight,
  ratioNormsOf,
  SCHOOLS,
  type SchoolId,
  type SchoolSetting,
  type WidthRule,
  widthRule,
} from './proportion/schools.js';
export { type SharedSpace, shareSpace, type WidthWish } from './proportion/share-space.js';
export { type Proposal, type ProposalChoice, type ToothTarget, WIDTH_BAND } from './proportion/target.js';
export * from './protocol/index.js';
export { type BiteRoom, biteRoom } from './reduction/bite-room.js';
export { blockOut, type Wall } from './reduction/block-out.js';
export {
  BUR_LIMITS,
  BUR_SHAPES,
  type Bur,
  type BurShape,
  type BurSize,
  burFault,
  burId,
  burName,
  GRITS,
  type Grit,
  hasTip,
  isoDiameter,
  leanDeg,
} from './reduction/burs/bur.js';
export {
  chooseGrooves,
  type Groove,
  type GrooveSite,
  type GrooveWish,
  groove,
  type HandChoice,
  type TrayChoice,
} from './reduction/burs/choose.js';
export { ENGAGEMENTS, type Engagement, engagements, type How, tiltedDepth } from './reduction/burs/engagement.js';
export { distanceToBur, outlineOf, radiusAt } from './reduction/burs/profile.js';
export {
  DEPTH_TOLERANCE_MM,
  FIRST_TRAY,
  finishes,
  TOLERANCE_LIMITS,
  TRAY_LIMITS,
  type Tray,
  trayFault,
} from './reduction/burs/tray.js';
export { bursOfRows, rowsOfTray, TRAY_COLUMNS } from './reduction/burs/tray-rows.js';
export { bursOf, cutLists, engagementOf, type ToothCutList } from './reduction/cut-list/cut-list.js';
export { CUT_COLUMNS, cutRows } from './reduction/cut-list/cut-rows.js';
export { type CutStep, levelOf, SPEEDS, type Speed, type StepPlace } from './reduction/cut-list/steps.js';
export { type FacialPlace, facialPlaces } from './reduction/facial-places.js';
export { LEAST_PRINTED_MM, LIES, type Lie, type PrintCheck, printCheck } from './reduction/guides/print-check.js';
export { CHAMFER_MM, slabOver } from './reduction/guides/sheet.js';
export {
  reductionBetween,
  type ToothReduction,
  toothReduction,
  type ZoneTarget,
} from './reduction/plan.js';
export { LEAST_OVER_PULP, type OverPulp, overPulp, PULP_PM_MM } from './reduction/pulp.js';
export {
  type EnamelLeft,
  type EnamelNorm,
  type EnamelState,
  enamelLeft,
  enamelNormAt,
  enamelWords,
  type Mouth,
  NOTHING_MM,
  type Removal,
  removal,
} from './reduction/removal.js';
export {
  AT_AXIS,
  SECTION_LIMITS,
  type SectionDimension,
  type SectionPlace,
  type SectionPoint,
  sectionToMouth,
  type ToothSection,
  toothSection,
} from './reduction/section.js';
export { STRATEGIES, strategyOf } from './reduction/strategies/index.js';
export type { Strategy } from './reduction/strategies/strategy.js';
export { CUT_WAYS, type CutFrom } from './reduction/strategies/words.js';
export { distanceTo, type Pose, type Swept, sweepOver } from './reduction/sweep.js';
export {
  type CrownSpan,
  type MarginPlace,
  type TargetSurface,
  targetBetween,
  targetOf,
  targetSurface,
} from './reduction/target.js';
export { TARGET_PLACES, type TargetPlace } from './reduction/target-grid.js';
export {
  areasBefore,
  type TargetTold,
  type TargetZone,
  targetTold,
  type ZoneRemoval,
} from './reduction/target-zones.js';
export { type WayOut, type WayTold, waysOut, wayTold, wayWords } from './reduction/way-out.js';
export { ZONES, type Zone } from './reduction/zones.js';
export { ATTACHMENT } from './restoration/attachment.js';
export {
  CONTACT_RULES,
  type ContactRule,
  type Design,
  designKey,
  type EdgeNeed,
  type FinishForm,
  type FinishLine,
  onlyAdded,
  RESTORATION_KINDS,
  type RestorationKind,
  type Surface,
  type ToothGroup,
  WAY_LIMITS,
  type WayByHand,
} from './restoration/design.js';
export {
  CHOSEN_DESIGNS,
  DESIGN_IDS,
  DESIGNS,
  type DesignId,
  designOf,
  designOn,
  familyOf,
} from './restoration/designs.js';
export { inMaterial, MATERIALS, type Material, type MaterialId, materialsFor } from './restoration/material.js';
export {
  limitsAt,
  MARGIN_LIMITS,
  type OwnThickness,
  SLOPE_LIMITS,
  TAPER_LIMITS,
  THICKNESS_LIMITS,
  WISHED_PLACES,
  WISHED_WORDS,
  type WishedPlace,
  wishContact,
  wishedAt,
  wishOf,
  withThickness,
} from './restoration/own-thickness.js';
export {
  type DesignChoice,
  type MoreForBite,
  type Restoration,
  ROOM_LIMITS,
  ROOM_PLACES,
  type RoomPlace,
  restorationOf,
  type ToothWay,
  takesAWay,
  takesRoom,
} from './restoration/restoration.js';
export { neededAt, overThirds, preparedEdge, THIRDS, thirdAt } from './restoration/thickness.js';
export { asSegmented, closedTooth, partOf } from './scan/closed-tooth.js';
export { type Doubt, SHORT_MM } from './scan/doubts.js';
export { type FrameMatrix, frameInHead, isFrameMatrix, matrixInto, mouthBy } from './scan/kept-frame.js';
export { type Ground, groundOf, type LaidOn, layOnto, startFromPlaces } from './scan/lay-onto.js';
export { frameFromClicks, JAW_MM, type MouthProposal, mouthFrame } from './scan/mouth-frame.js';
export { neckLines, PULL_SIDE_MM, pulledLine, pullShare } from './scan/neck-line.js';
export { type LookedAt, lookAtJaw, type Picked, pickedAs, pickTeeth, placeAtVertex } from './scan/own-scan.js';
export { type PickedCrown, type PickedSize, pickedCrowns } from './scan/picked-crown.js';
export {
  inMouthOf,
  type LaidByShape,
  laidByClicks,
  laidByShape,
  laidFrom,
  lookedAnew,
  nearerFrame,
} from './scan/refine.js';
export { type Repair, type Repaired, type RepairKind, repaired, vectorArea, withCaps } from './scan/repair.js';
export { onRow, type RowCurve, type RowSight, rowCurve, rowSight, type ToothRoom } from './scan/row.js';
export { likeliestRow, type NumberedRow } from './scan/row-path.js';
export * from './schedule/index.js';
export { alignOnTwo, moved, type Similarity } from './smile/align.js';
export { type FittedCurve, fitArchCurve, type Place } from './smile/arch-fit.js';
export { type BoxOutline, outlineInBox, type ToothBox } from './smile/box-outline.js';
export { type Calibration, LANDMARK_SD_MM, type Px, scaleOf, Z95 } from './smile/calibration.js';
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
} from './smile/camera-match.js';
export { type ArchForm, archDepthFrom, depthsFrom } from './smile/depths.js';
export { type FaceMesh, facePoints } from './smile/face-points.js';
export { byNotice, difference, type Finding, findings } from './smile/findings.js';
export { freeAngle, freeLength } from './smile/free.js';
export { LOWER_CENTRAL_LENGTH, measureFrontDetails } from './smile/front-details.js';
export { FRONT_SD_MM, type FrontSeen, SEEN_FROM_FRONT } from './smile/front-sight.js';
export { gapsBetween, neighbourGap } from './smile/gaps.js';
export {
  LANDMARK_KINDS,
  type LandmarkKind,
  type LandmarkSet,
  levelled,
  requireLandmarks,
  rollOf,
  type ToothLandmarks,
} from './smile/landmarks.js';
export { type Level, levelOfPupils, levelOfTeeth } from './smile/level.js';
export { type Linked, linked, type Sided } from './smile/linked.js';
export {
  edgeCourse,
  type LipContext,
  lipCurve,
  measureRest,
  measureSmile,
  type NeckSeen,
  neckSeen,
  STRAIGHT_BELOW_PERCENT,
} from './smile/lips.js';
export { measureTeeth, ratioFigure, type ToothMeasure } from './smile/measures.js';
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
} from './smile/norms.js';
export { type ArchStanding, archFromBelow, measureArch } from './smile/occlusal.js';
export { type Doubtful, doubtfulMeasures } from './smile/plausible.js';
export { measureCantOfCanines, measurePortrait } from './smile/portrait.js';
export { type Marked, propagated } from './smile/propagate.js';
export { along, directionDeg, type ViewFigure, type ViewReading } from './smile/reading.js';
export { type ReferenceCandidate, rankReference } from './smile/reference.js';
export { type Repeat, type Spread, spreadLearned } from './smile/repeats.js';
export { type FoundRuler, findRuler } from './smile/ruler.js';
export { measureSide } from './smile/side.js';
export { type CameraStand, type CameraStood, type ScannedDepth, STRAIGHT, standOf } from './smile/sight.js';
export { type Patch, snapToEdge } from './smile/snap.js';
export { mirrored } from './smile/symmetry.js';
export { type ScannedTooth, scannedSize, usedMeasures } from './smile/used-measures.js';
export { CONTACT_SHARE_PERCENT, type FindingContext, viewFindings } from './smile/view-findings.js';
export { guessView, type ViewGuess } from './smile/view-guess.js';
export { measureView } from './smile/view-measures.js';
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
} from './smile/views.js';
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
} from './smile/ways-of-scale.js';
export {
  CLINICAL_CROWN,
  FACIAL_ENAMEL,
  type FacialThird,
  type FrontKind,
  isFrontKind,
  LENGTH_ASYMMETRY_NOTICED,
  LENGTH_UNWORN,
  LENGTH_WORN,
  type Norm,
  RATIO_CLINICAL,
  RATIO_UNWORN,
  RATIO_WORN,
  ratioOff,
  WIDTH,
  ZENITH_DISTAL,
} from './teeth/norms.js';
export {
  across,
  distalNeighbour,
  type Fdi,
  fromUniversal,
  isFdi,
  isPremolar,
  isUpper,
  type Jaw,
  jawOf,
  kindName,
  kindOf,
  LOWER_TEN,
  label,
  mesialNeighbour,
  NOTATION_NAMES,
  type Notation,
  opposite,
  PLANNABLE,
  type Side,
  sideOf,
  type ToothKind,
  toUniversal,
  UPPER_TEN,
} from './teeth/notation.js';
export { CLOSED_GAP_MM, frontRow, OWN_ROLES, type Roles, roleOf, rolesOf } from './teeth/roles.js';
export { type UsualSize, usualSize } from './teeth/usual-sizes.js';
export { SCAN_PM_MM, SCANNED, SCANNED_SIZE_PM_MM } from './working/accuracy.js';
export { median } from './working/middle.js';
export * from './working/working.js';
