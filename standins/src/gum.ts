import {
  type Crown,
  type Frame,
  hypot,
  type Mesh,
  mergeMeshes,
  monotoneCurve,
  smoothstep,
  type Vec3,
} from '@radiant/core';
import { papillaRise } from './papilla.js';

export interface Standing {
  readonly tooth: number;
  readonly crown: Crown;
  readonly frame: Frame;
  readonly mesh: Mesh;
}

/** One place along the gum margin: the point, and how far it lies between two teeth (0 on a tooth … 1 papilla tip). */
interface Margin {
  readonly p: Vec3;
  readonly papilla: number;
}

/** Share of the half ring that the gum line follows before it leaves for the papilla. */
const FOLLOW = 0.1;

/** How the gum departs from a healthy one. */
export interface GumTrait {
  /** How far the papillae have drawn back, mm: dark triangles open. */
  readonly papillaLossMm?: number;
  /** Redness and swelling at the margins, 0–1. */
  readonly inflamed?: number;
}

/**
 * The gum around standing crowns as an open sheet on the facial and one on the palatal side, mm: it begins a little
 * inside each neck line, rolls over the margin, rises in papillae between the teeth and thickens over the roots.
 * @param reachMm how far over the margin the sheets go
 */
export function gum(teeth: readonly Standing[], trait: GumTrait = {}, reachMm = Number.POSITIVE_INFINITY): Mesh {
  const lost = trait.papillaLossMm ?? 0;
  return mergeMeshes([
    sheet(marginLine(teeth, true, lost), true, reachMm),
    sheet(marginLine(teeth, false, lost), false, Number.isFinite(reachMm) ? reachMm : INNER_REACH_MM),
  ]);
}

/** So far over the margin a whole gum goes on the palatal or tongue side, mm: then vault or floor begin. */
const INNER_REACH_MM = 4;

/** The inner border of the gum on the palatal or tongue side, patient's right first in an upper row's own frame, mm. */
export function innerBorder(teeth: readonly Standing[], trait: GumTrait = {}): Vec3[] {
  const line = marginLine(teeth, false, trait.papillaLossMm ?? 0);
  const { positions: p } = sheet(line, false, INNER_REACH_MM);
  const from = p.length / 3 - line.length;
  return line.map((_, i) => [p[3 * (from + i)], p[3 * (from + i) + 1], p[3 * (from + i) + 2]]);
}

function marginLine(teeth: readonly Standing[], facial: boolean, lost: number): Margin[] {
  const out: Margin[] = [];
  let before: { readonly p: Vec3; readonly tooth: Standing } | undefined;
  for (const t of teeth) {
    const n = t.crown.ringSize;
    const half = n / 2;
    const own: Vec3[] = [];
    // Ring 0 runs from +x over the facial to −x; teeth stand from the patient's right (−x) to the left, so walk it
    // backward.
    for (let i = 0; i <= half; i++) {
      const k = facial ? half - i : half + i;
      if (Math.abs(i / half - 0.5) > 0.5 - FOLLOW) continue;
      const v = 3 * (k % n);
      own.push([t.mesh.positions[v], t.mesh.positions[v + 1], t.mesh.positions[v + 2]]);
    }
    const first = own[0] as Vec3;
    if (before) {
      const rise = papillaRise(before.tooth, t, (before.p[2] + first[2]) / 2, lost);
      out.push(...papilla(before.p, first, facial, rise));
    }
    out.push(...own.map((p) => ({ p, papilla: 0 })));
    before = { p: own[own.length - 1] as Vec3, tooth: t };
  }
  return out;
}

function papilla(a: Vec3, b: Vec3, facial: boolean, rise: number): Margin[] {
  const out: Margin[] = [];
  for (let i = 1; i < 12; i++) {
    const t = i / 12;
    const hump = Math.sin(Math.PI * t) ** 1.3;
    out.push({
      p: [
        a[0] + (b[0] - a[0]) * t,
        a[1] + (b[1] - a[1]) * t + (facial ? 0.25 : -0.25) * hump,
        a[2] + (b[2] - a[2]) * t - rise * hump,
      ],
      papilla: hump,
    });
  }
  return out;
}

/**
 * Rows of the sheet: height over the margin, how far outward, mm; how much is left of the scallop, and of how the margin
 * winds in and out around the necks: the attached gum is one sheet over the roots.
 */
