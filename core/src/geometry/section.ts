import { type Frame, toLocal } from './frame.js';
import type { Mesh } from './mesh.js';

/** A run of section points in the cutting plane's own axes, mm: [a0, b0, a1, b1, …]. */
export interface SectionLine {
  readonly points: Float64Array;
  readonly closed: boolean;
}

/**
 * Where a plane cuts a mesh. The plane is the frame's x–y plane; points come in (x, y) of that frame, mm.
 * A vertex that lies exactly on the plane counts as just above it, so no triangle is cut twice.
 * A closed mesh gives closed lines.
 */
export function section(mesh: Mesh, plane: Frame): SectionLine[] {
  const n = mesh.positions.length / 3;
  const local = new Float64Array(mesh.positions.length);
  for (let i = 0; i < n; i++) {
    local.set(toLocal(plane, [mesh.positions[3 * i], mesh.positions[3 * i + 1], mesh.positions[3 * i + 2]]), 3 * i);
  }
  const above = (i: number) => local[3 * i + 2] >= 0;
  const pointAt = new Map<number, [number, number]>();
  const next = new Map<number, number>();
  const hasBefore = new Set<number>();

  const crossing = (i: number, j: number): number => {
    const [lo, hi] = i < j ? [i, j] : [j, i];
    const key = lo * n + hi;
    if (!pointAt.has(key)) {
      const zl = local[3 * lo + 2];
      const zh = local[3 * hi + 2];
      const t = zl / (zl - zh);
      pointAt.set(key, [
        local[3 * lo] + t * (local[3 * hi] - local[3 * lo]),
        local[3 * lo + 1] + t * (local[3 * hi + 1] - local[3 * lo + 1]),
      ]);
    }
    return key;
  };

  for (let t = 0; t < mesh.triangles.length; t += 3) {
    let leave = -1;
    let enter = -1;
    for (let c = 0; c < 3; c++) {
      const i = mesh.triangles[t + c];
      const j = mesh.triangles[t + ((c + 1) % 3)];
      if (above(i) && !above(j)) leave = crossing(i, j);
      else if (!above(i) && above(j)) enter = crossing(i, j);
    }
    if (leave >= 0 && enter >= 0) {
      next.set(leave, enter);
      hasBefore.add(enter);
    }
  }
  return chain(pointAt, next, hasBefore);
}

function chain(
  pointAt: Map<number, [number, number]>,
  next: Map<number, number>,
  hasBefore: Set<number>,
): SectionLine[] {
  const lines: SectionLine[] = [];
  const done = new Set<number>();
  const walk = (start: number) => {
    const points: number[] = [];
    let at: number | undefined = start;
    while (at !== undefined && !done.has(at)) {
      done.add(at);
      points.push(...(pointAt.get(at) as [number, number]));
      at = next.get(at);
    }
    if (points.length >= 4) lines.push({ points: Float64Array.from(points), closed: at === start });
  };
  for (const k of next.keys()) if (!hasBefore.has(k)) walk(k);
  for (const k of next.keys()) if (!done.has(k)) walk(k);
  return lines;
}

/** Area in mm² enclosed by a closed section line, always positive. */
export function enclosedArea(line: SectionLine): number {
  const p = line.points;
  let twice = 0;
  for (let i = 0; i < p.length; i += 2) {
    const j = (i + 2) % p.length;
    twice += p[i] * p[j + 1] - p[j] * p[i + 1];
  }
  return Math.abs(twice) / 2;
}

/**
 * The outermost place where section lines cross the level b, on the side of smaller (`least`) or larger a.
 * @returns a in mm, or undefined where nothing lies at that level
 */
export function reachAtLevel(lines: readonly SectionLine[], b: number, side: 'least' | 'most'): number | undefined {
  let best: number | undefined;
  for (const line of lines) {
    const p = line.points;
    const last = line.closed ? p.length : p.length - 2;
    for (let i = 0; i < last; i += 2) {
      const j = (i + 2) % p.length;
      const b0 = p[i + 1];
      const b1 = p[j + 1];
      if (b0 < b === b1 < b) continue;
      const a = p[i] + ((p[j] - p[i]) * (b - b0)) / (b1 - b0);
      if (best === undefined || (side === 'least' ? a < best : a > best)) best = a;
    }
  }
  return best;
}
