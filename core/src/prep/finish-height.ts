import { toLocal } from '../geometry/frame.js';
import type { Vec3 } from '../geometry/vec.js';
import type { TargetSurface } from '../reduction/target.js';

/**
 * How far any place lies over the planned finish line along the target's axis, mm, by the direction in which it lies.
 */
export function overFinish({ finishLine, frame }: TargetSurface): (place: Vec3) => number {
  const line = finishLine
    .map((p) => toLocal(frame, p))
    .map(([x, y, z]) => ({ turn: Math.atan2(y, x), z }))
    .sort((a, b) => a.turn - b.turn);
  return (place) => {
    const [x, y, z] = toLocal(frame, place);
    const turn = Math.atan2(y, x);
    let [low, high] = [0, line.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((line[middle] as { turn: number }).turn < turn) low = middle + 1;
      else high = middle;
    }
    const near = [line[(low + line.length - 1) % line.length], line[low % line.length]] as {
      turn: number;
      z: number;
    }[];
    const away = (t: number) => Math.abs(Math.atan2(Math.sin(t - turn), Math.cos(t - turn)));
    const [a, b] = near as [{ turn: number; z: number }, { turn: number; z: number }];
    const [da, db] = [away(a.turn), away(b.turn)];
    return (da + db === 0 ? a.z : (a.z * db + b.z * da) / (da + db)) - z;
  };
}
