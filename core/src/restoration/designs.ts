import { type Fdi, isPremolar, jawOf } from '../teeth/notation.js';
import { COMMON_PRACTICE } from '../working/working.js';
import type { Design, FinishLine, ToothGroup } from './design.js';

const AT_GUM: FinishLine = { form: 'rounded chamfer', belowGumMm: 0 };
/** A shoulder carries the ceramic in front, metal alone ends behind; at the sides one runs into the other. */
const METAL_CERAMIC: FinishLine = {
  form: 'rounded shoulder',
  sides: 'bevelled shoulder',
  behind: 'rounded chamfer',
  belowGumMm: 0.5,
};

/** What is alike in all veneers. */
const VENEER = { kind: 'veneer', facialPlanes: 3, leastMm: 0.3, source: COMMON_PRACTICE } as const;
/** What is alike in all crowns; a preformed one has no taper. */
const CROWN = {
  kind: 'crown',
  covers: ['facial', 'edge', 'proximal', 'palatal'],
  taperDeg: 4,
  facialPlanes: 2,
  source: COMMON_PRACTICE,
} as const;

/**
 * The designs; the first is the default: it leaves most enamel at the neck, where there is least. All thicknesses are
 * common practice with no source, and are house preferences.
 */
export const DESIGNS = [
  {
    ...VENEER,
    id: 'graduated',
    name: 'graduated veneer',
    reason: 'Thin at the neck where enamel is thin, fuller towards the edge.',
    covers: ['facial', 'edge'],
    needs: { cervical: 0.3, middle: 0.5, incisal: 0.7 },
    edge: { kind: 'thickness', mm: 1.5 },
    palatal: 'butt joint; palatal not bevelled',
    finish: AT_GUM,
  },
  {
    ...VENEER,
    id: 'even',
    name: 'even veneer',
    reason: 'One thickness over the face; easier for the laboratory over a stump that shows.',
    covers: ['facial', 'edge'],
    needs: { cervical: 0.5, middle: 0.8, incisal: 0.8 },
    edge: { kind: 'flatten' },
    palatal: 'ends at the edge’s palatal corner',
    finish: AT_GUM,
  },
  {
    ...VENEER,
    id: 'minimal',
    name: 'aligned minimal veneer',
    reason: 'Lower front teeth: half a millimetre from the aligned arch, the edge flat.',
    covers: ['facial', 'edge'],
    needs: { cervical: 0.5, middle: 0.5, incisal: 0.5 },
    edge: { kind: 'flatten' },
    palatal: 'palatal angle kept',
    finish: AT_GUM,
  },
  {
    ...VENEER,
    id: 'no-prep',
    name: 'no-prep veneer',
    reason: 'Only added: nothing is cut but what stands proud of the plan, where that leaves room for ceramic.',
    covers: ['facial', 'edge'],
    needs: { cervical: 0, middle: 0, incisal: 0 },
    edge: { kind: 'left' },
    palatal: 'left as it is',
    finish: { form: 'none', belowGumMm: 0 },
  },
  {
    ...VENEER,
    id: 'facial',
    name: 'facial veneer',
    reason: 'The edge stays as it is: its own translucency is kept, and the bite does not change.',
    covers: ['facial'],
    needs: { cervical: 0.3, middle: 0.5, incisal: 0.5 },
    edge: { kind: 'left' },
    palatal: 'left as it is',
    finish: AT_GUM,
  },
  {
    ...VENEER,
    id: 'extended',
    name: 'extended veneer',
    reason: 'Over the contacts, where fillings or decay lie at the sides or gaps are closed.',
    covers: ['facial', 'edge', 'proximal'],
    needs: { cervical: 0.4, middle: 0.6, incisal: 0.8 },
    edge: { kind: 'thickness', mm: 1.5 },
    contact: 'broken',
    palatal: 'butt joint; palatal not bevelled',
    finish: AT_GUM,
  },
  {
    ...VENEER,
    id: 'palatal-wrap',
    name: 'palatal-wrap veneer',
    reason: 'Over the edge and a little down behind it: it seats by itself, and the edge is carried.',
    covers: ['facial', 'edge'],
    needs: { cervical: 0.3, middle: 0.5, incisal: 0.7 },
    edge: { kind: 'thickness', mm: 1.5 },
    contact: 'left',
    wrap: { downMm: 1, deepMm: 0.5 },
    palatal: 'a chamfer 1.0 mm below the prepared edge, clear of where the lower teeth touch',
    finish: AT_GUM,
  },
  {
    ...CROWN,
    id: 'ceramic-crown',
    name: 'all-ceramic crown',
    reason: 'All round; where the tooth is dark, broken down or crowned already.',
    needs: { cervical: 1.1, middle: 1.2, incisal: 1.4 },
    leastMm: 1,
    around: { proximalMm: 1, palatalMm: 1 },
    edge: { kind: 'thickness', mm: 2 },
    palatal: '1.0 to 1.5 mm of clearance in the bite; 6 to 10° of taper each pair of walls',
    finish: { form: 'rounded shoulder', belowGumMm: 0.5 },
  },
  {
    ...CROWN,
    id: 'ceramic-crown-premolar',
    variant: { of: 'ceramic-crown', on: 'premolars' },
    name: 'all-ceramic crown, premolar',
    reason: 'All round and over the cusps; only half as deep under the bulge near the gum.',
    needs: { cervical: 1, middle: 1, incisal: 1 },
    leastMm: 0.8,
    around: { proximalMm: 1, palatalMm: 1 },
    belowBulgeMm: 0.5,
    edge: { kind: 'thickness', mm: 2 },
    palatal: '2.0 mm over the cusps, at least 1.5 mm of clearance in the bite',
    finish: { form: 'rounded shoulder', belowGumMm: 0.5 },
  },
  {
    ...CROWN,
    id: 'ceramic-crown-lower',
    variant: { of: 'ceramic-crown', on: 'lower front' },
    name: 'all-ceramic crown, lower front',
    reason: 'All round and thin: a lower front tooth is too narrow for more.',
    needs: { cervical: 0.8, middle: 1, incisal: 1 },
    leastMm: 0.8,
    around: { proximalMm: 0.8, palatalMm: 0.8 },
    edge: { kind: 'thickness', mm: 1.5 },
    palatal: 'the edge in the bite; 6 to 10° of taper each pair of walls',
    finish: { form: 'rounded chamfer', belowGumMm: 0.5 },
  },
  {
    ...CROWN,
    id: 'zirconia-crown',
    name: 'zirconia crown',
    reason: 'All round and thinner, of one strong ceramic; less light comes through.',
    needs: { cervical: 0.8, middle: 1, incisal: 1.2 },
    leastMm: 0.5,
    around: { proximalMm: 0.8, palatalMm: 0.7 },
    edge: { kind: 'thickness', mm: 1.8 },
    palatal: '0.7 to 1.0 mm of clearance in the bite; 6 to 10° of taper each pair of walls',
    finish: { form: 'rounded chamfer', belowGumMm: 0.5 },
  },
  {
    ...CROWN,
    id: 'zirconia-crown-premolar',
    variant: { of: 'zirconia-crown', on: 'premolars' },
    name: 'zirconia crown, premolar',
    reason: 'All round and over the cusps; only half as deep under the bulge near the gum.',
    needs: { cervical: 0.8, middle: 0.8, incisal: 0.8 },
    leastMm: 0.5,
    around: { proximalMm: 0.8, palatalMm: 0.8 },
    belowBulgeMm: 0.5,
    edge: { kind: 'thickness', mm: 1.5 },
    palatal: '1.5 mm over the cusps, at least 1.0 mm of clearance in the bite',
    finish: { form: 'rounded chamfer', belowGumMm: 0.5 },
  },
  {
    ...CROWN,
    id: 'zirconia-crown-lower',
    variant: { of: 'zirconia-crown', on: 'lower front' },
    name: 'zirconia crown, lower front',
    reason: 'All round and thin: a lower front tooth is too narrow for more.',
    needs: { cervical: 0.6, middle: 0.7, incisal: 0.8 },
    leastMm: 0.5,
    around: { proximalMm: 0.6, palatalMm: 0.6 },
    edge: { kind: 'thickness', mm: 1.2 },
    palatal: 'the edge in the bite; 6 to 10° of taper each pair of walls',
    finish: { form: 'rounded chamfer', belowGumMm: 0.5 },
  },
  {
    ...CROWN,
    id: 'metal-ceramic-crown',
    name: 'metal-ceramic crown',
    reason: 'All round; covers what is dark, and carries a hard bite.',
    needs: { cervical: 1.2, middle: 1.4, incisal: 1.5 },
    leastMm: 1,
    around: { proximalMm: 0.8, palatalMm: 1 },
    edge: { kind: 'thickness', mm: 2 },
    palatal:
      '1.5 to 2.0 mm where ceramic covers it, less where metal alone does; a shoulder in front runs into a chamfer',
    finish: METAL_CERAMIC,
  },
  {
    ...CROWN,
    id: 'metal-ceramic-crown-premolar',
    variant: { of: 'metal-ceramic-crown', on: 'premolars' },
    name: 'metal-ceramic crown, premolar',
    reason: 'All round and over the cusps; only half as deep under the bulge near the gum.',
    needs: { cervical: 1, middle: 1.2, incisal: 1.2 },
    leastMm: 1,
    around: { proximalMm: 0.8, palatalMm: 1 },
    belowBulgeMm: 0.5,
    edge: { kind: 'thickness', mm: 2 },
    palatal: '2.0 mm over the cusps, at least 1.5 mm of clearance in the bite',
    finish: METAL_CERAMIC,
  },
  {
    ...CROWN,
    id: 'metal-ceramic-crown-lower',
    variant: { of: 'metal-ceramic-crown', on: 'lower front' },
    name: 'metal-ceramic crown, lower front',
    reason: 'All round and thin: a lower front tooth is too narrow for more.',
    needs: { cervical: 1, middle: 1.1, incisal: 1.2 },
    leastMm: 1,
    around: { proximalMm: 0.6, palatalMm: 0.8 },
    edge: { kind: 'thickness', mm: 1.8 },
    palatal: 'the edge in the bite; a shoulder in front runs into a chamfer',
    finish: METAL_CERAMIC,
  },
  {
    ...CROWN,
    id: 'preformed-crown',
    name: 'preformed crown',
    reason: 'A ready-made crown is chosen by its width and the tooth cut until it goes over: children, and first aid.',
    needs: { cervical: 0.5, middle: 0.6, incisal: 0.7 },
    leastMm: 0.3,
    around: { proximalMm: 0.6, palatalMm: 0.6 },
    taperDeg: 0,
    edge: { kind: 'thickness', mm: 1.25 },
    palatal: 'axial to fit: until the crown goes over without force; no taper',
    finish: { form: 'no ledge', belowGumMm: 1.75 },
  },
  {
    ...CROWN,
    id: 'preformed-crown-lower',
    variant: { of: 'preformed-crown', on: 'lower front' },
    name: 'preformed crown, lower front',
    reason: 'A ready-made crown is chosen by its width and the tooth cut until it goes over: children, and first aid.',
    needs: { cervical: 0.4, middle: 0.5, incisal: 0.6 },
    leastMm: 0.3,
    around: { proximalMm: 0.5, palatalMm: 0.5 },
    taperDeg: 0,
    edge: { kind: 'thickness', mm: 1 },
    palatal: 'axial to fit: until the crown goes over without force; no taper',
    finish: { form: 'no ledge', belowGumMm: 1.75 },
  },
  {
    id: 'direct',
    kind: 'direct',
    name: 'direct composite',
    reason: 'Added to the tooth as it stands; nothing is cut but what stands proud of the plan.',
    covers: ['facial', 'edge', 'proximal'],
    needs: { cervical: 0, middle: 0, incisal: 0 },
    leastMm: 0,
    edge: { kind: 'left' },
    palatal: 'left as it is',
    finish: { form: 'none', belowGumMm: 0 },
    source: COMMON_PRACTICE,
  },
] as const satisfies readonly Design[];

export type DesignId = (typeof DESIGNS)[number]['id'];

export const DESIGN_IDS: readonly DesignId[] = DESIGNS.map((d) => d.id);

/** The designs from which one is chosen: a family's others follow by the tooth. */
export const CHOSEN_DESIGNS: readonly Design[] = (DESIGNS as readonly Design[]).filter((d) => !d.variant);

/** Which teeth of a family's own a tooth belongs to. */
const groupOf = (tooth: Fdi): ToothGroup | undefined =>
  isPremolar(tooth) ? 'premolars' : jawOf(tooth) === 'lower' ? 'lower front' : undefined;

/** The design that stands for a family; one without a family stands for itself. */
export const familyOf = (id: DesignId): DesignId => (designOf(id).variant?.of ?? id) as DesignId;

/** The design of a chosen one's family that is made for a tooth. */
export function designOn(id: DesignId, tooth: Fdi): Design {
  const family = familyOf(id);
  const group = groupOf(tooth);
  const own = (DESIGNS as readonly Design[]).find((d) => d.variant?.of === family && d.variant.on === group);
  return own ?? designOf(family);
}

/** A design by its id; ids come checked. */
export const designOf = (id: DesignId): Design => DESIGNS.find((d) => d.id === id) as Design;
