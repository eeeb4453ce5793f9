import {
  buildTree,
  type Mesh,
  mergeMeshes,
  type RayCaster,
  rayCaster,
  smoothstep,
  type Tree,
  toLocal,
  triangleCount,
  type Vec3,
  vertexNormals,
} from '@radiant/core';
import type { Patient, PatientTooth } from './patient.js';
import { random, smoothNoise } from './random.js';
import { inkOnScale } from './scale-reference.js';

// Taken once: a global looked up in an inner loop is slow wherever the engine runs the code in a context of its own.
const { cos, hypot, max, min, sin, sqrt } = Math;

/** A picture: 8-bit sRGB with alpha, row by row from the top left. */
export interface Picture {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8ClampedArray;
}

/** The simulated camera: a pinhole in front of the mouth, looking straight back. Lengths in mm. */
export interface CameraSetting {
  readonly widthPx: number;
  readonly heightPx: number;
  /** From the pinhole to the plane of the scale reference. */
  readonly distanceMm: number;
  /** Width of the field in the plane of the scale reference. */
  readonly fieldMm: number;
  /** Height of the picture's centre in the mouth's coordinates. */
  readonly centreZ: number;
  /** Roll about the line of sight, degrees, clockwise in the picture. */
  readonly rollDeg?: number;
  /** Left edge of the scale reference and the level of its upper edge, in the mouth's coordinates. */
  readonly scaleAt?: { readonly x: number; readonly z: number };
}

export const RETRACTED_FRONT: CameraSetting = {
  widthPx: 1500,
  heightPx: 1000,
  distanceMm: 420,
  fieldMm: 60,
  centreZ: 2.2,
  scaleAt: { x: -20, z: -9.2 },
};

/** The plane in which the scale reference is held: level with the centrals' facial surfaces. */
export const SCALE_PLANE_Y = -2.4;
const SCALE_LENGTH_MM = 40;
const SCALE_HEIGHT_MM = 5.2;

/** Where a point of the mouth falls in the picture, px from the top left corner. */
export function project(s: CameraSetting, p: Vec3): readonly [number, number] {
  const pxPerMm = s.widthPx / s.fieldMm;
  const depth = s.distanceMm + (p[1] - SCALE_PLANE_Y);
  const k = (pxPerMm * s.distanceMm) / depth;
  const u = p[0] * k;
  const v = -(p[2] - s.centreZ) * k;
  const t = ((s.rollDeg ?? 0) * Math.PI) / 180;
  return [s.widthPx / 2 + u * cos(t) - v * sin(t), s.heightPx / 2 + u * sin(t) + v * cos(t)];
}

/** The zero and the last tick of the scale reference in the picture, and their distance in mm. */
export function scalePoints(s: CameraSetting): { from: readonly [number, number]; to: readonly [number, number]; mm: number } {
  const at = s.scaleAt ?? { x: -20, z: -9.2 };
  return { from: project(s, [at.x, SCALE_PLANE_Y, at.z]), to: project(s, [at.x + SCALE_LENGTH_MM, SCALE_PLANE_Y, at.z]), mm: SCALE_LENGTH_MM };
}

interface Scene {
  readonly tree: Tree;
  readonly caster: RayCaster;
  readonly mesh: Mesh;
  readonly normals: Float64Array;
  /** For each triangle the tooth it belongs to, or −1 for gum. */
  readonly owner: Int16Array;
  readonly teeth: readonly PatientTooth[];
}

function scene(patient: Patient): Scene {
  const parts = [...patient.teeth.map((t) => t.mesh), patient.gum];
  const mesh = mergeMeshes(parts);
  const owner = new Int16Array(triangleCount(mesh));
  let at = 0;
  parts.forEach((m, i) => {
    owner.fill(i < patient.teeth.length ? i : -1, at, at + triangleCount(m));
    at += triangleCount(m);
  });
  const tree = buildTree(mesh);
  return { tree, caster: rayCaster(tree), mesh, normals: vertexNormals(mesh), owner, teeth: patient.teeth };
}

type Rgb = [number, number, number];
const UP: Vec3 = [0, 0, 1];

