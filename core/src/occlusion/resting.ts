import { type Frame, frameFrom, nested } from '../geometry/frame.js';
import { type Mesh, placeMesh } from '../geometry/mesh.js';
import { solve } from '../geometry/solve.js';
import type { Fdi } from '../teeth/notation.js';
import { biteGrid, heightField, type JawTooth } from './heights.js';

/** How a lower jaw comes to rest on the upper one. */
export interface Resting {
  /** The lower jaw as it was given, moved: its coordinates then in those of before. */
  readonly move: Frame;
  /** Upper teeth that are touched then. */
  readonly touching: readonly Fdi[];
}

/** Columns in which the two are compared, mm: contacts are as large as that. */
const STEP_MM = 0.1;
/** What is nearer than this touches, mm: twice a scanner's noise. */
const TOUCH_MM = 0.06;
/**
 * By hand the two planes are off by no more than this; a jaw that tilts further hangs on a single place. House limit.
 */
const MOST_TILT_DEG = 2;
/** Rooms that are taken into account one after the other; a dozen is usual. */
const ROUNDS = 60;
/** Tilts, and one step straight up or down after them. */
const STEPS = 5;

/** A place across and along, and the room over it, mm; and a plane: its height in the middle and its slopes. */
type Room = readonly [x: number, y: number, mm: number];
type Plane = readonly [up: number, alongX: number, alongY: number];

/**
 * Closes a lower jaw on the upper one: pushed up in the middle of the side teeth it comes to rest on three places, as a
 * hand that fits two casts together feels it, or tilts by `MOST_TILT_DEG` and rests on fewer. It is not slid.
 * @param upper teeth in the mouth's coordinates
 * @param lower the lower jaw where a hand has put it, in the mouth's coordinates; it may lie too high as well
 * @returns undefined where the two don't lie over each other
 */
export function restingOn(upper: readonly JawTooth[], lower: Mesh): Resting | undefined {
  let own: Resting | undefined;
  let jaw = lower;
  for (let k = 0; k < STEPS; k++) {
    // The last step only closes what the tilts have left.
    const left = own ? [-own.move.z[0] / own.move.z[2], -own.move.z[1] / own.move.z[2]] : [0, 0];
    const step = closedOnce(upper, jaw, k === STEPS - 1 ? undefined : (left as [number, number]));
    if (!step) return own;
    own = { move: own ? nested(step.move, own.move) : step.move, touching: step.touching };
    jaw = placeMesh(lower, own.move);
  }
  return own;
}

/**
 * One step: on steep slopes a tilt brings other places over each other than were compared.
 * @param tilted how far it is tilted already along x and along y, mm a mm; without it it is only moved up or down
 */
function closedOnce(
  upper: readonly JawTooth[],
  lower: Mesh,
  tilted: readonly [number, number] | undefined,
): Resting | undefined {
  const grid = biteGrid([...upper, { tooth: 0, mesh: lower }], STEP_MM);
  const over = heightField(upper, 'upper', grid);
  const under = heightField([{ tooth: 0, mesh: lower }], 'lower', grid);
  const rooms: Room[] = [];
  const teeth: Fdi[] = [];
  let back = 0;
  for (let i = 0; i < over.z.length; i++) {
    const room = over.z[i] - under.z[i];
    if (!Number.isFinite(room)) continue;
    const y = grid.b0 + Math.floor(i / grid.na) * grid.step;
    rooms.push([grid.a0 + (i % grid.na) * grid.step, y, room]);
    teeth.push(over.tooth[i]);
    back = Math.max(back, y);
  }
  if (rooms.length < 20) return undefined;
  // Where the chewing muscles push: in the middle, before the last of the teeth that are there.
  const front = rooms.reduce((least, r) => Math.min(least, r[1]), Infinity);
  const push: readonly [number, number] = [0, front + 0.7 * (back - front)];
  const plane: Plane = tilted ? highestUnder(rooms, push, tilted) : [leastOf(rooms), 0, 0];
  const touching = new Set(rooms.flatMap((r, i) => (r[2] - at(plane, r) < TOUCH_MM ? [teeth[i] as Fdi] : [])));
  return {
    move: frameFrom([0, 0, plane[0]], [-plane[1], -plane[2], 1], [1, 0, plane[1]]),
    touching: [...touching].sort((p, q) => p - q),
  };
}

const at = ([up, alongX, alongY]: Plane, [x, y]: readonly [number, number, ...unknown[]]): number =>
  up + alongX * x + alongY * y;

/**
 * The plane that is highest over a place and nowhere over the rooms: a linear programme of three unknowns, solved by
 * adding the room that is most in the way until none is.
 */
function highestUnder(
  rooms: readonly Room[],
  push: readonly [number, number],
  tilted: readonly [number, number],
): Plane {
  const most = Math.tan((MOST_TILT_DEG * Math.PI) / 180);
  const tilts: [number[], number][] = [
    [[0, 1, 0], most - tilted[0]],
    [[0, -1, 0], most + tilted[0]],
    [[0, 0, 1], most - tilted[1]],
    [[0, 0, -1], most + tilted[1]],
  ];
  const held: [number[], number][] = [];
  let plane: Plane = [leastOf(rooms), 0, 0];
  for (let round = 0; round < ROUNDS; round++) {
    let worst = -1;
    let by = round === 0 ? Infinity : -1e-4;
    rooms.forEach((r, i) => {
      const left = r[2] - at(plane, r);
      if (left >= by) return;
      by = left;
      worst = i;
    });
    if (worst < 0) return plane;
    const [x, y, mm] = rooms[worst] as Room;
    held.push([[1, x, y], mm]);
    plane = bestCorner([...held, ...tilts], push) ?? plane;
  }
  return plane;
}

const leastOf = (rooms: readonly Room[]): number => rooms.reduce((least, r) => Math.min(least, r[2]), Infinity);

/** Of the places where three limits meet and none is broken, that which is highest over a place. */
function bestCorner(
  limits: readonly (readonly [number[], number])[],
  push: readonly [number, number],
): Plane | undefined {
  let best: Plane | undefined;
  let height = -Infinity;
  for (let i = 0; i < limits.length; i++)
    for (let j = i + 1; j < limits.length; j++)
      for (let k = j + 1; k < limits.length; k++) {
        const three = [limits[i], limits[j], limits[k]] as (readonly [number[], number])[];
        const plane = meeting(three);
        if (!plane) continue;
        const own = at(plane, push);
        if (own <= height) continue;
        if (limits.some(([row, most]) => row[0] * plane[0] + row[1] * plane[1] + row[2] * plane[2] > most + 1e-9))
          continue;
        best = plane;
        height = own;
      }
  return best;
}

function meeting(three: readonly (readonly [number[], number])[]): Plane | undefined {
  const [a, b, c] = three.map(([row]) => row) as [number[], number[], number[]];
  const det =
    a[0] * (b[1] * c[2] - b[2] * c[1]) - a[1] * (b[0] * c[2] - b[2] * c[0]) + a[2] * (b[0] * c[1] - b[1] * c[0]);
  if (Math.abs(det) < 1e-9) return undefined;
  return solve(
    three.map(([row]) => [...row]),
    three.map(([, most]) => most),
  ) as unknown as Plane;
}
