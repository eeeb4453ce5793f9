export { type BiteRoom, biteRoom } from './bite-room.js';
export { blockOut, type Wall } from './block-out.js';
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
} from './burs/bur.js';
export {
  chooseGrooves,
  type Groove,
  type GrooveSite,
  type GrooveWish,
  groove,
  type HandChoice,
  type TrayChoice,
} from './burs/choose.js';
export { ENGAGEMENTS, type Engagement, engagements, type How, tiltedDepth } from './burs/engagement.js';
export { distanceToBur, outlineOf, radiusAt } from './burs/profile.js';
export {
  DEPTH_TOLERANCE_MM,
  FIRST_TRAY,
  finishes,
  TOLERANCE_LIMITS,
  TRAY_LIMITS,
  type Tray,
  trayFault,
} from './burs/tray.js';
export { bursOfRows, rowsOfTray, TRAY_COLUMNS } from './burs/tray-rows.js';
export { bursOf, cutLists, engagementOf, type ToothCutList } from './cut-list/cut-list.js';
export { CUT_COLUMNS, cutRows } from './cut-list/cut-rows.js';
export { type CutStep, levelOf, SPEEDS, type Speed, type StepPlace } from './cut-list/steps.js';
export { type FacialPlace, facialPlaces } from './facial-places.js';
export { LEAST_PRINTED_MM, LIES, type Lie, type PrintCheck, printCheck } from './guides/print-check.js';
export { CHAMFER_MM, slabOver } from './guides/sheet.js';
export {
  reductionBetween,
  type ToothReduction,
  toothReduction,
  type ZoneTarget,
} from './plan.js';
export { LEAST_OVER_PULP, type OverPulp, overPulp, PULP_PM_MM } from './pulp.js';
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
} from './removal.js';
export {
  AT_AXIS,
  SECTION_LIMITS,
  type SectionDimension,
  type SectionPlace,
  type SectionPoint,
  sectionToMouth,
  type ToothSection,
  toothSection,
} from './section.js';
export { STRATEGIES, strategyOf } from './strategies/index.js';
export type { Strategy } from './strategies/strategy.js';
export { CUT_WAYS, type CutFrom } from './strategies/words.js';
export { distanceTo, type Pose, type Swept, sweepOver } from './sweep.js';
export {
  type CrownSpan,
  type MarginPlace,
  type TargetSurface,
  targetBetween,
  targetOf,
  targetSurface,
} from './target.js';
export { TARGET_PLACES, type TargetPlace } from './target-grid.js';
export {
  areasBefore,
  type TargetTold,
  type TargetZone,
  targetTold,
  type ZoneRemoval,
} from './target-zones.js';
export { type WayOut, type WayTold, waysOut, wayTold, wayWords } from './way-out.js';
export { ZONES, type Zone } from './zones.js';
