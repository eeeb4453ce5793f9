import { cutOut, type Frame, hypot, type Jaw, type Mesh, meshToArch, placeMesh, type Vec3 } from '@radiant/core';
import { type Random, random } from '../random.js';
import { placeOf, surfaceOf, type Volume } from '../surface-nets.js';
import { type FieldTooth, roundedMax, roundedMin, type ToothField, toothField } from './tooth-field.js';

/** How a jaw of fields is made. What is left out is usual. */
export interface FieldJawRecipe {
  readonly seed: number;
  readonly jaw: Jaw;
  /** Positions 1 to 8 of a side that are missing, as FDI numbers. */
  readonly missing?: readonly number[];
  /** Whether the others have moved together over what is missing. */
  readonly closed?: boolean;
  readonly crowded?: number;
  /** Between front teeth, mm. */
  readonly gapsMm?: number;
  readonly wearMm?: number;
  readonly recessionMm?: number;
  /** Shorter crowns than usual, as a share. */
  readonly short?: number;
  /** Teeth that are cut for crowns, and that wear veneers. */
  readonly stumps?: readonly number[];
  readonly veneers?: readonly number[];
  readonly stepMm?: number;
  readonly noiseMm?: number;
  /** Depth of the curve of the row seen from the side, mm. */
  readonly speeMm?: number;
  /** Only teeth up to this position are scanned, on the sides that are named. */
  readonly upTo?: number;
  readonly sides?: readonly ('right' | 'left')[];
  readonly tongue?: boolean;
  readonly cheek?: boolean;
  /** Closed below by a flat base. */
  readonly base?: boolean;
  /** How the scan's coordinates have it. */
  readonly placed?: Frame;
}

/** A jaw of fields as a scan, and what is true of it. */
export interface FieldJaw {
  readonly mesh: Mesh;
  /** Of each triangle: its tooth, FDI, or 0. */
  readonly truth: Uint8Array;
  /** Teeth that are in the scan, with their sizes. */
  readonly teeth: readonly { readonly tooth: number; readonly widthMm: number; readonly lengthMm: number }[];
}

/** Usual widths, lengths and depths of a textbook (Wheeler, rounded, from memory): upper 1 to 7, lower 1 to 7. */
const SIZES = {
  upper: [
    [8.5, 10.5, 7],
    [6.5, 9, 6],
    [7.5, 10, 8],
    [7, 8.5, 9],
    [7, 8.5, 9],
    [10, 7.5, 11],
    [9, 7, 11],
  ],
  lower: [
    [5, 9, 6],
    [5.5, 9.5, 6.5],
    [7, 11, 7.5],
    [7, 8.5, 7.5],
    [7, 8, 8],
    [11, 7.5, 10.5],
    [10.5, 7, 10],
  ],
} as const;

/** A tooth where it stands: in the arch's own frame, x to greater numbers of the row, y inward, z to the root. */
interface Stood {
  readonly fdi: number;
  readonly tooth: FieldTooth;
  readonly field: ToothField;
  readonly at: Vec3;
  /** Its own x in the plane. */
  readonly turn: readonly [number, number];
  /** Lean along the row and inward, tangents. */
  readonly lean: readonly [number, number];
}

/** The course of a row: places by the length along it from the midline, mm. */
function course(widthMm: number, depthMm: number, square: number) {
  const places: [number, number, number][] = [[0, 0, 0]];
  for (let i = 1; i <= 400; i++) {
    const t = (i / 400) * 1.15;
    const a = Math.min(Math.PI / 2, t * (Math.PI / 2));
    const x = (widthMm / 2) * Math.sin(a) ** (2 / square);
    const y = depthMm * (1 - Math.cos(a) ** (2 / square)) + Math.max(0, t - 1) * depthMm;
    const [px, py, s] = places.at(-1) as [number, number, number];
    places.push([x, y, s + hypot(x - px, y - py)]);
  }
  return (along: number): { x: number; y: number; dx: number; dy: number } => {
    const s = Math.abs(along);
    const i = Math.max(
      1,
      places.findIndex((p) => p[2] >= s),
    );
    const [a, b] = [places[i - 1], places[i === 0 ? places.length - 1 : i]] as [
      [number, number, number],
      [number, number, number],
    ];
    const k = (s - a[2]) / Math.max(1e-6, b[2] - a[2]);
    const way = along < 0 ? -1 : 1;
    const n = hypot(b[0] - a[0], b[1] - a[1]) || 1;
    return {
      x: way * (a[0] + k * (b[0] - a[0])),
      y: a[1] + k * (b[1] - a[1]),
      dx: (b[0] - a[0]) / n,
      dy: (way * (b[1] - a[1])) / n,
    };
  };
}

