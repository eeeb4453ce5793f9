import { hypot } from '../geometry/vec.js';
import type { Px } from './calibration.js';

/** A piece of a picture's brightness, row by row. */
export interface Patch {
  readonly width: number;
  readonly height: number;
  /** 0–255. */
  readonly light: Float32Array;
}

/** An edge weaker than this is noise, brightness levels a pixel. House preference. */
const WEAKEST = 3;

/**
 * The strongest edge near a place of the patch, to a part of a pixel, or undefined where there is none. Brightness is
 * smoothed (Gaussian, 1.4 px), its gradient taken (Scharr), each place weighed by how near it is, and the peak along
 * the gradient found by a parabola through three samples.
 * @param radius how far from the place it may lie, px
 */
export function snapToEdge(patch: Patch, at: Px, radius: number): Px | undefined {
  const { width: w, height: h } = patch;
  const smooth = smoothed(patch);
  const value = (x: number, y: number) =>
    smooth[Math.min(h - 1, Math.max(0, y)) * w + Math.min(w - 1, Math.max(0, x))] as number;
  const slope = (x: number, y: number): readonly [number, number] => {
    const gx =
      3 * (value(x + 1, y - 1) - value(x - 1, y - 1)) +
      10 * (value(x + 1, y) - value(x - 1, y)) +
      3 * (value(x + 1, y + 1) - value(x - 1, y + 1));
    const gy =
      3 * (value(x - 1, y + 1) - value(x - 1, y - 1)) +
      10 * (value(x, y + 1) - value(x, y - 1)) +
      3 * (value(x + 1, y + 1) - value(x + 1, y - 1));
    return [gx / 32, gy / 32];
  };
  let best: { x: number; y: number; score: number } | undefined;
  // Pixel centres lie at halves.
  const cx = at[0] - 0.5;
  const cy = at[1] - 0.5;
  for (let y = Math.ceil(cy - radius); y <= cy + radius; y++) {
    for (let x = Math.ceil(cx - radius); x <= cx + radius; x++) {
      if (x < 2 || y < 2 || x > w - 3 || y > h - 3) continue;
      const d = hypot(x - cx, y - cy);
      if (d > radius) continue;
      const strength = Math.hypot(...slope(x, y));
      if (strength < WEAKEST) continue;
      const score = strength * (1 - 0.5 * (d / radius) ** 2);
      if (!best || score > best.score) best = { x, y, score };
    }
  }
  if (!best) return undefined;
  const [gx, gy] = slope(best.x, best.y);
  const g = hypot(gx, gy);
  const [nx, ny] = [gx / g, gy / g];
  const strengthAt = (t: number): number => {
    const x = best.x + nx * t;
    const y = best.y + ny * t;
    const [x0, y0] = [Math.floor(x), Math.floor(y)];
    const [u, v] = [x - x0, y - y0];
    const s = (i: number, j: number) => Math.hypot(...slope(x0 + i, y0 + j));
    return s(0, 0) * (1 - u) * (1 - v) + s(1, 0) * u * (1 - v) + s(0, 1) * (1 - u) * v + s(1, 1) * u * v;
  };
  const [a, b, c] = [strengthAt(-1), strengthAt(0), strengthAt(1)];
  const bend = a - 2 * b + c;
  const t = bend < 0 ? Math.min(1, Math.max(-1, (0.5 * (a - c)) / bend)) : 0;
  return [best.x + 0.5 + nx * t, best.y + 0.5 + ny * t];
}

export function smoothed({ width: w, height: h, light }: Patch): Float32Array {
  const sd = 1.4;
  const kernel = [-3, -2, -1, 0, 1, 2, 3].map((d) => Math.exp(-(d * d) / (2 * sd * sd)));
  const sum = kernel.reduce((n, k) => n + k, 0);
  const pass = (from: Float32Array, dx: number, dy: number): Float32Array => {
    const out = new Float32Array(from.length);
    for (let y = 0; y < h; y++) {
      for (let x = 0; x < w; x++) {
        let n = 0;
        kernel.forEach((k, i) => {
          const xx = Math.min(w - 1, Math.max(0, x + (i - 3) * dx));
          const yy = Math.min(h - 1, Math.max(0, y + (i - 3) * dy));
          n += k * (from[yy * w + xx] as number);
        });
        out[y * w + x] = n / sum;
      }
    }
    return out;
  };
  return pass(pass(light, 1, 0), 0, 1);
}
