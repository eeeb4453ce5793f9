import { hypot } from '../../geometry/vec.js';
import { type Bur, leanDeg } from './bur.js';

/** The corner of a flat end is rounded so much, mm; less on a slim one. Common practice, no source. */
const FLAT_CORNER_MM = 0.3;
/** Depth rings: three on the working part, as wide as the gaps between them. Common practice, no source. */
const RINGS = 5;

/** Radius of the corner of a flat end, mm. */
export const cornerOf = (b: Bur): number => Math.min(FLAT_CORNER_MM, 0.4 * b.tipMm);

/**
 * Half the width of a bur at a distance from its end, mm; that of the shank beyond the working part.
 * @param t mm along the axis from the end
 */
export function radiusAt(b: Bur, t: number): number {
  const [tip, most] = [b.tipMm / 2, b.largestMm / 2];
  if (t < 0) return 0;
  const shank = b.shankMm / 2;
  if (b.shape === 'ball') {
    const round = Math.sqrt(Math.max(0, most ** 2 - (most - t) ** 2));
    return t <= most ? round : Math.max(round, shank);
  }
  if (t > b.lengthMm) return shank;
  if (b.shape === 'egg') return most * Math.sqrt(Math.max(0, 1 - ((2 * t) / b.lengthMm - 1) ** 2));
  if (b.shape === 'needle') return tip + ((most - tip) * t) / b.lengthMm;
  if (b.shape === 'rings') return Math.floor((RINGS * t) / b.lengthMm) % 2 === 0 ? most : shank;
  if (b.shape === 'round-end') {
    const a = (leanDeg(b) * Math.PI) / 180;
    return t < tip * (1 - Math.sin(a))
      ? Math.sqrt(Math.max(0, tip ** 2 - (tip - t) ** 2))
      : (tip + (t - tip) * Math.sin(a)) / Math.cos(a);
  }
  const corner = cornerOf(b);
  const side = tip + ((most - tip) * t) / b.lengthMm;
  return t < corner ? side - corner + Math.sqrt(corner ** 2 - (corner - t) ** 2) : side;
}

/** The outline of one side of a bur for drawing, from its end to a little beyond the working part: [t, radius] in mm. */
export function outlineOf(b: Bur, shankMm = 2): (readonly [number, number])[] {
  const end =
    b.shape === 'ball' ? b.largestMm / 2 + Math.sqrt((b.largestMm / 2) ** 2 - (b.shankMm / 2) ** 2) : b.lengthMm;
  const steps = 60;
  const out: (readonly [number, number])[] = [[0, 0]];
  for (let i = 0; i <= steps; i++) {
    // Close at the tip, where it is round.
    const t = end * (i / steps) ** 2;
    out.push([t, radiusAt(b, Math.min(t, end - 1e-6))]);
  }
  return [...out, [end, b.shankMm / 2], [end + shankMm, b.shankMm / 2]];
}

/**
 * How far a place lies outside a bur's working part, mm; below 0 inside. Exact for round ends and balls, for other
 * shapes by the slope of the side, which is exact on the surface.
 * @param t mm along the axis from the end, + towards the shank; `out` mm from the axis
 */
export function distanceToBur(b: Bur, t: number, out: number): number {
  const [tip, most] = [b.tipMm / 2, b.largestMm / 2];
  if (b.shape === 'ball') return hypot(t - most, out) - most;
  if (b.shape === 'round-end') {
    const a = (leanDeg(b) * Math.PI) / 180;
    // In coordinates of the side: along it from where it touches the ball, and across.
    const along = (t - tip) * Math.cos(a) + out * Math.sin(a);
    if (along <= 0) return hypot(t - tip, out) - tip;
    const across = out * Math.cos(a) - (t - tip) * Math.sin(a) - tip;
    const length = (b.lengthMm - tip) * Math.cos(a) + most * Math.sin(a);
    return along <= length ? across : hypot(Math.max(across, 0), along - length);
  }
  if (t <= 0) {
    const flat = b.shape === 'flat-end' ? Math.max(0, tip - cornerOf(b)) : 0;
    return hypot(t, Math.max(0, out - flat));
  }
  if (t >= b.lengthMm) return hypot(t - b.lengthMm, Math.max(0, out - b.shankMm / 2));
  const r = radiusAt(b, t);
  const slope = (radiusAt(b, Math.min(b.lengthMm - 1e-6, t + 0.01)) - radiusAt(b, Math.max(0, t - 0.01))) / 0.02;
  return (out - r) / hypot(1, slope);
}
