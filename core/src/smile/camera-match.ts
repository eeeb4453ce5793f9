import { Refusal } from '../errors.js';
import { solve } from '../geometry/solve.js';
import { add, dot, normalize, scale, sub, type Vec3 } from '../geometry/vec.js';
import { type Px, Z95 } from './calibration.js';
import type { CameraStood } from './sight.js';

/** A place of the mouth and where it was marked on the photograph. */
export interface PhotoMark {
  /** In the mouth's coordinates, mm. */
  readonly at: Vec3;
  readonly px: Px;
  /**
   * How well the two belong together across and down the picture, one standard deviation, mm: an edge is marked well in
   * its height and loosely along its length.
   */
  readonly sdMm: readonly [across: number, down: number];
}

/**
 * How a photograph was taken: a pinhole that looks about a place of the mouth, without lens distortion. The picture's
 * centre lies on the line of sight.
 */
export interface PhotoCamera {
  /** Middle of the marks, about which it is turned, mm. */
  readonly about: Vec3;
  /** The camera turned to the patient's left, up, and rolled clockwise in the picture, degrees. */
  readonly yawDeg: number;
  readonly pitchDeg: number;
  readonly rollDeg: number;
  /** At the depth of `about`. */
  readonly pxPerMm: number;
  readonly distanceMm: number;
  /** Where `about` falls, px. */
  readonly place: Px;
  readonly size: Px;
}

export interface CameraMatch {
  readonly camera: PhotoCamera;
  /**
   * Root mean square distance of the marks from where the camera puts them, counting only what a mark holds well, px.
   */
  readonly rmsPx: number;
  /**
   * How well the scale at the marks' own depth is known, one standard deviation as a share of it: from how the marks
   * hold it, and more where they lie further off than they should.
   */
  readonly scaleSd: number;
  /** How well its turns are known, one standard deviation, degrees, and its distance, as a share of it. */
  readonly turnSd: { readonly yaw: number; readonly pitch: number; readonly roll: number; readonly distance: number };
}

/** A usual portrait lens from arm's length, and how far from it practices stand. Common practice, no source. */
const USUAL_DISTANCE_MM = 420;
const DISTANCE_SPREAD = 0.3;
/** How far off straight a hand holds the camera, degrees. Common practice, no source. */
const TURN_SD_DEG = 3;
/** Marks that are needed for an answer: a camera has six numbers, the usual ones fill in for little more. */
const LEAST_MARKS = 4;
const ROUNDS = 25;
/** What marks are said to hold by themselves counts as so many of them beside how well they fit. House value. */
const USUAL_WEIGHT = 2;

type Unknowns = [yaw: number, pitch: number, roll: number, logScale: number, u: number, v: number, logDistance: number];

/** Their places among the unknowns. */
const [YAW, PITCH, ROLL, LOG_SCALE, LOG_DISTANCE] = [0, 1, 2, 3, 6] as const;

const rad = Math.PI / 180;

function cameraOf(q: Unknowns, about: Vec3, size: Px): PhotoCamera {
  return {
    about,
    yawDeg: q[0],
    pitchDeg: q[1],
    rollDeg: q[2],
    pxPerMm: Math.exp(q[3]),
    place: [q[4], q[5]],
    distanceMm: Math.exp(q[6]),
    size,
  };
}

/** The camera's axes in the mouth's coordinates: across the picture, up in it, and away from the eye. */
export function cameraAxes(c: PhotoCamera): { right: Vec3; up: Vec3; forward: Vec3 } {
  const [sy, cy] = [Math.sin(c.yawDeg * rad), Math.cos(c.yawDeg * rad)];
  const [sp, cp] = [Math.sin(c.pitchDeg * rad), Math.cos(c.pitchDeg * rad)];
  const [sr, cr] = [Math.sin(c.rollDeg * rad), Math.cos(c.rollDeg * rad)];
  const forward: Vec3 = [-sy * cp, cy * cp, -sp];
  const right: Vec3 = [cy, sy, 0];
  const up: Vec3 = [-sy * sp, cy * sp, cp];
  const turned = (a: number, b: number): Vec3 => [
    right[0] * a + up[0] * b,
    right[1] * a + up[1] * b,
    right[2] * a + up[2] * b,
  ];
  return { right: turned(cr, sr), up: turned(-sr, cr), forward };
}

