import { hypot } from '../../geometry/vec.js';
/** What the working part of a rotary instrument looks like. */
export const BUR_SHAPES = {
  'round-end': 'round-end',
  'flat-end': 'flat-end',
  ball: 'ball',
  egg: 'egg',
  needle: 'needle',
  rings: 'depth rings',
} as const;
export type BurShape = keyof typeof BUR_SHAPES;

/**
 * Diamond grits from coarse to fine: mean size in µm and the ring on the shank. Standard: ISO 7711 and ISO 6360 (from
 * memory).
 */
export const GRITS = {
  'super-coarse': { um: 181, ring: 'black' },
  coarse: { um: 151, ring: 'green' },
  medium: { um: 107, ring: 'blue' },
  fine: { um: 46, ring: 'red' },
  'extra-fine': { um: 30, ring: 'yellow' },
  'ultra-fine': { um: 15, ring: 'white' },
} as const;
export type Grit = keyof typeof GRITS;

/** A rotary instrument by the shape of its working part; lengths in mm, diameters where it cuts. */
export interface Bur {
  readonly shape: BurShape;
  /** Largest diameter. */
  readonly largestMm: number;
  /** Diameter of the ball at a round end, of a flat end, or of a needle's point; of balls, eggs and rings the largest. */
  readonly tipMm: number;
  /** Of the working part along the axis. */
  readonly lengthMm: number;
  /** Diameter of the shank right behind the working part. */
  readonly shankMm: number;
  readonly grit: Grit;
  /** What the house calls it. */
  readonly note?: string | undefined;
}

/** What is taken for a bur's size, mm: beyond it a figure is a slip of the hand. House limits. */
export const BUR_LIMITS = {
  largestMm: { min: 0.5, max: 6 },
  tipMm: { min: 0.1, max: 6 },
  lengthMm: { min: 0.4, max: 14 },
  shankMm: { min: 0.5, max: 2.4 },
} as const;
export type BurSize = keyof typeof BUR_LIMITS;

const SIZE_WORDS: Readonly<Record<BurSize, string>> = {
  largestMm: 'largest diameter',
  tipMm: 'tip',
  lengthMm: 'working length',
  shankMm: 'shank',
};
/** A taper leans by so much at most on each side, degrees. House limit. */
const MOST_LEAN_DEG = 25;
const NEEDS_TIP: readonly BurShape[] = ['round-end', 'flat-end', 'needle'];

/** Whether a shape has a tip of its own. */
export const hasTip = (shape: BurShape): boolean => NEEDS_TIP.includes(shape);

/** Why a bur can't be, in a sentence; nothing where it can. */
export function burFault(b: Bur): string | undefined {
  for (const [key, { min, max }] of Object.entries(BUR_LIMITS) as [BurSize, { min: number; max: number }][])
    if (!(b[key] >= min && b[key] <= max))
      return `The ${SIZE_WORDS[key]} of a bur lies between ${min} and ${max} mm; ${say(b[key])} is none.`;
  if (hasTip(b.shape) && b.tipMm > b.largestMm + 1e-9)
    return `The tip, ${say(b.tipMm)} mm, is wider than the bur is anywhere, ${say(b.largestMm)} mm.`;
  if ((b.shape === 'ball' || b.shape === 'rings') && b.shankMm >= b.largestMm)
    return `The shank, ${say(b.shankMm)} mm, is as thick as the ${BUR_SHAPES[b.shape]}, ${say(b.largestMm)} mm: it cuts no depth.`;
  if (b.shape === 'round-end' && b.lengthMm < b.tipMm / 2)
    return `The working length, ${say(b.lengthMm)} mm, is shorter than its round end.`;
  if (hasTip(b.shape) && leanDeg(b) > MOST_LEAN_DEG)
    return `From ${say(b.tipMm)} to ${say(b.largestMm)} mm over ${say(b.lengthMm)} mm is no taper; look at the three figures.`;
  return undefined;
}

const say = (mm: number) => String(Math.round(mm * 1000) / 1000);

/**
 * How far the side of a bur leans from its axis, degrees. The side of a round end touches the ball of its tip.
 */
export function leanDeg(b: Bur): number {
  if (!hasTip(b.shape)) return 0;
  const [tip, most] = [b.tipMm / 2, b.largestMm / 2];
  if (b.shape !== 'round-end') return (Math.atan2(most - tip, b.lengthMm) * 180) / Math.PI;
  const along = b.lengthMm - tip;
  const whole = hypot(most, along);
  if (whole <= tip) return 90;
  return ((Math.acos(tip / whole) - Math.atan2(along, most)) * 180) / Math.PI;
}

/** ISO 6360-1 diameter code: largest diameter in tenths of a millimetre, three digits (standard). */
export const isoDiameter = (b: Bur): string => String(Math.round(b.largestMm * 10)).padStart(3, '0');

/** A bur's name within its tray: what two burs of one name have alike is all that cuts. */
export const burId = (b: Bur): string =>
  [b.shape, isoDiameter(b), hundredths(b.tipMm), hundredths(b.lengthMm), hundredths(b.shankMm), b.grit].join(' ');
const hundredths = (mm: number) => String(Math.round(mm * 100));

/** The bur in words: what its shape is called, with its diameters. */
export function burName(b: Bur): string {
  const mm = `${b.largestMm.toFixed(1)} mm`;
  const grit = b.grit === 'medium' ? '' : `${b.grit} `;
  if (b.shape === 'ball') return `${grit}ball diamond, ${mm} on a ${b.shankMm.toFixed(1)} mm shank`;
  if (b.shape === 'rings') return `${grit}depth-ring diamond, ${mm} on a ${b.shankMm.toFixed(1)} mm shank`;
  if (b.shape === 'egg') return `${grit}egg-shaped diamond, ${mm}`;
  if (b.shape === 'needle') return `${grit}needle diamond, ${mm}`;
  const form = b.largestMm - b.tipMm < 0.05 ? 'parallel' : 'tapered';
  return `${grit}${form} ${BUR_SHAPES[b.shape]} diamond, ${mm}${form === 'tapered' ? `, tip ${b.tipMm.toFixed(1)} mm` : ''}`;
}