/** What a pixel's ray met. */
interface Hit {
  readonly p: Vec3;
  readonly n: Vec3;
  readonly owner: number;
}

/**
 * Takes a photograph of the patient: ray-cast, twin flash, enamel and gum colour, contact shadows, a dark background and
 * a scale reference in the picture. Deterministic. About 2.5 µs a pixel and ray.
 */
export function photograph(patient: Patient, s: CameraSetting): Picture {
  const sc = scene(patient);
  const { widthPx: w, heightPx: h } = s;
  const pinhole: Vec3 = [0, SCALE_PLANE_Y - s.distanceMm, s.centreZ];
  const hits: (Hit | undefined)[] = new Array(w * h);
  for (let y = 0; y < h; y++) for (let x = 0; x < w; x++) hits[y * w + x] = trace(sc, pinhole, rayAt(s, x + 0.5, y + 0.5));
  const shade = occlusion(sc, hits, w, h);
  const light = new Float32Array(3 * w * h);
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      light.set(colourAt(sc, s, patient.recipe.seed, x, y, hits[i], shade[i] as number, pinhole), 3 * i);
    }
  }
  smoothEdges(sc, s, patient.recipe.seed, hits, shade, light, pinhole);
  return develop(light, w, h, patient.recipe.seed);
}

function rayAt(s: CameraSetting, px: number, py: number): Vec3 {
  const t = (-(s.rollDeg ?? 0) * Math.PI) / 180;
  const u0 = px - s.widthPx / 2;
  const v0 = py - s.heightPx / 2;
  const k = s.fieldMm / s.widthPx;
  const u = (u0 * cos(t) - v0 * sin(t)) * k;
  const v = (u0 * sin(t) + v0 * cos(t)) * k;
  const l = hypot(u, s.distanceMm, v);
  return [u / l, s.distanceMm / l, -v / l];
}

function trace(sc: Scene, from: Vec3, d: Vec3): Hit | undefined {
  const hit = sc.caster.first(from, d);
  if (!hit) return undefined;
  const p: Vec3 = [from[0] + d[0] * hit.distance, from[1] + d[1] * hit.distance, from[2] + d[2] * hit.distance];
  return { p, n: facing(normalAt(sc, hit.face, p), d), owner: sc.owner[hit.face] as number };
}

function facing(n: Vec3, d: Vec3): Vec3 {
  return n[0] * d[0] + n[1] * d[1] + n[2] * d[2] > 0 ? [-n[0], -n[1], -n[2]] : n;
}

/** The vertex normals blended by the areas opposite each corner. */
function normalAt(sc: Scene, face: number, p: Vec3): Vec3 {
  const pos = sc.mesh.positions;
  const v = [0, 1, 2].map((c) => 3 * (sc.mesh.triangles[3 * face + c] as number)) as [number, number, number];
  const weight = v.map((_, c) => {
    const a = v[(c + 1) % 3] as number;
    const b = v[(c + 2) % 3] as number;
    const ux = (pos[a] as number) - p[0];
    const uy = (pos[a + 1] as number) - p[1];
    const uz = (pos[a + 2] as number) - p[2];
    const wx = (pos[b] as number) - p[0];
    const wy = (pos[b + 1] as number) - p[1];
    const wz = (pos[b + 2] as number) - p[2];
    return hypot(uy * wz - uz * wy, uz * wx - ux * wz, ux * wy - uy * wx);
  });
  const n: Rgb = [0, 0, 0];
  for (let c = 0; c < 3; c++) for (let k = 0; k < 3; k++) n[k] = (n[k] as number) + (weight[c] as number) * (sc.normals[(v[c] as number) + k] as number);
  const l = hypot(...n) || 1;
  return [n[0] / l, n[1] / l, n[2] / l];
}

