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
} from './appearance.js';
export { CEMENT_MM, CEMENTS, type Cement, cementOf } from './cement.js';
export {
  CERAMIC_CLASSES,
  type Ceramic,
  type CeramicClass,
  ceramicIn,
  ceramicOf,
  ceramicOfClass,
  TISSUES,
} from './ceramics.js';
export { type AtDepth, beneath, type Deeper, deeper, stumpAfter, type ToothColour } from './deeper.js';
export { DARK_L, dentinUnder, ENAMEL_IN_THE_MOUTH, type EnamelGuess } from './dentin.js';
export {
  CEMENT_IDS,
  CERAMIC_IDS,
  type CementId,
  type CeramicId,
  isPlateId,
  PLATE_LIMITS,
  plateId,
} from './ids.js';
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
} from './match.js';
export {
  ceramicOfPlate,
  type MeasuredCeramic,
  measuredOptics,
  PLATE_READINGS,
  plateFault,
  plateOfRows,
  rowsOfPlate,
} from './measured.js';
