import type { FacialThird } from '../teeth/norms.js';
import { COMMON_PRACTICE, type Source } from '../working/working.js';

/** What is done to a tooth. */
export const RESTORATION_KINDS = {
  none: 'left as it is',
  direct: 'direct composite',
  veneer: 'veneer',
  crown: 'crown',
} as const;
export type RestorationKind = keyof typeof RESTORATION_KINDS;

/** What of a crown a restoration lies on. */
export type Surface = 'facial' | 'edge' | 'proximal' | 'palatal';

/** What the edge needs: a thickness, only flattening where the plan lengthens, or nothing. */
export type EdgeNeed =
  | { readonly kind: 'thickness'; readonly mm: number }
  | { readonly kind: 'flatten' }
  | { readonly kind: 'left' };

/** Where the preparation ends, and how. */
export interface FinishLine {
  readonly form: 'none' | 'rounded chamfer' | 'rounded shoulder';
  /** Against the gum line, mm: + below it. */
  readonly belowGumMm: number;
}

/** A design of a restoration: what it covers, where it ends, and the thickness that its material needs, mm. */
export interface Design {
  readonly id: string;
  readonly kind: RestorationKind;
  readonly name: string;
  readonly reason: string;
  readonly covers: readonly Surface[];
  /** Needed in the middle of each third of the face; see `neededAt` for every other place. */
  readonly needs: Readonly<Record<FacialThird, number>>;
  /** The least that its material is made in over the face, mm. */
  readonly leastMm: number;
  /** Needed at the sides and behind, where these are covered. */
  readonly around?: { readonly proximalMm: number; readonly palatalMm: number };
  readonly edge: EdgeNeed;
  /** Where it ends at the contacts: before them, in their middle, or behind them. */
  readonly contact?: 'left' | 'half way' | 'broken';
  /** Lean of each wall towards the edge where it goes on along the axis, degrees. */
  readonly taperDeg?: number;
  /** Radius to which cut corners are rounded, mm. */
  readonly cornerMm?: number;
  readonly palatal: string;
  readonly finish: FinishLine;
  readonly source: Source;
}

const AT_GUM: FinishLine = { form: 'rounded chamfer', belowGumMm: 0 };

/**
 * The designs; the first is the default: it leaves most enamel at the neck, where there is least. All thicknesses are
 * common practice with no source, and are house preferences.
 */
