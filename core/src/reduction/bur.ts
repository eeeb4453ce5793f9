import { Refusal } from '../errors.js';

/**
 * A rotary instrument by its shape; lengths in mm. Sizes are ISO 6360-1: the last three digits are the diameter in 1/10
 * mm.
 */
export type Bur =
  | { readonly id: string; readonly shape: 'tapered round-end'; readonly tipMm: number; readonly bodyMm: number }
  | { readonly id: string; readonly shape: 'ball'; readonly ballMm: number; readonly shankMm: number };

/** How a bur is sunk, and the depth that gives. A bur is a ruler (common practice). */
export interface Engagement {
  readonly bur: Bur;
  readonly how: 'tip buried' | 'half the tip in' | 'body buried' | 'half the body in' | 'ball sunk to its shank';
  readonly depthMm: number;
}

/**
 * The small tray that the plan is cut with: a typical pair of tapers (0.8 mm tip near the gum, 1.4 mm body for the
 * edge) and balls.
 */
export const TRAY: readonly Bur[] = [
  { id: 'taper-014', shape: 'tapered round-end', tipMm: 0.8, bodyMm: 1.4 },
  { id: 'taper-016', shape: 'tapered round-end', tipMm: 1.0, bodyMm: 1.6 },
  { id: 'ball-016', shape: 'ball', ballMm: 1.6, shankMm: 1.0 },
  { id: 'ball-018', shape: 'ball', ballMm: 1.8, shankMm: 1.0 },
  { id: 'ball-020', shape: 'ball', ballMm: 2.0, shankMm: 1.0 },
  { id: 'ball-024', shape: 'ball', ballMm: 2.4, shankMm: 1.0 },
];

/** The bur in words: shape, size in ISO 6360-1 tenths, diameters. */
export function burName(b: Bur): string {
  return b.shape === 'ball'
    ? `ball diamond, ${b.ballMm.toFixed(1)} mm on a ${b.shankMm.toFixed(1)} mm shank`
    : `tapered round-end diamond, ${b.bodyMm.toFixed(1)} mm, tip ${b.tipMm.toFixed(1)} mm`;
}

/** ISO 6360-1 diameter code: largest diameter in tenths of a millimetre, three digits. */
export function isoDiameter(b: Bur): string {
  const mm = b.shape === 'ball' ? b.ballMm : b.bodyMm;
  return String(Math.round(mm * 10)).padStart(3, '0');
}

/** Every depth that a bur can give by itself. */
export function engagements(b: Bur): Engagement[] {
  if (b.shape === 'ball') return [{ bur: b, how: 'ball sunk to its shank', depthMm: (b.ballMm - b.shankMm) / 2 }];
  return [
    { bur: b, how: 'half the tip in', depthMm: b.tipMm / 2 },
    { bur: b, how: 'half the body in', depthMm: b.bodyMm / 2 },
    { bur: b, how: 'tip buried', depthMm: b.tipMm },
    { bur: b, how: 'body buried', depthMm: b.bodyMm },
  ];
}

/** How near a bur's depth must come to the wanted one, mm. Common practice, no source. */
export const DEPTH_TOLERANCE_MM = 0.05;

/** Where a groove is cut. Near the gum enamel is thinnest: there no groove is deeper than what is wanted. */
export type GrooveSite = 'cervical' | 'facial' | 'edge';

/** A groove's recipe: the engagement that gives the depth, or a sentence why none does. */
export type Groove =
  | {
      readonly kind: 'cut';
      readonly engagement: Engagement;
      readonly depthMm: number;
      readonly grooves: string;
      /** What is to be known before it is cut. */
      readonly first?: string;
    }
  | {
      readonly kind: 'none';
      readonly why: string;
      readonly depthMm: number;
      /** The nearest that the tray cuts below it, and the grooves to cut it by. */
      readonly nearest?: Engagement;
      readonly grooves?: string;
    };

/** Three grooves on the face and one on each line angle; three across the edge. Common practice. */
const GROOVES: Readonly<Record<GrooveSite, string>> = {
  cervical: '3 facial, 1 on each line angle',
  facial: '3 facial, 1 on each line angle',
  edge: '3 across the edge',
};

/**
 * The engagement of the tray that gives a groove of the wanted depth within DEPTH_TOLERANCE_MM, near the gum only to the
 * short side; between equals the balls on the face (they stop by themselves) and the tapers on the edge.
 * @throws Refusal `number-invalid` for a depth that is no number
 */
export function groove(depthMm: number, where: GrooveSite, tray: readonly Bur[] = TRAY): Groove {
  if (!Number.isFinite(depthMm)) throw new Refusal('number-invalid', 'The groove depth is not a number.', depthMm);
  if (depthMm <= 0) return { kind: 'none', depthMm: 0, why: 'Nothing to cut.' };
  const usable = tray.filter((b) => where !== 'edge' || b.shape !== 'ball').flatMap(engagements);
  const off = (e: Engagement) => Math.abs(e.depthMm - depthMm);
  const longest = depthMm + (where === 'cervical' ? 0 : DEPTH_TOLERANCE_MM) + 1e-9;
  const sorted = usable
    .filter((e) => e.depthMm <= longest)
    .sort((a, b) => off(a) - off(b) || Number(a.bur.shape !== 'ball') - Number(b.bur.shape !== 'ball'));
  const best = sorted[0];
  if (best && off(best) <= DEPTH_TOLERANCE_MM + 1e-9)
    return { kind: 'cut', engagement: best, depthMm, grooves: GROOVES[where] };
  const shallower = usable.filter((e) => e.depthMm <= depthMm).sort((a, b) => b.depthMm - a.depthMm)[0];
  if (!shallower) {
    const least = Math.min(...usable.map((e) => e.depthMm));
    return {
      kind: 'none',
      depthMm,
      why: `No groove: the shallowest that this tray cuts is ${least.toFixed(1)} mm. Smooth by ${depthMm.toFixed(2)} mm with a fine diamond and check with the index.`,
    };
  }
  return {
    kind: 'none',
    depthMm,
    nearest: shallower,
    grooves: GROOVES[where],
    why: `No bur gives ${depthMm.toFixed(2)} mm. The nearest below is ${shallower.depthMm.toFixed(1)} mm (${shallower.how}); cut that, then ${(depthMm - shallower.depthMm).toFixed(2)} mm more by the index.`,
  };
}
