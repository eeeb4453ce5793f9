import { smoothstep, type Vec3 } from '@radiant/core';
import type { Patient } from './patient.js';
import { type CameraSetting, poseOf } from './pose.js';
import { random } from './random.js';
import { rasterize, type Samples, SIDE } from './raster.js';
import { type Expression, makeScene, type Part, type Scene } from './scene.js';
import {
  behind,
  beyond,
  enamel,
  face,
  inside,
  type Lamps,
  lampsOf,
  mucosa,
  palate,
  type Rgb,
  type Seen,
  scaleColour,
} from './shading.js';

/** A picture: 8-bit sRGB with alpha, row by row from the top left. */
export interface Picture {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8ClampedArray;
}

export const RETRACTED: Expression = { retracted: true, smile: 0, openMm: 0, jaws: 'both', head: false };

export const RETRACTED_FRONT: CameraSetting = {
  widthPx: 1500,
  heightPx: 1000,
  distanceMm: 420,
  fieldMm: 60,
  centreZ: 1.2,
  scaleAt: { x: -20, z: -9.2 },
};

/** How light the backdrop of a portrait is, linear. */
const BACKDROP = 0.36;

/**
 * Takes a photograph of the patient: flash light, contact shadows, enamel, gum, lips and skin, and a scale reference
 * where one is held. Deterministic. About two seconds a megapixel.
 */
export function photograph(patient: Patient, s: CameraSetting, e: Expression = RETRACTED): Picture {
  const scene = makeScene(patient, e, s.scaleAt);
  const samples = rasterize(scene.mesh, s);
  const { right, forward, up } = poseOf(s);
  const shot: Shot = {
    scene,
    samples,
    s,
    lamps: lampsOf(right, forward, up, e.head),
    at: poseOf(s).at,
    seed: patient.recipe.seed,
  };
  const { widthPx: w, heightPx: h } = s;
  const light = new Float32Array(3 * w * h);
  const faces = new Int32Array(SIDE * SIDE);
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      let one = true;
      for (let k = 0; k < faces.length; k++) {
        const f = samples.face[(y * SIDE + Math.floor(k / SIDE)) * samples.width + x * SIDE + (k % SIDE)];
        faces[k] = f;
        if (partOf(scene, f) !== partOf(scene, faces[0])) one = false;
      }
      const middle = (SIDE * SIDE - 1) / 2;
      const kind = scene.parts[partOf(scene, faces[middle])]?.kind;
      // A pixel of one surface is looked at in its middle; one on a border, or on print, in all its samples.
      light.set(
        one && kind !== 'scale' ? colourAt(shot, faces[middle], x + 0.5, y + 0.5) : averaged(shot, faces, x, y),
        3 * (y * w + x),
      );
    }
  }
  return develop(light, s, shot.seed);
}

interface Shot {
  readonly scene: Scene;
  readonly samples: Samples;
  readonly s: CameraSetting;
  readonly lamps: Lamps;
  readonly at: Vec3;
  readonly seed: number;
}

const partOf = (scene: Scene, triangle: number): number => (triangle < 0 ? -1 : scene.owner[triangle]);

function averaged(shot: Shot, faces: Int32Array, x: number, y: number): Rgb {
  const sum: Rgb = [0, 0, 0];
  for (let k = 0; k < faces.length; k++) {
    const c = colourAt(shot, faces[k], x + ((k % SIDE) + 0.5) / SIDE, y + (Math.floor(k / SIDE) + 0.5) / SIDE);
    for (let q = 0; q < 3; q++) sum[q] = sum[q] + Math.min(1.2, c[q]) / faces.length;
  }
  return sum;
}

function colourAt(shot: Shot, triangle: number, px: number, py: number): Rgb {
  const { scene, s, lamps, seed } = shot;
  const part = scene.parts[partOf(scene, triangle)];
  if (!part) return beyond(s, seed, px, py);
  const t = 3 * triangle;
  const corner = [scene.mesh.triangles[t], scene.mesh.triangles[t + 1], scene.mesh.triangles[t + 2]] as const;
  const weight = weights(shot.samples.projected, corner, px, py);
  const p = blended(scene.mesh.positions, corner, weight);
  return surface(shot, part, corner, weight, p, lamps);
}