export const DESIGNS = [
  {
    id: 'graduated',
    kind: 'veneer',
    name: 'graduated veneer',
    reason: 'Thin at the neck where enamel is thin, fuller towards the edge.',
    covers: ['facial', 'edge'],
    needs: { cervical: 0.3, middle: 0.5, incisal: 0.7 },
    leastMm: 0.3,
    edge: { kind: 'thickness', mm: 1.5 },
    palatal: 'butt joint; palatal not bevelled',
    finish: AT_GUM,
    source: COMMON_PRACTICE,
  },
  {
    id: 'even',
    kind: 'veneer',
    name: 'even veneer',
    reason: 'One thickness over the face; easier for the laboratory over a stump that shows.',
    covers: ['facial', 'edge'],
    needs: { cervical: 0.5, middle: 0.8, incisal: 0.8 },
    leastMm: 0.3,
    edge: { kind: 'flatten' },
    palatal: 'ends at the edge’s palatal corner',
    finish: AT_GUM,
    source: COMMON_PRACTICE,
  },
  {
    id: 'minimal',
    kind: 'veneer',
    name: 'aligned minimal veneer',
    reason: 'Lower front teeth: half a millimetre from the aligned arch, the edge flat.',
    covers: ['facial', 'edge'],
    needs: { cervical: 0.5, middle: 0.5, incisal: 0.5 },
    leastMm: 0.3,
    edge: { kind: 'flatten' },
    palatal: 'palatal angle kept',
    finish: AT_GUM,
    source: COMMON_PRACTICE,
  },
  {
    id: 'no-prep',
    kind: 'veneer',
    name: 'no-prep veneer',
    reason: 'Only added: nothing is cut but what stands proud of the plan, where that leaves room for ceramic.',
    covers: ['facial', 'edge'],
    needs: { cervical: 0, middle: 0, incisal: 0 },
    leastMm: 0.3,
    edge: { kind: 'left' },
    palatal: 'left as it is',
    finish: { form: 'none', belowGumMm: 0 },
    source: COMMON_PRACTICE,
  },
  {
    id: 'facial',
    kind: 'veneer',
    name: 'facial veneer',
    reason: 'The edge stays as it is: its own translucency is kept, and the bite does not change.',
    covers: ['facial'],
    needs: { cervical: 0.3, middle: 0.5, incisal: 0.5 },
    leastMm: 0.3,
    edge: { kind: 'left' },
    palatal: 'left as it is',
    finish: AT_GUM,
    source: COMMON_PRACTICE,
  },
  {
    id: 'extended',
    kind: 'veneer',
    name: 'extended veneer',
    reason: 'Over the contacts, where fillings or decay lie at the sides or gaps are closed.',
    covers: ['facial', 'edge', 'proximal'],
    needs: { cervical: 0.4, middle: 0.6, incisal: 0.8 },
    leastMm: 0.3,
    edge: { kind: 'thickness', mm: 1.5 },
    contact: 'broken',
    palatal: 'butt joint; palatal not bevelled',
    finish: AT_GUM,
    source: COMMON_PRACTICE,
  },
  {
    id: 'ceramic-crown',
    kind: 'crown',
    name: 'all-ceramic crown',
    reason: 'All round; where the tooth is dark, broken down or crowned already.',
    covers: ['facial', 'edge', 'proximal', 'palatal'],
    needs: { cervical: 1.1, middle: 1.2, incisal: 1.4 },
    leastMm: 1,
    around: { proximalMm: 1, palatalMm: 1 },
    taperDeg: 4,
    edge: { kind: 'thickness', mm: 2 },
    palatal: '1.0 to 1.5 mm of clearance in the bite; 6 to 10° of taper each pair of walls',
    finish: { form: 'rounded shoulder', belowGumMm: 0.5 },
    source: COMMON_PRACTICE,
  },
  {
    id: 'zirconia-crown',
    kind: 'crown',
    name: 'zirconia crown',
    reason: 'All round and thinner, of one strong ceramic; less light comes through.',
    covers: ['facial', 'edge', 'proximal', 'palatal'],
    needs: { cervical: 0.8, middle: 1, incisal: 1.2 },
    leastMm: 0.5,
    around: { proximalMm: 0.8, palatalMm: 0.7 },
    taperDeg: 4,
    edge: { kind: 'thickness', mm: 1.8 },
    palatal: '0.7 to 1.0 mm of clearance in the bite; 6 to 10° of taper each pair of walls',
    finish: { form: 'rounded chamfer', belowGumMm: 0.5 },
    source: COMMON_PRACTICE,
  },
  {
    id: 'metal-ceramic-crown',
    kind: 'crown',
    name: 'metal-ceramic crown',
    reason: 'All round; covers what is dark, and carries a hard bite.',
    covers: ['facial', 'edge', 'proximal', 'palatal'],
    needs: { cervical: 1.2, middle: 1.4, incisal: 1.5 },
    leastMm: 1,
    around: { proximalMm: 0.8, palatalMm: 1 },
    taperDeg: 4,
    edge: { kind: 'thickness', mm: 2 },
    palatal:
      '1.5 to 2.0 mm where ceramic covers it, less where metal alone does; a shoulder in front runs into a chamfer',
    finish: { form: 'rounded shoulder', belowGumMm: 0.5 },
    source: COMMON_PRACTICE,
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

/** A design by its id; ids come checked. */
export const designOf = (id: DesignId): Design => DESIGNS.find((d) => d.id === id) as Design;

/** Thicknesses that somebody wants of a design instead of its own, mm. */
export interface OwnThickness {
  readonly design: DesignId;
  readonly cervical: number;
  readonly middle: number;
  readonly incisal: number;
  /** Where the design cuts the edge to a thickness. */
  readonly edgeMm?: number | null | undefined;
}

/** What may be wanted, mm. House limits. */
export const THICKNESS_LIMITS = { min: 0, max: 3 } as const;

/** One object for the same wish, so that what is made of a design can be remembered by it. */
const wished = new Map<string, Design>();

/** A design with thicknesses of somebody's own. */
export function withThickness(design: Design, own: Omit<OwnThickness, 'design'>): Design {
  const { cervical, middle, incisal, edgeMm } = own;
  const edge: EdgeNeed =
    design.edge.kind === 'thickness' && typeof edgeMm === 'number' ? { kind: 'thickness', mm: edgeMm } : design.edge;
  const next: Design = { ...design, needs: { cervical, middle, incisal }, edge };
  const key = designKey(next);
  if (key === designKey(design)) return design;
  const known = wished.get(key) ?? next;
  wished.set(key, known);
  return known;
}

/** Whether a design is only added: no thickness is cut for it. */
export const onlyAdded = ({ finish }: Design): boolean => finish.form === 'none';

/** All of a design that a preparation depends on, as one word. */
export const designKey = ({ id, needs, edge }: Design): string =>
  `${id} ${needs.cervical} ${needs.middle} ${needs.incisal} ${edge.kind === 'thickness' ? edge.mm : edge.kind}`;