/** A projector for many points: px across, px down, and depth behind `about` in mm, into `out`. */
export function photoProjector(c: PhotoCamera): (x: number, y: number, z: number, out: Float64Array) => void {
  const { right, up, forward } = cameraAxes(c);
  const [cx, cy] = [c.size[0] / 2, c.size[1] / 2];
  // The line of sight goes through the picture's centre; `about` may lie beside it.
  const [x0, y0] = [(c.place[0] - cx) / c.pxPerMm, (c.place[1] - cy) / c.pxPerMm];
  return (x, y, z, out) => {
    const [dx, dy, dz] = [x - c.about[0], y - c.about[1], z - c.about[2]];
    const depth = dx * forward[0] + dy * forward[1] + dz * forward[2];
    const k = (c.pxPerMm * c.distanceMm) / (c.distanceMm + depth);
    out[0] = cx + (x0 + dx * right[0] + dy * right[1] + dz * right[2]) * k;
    out[1] = cy + (y0 - dx * up[0] - dy * up[1] - dz * up[2]) * k;
    out[2] = depth;
  };
}

/** Where a place of the mouth falls in the photograph, px. */
export function photoPoint(c: PhotoCamera, p: Vec3): Px {
  const out = new Float64Array(3);
  photoProjector(c)(p[0], p[1], p[2], out);
  return [out[0] as number, out[1] as number];
}

/** The line of sight through a place of the photograph: where the eye is, mm, and the unit direction from it. */
export function lineOfSight(c: PhotoCamera, px: Px): { from: Vec3; towards: Vec3 } {
  const { right, up, forward } = cameraAxes(c);
  const [cx, cy] = [c.size[0] / 2, c.size[1] / 2];
  const [x0, y0] = [(c.place[0] - cx) / c.pxPerMm, (c.place[1] - cy) / c.pxPerMm];
  const from = add(c.about, add(scale(right, -x0), add(scale(up, y0), scale(forward, -c.distanceMm))));
  const k = c.pxPerMm * c.distanceMm;
  return { from, towards: normalize(add(forward, add(scale(right, (px[0] - cx) / k), scale(up, (cy - px[1]) / k)))) };
}

/** mm that a pixel spans at a place of the mouth, across the line of sight. */
export function mmAPixelAt(c: PhotoCamera, p: Vec3): number {
  const depth = dot(sub(p, c.about), cameraAxes(c).forward);
  return (c.distanceMm + depth) / (c.pxPerMm * c.distanceMm);
}

/**
 * Finds how a photograph was taken from places of the mouth that are marked on it: least squares over turn, roll,
 * scale, place and distance, where a usual distance and a straight view count as one more mark each, since a few marks
 * that lie nearly in a plane say little about them.
 * @param size width and height of the picture, px
 * @throws Refusal `marks-too-few` for fewer than four marks, `points-coincide` when they all lie in one place
 */