function surface(
  shot: Shot,
  part: Part,
  corner: readonly [number, number, number],
  weight: Vec3,
  p: Vec3,
  lamps: Lamps,
): Rgb {
  const { scene, s, seed } = shot;
  if (part.kind === 'inside') return inside();
  if (part.kind === 'behind') return behind(scene.patient.face, p, s.backdrop ?? BACKDROP);
  if (part.kind === 'scale') return scaleColour(p, s.scaleAt ?? { x: 0, z: 0 });
  const view = unit([shot.at[0] - p[0], shot.at[1] - p[1], shot.at[2] - p[2]]);
  let n = unit(blended(scene.normals, corner, weight));
  if (n[0] * view[0] + n[1] * view[1] + n[2] * view[2] < 0) n = [-n[0], -n[1], -n[2]];
  const near =
    scene.open(corner[0]) * weight[0] + scene.open(corner[1]) * weight[1] + scene.open(corner[2]) * weight[2];
  // Behind the lips, and deep in an occlusal view, less light arrives.
  const depth =
    part.kind === 'face'
      ? 0
      : scene.retracted
        ? 0.8 * smoothstep(24, 40, p[1])
        : 0.62 * smoothstep(6, 24, p[1]) + 0.3 * smoothstep(23, 29, p[1]);
  const seen: Seen = { p, n, view, open: near * (1 - depth) };
  if (part.kind === 'tooth') return enamel(part.tooth, seen, lamps, seed);
  if (part.kind === 'palate') return palate(seen, lamps, seed);
  if (part.kind === 'face') {
    const reds = scene.face?.red;
    const red = (v: number) => reds?.[v - scene.faceFrom] ?? 0;
    return face(
      scene.patient.face,
      seen,
      red(corner[0]) * weight[0] + red(corner[1]) * weight[1] + red(corner[2]) * weight[2],
      lamps,
      seed,
    );
  }
  const up = p[2] > 4 ? p[2] - 9.5 : -6 - p[2];
  return mucosa(seen, up, lamps, seed, scene.patient.recipe.gum?.inflamed ?? 0);
}

/** Perspective-correct weights of a triangle's corners at a place of the picture. */
function weights(projected: Float64Array, [a, b, c]: readonly [number, number, number], px: number, py: number): Vec3 {
  const ax = projected[3 * a];
  const ay = projected[3 * a + 1];
  const bx = projected[3 * b];
  const by = projected[3 * b + 1];
  const cx = projected[3 * c];
  const cy = projected[3 * c + 1];
  const area = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
  const wa = ((bx - px) * (cy - py) - (by - py) * (cx - px)) / area / projected[3 * a + 2];
  const wb = ((cx - px) * (ay - py) - (cy - py) * (ax - px)) / area / projected[3 * b + 2];
  const wc = ((ax - px) * (by - py) - (ay - py) * (bx - px)) / area / projected[3 * c + 2];
  const sum = wa + wb + wc || 1;
  return [wa / sum, wb / sum, wc / sum];
}

function blended(values: Float64Array, [a, b, c]: readonly [number, number, number], w: Vec3): Vec3 {
  return [
    values[3 * a] * w[0] + values[3 * b] * w[1] + values[3 * c] * w[2],
    values[3 * a + 1] * w[0] + values[3 * b + 1] * w[1] + values[3 * c + 1] * w[2],
    values[3 * a + 2] * w[0] + values[3 * b + 2] * w[1] + values[3 * c + 2] * w[2],
  ];
}

function unit(v: Vec3): Vec3 {
  const l = Math.sqrt(v[0] * v[0] + v[1] * v[1] + v[2] * v[2]) || 1;
  return [v[0] / l, v[1] / l, v[2] / l];
}

/** Linear light to 8-bit sRGB with a soft shoulder, a slight vignette and sensor noise. */
function develop(light: Float32Array, s: CameraSetting, seed: number): Picture {
  const { widthPx: w, heightPx: h } = s;
  const rgba = new Uint8ClampedArray(4 * w * h);
  const r = random(seed);
  const gain = 1.12 * (s.exposure ?? 1);
  for (let i = 0; i < w * h; i++) {
    const u = (i % w) / w - 0.5;
    const v = Math.floor(i / w) / h - 0.5;
    const fall = 1 - 0.42 * (u * u + v * v);
    for (let k = 0; k < 3; k++) {
      const lin = Math.max(0, light[3 * i + k] * fall * gain);
      const soft = lin <= 0.7 ? lin : 0.7 + 0.3 * (1 - Math.exp(-(lin - 0.7) / 0.3));
      const srgb = soft <= 0.0031308 ? 12.92 * soft : 1.055 * soft ** (1 / 2.4) - 0.055;
      rgba[4 * i + k] = 255 * srgb + (r.next() - 0.5) * 4;
    }
    rgba[4 * i + 3] = 255;
  }
  return { width: w, height: h, rgba };
}
