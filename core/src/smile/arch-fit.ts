import { Refusal } from '../errors.js';
import { solve } from '../geometry/solve.js';
import { hypot } from '../geometry/vec.js';

/** A place in the plane of an arch, mm or px. */
export type Place = readonly [number, number];

/**
 * An arch as a conic, y = a·x² + b·xy + c·y² + d·x + f in its own frame (origin at the middle of the points, scaled by
 * their spread): a parabola where b = c = 0, an ellipse where the points close up behind.
 */
export interface FittedCurve {
  /** What each point weighed in the end, by how far it stands out. */
  readonly weights: readonly number[];
  /**
   * Signed distance of a place from the curve: positive outside (facial), and the direction of the curve there,
   * degrees.
   */
  at(p: Place): { readonly offset: number; readonly tangentDeg: number };
  /** Root mean square distance of the points that were fitted. */
  readonly rms: number;
}

const ROUNDS = 12;
const ROUNDS_HELD = 3;
/** Points further off than this times the usual distance lose weight (Huber 1964, Ann Math Stat 35:73, from memory). */
const HUBER = 1.5;

/**
 * Lays an arch through points, the front of the arch towards −y. A conic by weighted least squares on true distances:
 * every round divides by the gradient (Sampson 1982, Comput Graph Image Process 18:97, from memory), and points that
 * stand out lose weight, so that one crowded tooth does not bend the arch.
 * @param held weights to keep, of a fit of nearly the same points: what is asked then is how the curve gives way to a
 *   small shift, not which tooth stands out
 * @throws Refusal `points-coincide` for fewer than six points or points all in one place
 */
export function fitArchCurve(points: readonly Place[], held?: readonly number[]): FittedCurve {
  if (points.length < 6) throw new Refusal('points-coincide', 'An arch needs at least six points.', points.length);
  const mx = points.reduce((n, p) => n + p[0], 0) / points.length;
  const my = points.reduce((n, p) => n + p[1], 0) / points.length;
  const spread = Math.sqrt(points.reduce((n, p) => n + (p[0] - mx) ** 2 + (p[1] - my) ** 2, 0) / points.length);
  if (!(spread > 0)) throw new Refusal('points-coincide', 'The points of the arch lie at one place.', points);
  const own = points.map((p): Place => [(p[0] - mx) / spread, (p[1] - my) / spread]);
  let weights: number[] = held ? [...held] : own.map(() => 1);
  let standing: readonly number[] = held ?? own.map(() => 1);
  let k: Coefficients = [0, 0, 0, 0, 0];
  for (let round = 0; round < (held ? ROUNDS_HELD : ROUNDS); round++) {
    k = weighted(own, weights);
    if (held) {
      weights = own.map((p, i) => {
        const g = gradient(k, p);
        return (held[i] as number) / (g[0] * g[0] + g[1] * g[1]);
      });
      continue;
    }
    const distances = own.map((p) => sampson(k, p));
    const sorted = distances.map(Math.abs).sort((p, q) => p - q);
    const usual = Math.max(1e-9, (sorted[Math.floor(sorted.length / 2)] as number) * 1.4826);
    standing = distances.map((distance) => {
      const d = Math.abs(distance);
      return d <= HUBER * usual ? 1 : (HUBER * usual) / d;
    });
    weights = own.map((p, i) => {
      const g = gradient(k, p);
      return (standing[i] as number) / (g[0] * g[0] + g[1] * g[1]);
    });
  }
  const nearest = (p: Place) => foot(k, [(p[0] - mx) / spread, (p[1] - my) / spread]);
  return {
    weights: standing,
    at: (p) => {
      const { distance, normal } = nearest(p);
      // The tangent runs towards +x: the normal points forward (−y), turned a quarter.
      return { offset: distance * spread, tangentDeg: (Math.atan2(normal[0], -normal[1]) * 180) / Math.PI };
    },
    rms: Math.sqrt(points.reduce((n, p) => n + (nearest(p).distance * spread) ** 2, 0) / points.length),
  };
}

type Coefficients = readonly [number, number, number, number, number];

/** Value of the conic: positive behind the curve, where y is larger. */
const valueAt = ([a, b, c, d, f]: Coefficients, [x, y]: Place): number =>
  y - (a * x * x + b * x * y + c * y * y + d * x + f);
const gradient = ([a, b, c, d]: Coefficients, [x, y]: Place): Place => [
  -(2 * a * x + b * y + d),
  1 - b * x - 2 * c * y,
];

function sampson(k: Coefficients, p: Place): number {
  const g = gradient(k, p);
  return valueAt(k, p) / (hypot(g[0], g[1]) || 1);
}

function weighted(points: readonly Place[], weights: readonly number[]): Coefficients {
  const ata = Array.from({ length: 5 }, () => [0, 0, 0, 0, 0]);
  const atb = [0, 0, 0, 0, 0];
  points.forEach(([x, y], n) => {
    const row = [x * x, x * y, y * y, x, 1];
    const w = weights[n] as number;
    for (let i = 0; i < 5; i++) {
      atb[i] = (atb[i] as number) + w * (row[i] as number) * y;
      for (let j = 0; j < 5; j++)
        (ata[i] as number[])[j] = ((ata[i] as number[])[j] as number) + w * (row[i] as number) * (row[j] as number);
    }
  });
  return solve(ata, atb) as unknown as Coefficients;
}

/** The nearest place of the curve by Newton's steps along the gradient and across it; distance positive in front. */
function foot(k: Coefficients, p: Place): { distance: number; normal: Place } {
  let [x, y] = p;
  for (let i = 0; i < 30; i++) {
    const g = gradient(k, [x, y]);
    const gg = g[0] * g[0] + g[1] * g[1] || 1;
    const v = valueAt(k, [x, y]);
    // Back onto the curve, then along it until the way to p runs along the normal.
    const t = ((p[0] - x) * -g[1] + (p[1] - y) * g[0]) / gg;
    const stepX = (-v * g[0]) / gg + 0.7 * t * -g[1];
    const stepY = (-v * g[1]) / gg + 0.7 * t * g[0];
    x += stepX;
    y += stepY;
    if (Math.abs(stepX) + Math.abs(stepY) < 1e-8) break;
  }
  const g = gradient(k, [x, y]);
  const l = hypot(g[0], g[1]) || 1;
  const normal: Place = [-g[0] / l, -g[1] / l];
  return { distance: (p[0] - x) * normal[0] + (p[1] - y) * normal[1], normal };
}
