import { hypot } from '../geometry/vec.js';
import type { Fdi } from '../teeth/notation.js';
import { EVEN, type Figure } from '../working/working.js';
import type { Px } from './calibration.js';

/** How a camera stood to the mouth, as far as it is known. Each `pm` is 1.96 standard deviations. */
export interface CameraStand {
  /** Turned to the patient's left of the direction from which the view is taken, and up, degrees. */
  readonly yawDeg: number;
  readonly yawPm: number;
  readonly pitchDeg: number;
  readonly pitchPm: number;
  /** From the lens to the plane of the scale, mm, and its half-width as a share of it. */
  readonly distanceMm: number;
  readonly distancePm: number;
  /** Its turns may be anything between their ends, and are no likelier in the middle. */
  readonly even: boolean;
}

/** How a camera stood that was matched with a scan, as it is kept: half-widths of 95 % intervals, distance as a share. */
export interface CameraStood {
  readonly yawDeg: number;
  readonly yawPmDeg: number;
  readonly pitchDeg: number;
  readonly pitchPmDeg: number;
  /** Against the plane of the scanned row, clockwise. */
  readonly rollDeg: number;
  readonly rollPmDeg: number;
  readonly distanceMm: number;
  readonly distancePm: number;
  /** The scanned arch's depth, see `ARCH_DEPTH`. */
  readonly archPerMm?: number | undefined;
  /** How far back the scan has the places that are marked. */
  readonly behind?: readonly ScannedDepth[] | undefined;
}

/** How far the places of a scanned tooth lie behind the middle of the centrals' edges, mm; before it where negative. */
export interface ScannedDepth {
  readonly tooth: Fdi;
  readonly zenith: number;
  readonly edge: number;
  readonly mesial: number;
  readonly distal: number;
}

/** The same as a sight takes it. */
export const standOf = (c: CameraStood): CameraStand => ({
  yawDeg: c.yawDeg,
  yawPm: c.yawPmDeg,
  pitchDeg: c.pitchDeg,
  pitchPm: c.pitchPmDeg,
  distanceMm: c.distanceMm,
  distancePm: c.distancePm,
  even: false,
});

/** Who takes photographs by hand keeps within so many degrees, evenly spread. Common practice, no source. */
export const HAND_TURN_DEG = 5;
/** 1.96 standard deviations of what is spread evenly to either side of its middle. */
const evenPm = (end: number): number => (1.96 * end) / Math.sqrt(3);
/** How much nearer or further practices stand, as a share. Common practice, no source. */
const DISTANCE_PM = 0.5;

/** A camera of which nothing is known but that a person held it for a view. */
export const heldByHand = (distanceMm: number, turnDeg = HAND_TURN_DEG): CameraStand => ({
  yawDeg: 0,
  yawPm: evenPm(turnDeg),
  pitchDeg: 0,
  pitchPm: evenPm(turnDeg),
  distanceMm,
  distancePm: DISTANCE_PM,
  even: true,
});

/** Seen from straight in front without perspective: what every figure is meant to be. */
export const STRAIGHT: CameraStand = {
  yawDeg: 0,
  yawPm: 0,
  pitchDeg: 0,
  pitchPm: 0,
  distanceMm: Number.POSITIVE_INFINITY,
  distancePm: 0,
  even: false,
};

/** How far behind the plane of the scale something lies along the view, mm. */
export interface Depth {
  readonly mm: number;
  /** The share of it that comes with the arch's own curve: all of it grows and shrinks together. */
  readonly archMm: number;
  /** How far one mouth's place lies from this, one standard deviation, mm. */
  readonly sdMm: number;
}

/** How one photograph is looked at: its scale, and how the camera stood. */
export interface Sight {
  /** Names the causes of error that all its figures share. */
  readonly view: string;
  readonly scale: Figure;
  readonly stand: CameraStand;
  /** The line of sight goes through here, px. */
  readonly about: Px;
  /** How unsure the level is by which its points were turned back, degrees. */
  readonly rollPmDeg: number;
  /** How unsure the depth of the arch is, as a share of it. */
  readonly archPm: number;
}

/** A common cause of error: what a sight looks like at the end of its 95 % interval. */
export interface Cause {
  readonly name: string;
  readonly at: Sight;
  /** The other end, where what both ends do alike is no error of the middle: a turn either way makes all a little lower. */
  readonly back?: Sight;
  /**
   * The name of the cause together with which it acts: what it does beyond that one alone counts, as the product of two
   * independent errors does.
   */
  readonly of?: string;
  /** How much deeper than usual the arch is then, as a share. */
  readonly arch: number;
  /** Everything is turned by so much then, degrees clockwise. */
  readonly rollDeg: number;
}