/** Share of the half-space over each pixel's surface that is open within 6 mm, from six rays at every second pixel. */
function occlusion(sc: Scene, hits: readonly (Hit | undefined)[], w: number, h: number): Float32Array {
  const out = new Float32Array(w * h).fill(1);
  const r = random(7);
  const dirs = Array.from({ length: 6 }, (_, i) => {
    const t = Math.acos(sqrt((i + 0.5) / 6));
    return [t, r.next() * 2 * Math.PI] as const;
  });
  for (let y = 0; y < h; y += 2) {
    for (let x = 0; x < w; x += 2) {
      const hit = hits[y * w + x];
      if (!hit) continue;
      const side = Math.abs(hit.n[2]) < 0.9 ? UP : ([1, 0, 0] as Vec3);
      const tx = norm([side[1] * hit.n[2] - side[2] * hit.n[1], side[2] * hit.n[0] - side[0] * hit.n[2], side[0] * hit.n[1] - side[1] * hit.n[0]]);
      const ty: Vec3 = [hit.n[1] * tx[2] - hit.n[2] * tx[1], hit.n[2] * tx[0] - hit.n[0] * tx[2], hit.n[0] * tx[1] - hit.n[1] * tx[0]];
      const from: Vec3 = [hit.p[0] + hit.n[0] * 0.03, hit.p[1] + hit.n[1] * 0.03, hit.p[2] + hit.n[2] * 0.03];
      let open = 0;
      for (const [t, f0] of dirs) {
        const f = f0 + ((x * 7 + y * 13) % 16) * 0.39;
        const a = sin(t) * cos(f);
        const b = sin(t) * sin(f);
        const c = cos(t);
        const d: Vec3 = [tx[0] * a + ty[0] * b + hit.n[0] * c, tx[1] * a + ty[1] * b + hit.n[1] * c, tx[2] * a + ty[2] * b + hit.n[2] * c];
        const met = sc.caster.first(from, d, 6);
        open += met ? min(1, met.distance / 6) ** 2 : 1;
      }
      const share = open / dirs.length;
      for (const [dx, dy] of [
        [0, 0],
        [1, 0],
        [0, 1],
        [1, 1],
      ] as const) {
        if (x + dx < w && y + dy < h) out[(y + dy) * w + x + dx] = share;
      }
    }
  }
  return blur(out, hits, w, h);
}

function blur(a: Float32Array, hits: readonly (Hit | undefined)[], w: number, h: number): Float32Array {
  const out = new Float32Array(a.length);
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const own = hits[y * w + x]?.owner;
      let sum = 0;
      let n = 0;
      for (let dy = -4; dy <= 4; dy += 2) {
        for (let dx = -4; dx <= 4; dx += 2) {
          const xx = x + dx;
          const yy = y + dy;
          if (xx < 0 || yy < 0 || xx >= w || yy >= h || hits[yy * w + xx]?.owner !== own) continue;
          sum += a[yy * w + xx] as number;
          n++;
        }
      }
      out[y * w + x] = sum / n;
    }
  }
  return out;
}

function norm(v: Vec3): Vec3 {
  const l = hypot(...v) || 1;
  return [v[0] / l, v[1] / l, v[2] / l];
}

/** Two flash heads beside the lens and slightly above it. */
const FLASHES: readonly Vec3[] = [norm([-0.42, -1, 0.34]), norm([0.42, -1, 0.34])];

function colourAt(sc: Scene, s: CameraSetting, seed: number, x: number, y: number, hit: Hit | undefined, open: number, pinhole: Vec3): Rgb {
  const onScale = scaleColour(s, x + 0.5, y + 0.5);
  if (onScale) return onScale;
  if (!hit) return background(s, seed, x, y);
  const view = norm([pinhole[0] - hit.p[0], pinhole[1] - hit.p[1], pinhole[2] - hit.p[2]]);
  return hit.owner >= 0 ? enamel(sc.teeth[hit.owner] as PatientTooth, hit, view, open, seed) : mucosa(hit, view, open, seed);
}

function background(s: CameraSetting, seed: number, x: number, y: number): Rgb {
  const u = x / s.widthPx - 0.5;
  const v = y / s.heightPx - 0.5;
  const cheek = smoothstep(0.36, 0.52, Math.abs(u) + 0.06 * smoothNoise(u * 8, v * 8, 0, seed)) * (1 - smoothstep(-0.1, 0.4, v) * 0.7);
  return [0.014 + 0.16 * cheek, 0.008 + 0.05 * cheek, 0.009 + 0.05 * cheek];
}

