import { type Bur, leanDeg } from './bur.js';

/** How a bur is sunk into a tooth. */
export const ENGAGEMENTS = [
  'half the tip in',
  'half the body in',
  'tip buried',
  'body buried',
  'ball sunk to its shank',
  'rings sunk to the shank',
  'sunk to its working length',
] as const;
export type How = (typeof ENGAGEMENTS)[number];

/** How a bur is sunk, and the depth that gives, mm. A bur is a ruler (common practice). */
export interface Engagement {
  readonly bur: Bur;
  readonly how: How;
  readonly depthMm: number;
}

/** So long a fissure bur is at most whose whole length is sunk as a depth, mm. House value. */
const SHORT_MM = 3;

/**
 * Every depth that a bur can give by itself. Its side is laid along the surface, so that the floor of the groove is
 * parallel to it: buried it cuts as deep as it is wide there, half in it cuts half of that. A flat end can be sunk along
 * its axis as far as its working part goes, as in an edge or a biting surface. Common practice, no source.
 */
export function engagements(bur: Bur): Engagement[] {
  const e = (how: How, depthMm: number): Engagement => ({ bur, how, depthMm });
  const { shape, largestMm, tipMm, shankMm, lengthMm } = bur;
  if (shape === 'ball') return [e('ball sunk to its shank', (largestMm - shankMm) / 2)];
  if (shape === 'rings') return [e('rings sunk to the shank', (largestMm - shankMm) / 2)];
  if (shape === 'egg' || shape === 'needle') return [];
  const body = [e('half the body in', largestMm / 2), e('body buried', largestMm)];
  const tip = tipMm < largestMm - 1e-9 ? [e('half the tip in', tipMm / 2), e('tip buried', tipMm)] : [];
  const sunk = shape === 'flat-end' && lengthMm <= SHORT_MM ? [e('sunk to its working length', lengthMm)] : [];
  return [...tip, ...body, ...sunk];
}

/**
 * The depth that a taper cuts at a place of its length when its axis is tilted otherwise than its side asks, mm. A ball
 * at the tip keeps its own depth however it is tilted; each millimetre further back goes deeper by the sine of what the
 * tilt is too much, or shallower by what is missing.
 * @param how `half the tip in` or `tip buried`
 * @param tiltDeg of the axis against the surface, + with the shank's end towards the tooth
 * @param backMm from the middle of the tip along the axis
 */
export function tiltedDepth(bur: Bur, how: How, tiltDeg: number, backMm: number): number {
  const own = engagements(bur).find((e) => e.how === how)?.depthMm ?? 0;
  // The side lies parallel to the surface when the axis leans away from it by the lean of the side.
  const off = ((tiltDeg + leanDeg(bur)) * Math.PI) / 180;
  return Math.max(0, own + backMm * Math.sin(off));
}
