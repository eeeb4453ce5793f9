import { add, cross, dot, normalize, rotateAbout, scale, sub, type Vec3 } from './vec.js';

/** A right-handed orthonormal frame: origin in mm and three unit axes, all in the parent's coordinates. */
export interface Frame {
  readonly origin: Vec3;
  readonly x: Vec3;
  readonly y: Vec3;
  readonly z: Vec3;
}

export const WORLD: Frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };

/** A point given in the frame, in the parent's coordinates. */
export function toParent(f: Frame, p: Vec3): Vec3 {
  return add(f.origin, directionToParent(f, p));
}

/** A direction given in the frame, in the parent's coordinates. */
export function directionToParent(f: Frame, d: Vec3): Vec3 {
  return add(add(scale(f.x, d[0]), scale(f.y, d[1])), scale(f.z, d[2]));
}

/** A point given in the parent's coordinates, in the frame. */
export function toLocal(f: Frame, p: Vec3): Vec3 {
  const d = sub(p, f.origin);
  return [dot(d, f.x), dot(d, f.y), dot(d, f.z)];
}

/** The frame turned by degrees about one of its own axes, its origin kept. */
export function turn(f: Frame, axis: 'x' | 'y' | 'z', deg: number): Frame {
  const a = f[axis];
  return { origin: f.origin, x: rotateAbout(f.x, a, deg), y: rotateAbout(f.y, a, deg), z: rotateAbout(f.z, a, deg) };
}

/** The frame moved by mm along its own axes. */
export function shift(f: Frame, by: Vec3): Frame {
  return { ...f, origin: toParent(f, by) };
}

/** A frame from an origin, an upward direction z and a direction that x should follow as nearly as it can. */
export function frameFrom(origin: Vec3, z: Vec3, xHint: Vec3): Frame {
  const zn = normalize(z);
  const y = normalize(cross(zn, xHint));
  return { origin, x: cross(y, zn), y, z: zn };
}

/** A frame that is told in another one, in that one's parent. */
export function nested(outer: Frame, inner: Frame): Frame {
  const along = (d: Vec3) => directionToParent(outer, d);
  return { origin: toParent(outer, inner.origin), x: along(inner.x), y: along(inner.y), z: along(inner.z) };
}

/** The parent's frame told in the frame's own coordinates. */
export function inverse(f: Frame): Frame {
  return {
    origin: toLocal(f, [0, 0, 0]),
    x: [f.x[0], f.y[0], f.z[0]],
    y: [f.x[1], f.y[1], f.z[1]],
    z: [f.x[2], f.y[2], f.z[2]],
  };
}