/** The jaw in the arch's own frame: z to the roots, y inward. */
export function fieldJaw(r: FieldJawRecipe): FieldJaw {
  const own = random(r.seed * 7919 + (r.jaw === 'upper' ? 1 : 2));
  const stood = row(r, own);
  const volume = filled(r, stood, own);
  const surface = surfaceOf(volume.v);
  const open = r.base ? surface : opened(surface, volume.topMm, r, stood);
  const noisy = roughen(open, r.noiseMm ?? 0.02, own);
  const truth = truthOf(noisy, stood, volume.gumAt);
  const mouth = meshToArch(r.jaw, noisy);
  const teeth = stood.filter((s) => truth.includes(s.fdi)).map((s) => ({ tooth: s.fdi, ...sizeOf(s, noisy, truth) }));
  return { mesh: r.placed ? placeMesh(mouth, r.placed) : mouth, truth, teeth };
}

function row(r: FieldJawRecipe, own: Random): Stood[] {
  const upper = r.jaw === 'upper';
  const scale = 1 + own.normal(0.04);
  const narrow = 1 + own.normal(0.05);
  const along = course(
    (upper ? 54 : 48) * narrow * scale,
    (upper ? 44 : 41) * scale * (1 + own.normal(0.04)),
    1.65 + 0.25 * own.next(),
  );
  const out: Stood[] = [];
  for (const side of ['right', 'left'] as const) {
    // A lower jaw is looked at turned over: the patient's right lies at greater x then.
    const way = (side === 'right') === upper ? -1 : 1;
    const quadrant = upper ? (side === 'right' ? 10 : 20) : side === 'right' ? 40 : 30;
    let s = (r.gapsMm ?? 0) * 0.5 * own.next();
    for (let position = 1; position <= 7; position++) {
      const [w, l, d] = SIZES[r.jaw][position - 1] as readonly [number, number, number];
      // Drawn whether it is needed or not: the same mouth before and after is one seed.
      const cut = 0.9 + 0.4 * own.next();
      const tooth: FieldTooth = {
        position,
        upper,
        widthMm: w * scale * (1 + own.normal(0.035)),
        lengthMm: l * (1 - (r.short ?? 0)) * (1 + own.normal(0.05)) + (r.recessionMm ?? 0) * 0.6,
        depthMm: d * scale * (1 + own.normal(0.03)),
        neckShare: 0.74 + 0.06 * own.next(),
        square: 2.5 + own.next() * (position > 5 ? 1.6 : 0.9),
        wearMm: (r.wearMm ?? 0) * (position <= 3 ? 0.7 + 0.6 * own.next() : 0.4 * own.next()),
        cutMm: r.stumps?.includes(quadrant + position) ? cut : r.veneers?.includes(quadrant + position) ? -0.4 : 0,
        cuspMm: position === 3 ? 2 : position <= 5 ? 2.2 + 0.5 * own.next() : 1.9 + 0.5 * own.next(),
      };
      const fdi = quadrant + position;
      const gone = r.missing?.includes(fdi);
      if (gone) {
        s += r.closed ? 0.6 : tooth.widthMm;
        continue;
      }
      const crowd = (r.crowded ?? 0) * (position <= 3 ? 1 : 0.3);
      // Neighbours touch over some height and are scanned as one.
      const take = tooth.widthMm * (TOUCH - 0.06 * crowd);
      const at = along(way * (s + take / 2));
      const turned = (crowd * own.normal(9) + own.normal(2.5)) * (Math.PI / 180);
      // The tooth's own x grows along the row to greater x in front.
      const [tx, ty] = [at.dx, at.dy];
      const [c, q] = [Math.cos(turned), Math.sin(turned)];
      const forward = crowd * own.normal(0.7) + own.normal(0.12);
      const spee = (r.speeMm ?? 0.6) * Math.sin(Math.min(1, (s + take / 2) / 38) * Math.PI) * (upper ? -1 : 1);
      const steps = position === 2 && upper ? 0.5 : position === 3 ? -0.15 : 0;
      out.push({
        fdi,
        tooth,
        field: toothField(tooth),
        at: [at.x - ty * forward * -1, at.y - tx * forward, spee + steps + own.normal(0.12)],
        turn: [tx * c - ty * q, ty * c + tx * q],
        lean: [own.normal(0.035), (position <= 3 ? -0.12 : 0.04) + own.normal(0.03)],
      });
      s += take + (r.gapsMm ?? 0) * (position <= 3 ? own.next() : 0.2 * own.next());
    }
  }
  const kept = out.filter(
    (t) =>
      t.fdi % 10 <= (r.upTo ?? 7) &&
      (!r.sides || r.sides.includes(Math.floor(t.fdi / 10) % 3 === 1 ? 'right' : 'left')),
  );
  return kept.sort((a, b) => a.at[0] - b.at[0]);
}

