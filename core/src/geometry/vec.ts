/** A point or direction: [x, y, z]. Lengths in mm. */
export type Vec3 = readonly [number, number, number];

/**
 * The length of what has these legs. `Math.hypot` guards against an overflow that no length in mm meets, and takes
 * fifteen times as long.
 */
export const hypot = (x: number, y: number, z = 0): number => Math.sqrt(x * x + y * y + z * z);

export const add = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const sub = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const scale = (a: Vec3, k: number): Vec3 => [a[0] * k, a[1] * k, a[2] * k];
export const dot = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
export const length = (a: Vec3): number => hypot(a[0], a[1], a[2]);
export const distance = (a: Vec3, b: Vec3): number => hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
export const lerp = (a: Vec3, b: Vec3, t: number): Vec3 => [
  a[0] + (b[0] - a[0]) * t,
  a[1] + (b[1] - a[1]) * t,
  a[2] + (b[2] - a[2]) * t,
];

/** Unit vector of `a`; the zero vector stays zero. */
export function normalize(a: Vec3): Vec3 {
  const l = length(a);
  return l === 0 ? a : scale(a, 1 / l);
}

/** `v` turned about the unit axis by an angle in degrees, right-handed (Rodrigues). */
export function rotateAbout(v: Vec3, axis: Vec3, deg: number): Vec3 {
  const t = (deg * Math.PI) / 180;
  const c = Math.cos(t);
  const k = dot(axis, v) * (1 - c);
  const w = cross(axis, v);
  const s = Math.sin(t);
  return [v[0] * c + w[0] * s + axis[0] * k, v[1] * c + w[1] * s + axis[1] * k, v[2] * c + w[2] * s + axis[2] * k];
}