const ROWS: readonly { up: number; out: number; scallop: number; hug: number }[] = [
  { up: 0.5, out: -1.1, scallop: 1, hug: 1 },
  { up: 0.12, out: -0.25, scallop: 1, hug: 1 },
  { up: 0.0, out: 0.06, scallop: 1, hug: 1 },
  { up: 0.06, out: 0.24, scallop: 1, hug: 1 },
  { up: 0.3, out: 0.42, scallop: 0.99, hug: 0.98 },
  { up: 0.8, out: 0.58, scallop: 0.96, hug: 0.8 },
  { up: 1.5, out: 0.72, scallop: 0.9, hug: 0.56 },
  { up: 2.5, out: 0.88, scallop: 0.78, hug: 0.33 },
  { up: 3.8, out: 1.05, scallop: 0.6, hug: 0.17 },
  { up: 5.4, out: 1.2, scallop: 0.42, hug: 0.08 },
  { up: 7.2, out: 1.35, scallop: 0.28, hug: 0.03 },
  { up: 9.2, out: 1.6, scallop: 0.18, hug: 0.01 },
  { up: 11.5, out: 2.3, scallop: 0.1, hug: 0 },
  { up: 14, out: 3.6, scallop: 0.05, hug: 0 },
  { up: 17, out: 5.2, scallop: 0, hug: 0 },
  { up: 20, out: 6.4, scallop: 0, hug: 0 },
];

function sheet(margin: readonly Margin[], facial: boolean, reachMm: number): Mesh {
  const rows = ROWS.filter((row) => row.up <= reachMm);
  const level = smoothLevels(margin);
  const base = smoothBase(margin);
  const broad = margin.map((_, i) => average(margin, i, (m) => m.papilla));
  const n = margin.length;
  const positions: number[] = [];
  for (const row of rows) {
    for (let i = 0; i < n; i++) {
      const { p, papilla: between } = margin[i] as Margin;
      const [nx, ny] = outward(base, i, facial);
      const b = base[i] as [number, number];
      const follow = row.scallop;
      const rise = facial ? row.up : Math.min(row.up, 9);
      // Between the roots the gum lies back in shallow grooves.
      // Near the papilla they are as narrow as it is; higher up they run out into the gum on both sides.
      const wide = smoothstep(0.4, 2.6, rise);
      const hollow = between * (1 - wide) + Math.min(1, 1.8 * (broad[i] as number)) * wide;
      const groove = hollow * 0.5 * smoothstep(0.3, 2, rise) * (1 - smoothstep(6, 12, rise));
      const out = (facial ? 1 : 1.7) * row.out - groove;
      const x = p[0] * row.hug + b[0] * (1 - row.hug);
      const y = p[1] * row.hug + b[1] * (1 - row.hug);
      const z = p[2] * follow + level[i] * (1 - follow) + rise;
      positions.push(x + nx * out, y + ny * out, z);
    }
  }
  const triangles: number[] = [];
  for (let r = 0; r < rows.length - 1; r++) {
    for (let i = 0; i < n - 1; i++) {
      const a = r * n + i;
      const b = a + 1;
      const c = a + n + 1;
      const d = a + n;
      if (facial) triangles.push(a, b, c, a, c, d);
      else triangles.push(a, c, b, a, d, c);
    }
  }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}

/** The margin's general level, scallops smoothed away. */
function smoothLevels(margin: readonly Margin[]): number[] {
  return margin.map((_, i) => average(margin, i, (m) => m.p[2]));
}

function smoothBase(margin: readonly Margin[]): [number, number][] {
  return margin.map((_, i) => [average(margin, i, (m) => m.p[0]), average(margin, i, (m) => m.p[1])]);
}

function average(margin: readonly Margin[], i: number, of: (m: Margin) => number): number {
  let sum = 0;
  let weight = 0;
  for (let d = -60; d <= 60; d += 3) {
    const j = Math.min(margin.length - 1, Math.max(0, i + d));
    const w = Math.exp(-((d / 26) ** 2));
    sum += w * of(margin[j] as Margin);
    weight += w;
  }
  return sum / weight;
}

function outward(base: readonly [number, number][], i: number, facial: boolean): [number, number] {
  const a = base[Math.max(0, i - 4)] as [number, number];
  const b = base[Math.min(base.length - 1, i + 4)] as [number, number];
  const dx = b[0] - a[0];
  const dy = b[1] - a[1];
  const l = hypot(dx, dy) || 1;
  // Walking to the patient's left (+x), the outside (facial) lies at −y: the tangent turned right.
  return facial ? [dy / l, -dx / l] : [-dy / l, dx / l];
}

/**
 * How firmly the gum is attached at a height over the margin, 0–1: pale and stippled near the neck, red and smooth
 * above.
 */
export const attachment = monotoneCurve([
  [0, 0.7],
  [1.2, 1],
  [5, 0.95],
  [9, 0.3],
  [13, 0],
]);
