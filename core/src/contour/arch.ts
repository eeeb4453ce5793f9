import { type Frame, frameFrom, turn } from '../geometry/frame.js';
import type { Mesh } from '../geometry/mesh.js';
import { hypot, type Vec3 } from '../geometry/vec.js';
import {
  type Fdi,
  isUpper,
  type Jaw,
  kindOf,
  LOWER_TEN,
  type Side,
  sideOf,
  type ToothKind,
  UPPER_TEN,
} from '../teeth/notation.js';

/**
 * Everything about an arch is told in the arch's own frame, mm: x along the front, y backward, z from the edges to the
 * roots. For an upper arch that is the mouth's frame. A lower one is turned over about the line of sight, which takes
 * up to down and the patient's left to its right; the turn undoes itself.
 */
export const turnedOver = (p: Vec3): Vec3 => [-p[0], p[1], -p[2]];

/** A mesh turned over between the mouth's frame and a lower arch's own; an upper one as it is. */
export function meshToArch(jaw: Jaw, mesh: Mesh): Mesh {
  return jaw === 'upper'
    ? mesh
    : { positions: mesh.positions.map((v, i) => (i % 3 === 1 ? v : -v)), triangles: mesh.triangles };
}

/** A frame turned over between the mouth's and a lower arch's own; an upper one as it is. */
export function frameToArch(jaw: Jaw, f: Frame): Frame {
  return jaw === 'upper'
    ? f
    : { origin: turnedOver(f.origin), x: turnedOver(f.x), y: turnedOver(f.y), z: turnedOver(f.z) };
}

/** Side on which a tooth stands in its arch's own frame; left is where x grows. */
export const archSide = (tooth: Fdi): Side => (isUpper(tooth) === (sideOf(tooth) === 'left') ? 'left' : 'right');

/** The teeth of an arch in the order in which x grows. */
export const rowOf = (jaw: Jaw): readonly Fdi[] => ROWS[jaw];

const ROWS: Readonly<Record<Jaw, readonly Fdi[]>> = { upper: UPPER_TEN, lower: [...LOWER_TEN].reverse() };

/** The six front teeth of an arch in the order in which x grows. */
export const frontOf = (jaw: Jaw): readonly Fdi[] => ROWS[jaw].slice(2, 8);

/** The quadrant, as the tens of its numbers, of each side of an arch. */
export const quadrantOf = (jaw: Jaw, side: Side): number =>
  jaw === 'upper' ? (side === 'right' ? 10 : 20) : side === 'right' ? 30 : 40;

/** An arch in the horizontal plane: y = a·x² + b·x⁴ behind the front, mm. */
export interface ArchCurve {
  readonly a: number;
  readonly b: number;
}

/** A medium upper arch (house morphology): canine tips 35 mm apart lie about 8 mm behind the centrals. */
export const MEDIUM_ARCH: ArchCurve = { a: 0.022, b: 1.4e-5 };

/**
 * A place on the arch: x to the patient's left, y backward, and the direction of travel towards the patient's left in
 * degrees.
 */
export interface ArchPlace {
  readonly x: number;
  readonly y: number;
  /** Turn of the tangent from the x axis, degrees, positive backward on the patient's left. */
  readonly turnDeg: number;
}

const STEP_MM = 0.02;

/** The place that lies `alongMm` along the curve from the midline, positive to the patient's left. */
export function alongArch(curve: ArchCurve, alongMm: number): ArchPlace {
  const target = Math.abs(alongMm);
  let x = 0;
  let s = 0;
  while (s < target) {
    const slope = 2 * curve.a * x + 4 * curve.b * x ** 3;
    const step = Math.min(STEP_MM, target - s);
    // Midpoint rule: the slope half a step on.
    const xm = x + step / 2 / hypot(1, slope);
    const sm = 2 * curve.a * xm + 4 * curve.b * xm ** 3;
    x += step / hypot(1, sm);
    s += step;
  }
  const sign = alongMm < 0 ? -1 : 1;
  const slope = 2 * curve.a * x + 4 * curve.b * x ** 3;
  return { x: sign * x, y: curve.a * x * x + curve.b * x ** 4, turnDeg: (sign * (Math.atan(slope) * 180)) / Math.PI };
}

/**
 * How the tooth's axis stands in the arch: edge forward (torque) and edge towards the midline (tip), degrees. House
 * morphology.
 */
export const AXIS: Readonly<Partial<Record<ToothKind, { readonly torqueDeg: number; readonly tipDeg: number }>>> = {
  central: { torqueDeg: 13, tipDeg: 2 },
  lateral: { torqueDeg: 12, tipDeg: 4 },
  canine: { torqueDeg: 6, tipDeg: 5 },
  premolar1: { torqueDeg: -3, tipDeg: 2 },
  premolar2: { torqueDeg: -4, tipDeg: 1 },
};