/** One answer for each sight: every figure of a view asks for it. */
const known = new WeakMap<Sight, readonly Cause[]>();

/** What all figures of a sight have in common, each at the end of its interval. */
export function causesOf(s: Sight): readonly Cause[] {
  let causes = known.get(s);
  if (!causes) {
    causes = causesAnew(s);
    known.set(s, causes);
  }
  return causes;
}

function causesAnew(s: Sight): readonly Cause[] {
  const { stand, scale } = s;
  const at = (moved: Partial<CameraStand>): Sight => ({ ...s, stand: { ...stand, ...moved } });
  const cause = (name: string, moved: Partial<CameraStand>, arch = 0, rollDeg = 0): Cause => ({
    name: `${s.view} ${name}`,
    at: at(moved),
    arch,
    rollDeg,
  });
  const turned = (name: 'yaw' | 'pitch', to: Partial<CameraStand>, from: Partial<CameraStand>): Cause => ({
    name: `${stand.even ? EVEN : ''}${s.view} ${name}`,
    at: at(to),
    back: at(from),
    arch: 0,
    rollDeg: 0,
  });
  const { yawDeg, yawPm, pitchDeg, pitchPm } = stand;
  const turns = [
    ...(yawPm > 0 ? [turned('yaw', { yawDeg: yawDeg + yawPm }, { yawDeg: yawDeg - yawPm })] : []),
    ...(pitchPm > 0 ? [turned('pitch', { pitchDeg: pitchDeg + pitchPm }, { pitchDeg: pitchDeg - pitchPm })] : []),
  ];
  const out: Cause[] = [];
  if (scale.pm > 0)
    out.push({ ...cause('scale', {}), at: { ...s, scale: { ...scale, value: scale.value + scale.pm } } });
  out.push(...turns);
  if (stand.distancePm > 0) out.push(cause('distance', { distanceMm: stand.distanceMm * (1 + stand.distancePm) }));
  if (s.archPm > 0) {
    out.push(cause('arch', {}, s.archPm));
    // A deeper arch shows only where the camera is turned: nothing at all to first order.
    for (const turn of turns) out.push({ ...turn, name: `arch in ${turn.name}`, arch: s.archPm, of: turn.name });
  }
  if (s.rollPmDeg > 0) out.push(cause('level', {}, 0, s.rollPmDeg));
  return out;
}

const rad = Math.PI / 180;

/**
 * Where a place of the picture would be seen from straight in front and without perspective, px: the camera's turn and
 * the place's depth are taken out, the scale stays.
 */
export function straightened(p: Px, depth: Depth | undefined, s: Sight, arch = 0): Px {
  const y = depth ? depth.mm + depth.archMm * arch : 0;
  const { yawDeg, pitchDeg, distanceMm } = s.stand;
  if (yawDeg === 0 && pitchDeg === 0) {
    const k = 1 + y / distanceMm;
    return [s.about[0] + (p[0] - s.about[0]) * k, s.about[1] + (p[1] - s.about[1]) * k];
  }
  const mm = s.scale.value;
  const [u, v] = [(p[0] - s.about[0]) * mm, (s.about[1] - p[1]) * mm];
  const [sy, cy] = [Math.sin(yawDeg * rad), Math.cos(yawDeg * rad)];
  const [sp, cp] = [Math.sin(pitchDeg * rad), Math.cos(pitchDeg * rad)];
  let [x, z] = [u, v];
  // Depth along the line of sight follows from the place, and the place from it.
  for (let i = 0; i < 2; i++) {
    const k = 1 + (-x * sy * cp + y * cy * cp - z * sp) / distanceMm;
    x = (u * k - y * sy) / cy;
    z = (v * k + x * sy * sp - y * cy * sp) / cp;
  }
  return [s.about[0] + x / mm, s.about[1] - z / mm];
}

/**
 * How unsure a straightened place is across and down, one standard deviation, mm: from setting it, and from what its
 * depth does through perspective and turn.
 */
export function spreadOf(p: Px, sdMm: number, depth: Depth | undefined, s: Sight): readonly [number, number] {
  const sd = depth?.sdMm ?? 0;
  if (sd === 0) return [sdMm, sdMm];
  const { yawDeg, yawPm, pitchDeg, pitchPm, distanceMm } = s.stand;
  const turn = (deg: number, pm: number) => hypot(Math.sin(deg * rad), Math.sin(pm * rad) / 1.96);
  const away = (k: 0 | 1) => ((p[k] - s.about[k]) * s.scale.value) / distanceMm;
  return [hypot(sdMm, sd * away(0), sd * turn(yawDeg, yawPm)), hypot(sdMm, sd * away(1), sd * turn(pitchDeg, pitchPm))];
}
