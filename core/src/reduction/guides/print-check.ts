import type { Frame } from '../../geometry/frame.js';
import { type Mesh, pieces, triangleArea, volume } from '../../geometry/mesh.js';
import { type SectionLine, section } from '../../geometry/section.js';
import { buildTree } from '../../geometry/tree/build.js';
import { rayCaster } from '../../geometry/tree/ray.js';
import { cross, dot, normalize, scale, sub, type Vec3 } from '../../geometry/vec.js';

/** A wall thinner than this breaks when a resin guide is handled, mm. Common practice, no source; see your printer's. */
export const LEAST_PRINTED_MM = 1;
/** What looks down more than this needs a support: the cosine of 45°. Common practice, no source. */
const HANGS = Math.SQRT1_2;
/** Layers of a resin printer, mm, and seconds for each. Common practice, no source. */
const LAYER = { mm: 0.1, seconds: 9 } as const;
/** Layers are looked at for islands so far apart, mm. */
const LOOK_MM = 0.5;
/** So many places of the surface are asked for their wall. */
const PLACES = 2500;

/** How a body lies on the plate. */
export const LIES = ['edges down', 'front down', 'gum side down'] as const;
export type Lie = (typeof LIES)[number];
const UP: Readonly<Record<Lie, Vec3>> = {
  'edges down': [0, 0, 1],
  'front down': [0, 1, 0],
  'gum side down': [0, 0, -1],
};

/** What a printer would say of a body before it is printed. */
export interface PrintCheck {
  readonly pieces: number;
  readonly volumeMm3: number;
  /** The thinnest wall, but for a hundredth of the surface, mm. */
  readonly thinnestMm: number;
  /** Surface over walls thinner than LEAST_PRINTED_MM, mm². */
  readonly thinMm2: number;
  /** How it lies with the least to support. */
  readonly lie: Lie;
  readonly overhangMm2: number;
  /** Layers' parts that nothing lies under. */
  readonly islands: number;
  readonly heightMm: number;
  /** At LAYER, without washing and curing. */
  readonly minutes: number;
}

/** Looks at a closed body, mm, in the mouth's coordinates. About a second for a guide. */
export function printCheck(mesh: Mesh): PrintCheck {
  const { thinnestMm, thinMm2 } = walls(mesh);
  const lies = LIES.map((lie) => ({ lie, ...lying(mesh, UP[lie]) }));
  const best = lies.reduce((a, b) => (b.overhangMm2 < a.overhangMm2 ? b : a));
  return {
    pieces: pieces(mesh).length,
    volumeMm3: volume(mesh),
    thinnestMm,
    thinMm2,
    lie: best.lie,
    overhangMm2: best.overhangMm2,
    islands: islandsOf(mesh, UP[best.lie]),
    heightMm: best.heightMm,
    minutes: ((best.heightMm / LAYER.mm) * LAYER.seconds) / 60,
  };
}

const corner = ({ positions, triangles }: Mesh, at: number): Vec3 => {
  const v = 3 * (triangles[at] as number);
  return [positions[v] as number, positions[v + 1] as number, positions[v + 2] as number];
};

/** Two surfaces make a wall when they look apart by more than 120°. House value. */
const OPPOSITE = 0.5;

function normalOf(mesh: Mesh, face: number): Vec3 {
  const [a, b, c] = [corner(mesh, 3 * face), corner(mesh, 3 * face + 1), corner(mesh, 3 * face + 2)];
  return normalize(cross(sub(b, a), sub(c, a)));
}

