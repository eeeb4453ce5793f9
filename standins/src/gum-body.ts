import { type Crown, type Frame, hypot, ringVertex, toLocal, toParent, type Vec3 } from '@radiant/core';
import { papillaRise } from './papilla.js';

/** A crown in its place in the arch's own frame. */
export interface Standing {
  readonly crown: Crown;
  readonly frame: Frame;
}

/** A rounded joint of two bodies. */
export function joined(a: number, b: number, reach: number): number {
  const h = Math.max(0, reach - Math.abs(a - b)) / reach;
  return Math.min(a, b) - (h * h * reach) / 4;
}

/**
 * House morphology of the gum, mm: thickness at the margin, how it grows per mm over it, roundness of the margin, how
 * far it covers the neck line.
 */
const MARGIN = { thick: 0.45, growth: 0.12, round: 0.35, over: 0.1 };
const COLLAR_REACH_MM = 9;
const SECTORS = 72;

/** The gum around one neck: near it, how far from its surface; else undefined. */
export type Body = (x: number, y: number, z: number) => number | undefined;

/** A collar that follows a crown's neck line and thickens over the root. */
export function collar({ crown, frame }: Standing): Body {
  const m = crown.mesh.positions;
  const ring = Array.from({ length: crown.ringSize }, (_, k): Vec3 => {
    const v = 3 * ringVertex(crown, 0, k);
    return [m[v], m[v + 1], m[v + 2]];
  });
  const mid = (k: 0 | 1) => (Math.min(...ring.map((p) => p[k])) + Math.max(...ring.map((p) => p[k]))) / 2;
  const [cx, cy] = [mid(0), mid(1)];
  const polar = ring
    .map((p) => ({ turn: Math.atan2(p[1] - cy, p[0] - cx), r: hypot(p[0] - cx, p[1] - cy), z: p[2] }))
    .sort((a, b) => a.turn - b.turn);
  const radius = new Float64Array(SECTORS + 1);
  const level = new Float64Array(SECTORS + 1);
  for (let s = 0; s <= SECTORS; s++) {
    const turn = -Math.PI + (2 * Math.PI * s) / SECTORS;
    let after = polar.findIndex((q) => q.turn >= turn);
    if (after < 0) after = 0;
    const b = polar[after] as { turn: number; r: number; z: number };
    const a = polar[(after + polar.length - 1) % polar.length] as { turn: number; r: number; z: number };
    const gap = (b.turn - a.turn + 2 * Math.PI) % (2 * Math.PI) || 1;
    const t = ((turn - a.turn + 2 * Math.PI) % (2 * Math.PI)) / gap;
    radius[s] = a.r + (b.r - a.r) * Math.min(1, t);
    level[s] = a.z + (b.z - a.z) * Math.min(1, t);
  }
  const widest = Math.max(...radius);
  return (x, y, z) => {
    const [lx, ly, lz] = toLocal(frame, [x, y, z]);
    const dx = lx - cx;
    const dy = ly - cy;
    const rho = Math.sqrt(dx * dx + dy * dy);
    if (rho > widest + 3) return undefined;
    const at = ((Math.atan2(dy, dx) + Math.PI) / (2 * Math.PI)) * SECTORS;
    const s = Math.min(SECTORS - 1, Math.floor(at));
    const t = at - s;
    const r = radius[s] * (1 - t) + radius[s + 1] * t;
    const over = lz - (level[s] * (1 - t) + level[s + 1] * t);
    if (over > COLLAR_REACH_MM || over < -3) return undefined;
    const qx = rho - r - MARGIN.thick - MARGIN.growth * Math.max(0, Math.min(over, 4)) + MARGIN.round;
    const qy = -over - MARGIN.over + MARGIN.round;
    return hypot(Math.max(qx, 0), Math.max(qy, 0)) + Math.min(Math.max(qx, qy), 0) - MARGIN.round;
  };
}

/** What fills the room between two neighbouring necks and rises between the crowns. */
export function papilla(a: Standing, b: Standing, lostMm = 0): Body {
  const side = (s: Standing, k: number): Vec3 => {
    const v = 3 * ringVertex(s.crown, 0, k);
    const m = s.crown.mesh.positions;
    return toParent(s.frame, [m[v], m[v + 1], m[v + 2]]);
  };
  // a stands on the side of lesser x: its border at greater x meets the other's at lesser x.
  const [p, q] = [side(a, 0), side(b, a.crown.ringSize / 2)];
  const width = hypot(q[0] - p[0], q[1] - p[1]);
  const rise = papillaRise(a, b, (p[2] + q[2]) / 2, lostMm);
  const [ux, uy] = [(q[0] - p[0]) / (width || 1), (q[1] - p[1]) / (width || 1)];
  const centre: Vec3 = [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2, (p[2] + q[2]) / 2 + 1.2];
  const [ru, rv, rz] = [width / 2 + 0.7, 2.7, rise + 1.2];
  const least = Math.min(ru, rv, rz);
  return (x, y, z) => {
    const dx = x - centre[0];
    const dy = y - centre[1];
    const dz = z - centre[2];
    const u = (dx * ux + dy * uy) / ru;
    const v = (dy * ux - dx * uy) / rv;
    const w = dz / rz;
    const k = Math.sqrt(u * u + v * v + w * w);
    return k > 2.5 ? undefined : (k - 1) * least;
  };
}

/** The vault behind the upper teeth: solid above a curved roof. `halfWidth` of the arch at a depth y, mm. */
export function palate(frontY: number, levelMm: number, halfWidth: (y: number) => number): Body {
  const table = Float64Array.from({ length: 400 }, (_, i) => halfWidth(frontY + 0.2 * i));
  return (x, y, z) => {
    if (y < frontY) return undefined;
    const half = table[Math.min(399, Math.round((y - frontY) / 0.2))];
    const u = x / (half || 1);
    if (Math.abs(u) > 1) return undefined;
    const depth = 11 * (1 - u * u) * Math.min(1, (y - frontY) / 16);
    return (levelMm + depth - z) * 0.8;
  };
}
