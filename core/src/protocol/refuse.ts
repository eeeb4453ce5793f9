import { HOLDING_WALL_MM } from '../decide/ids.js';
import { STRENGTH_SOURCE } from '../decide/strength.js';
import type { CeramicId } from '../material/ids.js';
import type { Fdi } from '../teeth/notation.js';
import { COMMON_PRACTICE, published, type Source } from '../working/working.js';
import { hasGlass, isAdhesive, isResin, type MouthNow, type Piece } from './piece.js';
import { CEMENT_KINDS } from './words.js';

/** A combination that must not be: why, and what would do instead. */
export interface MustNot {
  readonly rule: string;
  readonly tooth: Fdi;
  readonly why: string;
  readonly instead: string;
  readonly source: Source;
}

/**
 * So thick a ceramic may be for light to reach the cement under it, mm. Common practice, no source: lamps and ceramics
 * differ, and a house that has measured its own goes by that.
 */
export const LIGHT_THROUGH_MM: Readonly<Record<CeramicId, number>> = {
  'enamel-porcelain': 2,
  'glass-high': 2,
  layered: 2,
  'glass-medium': 1.5,
  'dentin-porcelain': 1.5,
  'glass-low': 1,
  'zirconia-translucent': 0,
  'zirconia-strong': 0,
  opaquer: 0,
};

/** The usual ceramic of a material, where the case names none. */
const USUAL: Readonly<Record<Piece['material'], CeramicId>> = {
  feldspathic: 'layered',
  'glass-ceramic': 'glass-medium',
  zirconia: 'zirconia-translucent',
  'metal-ceramic': 'opaquer',
};

/** How much ceramic light gets through here, mm; 0 where none does. */
export const lightThroughMm = (p: Pick<Piece, 'material' | 'ceramic'>): number =>
  p.material === 'metal-ceramic' || p.material === 'zirconia' ? 0 : LIGHT_THROUGH_MM[p.ceramic ?? USUAL[p.material]];

/** Whether light reaches the cement under a piece; no where nobody has said how thick it is. */
export const lightReaches = (p: Pick<Piece, 'material' | 'ceramic' | 'thickMm'>): boolean =>
  p.thickMm !== undefined && lightThroughMm(p) > 0 && p.thickMm <= lightThroughMm(p);

/** After bleaching so many days pass before something is bonded. Common practice, no source. */
export const BLEACH_REST_DAYS = 14;

interface Bar {
  readonly rule: string;
  readonly bars: (p: Piece, m: MouthNow) => boolean;
  readonly why: (p: Piece, m: MouthNow) => string;
  readonly instead: (p: Piece) => string;
  readonly source: Source;
}

const isVeneer = (p: Piece) => p.kind !== 'crown';
const name = (p: Piece) => CEMENT_KINDS[p.cement];
const cementedCrown = (p: Piece) =>
  p.kind === 'crown'
    ? 'let it heal or dry first; where it never will, a zirconia crown that holds by its walls'
    : 'let it heal or dry first; a veneer has no other way to hold';

const BARS: readonly Bar[] = [
  {
    rule: 'light-stopped',
    bars: (p) => p.cement === 'resin-light' && (lightThroughMm(p) === 0 || p.thickMm !== undefined) && !lightReaches(p),
    why: (p) =>
      lightThroughMm(p) === 0
        ? 'No light reaches the cement through zirconia or metal.'
        : `Light reaches the cement through ${lightThroughMm(p).toFixed(1)} mm of this ceramic at most; it is ${p.thickMm?.toFixed(1)} mm thick.`,
    instead: () => 'a dual-cured resin',
    source: COMMON_PRACTICE,
  },
  {
    rule: 'thickness-unknown',
    bars: (p) => p.cement === 'resin-light' && lightThroughMm(p) > 0 && p.thickMm === undefined,
    why: () => 'Nobody has said how thick the ceramic is, so nobody knows whether light gets through.',
    instead: () => 'measure the piece with a caliper, or a dual-cured resin',
    source: COMMON_PRACTICE,
  },
  {
    rule: 'veneer-only-bonds',
    bars: (p) => isVeneer(p) && !isAdhesive(p.cement),
    why: (p) => `A veneer has no walls that hold it: ${name(p)} cement lets it go.`,
    instead: () => 'an etched and bonded resin',
    source: COMMON_PRACTICE,
  },
  {
    rule: 'glass-only-bonded',
    bars: (p) => !isVeneer(p) && p.material === 'feldspathic' && !isAdhesive(p.cement),
    why: () => 'A ceramic of the first class breaks where it is not bonded.',
    instead: () => 'an etched and bonded resin',
    source: STRENGTH_SOURCE,
  },
  {
    rule: 'temporary-last',
    bars: (p) => !isVeneer(p) && p.cement === 'temporary' && hasGlass(p.material),
    why: () => 'A glass-ceramic that nothing carries from inside breaks on temporary cement.',
    instead: () => 'seat it for good, or try it in with paste and take it off again',
    source: COMMON_PRACTICE,
  },
  {
    rule: 'bleeding-no-bond',
    bars: (p, m) => m.gum === 'bleeds' && isResin(p.cement),
    why: () => 'Nothing is bonded where gum bleeds: blood in the margin stains and leaks.',
    instead: cementedCrown,
    source: COMMON_PRACTICE,
  },
  {
    rule: 'wet-no-bond',
    bars: (p, m) => (m.dry === false || (m.wet ?? []).includes(p.tooth)) && isResin(p.cement),
    why: () => 'A bond fails where the tooth can’t be kept dry.',
    instead: (p) =>
      p.kind === 'crown' ? 'a zirconia or metal-ceramic crown on glass-ionomer' : 'another way of keeping it dry',
    source: COMMON_PRACTICE,
  },
  {
    rule: 'bleached-too-late',
    bars: (p, m) => m.bleachedDays !== undefined && m.bleachedDays < BLEACH_REST_DAYS && isResin(p.cement),
    why: (_, m) =>
      `Bleaching ended ${m.bleachedDays} days ago: the oxygen in the tooth weakens the bond for about ${BLEACH_REST_DAYS}.`,
    instead: () => 'wait, or seat on temporary cement where it is a crown that carries itself',
    source: COMMON_PRACTICE,
  },
  {
    rule: 'short-walls',
    bars: (p) => !isVeneer(p) && !isResin(p.cement) && p.wallMm !== undefined && p.wallMm < HOLDING_WALL_MM,
    why: (p) =>
      `The lowest wall is ${p.wallMm?.toFixed(1)} mm: a cement that only fills wants ${HOLDING_WALL_MM} mm of it.`,
    instead: () => 'a bonded resin, grooves, or a build-up',
    source: published('Goodacre, Campagni, Aquilino 2001, J Prosthet Dent 85:363'),
  },
];

/** Every rule by which a piece must not be fixed in this way, in this mouth. */
export const mustNot = (p: Piece, m: MouthNow): MustNot[] =>
  BARS.filter((b) => b.bars(p, m)).map((b) => ({
    rule: b.rule,
    tooth: p.tooth,
    why: b.why(p, m),
    instead: b.instead(p),
    source: b.source,
  }));
