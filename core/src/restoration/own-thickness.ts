import { type Design, designKey, type EdgeNeed, onlyAdded } from './design.js';
import { type DesignId, designOf } from './designs.js';

/** Thicknesses that somebody wants of a design instead of its own, mm, and where it is to end. */
export interface OwnThickness {
  readonly design: DesignId;
  readonly cervical: number;
  readonly middle: number;
  readonly incisal: number;
  /** Where the design cuts the edge to a thickness. */
  readonly edgeMm?: number | null | undefined;
  /** How far below the gum it is to end, above it where below 0; as the design says where left out. */
  readonly belowGumMm?: number | null | undefined;
}

/** What of a design may be wished otherwise. */
export const WISHED_PLACES = ['cervical', 'middle', 'incisal', 'edge', 'margin'] as const;
export type WishedPlace = (typeof WISHED_PLACES)[number];

/** What may be wanted, mm. House limits. */
export const THICKNESS_LIMITS = { min: 0, max: 3 } as const;
export const MARGIN_LIMITS = { min: -2, max: 2 } as const;
export const limitsAt = (place: WishedPlace) => (place === 'margin' ? MARGIN_LIMITS : THICKNESS_LIMITS);

/** What a design says of a place, mm: how thick it is made there, or how far below the gum it ends. */
export function wishedAt(design: Design, place: WishedPlace): number | undefined {
  if (onlyAdded(design)) return undefined;
  if (place === 'margin') return design.finish.belowGumMm;
  if (place === 'edge') return design.edge.kind === 'thickness' ? design.edge.mm : undefined;
  return design.needs[place];
}

/** The wish for a design with one place otherwise; its other places stay. */
export function wishOf(design: Design, place: WishedPlace, mm: number): OwnThickness {
  const id = design.id as DesignId;
  const edgeMm = wishedAt(design, 'edge');
  const { belowGumMm } = design.finish;
  return {
    design: id,
    ...design.needs,
    ...(edgeMm !== undefined && { edgeMm }),
    ...(belowGumMm !== designOf(id).finish.belowGumMm && { belowGumMm }),
    ...(place === 'edge' ? { edgeMm: mm } : place === 'margin' ? { belowGumMm: mm } : { [place]: mm }),
  };
}

/** One object for the same wish, so that what is made of a design can be remembered by it. */
const wished = new Map<string, Design>();

/** A design with thicknesses of somebody's own. */
export function withThickness(design: Design, own: Omit<OwnThickness, 'design'>): Design {
  const { cervical, middle, incisal, edgeMm, belowGumMm } = own;
  const edge: EdgeNeed =
    design.edge.kind === 'thickness' && typeof edgeMm === 'number' ? { kind: 'thickness', mm: edgeMm } : design.edge;
  const finish =
    typeof belowGumMm === 'number' && !onlyAdded(design) ? { ...design.finish, belowGumMm } : design.finish;
  const next: Design = { ...design, needs: { cervical, middle, incisal }, edge, finish };
  const key = designKey(next);
  if (key === designKey(design)) return design;
  const known = wished.get(key) ?? next;
  wished.set(key, known);
  return known;
}
