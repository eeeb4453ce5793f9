export { CARD_LIMITS, CARD_REFLECTS, type PatchRgb, roughColour } from './grey-card.js';
export { deltaE00, differenceWords, type Lab, VISIBLE } from './lab.js';
export {
  type Optics,
  opticsFrom,
  over,
  type Sheet,
  SURFACE,
  sheetOf,
  throughSurface,
  underSurface,
} from './layer.js';
export { LIGHTS, type LightId, OBSERVER } from './observer.js';
export {
  READING_LIGHTS,
  READING_OF,
  READING_ZONES,
  type ReadingLight,
  type ReadingOf,
  type ReadingZone,
} from './reading-words.js';
export { type ColourReading, readingsOfRows, rowsOfReadings } from './readings-table.js';
export { smoothestSpectrum } from './recover.js';
export { rowsOfScale, shadesOfRows } from './scale-table.js';
export { labOfLight, lightOf, screenColour, screenRgb, shownLight } from './screen.js';
export { SCALE_LIMITS, SHADE_NAMES } from './shade-names.js';
export { LETTER_SCALE, nearestShades, type Shade, type ShadeScale, shadeOf } from './shades.js';
export { evenSpectrum, labOf, type Spectrum, spectrumOf, xyzOf } from './spectrum.js';
export { COLOUR_LIMITS, WAVELENGTHS } from './table.js';
export { NM } from './wavelengths.js';
