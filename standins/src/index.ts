export { type CameraSetting, type Picture, photograph, project, RETRACTED_FRONT, SCALE_PLANE_Y, scalePoints } from './camera.js';
export {
  AVOCET,
  inMouth,
  makePatient,
  type Patient,
  type PatientRecipe,
  type PatientTooth,
  scatteredRecipe,
  type ToothTrait,
  type TruePoints,
  truePoints,
} from './patient.js';
export { type Random, random } from './random.js';
export { INTRAORAL_SCANNER, type ScannerSetting, scan } from './scanner.js';