function enamel(tooth: PatientTooth, hit: Hit, view: Vec3, open: number, seed: number): Rgb {
  const local = toLocal(tooth.frame, hit.p);
  const size = tooth.crown.size;
  const h = local[2] / size.lengthMm;
  const edge = 1 - smoothstep(0.02, 0.3, h + 0.05 * smoothNoise(local[0] * 1.6, local[2] * 0.5, tooth.tooth, seed));
  const neck = smoothstep(0.5, 1, h);
  const warm = tooth.tooth % 10 === 3 ? 0.05 : tooth.tooth % 10 >= 4 ? 0.025 : 0;
  const streak = 0.02 * smoothNoise(local[0] * 1.3, local[2] * 0.35, tooth.tooth * 3, seed) + 0.012 * smoothNoise(local[0] * 5, local[2] * 4, 5, seed);
  const base: Rgb = [
    0.74 - 0.02 * neck - 0.13 * edge + streak,
    0.655 - 0.075 * neck - 0.09 * edge - warm + streak,
    0.5 - 0.13 * neck - 0.01 * edge - 1.9 * warm + streak,
  ];
  // Mamelons show warm under the translucent edge.
  const lobes = edge * 0.05 * max(0, cos((local[0] / size.widthMm) * 3 * 2 * Math.PI));
  base[0] += lobes;
  base[1] += lobes * 0.75;
  const bump = 0.03;
  const n = norm([
    hit.n[0] + bump * smoothNoise(hit.p[0] * 2.2, hit.p[2] * 3.2, hit.p[1], seed + 1),
    hit.n[1],
    hit.n[2] + bump * smoothNoise(hit.p[0] * 2.2, hit.p[2] * 3.2, hit.p[1] + 9, seed + 2),
  ]);
  return lit(base, n, view, open, { wrap: 0.35, shine: 130, gloss: 0.5, glow: [0.1, 0.075, 0.05] });
}

function mucosa(hit: Hit, view: Vec3, open: number, seed: number): Rgb {
  const up = hit.p[2] - 9.5;
  const free = smoothstep(5.5, 10.5, up + 1.2 * smoothNoise(hit.p[0] * 0.25, hit.p[2] * 0.2, 1, seed));
  const mottle = 0.05 * smoothNoise(hit.p[0] * 0.55, hit.p[2] * 0.45, hit.p[1] * 0.5, seed) + 0.025 * smoothNoise(hit.p[0] * 2.1, hit.p[2] * 2.1, 3, seed);
  const vessel = free * 0.07 * max(0, smoothNoise(hit.p[0] * 0.9 + 2 * smoothNoise(hit.p[0] * 0.3, hit.p[2] * 0.3, 4, seed), hit.p[2] * 0.35, 8, seed) - 0.25);
  const base: Rgb = [0.6 - 0.1 * free + mottle, 0.265 - 0.115 * free + mottle * 0.75 - vessel, 0.25 - 0.1 * free + mottle * 0.7 - vessel];
  const stipple = 0.075 * (1 - free);
  const n = norm([
    hit.n[0] + stipple * smoothNoise(hit.p[0] * 4.5, hit.p[2] * 4.5, hit.p[1], seed + 3) + 0.04 * smoothNoise(hit.p[0], hit.p[2], 2, seed),
    hit.n[1],
    hit.n[2] + stipple * smoothNoise(hit.p[0] * 4.5, hit.p[2] * 4.5, hit.p[1] + 5, seed + 4),
  ]);
  return lit(base, n, view, open, { wrap: 0.3, shine: 70, gloss: 0.28, glow: [0.08, 0.02, 0.02] });
}

interface Finish {
  readonly wrap: number;
  readonly shine: number;
  readonly gloss: number;
  readonly glow: Rgb;
}