/** A place in a tooth's own coordinates. */
function ownPlace(t: Stood, x: number, y: number, z: number): Vec3 {
  const dx = x - t.at[0];
  const dy = y - t.at[1];
  const dz = z - t.at[2];
  const u = dx * t.turn[0] + dy * t.turn[1];
  const v = -dx * t.turn[1] + dy * t.turn[0];
  return [u - t.lean[0] * dz, v - t.lean[1] * dz, dz];
}

/** So much of its width a tooth takes up in the row: the rest it shares with its neighbours. */
const TOUCH = 0.955;

const REACH_MM = 8;
/** Beyond this a field is not asked. */
const FAR_MM = 6;

function filled(r: FieldJawRecipe, teeth: readonly Stood[], own: Random) {
  const h = r.stepMm ?? 0.35;
  const far = (c: 0 | 1) => teeth.map((t) => t.at[c]);
  const [x0, x1] = [Math.min(...far(0)) - 14, Math.max(...far(0)) + 14];
  const [y0, y1] = [Math.min(...far(1)) - 13, Math.max(...far(1)) + 11];
  const topMm = Math.max(...teeth.map((t) => t.at[2] + t.tooth.lengthMm)) + REACH_MM;
  const z1 = topMm + (r.jaw === 'upper' ? 6 : 2);
  const z0 = -3;
  const [na, nb, nc] = [Math.ceil((x1 - x0) / h), Math.ceil((y1 - y0) / h), Math.ceil((z1 - z0) / h)];
  const v: Volume = { grid: { a0: x0, b0: y0, na, nb, step: h }, c0: z0, nc, d: new Float32Array(na * nb * nc) };
  const roof = z1 - 2.5 * h;
  const vault = { high: 5 + 4 * own.next() };
  const [bx, by] = [own.normal(6), 0.55 * (y0 + y1) + own.normal(3)];
  const lump = r.tongue ? { x: bx, y: by, z: 1 + 4 * own.next(), r: 13 + 4 * own.next() } : undefined;
  const cheekAt = r.cheek
    ? { x: (own.next() < 0.5 ? -1 : 1) * (Math.max(...far(0)) + 9), y: 0.6 * y1, z: 1, r: 9 }
    : undefined;
  const gums = columns(r, teeth, v, vault.high);
  // Tongue and cheek, which lie against what is scanned.
  const soft = (x: number, y: number, z: number, gum: number): number => {
    let f = gum;
    if (lump) f = roundedMin(f, hypot(x - lump.x, y - lump.y, (z - lump.z - lump.r) * 0.9) - lump.r, 1.5);
    if (cheekAt)
      f = roundedMin(f, hypot(x - cheekAt.x, (y - cheekAt.y) * 0.5, (z - cheekAt.z - 6) * 0.6) - cheekAt.r, 1);
    return f;
  };
  const gumAt = (x: number, y: number, z: number): number => {
    const i = Math.max(0, Math.min(na - 1, Math.round((x - x0) / h)));
    const j = Math.max(0, Math.min(nb - 1, Math.round((y - y0) / h)));
    return soft(x, y, z, gums(i, j, z));
  };
  for (let k = 0; k < nc; k++)
    for (let j = 0; j < nb; j++)
      for (let i = 0; i < na; i++) {
        const x = x0 + i * h;
        const y = y0 + j * h;
        const z = z0 + k * h;
        v.d[placeOf(v, i, j, k)] = soft(x, y, z, gums(i, j, z));
      }
  for (const t of teeth) {
    const reach = Math.max(t.tooth.widthMm, t.tooth.depthMm) / 2 + 2;
    const range = (at: number, a0: number, n: number, over: number) =>
      [Math.max(0, Math.floor((at - over - a0) / h)), Math.min(n - 1, Math.ceil((at + over - a0) / h))] as const;
    const [i0, i1] = range(t.at[0], x0, na, reach + 1.5);
    const [j0, j1] = range(t.at[1], y0, nb, reach + 1.5);
    for (let k = 0; k < nc; k++)
      for (let j = j0; j <= j1; j++)
        for (let i = i0; i <= i1; i++) {
          const f = t.field(...ownPlace(t, x0 + i * h, y0 + j * h, z0 + k * h));
          if (f > FAR_MM) continue;
          const at = placeOf(v, i, j, k);
          v.d[at] = roundedMin(v.d[at] as number, f, 0.22);
        }
  }
  // Above the roof nothing is: the body ends in a plane.
  for (let k = 0; k < nc; k++)
    for (let j = 0; j < nb; j++)
      for (let i = 0; i < na; i++) {
        const at = placeOf(v, i, j, k);
        const edge = Math.max(
          z0 + k * h - roof,
          2 * h - i * h,
          i * h - (na - 3) * h,
          2 * h - j * h,
          j * h - (nb - 3) * h,
        );
        v.d[at] = Math.max(v.d[at] as number, edge);
      }
  return { v, topMm: Math.min(topMm, roof - h), gumAt };
}