/** What a tooth's place in the arch depends on. */
export interface Stand {
  readonly tooth: Fdi;
  readonly widthMm: number;
  /** Space left free on the tooth's mesial side. */
  readonly gapMesialMm?: number;
  /** Edge above (+) the plane of the edges. */
  readonly edgeUpMm?: number;
  /** Turn about the tooth's axis, positive mesial edge forward. */
  readonly rotationDeg?: number;
  /** Edge in front (+) of the arch curve. */
  readonly forwardMm?: number;
}

/** The frame of a tooth standing at a place of the arch, aligned to it: z along the tooth's axis towards the root. */
export function standingFrame(tooth: Fdi, place: ArchPlace, edgeUpMm: number): Frame {
  const axis = AXIS[kindOf(tooth)] ?? { torqueDeg: 0, tipDeg: 0 };
  const t = (place.turnDeg * Math.PI) / 180;
  const upright = frameFrom([place.x, place.y, edgeUpMm], [0, 0, 1], [Math.cos(t), Math.sin(t), 0]);
  // Torque: the root goes back. A positive turn about x (patient's left) takes z towards −y, so backward is negative.
  const torqued = turn(upright, 'x', -axis.torqueDeg);
  const side = archSide(tooth) === 'left' ? 1 : -1;
  return turn(torqued, 'y', side * axis.tipDeg);
}

/** Turns a frame about its own z so that the mesial edge comes forward by degrees. */
export function rotateTooth(tooth: Fdi, frame: Frame, rotationDeg: number): Frame {
  // About z (up), a positive turn takes +x (left) towards +y (back): mesial (−x) of a left tooth comes forward.
  return turn(frame, 'z', (archSide(tooth) === 'left' ? 1 : -1) * rotationDeg);
}

/** A tooth's room on one side of the arch: its width and the space left free before it, mm. */
export interface Room {
  readonly widthMm: number;
  readonly gapBeforeMm?: number;
}

/**
 * Places along one side of the arch from the midline outward, so that neighbours touch. Round a bend two teeth touch
 * before their widths are used up along the curve: each half width counts by the cosine of half the bend between them.
 */
export function placesAlong(curve: ArchCurve, side: 'right' | 'left', rooms: readonly Room[]): ArchPlace[] {
  const sign = side === 'left' ? 1 : -1;
  const out: ArchPlace[] = [];
  let before: { along: number; half: number; turnDeg: number } | undefined;
  for (const room of rooms) {
    const half = room.widthMm / 2;
    let along = (before?.along ?? 0) + (before?.half ?? 0) + half;
    let place = alongArch(curve, along);
    // The place decides the bend and the bend the place; three rounds settle it to a thousandth.
    for (let i = 0; i < 3; i++) {
      const bend = before ? (place.turnDeg - before.turnDeg) / 2 : place.turnDeg;
      along =
        (before?.along ?? 0) +
        ((before?.half ?? 0) + half) * Math.cos((bend * Math.PI) / 180) +
        (room.gapBeforeMm ?? 0);
      place = alongArch(curve, along);
    }
    out.push({ x: sign * place.x, y: place.y, turnDeg: sign * place.turnDeg });
    before = { along, half, turnDeg: place.turnDeg };
  }
  return out;
}

/** The frames of teeth standing side by side from the midline outward on both sides of the arch. */
export function placeTeeth(curve: ArchCurve, stands: readonly Stand[]): Map<Fdi, Frame> {
  const frames = new Map<Fdi, Frame>();
  for (const side of ['right', 'left'] as const) {
    const own = stands.filter((s) => archSide(s.tooth) === side).sort((p, q) => p.tooth - q.tooth);
    const places = placesAlong(
      curve,
      side,
      own.map((s) => ({ widthMm: s.widthMm, gapBeforeMm: s.gapMesialMm ?? 0 })),
    );
    own.forEach((s, i) => {
      const place = places[i] as ArchPlace;
      const frame = standingFrame(s.tooth, place, s.edgeUpMm ?? 0);
      const t = (place.turnDeg * Math.PI) / 180;
      const f = s.forwardMm ?? 0;
      const moved: Frame = {
        ...frame,
        origin: [frame.origin[0] + f * Math.sin(t), frame.origin[1] - f * Math.cos(t), frame.origin[2]],
      };
      frames.set(s.tooth, rotateTooth(s.tooth, moved, s.rotationDeg ?? 0));
    });
  }
  return new Map([...frames].sort((p, q) => p[1].origin[0] - q[1].origin[0]));
}
