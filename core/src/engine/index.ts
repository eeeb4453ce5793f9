export type { BiteView, BiteWish, CentralOverlap, Guidance } from './bite.js';
export { Bite } from './bite.js';
export {
  CaseEngine,
  LATER_STATES,
  type LaterState,
  type PlanChange,
  planChange,
  ScannedJaw,
} from './case-engine.js';
export { type PickedTooth, type PickedView, Picking } from './picking.js';
export type { CutView } from './queries/cut.js';
export type { Difference } from './queries/difference.js';
export type { DirectTold, PlacedBody } from './queries/direct.js';
export type { DirectColours, ThirdLayers } from './queries/direct-colours.js';
export type { ClosedGap } from './queries/direct-gaps.js';
export type { CanineLead } from './queries/direct-lead.js';
export { type DirectView, TOOTH_PLACES, type ToothPlace } from './queries/direct-view.js';
export type { ExistingSummary } from './queries/existing.js';
export type { FaceOfTooth } from './queries/faces.js';
export type { Guide } from './queries/guide.js';
export { ask, type QueryInput, type QueryName, type QueryOutput } from './queries/index.js';
export type { ColourChoice, ReadColour, ThirdMatch } from './queries/match.js';
export type { OptionsTold } from './queries/options.js';
export {
  type CommonWay,
  type PreparedView,
  type PrepStanding,
  type PrepToothVerdict,
  type PrepVerdict,
  type ShellTried,
  verdictOf,
} from './queries/preparation.js';
export type { CutChoice, ToldTarget } from './queries/reduction.js';
export type { ToothLook, ToothRead } from './queries/smile-colours.js';
export type { WhatIf } from './queries/what-if.js';
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
} from './raw-jaw.js';
