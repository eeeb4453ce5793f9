import type { Vec3 } from '@radiant/core';

/** The simulated camera: a pinhole that looks at a place of the mouth. Lengths in mm, angles in degrees. */
export interface CameraSetting {
  readonly widthPx: number;
  readonly heightPx: number;
  /** From the pinhole to the plane of the scale reference. */
  readonly distanceMm: number;
  /** Width of the field in the plane of the scale reference. */
  readonly fieldMm: number;
  /** What stands in the picture's centre, in the mouth's coordinates: across, and height. */
  readonly centreX?: number;
  readonly centreZ: number;
  /** Depth of the picture's centre; the plane of the scale reference where nothing is said. */
  readonly centreY?: number;
  /** Roll about the line of sight, clockwise in the picture. */
  readonly rollDeg?: number;
  /** The camera's place turned to the patient's left, and up. */
  readonly yawDeg?: number;
  readonly pitchDeg?: number;
  /**
   * Lens distortion: a place at the side border of the field moves outward by this share of its distance from the
   * centre.
   */
  readonly distortion?: number;
  /** How light the backdrop of a portrait is, linear, 0–1. */
  readonly backdrop?: number;
  /** Light on the sensor, 1 is as metered. */
  readonly exposure?: number;
  /**
   * Left edge of the scale reference and the level of its upper edge, in the mouth's coordinates; none where left out.
   */
  readonly scaleAt?: { readonly x: number; readonly z: number };
}

/** The plane in which the scale reference is held: level with the centrals' facial surfaces. */
export const SCALE_PLANE_Y = -2.4;
export const SCALE_LENGTH_MM = 40;
export const SCALE_HEIGHT_MM = 5.2;

/** Where the camera stands and how it is turned: its axes in the mouth's coordinates. */
export interface Pose {
  readonly at: Vec3;
  readonly forward: Vec3;
  readonly right: Vec3;
  readonly up: Vec3;
}

export function poseOf(s: CameraSetting): Pose {
  const yaw = ((s.yawDeg ?? 0) * Math.PI) / 180;
  const pitch = ((s.pitchDeg ?? 0) * Math.PI) / 180;
  const forward: Vec3 = [-Math.sin(yaw) * Math.cos(pitch), Math.cos(yaw) * Math.cos(pitch), -Math.sin(pitch)];
  const right: Vec3 = [Math.cos(yaw), Math.sin(yaw), 0];
  const up: Vec3 = [
    right[1] * forward[2] - right[2] * forward[1],
    right[2] * forward[0] - right[0] * forward[2],
    right[0] * forward[1] - right[1] * forward[0],
  ];
  const target: Vec3 = [s.centreX ?? 0, s.centreY ?? SCALE_PLANE_Y, s.centreZ];
  return {
    at: [
      target[0] - forward[0] * s.distanceMm,
      target[1] - forward[1] * s.distanceMm,
      target[2] - forward[2] * s.distanceMm,
    ],
    forward,
    right,
    up,
  };
}

/** A projector for many points: writes px across, px down and depth in mm into `out`. */
export function projector(s: CameraSetting): (x: number, y: number, z: number, out: Float64Array) => void {
  const { at, forward, right, up } = poseOf(s);
  const pxPerMm = s.widthPx / s.fieldMm;
  const roll = ((s.rollDeg ?? 0) * Math.PI) / 180;
  const [c, n] = [Math.cos(roll), Math.sin(roll)];
  const k1 = (s.distortion ?? 0) / (s.fieldMm / 2) ** 2;
  return (x, y, z, out) => {
    const dx = x - at[0];
    const dy = y - at[1];
    const dz = z - at[2];
    const depth = dx * forward[0] + dy * forward[1] + dz * forward[2];
    const k = s.distanceMm / depth;
    let u = (dx * right[0] + dy * right[1] + dz * right[2]) * k;
    let v = -(dx * up[0] + dy * up[1] + dz * up[2]) * k;
    const bend = (1 + k1 * (u * u + v * v)) * pxPerMm;
    u *= bend;
    v *= bend;
    out[0] = s.widthPx / 2 + u * c - v * n;
    out[1] = s.heightPx / 2 + u * n + v * c;
    out[2] = depth;
  };
}

/** Where a point of the mouth falls in the picture, px from the top left corner. */
export function project(s: CameraSetting, p: Vec3): readonly [number, number] {
  const out = new Float64Array(3);
  projector(s)(p[0], p[1], p[2], out);
  return [out[0], out[1]];
}

/** The zero and the last tick of the scale reference in the picture, and their distance in mm. */
export function scalePoints(s: CameraSetting): {
  from: readonly [number, number];
  to: readonly [number, number];
  mm: number;
} {
  const at = s.scaleAt ?? { x: -20, z: -9.2 };
  return {
    from: project(s, [at.x, SCALE_PLANE_Y, at.z]),
    to: project(s, [at.x + SCALE_LENGTH_MM, SCALE_PLANE_Y, at.z]),
    mm: SCALE_LENGTH_MM,
  };
}
