export { type Bevelled, bevelled } from './bevel.js';
export { type BreakFace, drawnFace, scannedBreak } from './break-face.js';
export {
  type CompositeShade,
  genericShades,
  mixes,
  type SchoolMix,
  SHADE_SCHOOLS,
  type ShadeSchool,
  schools,
  shadeOfPlate,
  type ZoneLayers,
  type ZoneMix,
} from './colour.js';
export { brokenOff } from './drawn.js';
export { FINISHING_STEPS, type FinishStep } from './finishing.js';
export {
  EMERGES,
  type Emergence,
  emergenceOf,
  matrixFor,
  PAPILLA_FILLS,
  papillaFills,
  SOUNDING_LIMITS,
  SQUARE_PERCENT,
  USUAL_SOUNDING_MM,
} from './gap.js';
export { GAUGED_MM, type Gauged, gauged } from './gauge.js';
export { bodyOf, columnBody, compositeLayers, type Increment, incrementsOf, type LayerBody } from './layers.js';
export { COLUMN_MM, type Missing, type MissingColumn, missingOf, SLIVER_MM, type Stretch } from './missing.js';
export { type NeckDefect, neckDefect } from './neck.js';
export {
  type DirectBodies,
  type DirectNote,
  type DirectPlan,
  directBodies,
  directPlan,
  type LayersThrough,
  layersThrough,
  placing,
  type SectionRow,
  USUAL_WORK,
} from './plan.js';
export {
  BREAK_LIMITS,
  CORE_WORDS,
  DIRECT_KINDS,
  DIRECT_LIMITS,
  type DirectKind,
  type DirectSetting,
  type DirectSettings,
  type DirectWork,
  type DrawnBreak,
  ENERGY_WANTED,
  ISLAND_POINTS,
  LAYER_ORDER,
  LAYERS,
  type LayerName,
  layerWords,
  USUAL_DIRECT,
} from './words.js';
export { type Outline, troughBody, troughRim, type WornEdge, wornEdge } from './worn.js';