/** The gum column by column: where its margin lies over the plane, and how far out of the row its body is. */
function columns(r: FieldJawRecipe, teeth: readonly Stood[], { grid }: Volume, high: number) {
  const { na, nb, step, a0, b0 } = grid;
  const margin = new Float32Array(na * nb);
  const body = new Float32Array(na * nb);
  const inside = new Float32Array(na * nb);
  const down = r.recessionMm ?? 0;
  const middleX = teeth.reduce((n, t) => n + t.at[0], 0) / teeth.length;
  const backY = Math.max(...teeth.map((t) => t.at[1]));
  for (let j = 0; j < nb; j++)
    for (let i = 0; i < na; i++) {
      const [x, y] = [a0 + i * step, b0 + j * step];
      let [sum, weight, near, second] = [0, 0, Infinity, Infinity];
      for (const t of teeth) {
        const [u, w] = ownPlace(t, x, y, t.at[2]);
        // The margin bows towards the root in the middle of a tooth and towards the edge between two.
        const share = Math.min(1.3, Math.abs(u) / (t.tooth.widthMm / 2));
        const scallop = t.tooth.position <= 3 ? 3 : t.tooth.position <= 5 ? 1.8 : 1.1;
        const level = t.at[2] + t.tooth.lengthMm - scallop * Math.min(1, share * share) + 0.5 * down;
        const d = hypot(
          Math.max(0, Math.abs(u) - t.tooth.widthMm * 0.42),
          Math.max(0, Math.abs(w) - t.tooth.depthMm * 0.3),
        );
        const k = Math.exp(-d / 1.1);
        sum += k * level;
        weight += k;
        if (d < near) [near, second] = [d, near];
        else if (d < second) second = d;
      }
      margin[i + na * j] = sum / Math.max(1e-9, weight);
      body[i + na * j] = near;
      // Within the row: how far from the teeth towards the middle of the mouth.
      inside[i + na * j] = y > 6 && y < backY + 4 && Math.abs(x - middleX) < 22 ? 1 : 0;
    }
  const upper = r.jaw === 'upper';
  return (i: number, j: number, z: number): number => {
    const at = i + na * j;
    const [m, d] = [margin[at] as number, body[at] as number];
    // The ridge: from its margin on it spreads towards the root.
    const spread = 2.1 + 0.28 * Math.max(0, z - m);
    const ridge = roundedMax(d - spread, (m - z) * 0.85, 1.4);
    if (!upper || !inside[at]) return ridge;
    // The palate arches over the room within the row.
    const floor = m + 1.5 + high * (1 - Math.exp(-d / 6));
    return roundedMin(ridge, (floor - z) * 0.8, 2.5);
  };
}