function walls(mesh: Mesh): { thinnestMm: number; thinMm2: number } {
  const cast = rayCaster(buildTree(mesh));
  const count = mesh.triangles.length / 3;
  const every = Math.max(1, Math.floor(count / PLACES));
  const seen: { mm: number; area: number }[] = [];
  for (let t = 0; t < count; t += every) {
    if (triangleArea(mesh, 3 * t) < 1e-6) continue;
    const [a, b, c] = [corner(mesh, 3 * t), corner(mesh, 3 * t + 1), corner(mesh, 3 * t + 2)];
    const n = normalOf(mesh, t);
    const from: Vec3 = [0, 1, 2].map(
      (k) => ((a[k] as number) + (b[k] as number) + (c[k] as number)) / 3 - 0.005 * (n[k] as number),
    ) as never;
    const hit = cast.first(from, scale(n, -1));
    // Only what looks the other way is the other side of a wall; beside an edge a ray leaves through the rim.
    if (hit && dot(normalOf(mesh, hit.face), n) < -OPPOSITE)
      seen.push({ mm: hit.distance, area: every * triangleArea(mesh, 3 * t) });
  }
  seen.sort((p, q) => p.mm - q.mm);
  const whole = seen.reduce((n, s) => n + s.area, 0);
  let under = 0;
  const thinnest = seen.find((s) => {
    under += s.area;
    return under >= 0.01 * whole;
  });
  return {
    thinnestMm: thinnest?.mm ?? 0,
    thinMm2: seen.reduce((n, s) => (s.mm < LEAST_PRINTED_MM ? n + s.area : n), 0),
  };
}

/** From where to where a body reaches along a direction, mm. */
function heights({ positions }: Mesh, up: Vec3): readonly [number, number] {
  let [low, high] = [Infinity, -Infinity];
  for (let i = 0; i < positions.length; i += 3) {
    const h = dot(positions.subarray(i, i + 3) as unknown as Vec3, up);
    low = Math.min(low, h);
    high = Math.max(high, h);
  }
  return [low, high];
}

function lying(mesh: Mesh, up: Vec3): { overhangMm2: number; heightMm: number } {
  const [low, high] = heights(mesh, up);
  let overhangMm2 = 0;
  for (let t = 0; t < mesh.triangles.length; t += 3) {
    const [a, b, c] = [corner(mesh, t), corner(mesh, t + 1), corner(mesh, t + 2)];
    const n = cross(sub(b, a), sub(c, a));
    const down = -dot(n, up) / (Math.sqrt(dot(n, n)) || 1);
    // What lies on the plate needs nothing under it.
    if (down > HANGS && Math.min(dot(a, up), dot(b, up), dot(c, up)) > low + 2 * LAYER.mm)
      overhangMm2 += triangleArea(mesh, t);
  }
  return { overhangMm2, heightMm: high - low };
}

function islandsOf(mesh: Mesh, up: Vec3): number {
  const x: Vec3 = Math.abs(up[0]) < 0.5 ? [1, 0, 0] : [0, 1, 0];
  const y = cross(up, x);
  const [low, high] = heights(mesh, up);
  let islands = 0;
  let below: readonly SectionLine[] | undefined;
  for (let h = low + LAYER.mm; h < high; h += LOOK_MM) {
    const plane: Frame = { origin: scale(up, h), x, y, z: up };
    const here = section(mesh, plane);
    if (below) for (const line of here) if (!rests(line, below)) islands++;
    below = here;
  }
  return islands;
}

/** Whether some of a line lies over what is solid in the layer below, or reaches around a part of it. */
function rests(line: SectionLine, below: readonly SectionLine[]): boolean {
  const { points: p } = line;
  for (let i = 0; i < p.length; i += 2) if (solidAt(p[i] as number, p[i + 1] as number, below)) return true;
  return below.some((b) => solidAt(b.points[0] as number, b.points[1] as number, [line]));
}

/** Whether a place lies within lines, a hole counted as none. */
function solidAt(x: number, y: number, lines: readonly SectionLine[]): boolean {
  let inside = false;
  for (const { points: p } of lines)
    for (let i = 0, j = p.length - 2; i < p.length; j = i, i += 2) {
      const [xi, yi, xj, yj] = [p[i], p[i + 1], p[j], p[j + 1]] as unknown as [number, number, number, number];
      if (yi > y !== yj > y && x < xi + ((y - yi) / (yj - yi)) * (xj - xi)) inside = !inside;
    }
  return inside;
}
