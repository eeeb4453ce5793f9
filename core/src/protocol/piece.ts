import type { CeramicId } from '../material/ids.js';
import type { Fdi } from '../teeth/notation.js';
import type { Base, CementKind } from './words.js';

/** What a piece is made of. */
export type PieceMaterial = 'feldspathic' | 'glass-ceramic' | 'zirconia' | 'metal-ceramic';

/** Something that is to be fixed on a tooth. */
export interface Piece {
  readonly tooth: Fdi;
  readonly kind: 'veneer' | 'no-prep veneer' | 'crown';
  readonly material: PieceMaterial;
  /** Its generic ceramic, where it is known: how much light it lets through. */
  readonly ceramic?: CeramicId;
  /** Where it is thickest over the face, mm; nothing where nobody knows. */
  readonly thickMm?: number;
  readonly cement: CementKind;
  /** What it is held on; enamel where nobody has said anything else. */
  readonly bases: readonly Base[];
  /** Of the lowest wall, mm, where it was measured. */
  readonly wallMm?: number;
  /** The laboratory has etched its inside already. */
  readonly etched?: boolean;
}

/** What is known of the mouth as it is now. */
export interface MouthNow {
  /** Nothing where nobody has looked. */
  readonly gum?: 'healthy' | 'bleeds';
  /** Whether the field can be kept dry; nothing where nobody has tried. */
  readonly dry?: boolean;
  /** Teeth that can't be kept dry though the field can. */
  readonly wet?: readonly Fdi[];
  /** A provisional was worn: its cement is on the teeth, and the gum under it is tender. */
  readonly provisional: boolean;
  /** Days since bleaching ended; nothing where nothing was bleached. */
  readonly bleachedDays?: number;
  readonly beware: ReadonlySet<Beware>;
}

/** Cautions that change a step. */
export type Beware = 'pressure' | 'bleeding' | 'allergy' | 'pregnancy' | 'medicines' | 'anxious' | 'grinding';

/** Cements that are bonded with an adhesive of their own. */
export const isAdhesive = (c: CementKind): boolean => c === 'resin-light' || c === 'resin-dual';
/** Cements of resin of any kind. */
export const isResin = (c: CementKind): boolean => isAdhesive(c) || c === 'self-adhesive';
/** Materials with a glass phase that is etched and silanated. */
export const hasGlass = (m: PieceMaterial): boolean => m === 'feldspathic' || m === 'glass-ceramic';

/** The usual cement of a piece: bonded where it must be, by light where light gets through. House value. */
export function usualCement(p: Pick<Piece, 'kind' | 'material'>): CementKind {
  if (p.kind !== 'crown') return 'resin-light';
  if (hasGlass(p.material)) return 'resin-dual';
  return p.material === 'zirconia' ? 'self-adhesive' : 'glass-ionomer';
}
