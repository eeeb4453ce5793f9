export { ATTACHMENT } from './attachment.js';
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
} from './design.js';
export {
  CHOSEN_DESIGNS,
  DESIGN_IDS,
  DESIGNS,
  type DesignId,
  designOf,
  designOn,
  familyOf,
} from './designs.js';
export { inMaterial, MATERIALS, type Material, type MaterialId, materialsFor } from './material.js';
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
} from './own-thickness.js';
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
} from './restoration.js';
export { neededAt, overThirds, preparedEdge, THIRDS, thirdAt } from './thickness.js';
