/**
 * A tooth as a field: how far a place lies outside (+) or inside (−), mm, near its surface. Its own coordinates: x along
 * the row to the patient's left seen from the front of an upper jaw, y inward, z to the root, the edge or highest cusp
 * at z = 0, the middle of its neck on the axis.
 */
export type ToothField = (x: number, y: number, z: number) => number;

/** What a tooth measures, mm. */
export interface FieldTooth {
  /** 1 to 8 from the midline. */
  readonly position: number;
  readonly upper: boolean;
  readonly widthMm: number;
  readonly lengthMm: number;
  readonly depthMm: number;
  /** Of its width and depth, at the neck. */
  readonly neckShare: number;
  /** How square its outline is: 2 an ellipse, 5 nearly a box. */
  readonly square: number;
  /** So much worn off its edge or cusps. */
  readonly wearMm: number;
  /** Cut all round for a crown, or covered by a veneer where below 0. */
  readonly cutMm: number;
  /** How high its cusps stand over its fissure. */
  readonly cuspMm: number;
}

/** The greater of two, their meeting rounded over k. */
export const roundedMax = (a: number, b: number, k: number): number => {
  const h = Math.max(0, k - Math.abs(a - b)) / k;
  return Math.max(a, b) + (h * h * k) / 4;
};
export const roundedMin = (a: number, b: number, k: number): number => -roundedMax(-a, -b, k);

/** A dent or a bump: 1 in its middle, 0 beyond its reach. */
const hump = (x: number, y: number, reach: number): number => {
  const q = (x * x + y * y) / (reach * reach);
  return q >= 1 ? 0 : (1 - q) ** 2;
};

/** How far the biting surface lies over the plane of the highest cusp or edge, mm, by place. */
function biting(t: FieldTooth): (x: number, y: number) => number {
  const [w, d, c] = [t.widthMm / 2, t.depthMm / 2, t.cuspMm];
  // Incisors have an edge, thin at the front, that leans inward; their corners round off.
  if (t.position <= 2)
    return (x, y) => {
      const back = Math.max(0, y + 0.55 * d);
      return 0.18 * (x / w) ** 2 + 0.5 * Math.abs(x / w) ** 6 + 1.05 * back + 0.25 * Math.max(0, -0.8 * d - y);
    };
  if (t.position === 3)
    return (x, y) => {
      const slope = x < 0 ? 0.55 : 0.72;
      return slope * Math.abs(x) ** 1.25 * 0.62 + 0.8 * Math.max(0, y + 0.35 * d) + 0.15 * Math.max(0, -0.7 * d - y);
    };
  if (t.position <= 5) {
    const inner = t.upper ? 0.25 : t.position === 4 ? 0.55 * c : 0.35 * c;
    return (x, y) => {
      const outerCusp = hump(x, y + 0.55 * d, 1.25 * w) * c;
      const innerCusp = hump(x, y - 0.5 * d, 1.15 * w) * (c - inner);
      const ridge = 0.35 * c * Math.min(1, Math.abs(x / w) ** 4);
      const fissure =
        0.5 * c * Math.exp(-(((y + 0.02 * d) / (0.13 * d)) ** 2)) * Math.max(0, 1 - (x / (0.72 * w)) ** 2);
      return c - Math.max(outerCusp, innerCusp, ridge) + fissure * 0.7;
    };
  }
  return (x, y) => {
    const cusp = (sx: number, sy: number, high: number) => hump(x - sx * w, y - sy * d, 1.05 * w) * high;
    const top = Math.max(
      cusp(-0.42, -0.5, c),
      cusp(0.42, -0.5, 0.92 * c),
      cusp(-0.42, 0.48, 0.95 * c),
      cusp(0.44, 0.46, (t.upper ? 0.72 : 0.88) * c),
    );
    const across = Math.exp(-(((y - 0.02 * d) / (0.09 * d)) ** 2)) * Math.max(0, 1 - (x / (0.8 * w)) ** 2);
    const along = Math.exp(-((x / (0.09 * w)) ** 2)) * Math.max(0, 1 - (y / (0.75 * d)) ** 2);
    const ridge = 0.4 * c * Math.min(1, Math.abs(x / w) ** 4);
    return c - Math.max(top, ridge) + 0.5 * c * Math.max(across, 0.7 * along);
  };
}

/** The field of a tooth. Not made of any form of the library. */
export function toothField(t: FieldTooth): ToothField {
  const { widthMm, depthMm, lengthMm, neckShare, square, wearMm, cutMm, position } = t;
  const [w, d] = [widthMm / 2, depthMm / 2];
  const top = biting(t);
  const front = position <= 3;
  return (x, y, z) => {
    const h = z / lengthMm;
    // Widest a third of the way up, narrow at the neck, narrower along the root.
    const belly = h < 0.35 ? 0.93 + 0.07 * Math.sin((Math.max(0, h) / 0.35) * (Math.PI / 2)) : 0;
    const fall = Math.min(1, Math.max(0, (h - 0.35) / 0.65));
    const root = Math.max(0, z - lengthMm);
    const share = (belly || 1 - (1 - neckShare) * fall * fall * (3 - 2 * fall)) - 0.045 * root;
    const thin = front ? 0.42 + 0.58 * Math.min(1, Math.max(0, h) * 1.25) ** 0.8 : 1;
    const [ow, od] = [Math.max(0.3, w * share), Math.max(0.3, d * thin * Math.min(1, share + (front ? 0.08 : 0)))];
    // A front tooth's face stands forward, bent in two planes; behind lies the hollow over the cingulum.
    const face = front
      ? -d * (1 - thin) * 0.72 + 0.5 * Math.max(0, h - 0.45)
      : -0.18 * Math.sin(Math.max(0, Math.min(1, h)) * Math.PI);
    const yy = y - face;
    const hollow =
      front && yy > 0 ? 0.55 * Math.exp(-(((h - 0.42) / 0.22) ** 2)) * Math.max(0, 1 - (x / (0.75 * w)) ** 2) : 0;
    const q = (Math.abs(x / ow) ** square + Math.abs(yy / od) ** square) ** (1 / square);
    const side = (q - 1) * Math.min(ow, od) * 0.9 + hollow;
    const cap = (top(x, y) + (t.upper ? 0 : 0) - z) * 0.8;
    const worn = wearMm - z;
    const whole = roundedMax(side, roundedMax(cap, worn, 0.25), front ? 0.55 : 0.9);
    if (cutMm === 0) return whole;
    // A stump keeps its root; below the neck nothing is cut. A veneer lies on the face alone.
    if (cutMm > 0)
      return h < 0.9 ? roundedMax(whole + cutMm, 1.6 * cutMm - z, 0.4) : whole + cutMm * Math.max(0, (1 - h) / 0.1);
    return whole + (h < 0.92 && yy < 0 ? cutMm : 0);
  };
}
