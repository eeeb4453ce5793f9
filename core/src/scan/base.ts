import { cutOut, type Mesh, volume } from '../geometry/mesh.js';
import { length, type Vec3 } from '../geometry/vec.js';
import { type Repaired, vectorArea } from './repair.js';

/** A surface whose faces look to all sides alike, to so much of a square millimetre, is closed. House limit. */
const CLOSED_MM2 = 50;
/** Faces are of one plane where they look alike to so much, and lie within so much of it. House limits. */
const ALIKE = Math.cos((12 * Math.PI) / 180);
const WITHIN_MM = 0.4;
/** A base is at least so large, mm²: that of a quadrant. House limit. */
const LEAST_BASE_MM2 = 250;

/** A mended scan as a jaw is scanned: of a closed model its flat base is cut off, and it looks outward. */
export function openJaw({ mesh, repairs }: Repaired): Repaired {
  if (length(vectorArea(mesh)) > CLOSED_MM2) return { mesh, repairs };
  const inside = volume(mesh) < 0;
  const outward = inside ? turnedOut(mesh) : mesh;
  const cut = withoutBase(outward);
  return {
    mesh: cut ?? outward,
    repairs: [
      ...repairs,
      ...(inside
        ? [{ kind: 'inside-out' as const, count: 1, sentence: 'the whole surface was inside out and was turned' }]
        : []),
      ...(cut ? [{ kind: 'base' as const, count: 1, sentence: 'the flat base of a closed model was cut off' }] : []),
    ],
  };
}

const turnedOut = ({ positions, triangles }: Mesh): Mesh => ({
  positions,
  triangles: triangles.map((_, i) => triangles[i - (i % 3) + [0, 2, 1][i % 3]]),
});

/** The surface without the largest plane that it has; nothing where that is too small to be a base. */
function withoutBase(m: Mesh): Mesh | undefined {
  const n = m.triangles.length / 3;
  const normal = new Float64Array(3 * n);
  const area = new Float64Array(n);
  const looks = new Map<string, { mm2: number; sum: [number, number, number] }>();
  for (let t = 0; t < n; t++) {
    const v = areaOf(m, t);
    area[t] = length(v);
    if (area[t] === 0) continue;
    const own = v.map((c) => c / area[t]) as unknown as Vec3;
    normal.set(own, 3 * t);
    const key = own.map((c) => Math.round(5 * c)).join(' ');
    const known = looks.get(key) ?? { mm2: 0, sum: [0, 0, 0] };
    known.mm2 += area[t];
    for (const k of [0, 1, 2] as const) known.sum[k] += v[k];
    looks.set(key, known);
  }
  const best = [...looks.values()].sort((a, b) => length(b.sum) - length(a.sum))[0];
  if (!best) return undefined;
  const size = length(best.sum);
  const way = best.sum.map((c) => c / size) as unknown as Vec3;
  const alike = (t: number) => normal[3 * t] * way[0] + normal[3 * t + 1] * way[1] + normal[3 * t + 2] * way[2] > ALIKE;
  const depth = (t: number) => {
    const v = 3 * m.triangles[3 * t];
    return m.positions[v] * way[0] + m.positions[v + 1] * way[1] + m.positions[v + 2] * way[2];
  };
  const bins = new Map<number, number>();
  for (let t = 0; t < n; t++)
    if (alike(t)) {
      const b = Math.round(depth(t) / WITHIN_MM);
      bins.set(b, (bins.get(b) ?? 0) + area[t]);
    }
  const at = [...bins].sort((a, b) => b[1] - a[1])[0]?.[0];
  if (at === undefined) return undefined;
  const isBase = (t: number) => alike(t) && Math.abs(depth(t) - at * WITHIN_MM) <= WITHIN_MM;
  let mm2 = 0;
  const kept: number[] = [];
  for (let t = 0; t < n; t++)
    if (isBase(t)) mm2 += area[t];
    else kept.push(m.triangles[3 * t], m.triangles[3 * t + 1], m.triangles[3 * t + 2]);
  return mm2 < LEAST_BASE_MM2 ? undefined : cutOut(m.positions, kept);
}

/** Half the cross product of two sides of a triangle: where it looks, as long as it is large. */
function areaOf({ positions: p, triangles }: Mesh, t: number): Vec3 {
  const [a, b, c] = [3 * triangles[3 * t], 3 * triangles[3 * t + 1], 3 * triangles[3 * t + 2]];
  const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
  const [vx, vy, vz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
  return [(uy * vz - uz * vy) / 2, (uz * vx - ux * vz) / 2, (ux * vy - uy * vx) / 2];
}
