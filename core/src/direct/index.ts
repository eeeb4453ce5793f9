export { bodyOf, compositeLayers, type Increment, incrementsOf, type LayerBody } from './layers.js';
export { COLUMN_MM, type Missing, type MissingColumn, missingOf, SLIVER_MM, type Stretch } from './missing.js';
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
} from './plan.js';
export {
  DIRECT_LIMITS,
  type DirectSetting,
  type DirectSettings,
  ENERGY_WANTED,
  LAYER_ORDER,
  LAYERS,
  type LayerName,
  USUAL_DIRECT,
} from './words.js';