/** The open surface: what a scanner sees from the teeth's side, down to where it was not led. */
function opened(m: Mesh, topMm: number, r: FieldJawRecipe, teeth: readonly Stood[]): Mesh {
  const p = m.positions;
  const kept: number[] = [];
  const reach = r.jaw === 'upper' ? 24 : 11;
  for (let t = 0; t < m.triangles.length; t += 3) {
    let ok = true;
    for (let c = 0; c < 3 && ok; c++) {
      const v = 3 * (m.triangles[t + c] as number);
      const x = p[v] as number;
      const y = p[v + 1] as number;
      const z = p[v + 2] as number;
      const within = teeth.some((s) => y > s.at[1] + 3 && Math.abs(x) < Math.abs(s.at[0]) - 2);
      if (!within && z > topMm - 2.2 - 0.8 * Math.sin(x * 0.35 + r.seed)) ok = false;
      else if (!teeth.some((s) => hypot(x - s.at[0], y - s.at[1]) < (y > s.at[1] + 4 ? reach : 11))) ok = false;
    }
    if (ok) kept.push(m.triangles[t] as number, m.triangles[t + 1] as number, m.triangles[t + 2] as number);
  }
  return cutOut(p, kept);
}

/** What is within so much of a tooth's own field is its own surface; the rest runs over to a neighbour, mm. */
const OWN_MM = 0.1;

/**
 * How large a tooth is as it stands there, by what is seen of its own surface: greatest width, and length from the edge
 * to the highest facial place, both along its own axes.
 */
function sizeOf(s: Stood, m: Mesh, truth: Uint8Array): { widthMm: number; lengthMm: number } {
  const places: Vec3[] = [];
  // Corners, not middles of triangles: these end half a triangle short on both sides.
  const taken = new Set<number>();
  truth.forEach((x, t) => {
    if (x !== s.fdi) return;
    for (let c = 0; c < 3; c++) taken.add(m.triangles[3 * t + c] as number);
  });
  for (const v of taken) {
    const own = ownPlace(s, ...([0, 1, 2].map((k) => m.positions[3 * v + k] as number) as [number, number, number]));
    if (Math.abs(s.field(...own)) < OWN_MM) places.push(own);
  }
  const reach = (k: 0 | 1 | 2, of: readonly Vec3[]) =>
    of.reduce(([a, b], p) => [Math.min(a, p[k]), Math.max(b, p[k])] as const, [Infinity, -Infinity] as const);
  const [u0, u1] = reach(0, places);
  const [v0, v1] = reach(1, places);
  const facial = places.filter((p) => p[1] < v0 + 0.5 * (v1 - v0));
  const [edge, neck] = reach(2, facial);
  return { widthMm: u1 - u0, lengthMm: neck - edge };
}

function middleOf({ positions: p, triangles }: Mesh, t: number): Vec3 {
  const c = (k: 0 | 1 | 2) =>
    [0, 1, 2].reduce((n, i) => n + (p[3 * (triangles[3 * t + i] as number) + k] as number) / 3, 0);
  return [c(0), c(1), c(2)];
}

function roughen(m: Mesh, mm: number, own: Random): Mesh {
  return mm === 0 ? m : { positions: m.positions.map((v) => v + own.normal(mm)), triangles: m.triangles };
}

/** The tooth of each triangle: the one whose field is least there, where it lies nearer than the gum does. */
function truthOf(m: Mesh, teeth: readonly Stood[], gumAt: (x: number, y: number, z: number) => number): Uint8Array {
  const out = new Uint8Array(m.triangles.length / 3);
  for (let t = 0; t < out.length; t++) {
    const [x, y, z] = middleOf(m, t);
    let [best, who] = [Math.max(0, gumAt(x, y, z)), 0];
    for (const s of teeth) {
      if (hypot(x - s.at[0], y - s.at[1]) > 9) continue;
      const f = Math.abs(s.field(...ownPlace(s, x, y, z)));
      if (f < best) [best, who] = [f, s.fdi];
    }
    out[t] = who;
  }
  return out;
}
