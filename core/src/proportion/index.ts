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
} from './edge.js';
export { LIKED_BORDERS, likedSeries } from './liked.js';
export { EDGE_LIMITS, GUM_LIMITS } from './limits.js';
export { gumUpOf } from './notes.js';
export { LATERAL_EDGE_UP_MM, propose, recurringWidths } from './proposal.js';
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
} from './schools.js';
export { type SharedSpace, shareSpace, type WidthWish } from './share-space.js';
export { type Proposal, type ProposalChoice, type ToothTarget, WIDTH_BAND } from './target.js';