export function matchCamera(marks: readonly PhotoMark[], size: Px): CameraMatch {
  if (marks.length < LEAST_MARKS)
    throw new Refusal(
      'marks-too-few',
      `The photograph has ${marks.length} marked places of the teeth; at least ${LEAST_MARKS} are needed to know how it was taken.`,
      marks.length,
    );
  const about = [0, 1, 2].map(
    (k) => marks.reduce((s, m) => s + (m.at[k as 0] as number), 0) / marks.length,
  ) as unknown as Vec3;
  const middle = [0, 1].map(
    (k) => marks.reduce((s, m) => s + (m.px[k as 0] as number), 0) / marks.length,
  ) as unknown as Px;
  const spread = (of: (m: PhotoMark) => readonly number[], by: readonly number[]) =>
    Math.sqrt(marks.reduce((s, m) => s + ((of(m)[0] as number) - (by[0] as number)) ** 2, 0));
  const [mm, px] = [spread((m) => m.at, about), spread((m) => m.px, middle)];
  if (!(mm > 1e-6) || !(px > 1e-6))
    throw new Refusal('points-coincide', 'The marked places of the teeth all lie in one place.', undefined);
  let q: Unknowns = [0, 0, 0, Math.log(px / mm), middle[0], middle[1], Math.log(USUAL_DISTANCE_MM)];
  let sdOf: (unknown: number) => number = () => Infinity;
  for (let round = 0; round < ROUNDS; round++) {
    const now = residuals(q, marks, about, size);
    const jacobian = STEPS.map((step, i) => {
      const moved = [...q] as Unknowns;
      moved[i] = (moved[i] as number) + step;
      return residuals(moved, marks, about, size).map((r, k) => (r - (now[k] as number)) / step);
    });
    const normal = jacobian.map((a, i) =>
      jacobian.map((b, j) => a.reduce((s, v, k) => s + v * (b[k] as number), 0) * (i === j ? 1 + 1e-6 : 1)),
    );
    const gradient = jacobian.map((a) => -a.reduce((s, v, k) => s + v * (now[k] as number), 0));
    const by = solve(normal, gradient);
    // The marks' own sd are in the rows: the inverse of the normal matrix is the covariance, wider where the fit is
    // worse than they say, and narrower where many marks fit better.
    const free = Math.max(1, now.length - q.length);
    const worse = (now.reduce((s, r) => s + r * r, 0) + USUAL_WEIGHT) / (free + USUAL_WEIGHT);
    sdOf = (unknown) => {
      const column = solve(
        normal,
        STEPS.map((_, i) => (i === unknown ? 1 : 0)),
      );
      return Math.sqrt(Math.max(0, column[unknown] as number) * worse);
    };
    q = q.map((v, i) => v + (by[i] as number)) as Unknowns;
    if (by.every((d, i) => Math.abs(d) < (STEPS[i] as number) * 1e-3)) break;
  }
  const camera = cameraOf(q, about, size);
  const turnSd = { yaw: sdOf(YAW), pitch: sdOf(PITCH), roll: sdOf(ROLL), distance: sdOf(LOG_DISTANCE) };
  return { camera, rmsPx: rms(camera, marks), scaleSd: sdOf(LOG_SCALE), turnSd };
}

/** How the camera of a match stood, as it is kept. */
export const stoodBy = ({ camera, turnSd }: CameraMatch): CameraStood => ({
  yawDeg: camera.yawDeg,
  yawPmDeg: Z95 * turnSd.yaw,
  pitchDeg: camera.pitchDeg,
  pitchPmDeg: Z95 * turnSd.pitch,
  rollDeg: camera.rollDeg,
  rollPmDeg: Z95 * turnSd.roll,
  distanceMm: camera.distanceMm,
  distancePm: Z95 * turnSd.distance,
});

const STEPS: readonly number[] = [1e-3, 1e-3, 1e-3, 1e-6, 1e-3, 1e-3, 1e-5];

function residuals(q: Unknowns, marks: readonly PhotoMark[], about: Vec3, size: Px): number[] {
  const camera = cameraOf(q, about, size);
  const project = photoProjector(camera);
  const out = new Float64Array(3);
  const all: number[] = [];
  for (const m of marks) {
    project(m.at[0], m.at[1], m.at[2], out);
    all.push(
      ((out[0] as number) - m.px[0]) / (m.sdMm[0] * camera.pxPerMm),
      ((out[1] as number) - m.px[1]) / (m.sdMm[1] * camera.pxPerMm),
    );
  }
  all.push(q[0] / TURN_SD_DEG, q[1] / TURN_SD_DEG, (q[6] - Math.log(USUAL_DISTANCE_MM)) / DISTANCE_SPREAD);
  return all;
}

/** A mark that is looser than this in a direction says nothing there, mm. */
const LOOSE_MM = 0.5;

function rms(camera: PhotoCamera, marks: readonly PhotoMark[]): number {
  let sum = 0;
  let n = 0;
  for (const m of marks) {
    const p = photoPoint(camera, m.at);
    for (const k of [0, 1] as const) {
      if (m.sdMm[k] > LOOSE_MM) continue;
      sum += (p[k] - m.px[k]) ** 2;
      n++;
    }
  }
  return Math.sqrt(sum / Math.max(1, n));
}