function lit(base: Rgb, n: Vec3, view: Vec3, open: number, f: Finish): Rgb {
  let diffuse = 0;
  let gloss = 0;
  for (const l of FLASHES) {
    const d = n[0] * l[0] + n[1] * l[1] + n[2] * l[2];
    diffuse += max(0, (d + f.wrap) / (1 + f.wrap)) * 0.46;
    const hv = norm([l[0] + view[0], l[1] + view[1], l[2] + view[2]]);
    const s = max(0, n[0] * hv[0] + n[1] * hv[1] + n[2] * hv[2]);
    gloss += f.gloss * s ** f.shine * (d > 0 ? 1 : 0);
  }
  const rim = (1 - max(0, n[0] * view[0] + n[1] * view[1] + n[2] * view[2])) ** 3 * 0.05;
  const ambient = 0.16 + 0.84 * open ** 1.25;
  const wet = gloss * (0.35 + 0.65 * open) + rim * open;
  return [0, 1, 2].map((k) => ((base[k] as number) * (diffuse + 0.14) + (f.glow[k] as number) * 0.4) * ambient + wet) as Rgb;
}

/** The scale reference, where the pixel lies on it. */
function scaleColour(s: CameraSetting, px: number, py: number): Rgb | undefined {
  if (!s.scaleAt) return undefined;
  const d = rayAt(s, px, py);
  const t = s.distanceMm / d[1];
  const x = d[0] * t - s.scaleAt.x;
  const down = s.scaleAt.z - (s.centreZ + d[2] * t);
  const border = 1.6;
  if (x < -border || x > SCALE_LENGTH_MM + border || down < 0 || down > SCALE_HEIGHT_MM) return undefined;
  const ink = inkOnScale(x, down, SCALE_LENGTH_MM);
  const paper = 0.78 - 0.1 * (down / SCALE_HEIGHT_MM) + 0.05 * (x / SCALE_LENGTH_MM);
  return ink ? [0.02, 0.02, 0.025] : [paper, paper * 0.995, paper * 0.97];
}

/** Pixels on the border of two surfaces or of the scale are taken again with nine rays. */
function smoothEdges(
  sc: Scene,
  s: CameraSetting,
  seed: number,
  hits: readonly (Hit | undefined)[],
  shade: Float32Array,
  light: Float32Array,
  pinhole: Vec3,
): void {
  const { widthPx: w, heightPx: h } = s;
  const source = light.slice();
  for (let y = 1; y < h - 1; y++) {
    for (let x = 1; x < w - 1; x++) {
      const i = y * w + x;
      const own = hits[i];
      let edge = false;
      for (const j of [i - 1, i + 1, i - w, i + w]) {
        const other = hits[j];
        const lum = Math.abs((source[3 * j] as number) - (source[3 * i] as number));
        if (own?.owner !== other?.owner || lum > 0.12 || (own && other && Math.abs(own.p[1] - other.p[1]) > 0.6)) edge = true;
      }
      if (!edge) continue;
      const sum: Rgb = [0, 0, 0];
      for (let k = 0; k < 9; k++) {
        const sx = x + ((k % 3) - 1) / 3;
        const sy = y + (Math.floor(k / 3) - 1) / 3;
        const hit = trace(sc, pinhole, rayAt(s, sx + 0.5, sy + 0.5));
        const c = colourAt(sc, s, seed, sx, sy, hit, shade[i] as number, pinhole);
        for (let q = 0; q < 3; q++) sum[q] = (sum[q] as number) + min(1.2, c[q] as number) / 9;
      }
      light.set(sum, 3 * i);
    }
  }
}

/** Linear light to 8-bit sRGB with a soft shoulder, a slight vignette and sensor noise. */
function develop(light: Float32Array, w: number, h: number, seed: number): Picture {
  const rgba = new Uint8ClampedArray(4 * w * h);
  const r = random(seed);
  for (let i = 0; i < w * h; i++) {
    const u = (i % w) / w - 0.5;
    const v = Math.floor(i / w) / h - 0.5;
    const fall = 1 - 0.42 * (u * u + v * v);
    for (let k = 0; k < 3; k++) {
      const lin = max(0, (light[3 * i + k] as number) * fall * 1.12);
      const soft = lin <= 0.7 ? lin : 0.7 + 0.3 * (1 - Math.exp(-(lin - 0.7) / 0.3));
      const srgb = soft <= 0.0031308 ? 12.92 * soft : 1.055 * soft ** (1 / 2.4) - 0.055;
      rgba[4 * i + k] = 255 * srgb + (r.next() - 0.5) * 4;
    }
    rgba[4 * i + 3] = 255;
  }
  return { width: w, height: h, rgba };
}
