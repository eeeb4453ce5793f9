export { type Picture, photograph, RETRACTED, RETRACTED_FRONT } from './camera.js';
export {
  cutByHand,
  cutRow,
  nicked,
  PREP_FAULTS,
  type PrepFault,
  type PrepOrder,
  type RowOrder,
  scanOfCut,
} from './dentist.js';
export { type Face, type FacePoints, makeFace } from './face.js';
export { type FieldJaw, type FieldJawRecipe, fieldJaw } from './field-jaw/field-jaw.js';
export type { GumTrait } from './gum.js';
export {
  type FaceTrait,
  inMouth,
  inState,
  type MouthState,
  makePatient,
  type Patient,
  type PatientRecipe,
  type PatientTooth,
  scatteredRecipe,
  type ToothTrait,
  type TruePoints,
  truePoints,
  USUAL_FACE,
} from './patient.js';
export { type CameraSetting, project, SCALE_PLANE_Y, scalePoints } from './pose.js';
export { prepared } from './prepared.js';
export { PRINTER, type PrinterAnswer, simulatedPrinter } from './printer.js';
export { type Random, random } from './random.js';
export { AVOCET, CURLEW, DUNLIN, PLOVER, RECIPES, REDSHANK, type RecipeName, SANDPIPER, TURNSTONE } from './recipes.js';
export { INTRAORAL_SCANNER, type ScannerSetting, scan } from './scanner.js';
export { type Expression, makeScene } from './scene.js';
export { dried, metered, SHADE_METER, shadeReadings } from './shade-meter.js';
export { frontRowOf, outlineIn, trueViewPoints } from './truth.js';
export { handHeld, VIEWS, type ViewName, type ViewSetup } from './views.js';
export { WHOLE_SCANNER, type WholeJaw, type WholeSetting, wholeJaw } from './whole-jaw.js';
export { scanOfWorn, type WornOrder } from './worn.js';
