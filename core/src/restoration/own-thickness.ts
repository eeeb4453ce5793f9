import { type ContactRule, type Design, designKey, type EdgeNeed, onlyAdded } from './design.js';
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
  /** At the sides and behind, where these are covered. */
  readonly sidesMm?: number | null | undefined;
  readonly palatalMm?: number | null | undefined;
  /** Lean of each wall, where it goes on along the axis, degrees. */
  readonly taperDeg?: number | null | undefined;
  /** How the cut edge rises behind its facial corner, degrees. */
  readonly edgeSlopeDeg?: number | null | undefined;
  /** Where it ends at the contacts, where it is put on from the front. */
  readonly contact?: ContactRule | null | undefined;
}

/** What of a design may be wished otherwise. */
export const WISHED_PLACES = [
  'cervical',
  'middle',
  'incisal',
  'edge',
  'slope',
  'margin',
  'sides',
  'palatal',
  'taper',
] as const;
export type WishedPlace = (typeof WISHED_PLACES)[number];

/** What each is called, and in which unit it is told. */
export const WISHED_WORDS: Readonly<Record<WishedPlace, readonly [words: string, unit: 'mm' | '°']>> = {
  cervical: ['cervical', 'mm'],
  middle: ['middle', 'mm'],
  incisal: ['incisal', 'mm'],
  edge: ['edge', 'mm'],
  slope: ['edge slope', '°'],
  margin: ['below gum', 'mm'],
  sides: ['sides', 'mm'],
  palatal: ['palatal', 'mm'],
  taper: ['taper', '°'],
};

/** What may be wanted, mm. House limits. */
export const THICKNESS_LIMITS = { min: 0, max: 3 } as const;
export const MARGIN_LIMITS = { min: -2, max: 2 } as const;
/** Under two degrees a hand makes undercuts, over twelve nothing holds. House limits. */
export const TAPER_LIMITS = { min: 0, max: 12 } as const;
/** An edge that is cut steeper leaves no edge. House limits. */
export const SLOPE_LIMITS = { min: 0, max: 45 } as const;
export const limitsAt = (place: WishedPlace) =>
  place === 'margin'
    ? MARGIN_LIMITS
    : place === 'slope'
      ? SLOPE_LIMITS
      : place === 'taper'
        ? TAPER_LIMITS
        : THICKNESS_LIMITS;

/** What a design says of a place, mm: how thick it is made there, or how far below the gum it ends. */
export function wishedAt(design: Design, place: WishedPlace): number | undefined {
  if (onlyAdded(design)) return undefined;
  if (place === 'margin') return design.finish.belowGumMm;
  if (place === 'edge') return design.edge.kind === 'thickness' ? design.edge.mm : undefined;
  // A premolar's cusps are followed and have no edge to slope.
  if (place === 'slope')
    return design.edge.kind === 'thickness' && design.variant?.on !== 'premolars'
      ? (design.edge.slopeDeg ?? 0)
      : undefined;
  if (place === 'sides') return design.around?.proximalMm;
  if (place === 'palatal') return design.around?.palatalMm;
  if (place === 'taper') return design.taperDeg;
  return design.needs[place];
}

/** What each place but the face is called in a wish. */
const FIELDS = {
  edge: 'edgeMm',
  slope: 'edgeSlopeDeg',
  margin: 'belowGumMm',
  sides: 'sidesMm',
  palatal: 'palatalMm',
  taper: 'taperDeg',
} as const satisfies Partial<Record<WishedPlace, keyof OwnThickness>>;

/** The wish that a design is: its face, its edge, and what of the rest is not the usual. */
function wishFor(design: Design): OwnThickness {
  const id = design.id as DesignId;
  const usual = designOf(id);
  const rest = Object.entries(FIELDS).flatMap(([place, field]) => {
    const own = wishedAt(design, place as WishedPlace);
    return own !== undefined && (place === 'edge' || own !== wishedAt(usual, place as WishedPlace))
      ? [[field, own]]
      : [];
  });
  const contact = design.contact !== usual.contact ? { contact: design.contact } : {};
  return { design: id, ...design.needs, ...Object.fromEntries(rest), ...contact };
}

/** The wish for a design with one place otherwise; its other places stay. */
export const wishOf = (design: Design, place: WishedPlace, value: number): OwnThickness => ({
  ...wishFor(design),
  [place in FIELDS ? FIELDS[place as keyof typeof FIELDS] : place]: value,
});

/** The same with another end at the contacts. */
export const wishContact = (design: Design, contact: ContactRule): OwnThickness => ({ ...wishFor(design), contact });

/** One object for the same wish, so that what is made of a design can be remembered by it. */
const wished = new Map<string, Design>();

/** A design with thicknesses of somebody's own. */
export function withThickness(design: Design, own: Omit<OwnThickness, 'design'>): Design {
  const { cervical, middle, incisal, edgeMm, belowGumMm, sidesMm, palatalMm, taperDeg, edgeSlopeDeg, contact } = own;
  const slope = edgeSlopeDeg ? { slopeDeg: edgeSlopeDeg } : {};
  const edge: EdgeNeed =
    design.edge.kind === 'thickness' ? { ...design.edge, mm: edgeMm ?? design.edge.mm, ...slope } : design.edge;
  const finish =
    typeof belowGumMm === 'number' && !onlyAdded(design) ? { ...design.finish, belowGumMm } : design.finish;
  const { around } = design;
  const next: Design = {
    ...design,
    needs: { cervical, middle, incisal },
    edge,
    finish,
    ...(around && {
      around: { proximalMm: sidesMm ?? around.proximalMm, palatalMm: palatalMm ?? around.palatalMm },
      taperDeg: taperDeg ?? design.taperDeg ?? 0,
    }),
    ...(contact && !around && !onlyAdded(design) && { contact }),
  };
  const key = designKey(next);
  if (key === designKey(design)) return design;
  const known = wished.get(key) ?? next;
  wished.set(key, known);
  return known;
}
