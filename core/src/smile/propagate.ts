import { COMMON_PRACTICE, type Errors, type Figure, MEASURED, together, type Working } from '../working/working.js';
import { type Px, Z95 } from './calibration.js';
import { type Cause, causesOf, type Depth, type Sight, spreadOf, straightened } from './sight.js';

/** A place in a photograph and how well the same hand sets it again, one standard deviation in mm. */
export interface Marked {
  /** Which place it is, so that what two figures have of it in common is known. */
  readonly id: string;
  readonly at: Px;
  readonly sdMm: number;
  readonly depth?: Depth | undefined;
}

/** How far a point is moved to see what a figure does, px. */
const STEP_PX = 0.5;

/** What the points of one photograph come to, straightened: a figure from points, px, and mm a pixel. */
type Of = (points: readonly Px[], mmPerPx: number) => number;

/** Turned about the line of sight, clockwise. */
function turned(p: Px, about: Px, deg: number): [number, number] {
  if (deg === 0) return [p[0], p[1]];
  const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
  const [x, y] = [p[0] - about[0], p[1] - about[1]];
  return [about[0] + x * c - y * s, about[1] + x * s + y * c];
}

/** The points as they would be seen straight, each pair of coordinates free to be moved. */
const seen = (marks: readonly Marked[], s: Sight, arch = 0, rollDeg = 0): [number, number][] =>
  marks.map((m) => turned(straightened(m.at, m.depth, s, arch), s.about, rollDeg));

/**
 * Figures that follow from points and the scale, with their errors to first order: every coordinate is moved a little,
 * and the scale, the camera's turn and distance, the arch's depth and the level are each taken to the end of their
 * interval; what that does to each figure is added up in squares (law of propagation, JCGM 100:2008).
 * @param of the figures from the straightened points, px, and the scale, mm a pixel
 * @param more further independent half-widths of 95 % intervals by name, in the figures' unit
 */
export function propagatedAll(
  marks: readonly Marked[],
  sight: Sight,
  unit: Figure['unit'],
  working: Working,
  of: (points: readonly Px[], mmPerPx: number) => readonly number[],
  more: Errors = {},
): Figure[] {
  const points = seen(marks, sight);
  const mm = sight.scale.value;
  const values = of(points, mm);
  const errors = values.map((): Record<string, number> => ({ ...more }));
  const add = (name: string, moved: readonly number[], weight: number, from = values, of?: string) =>
    errors.forEach((e, i) => {
      const effect = weight * ((moved[i] as number) - (from[i] as number));
      if (effect !== 0 || of) e[name] = of ? beyond(effect, of, e) : effect;
    });
  marks.forEach((m, i) => {
    const own = points[i] as [number, number];
    const sd = spreadOf(m.at, m.sdMm, m.depth, sight);
    for (const k of [0, 1] as const) {
      const kept = own[k];
      own[k] = kept + STEP_PX;
      add(nameOf(sight, m, k), of(points, mm), (Z95 * sd[k]) / mm / STEP_PX);
      own[k] = kept;
    }
  });
  for (const c of causesOf(sight)) {
    const [to, from] = endsOf(c, (at) => of(seen(marks, at, c.arch, c.rollDeg), at.scale.value));
    add(c.name, to, from ? 0.5 : 1, from, c.of);
  }
  const told = toldOnce(working, marks, sight);
  return values.map((value, i) => figureOf(value, errors[i] as Errors, unit, told));
}

/** A figure whose working is put together when somebody asks for it: most of them nobody ever does. */
function figureOf(value: number, errors: Errors, unit: Figure['unit'], told: () => Working): Figure {
  return {
    value,
    pm: together(errors),
    unit,
    errors,
    get working() {
      return told();
    },
  };
}

function toldOnce(working: Working, marks: readonly Marked[], sight: Sight): () => Working {
  let told: Working | undefined;
  return () => {
    told ??= explained(working, marks, sight);
    return told;
  };
}

/** The same for one figure. */
export function propagated(
  marks: readonly Marked[],
  sight: Sight,
  unit: Figure['unit'],
  working: Working,
  of: Of,
  more: Errors = {},
): Figure {
  const points = seen(marks, sight);
  const mm = sight.scale.value;
  const value = of(points, mm);
  const errors: Record<string, number> = { ...more };
  for (let i = 0; i < marks.length; i++) {
    const m = marks[i] as Marked;
    const own = points[i] as [number, number];
    const sd = spreadOf(m.at, m.sdMm, m.depth, sight);
    for (const k of [0, 1] as const) {
      const kept = own[k];
      own[k] = kept + STEP_PX;
      const effect = ((of(points, mm) - value) * Z95 * sd[k]) / mm / STEP_PX;
      own[k] = kept;
      if (effect !== 0) errors[nameOf(sight, m, k)] = effect;
    }
  }
  for (const c of causesOf(sight)) {
    const [to, from] = endsOf(c, (at) => of(seen(marks, at, c.arch, c.rollDeg), at.scale.value));
    const effect = from === undefined ? to - value : (to - from) / 2;
    errors[c.name] = c.of ? beyond(effect, c.of, errors) : effect;
  }
  return figureOf(value, errors, unit, toldOnce(working, marks, sight));
}

/** Figures at the end of a cause, and at its other end where that counts. */
const endsOf = <T>({ at, back }: Cause, of: (at: Sight) => T): [T, T | undefined] => [of(at), back && of(back)];

/** What two causes do together beyond one alone: a product of two errors spreads as the product of their spreads. */
const beyond = (both: number, alone: string, errors: Errors): number => (both - (errors[alone] ?? 0)) / Z95;

const nameOf = (s: Sight, m: Marked, k: 0 | 1): string => `${s.view} ${m.id} ${k === 0 ? 'across' : 'down'}`;

/**
 * Figures that share most of their points, each with one point of its own, with errors as `propagated` gives them: the
 * shared points are moved once for all.
 * @param shared points that every figure depends on
 * @param own the point of each figure
 * @param of from the shared points, px, what turns an own point into its figure
 */
export function propagatedEach(
  shared: readonly Marked[],
  own: readonly Marked[],
  sight: Sight,
  unit: Figure['unit'],
  working: Working,
  of: (points: readonly Px[], mmPerPx: number) => (p: Px) => number,
): Figure[] {
  const points = seen(shared, sight);
  const places = seen(own, sight);
  const mm = sight.scale.value;
  const still = of(points, mm);
  const values = places.map((p) => still(p));
  const errors = own.map((m, i): Record<string, number> => {
    const [x, y] = places[i] as [number, number];
    const sd = spreadOf(m.at, m.sdMm, m.depth, sight);
    const value = values[i] as number;
    return {
      [nameOf(sight, m, 0)]: (Z95 * sd[0] * (still([x + STEP_PX, y]) - value)) / STEP_PX / mm,
      [nameOf(sight, m, 1)]: (Z95 * sd[1] * (still([x, y + STEP_PX]) - value)) / STEP_PX / mm,
    };
  });
  const shown = (moved: (p: Px) => number, at: readonly Px[]) => at.map(moved);
  const add = (name: string, to: readonly number[], weight: number, from: readonly number[] = values, of?: string) =>
    errors.forEach((e, i) => {
      const own = weight * ((to[i] as number) - (from[i] as number));
      e[name] = of ? beyond(own, of, e) : own;
    });
  shared.forEach((m, j) => {
    const p = points[j] as [number, number];
    const sd = spreadOf(m.at, m.sdMm, m.depth, sight);
    for (const k of [0, 1] as const) {
      const kept = p[k];
      p[k] = kept + STEP_PX;
      add(nameOf(sight, m, k), shown(of(points, mm), places), (Z95 * sd[k]) / mm / STEP_PX);
      p[k] = kept;
    }
  });
  for (const c of causesOf(sight)) {
    const [to, from] = endsOf(c, (at) =>
      shown(of(seen(shared, at, c.arch, c.rollDeg), at.scale.value), seen(own, at, c.arch, c.rollDeg)),
    );
    add(c.name, to, from ? 0.5 : 1, from, c.of);
  }
  const told = toldOnce(working, [...shared, ...own], sight);
  return own.map((_, i) => figureOf(values[i] as number, errors[i] as Errors, unit, told));
}

function explained(working: Working, marks: readonly Marked[], { scale, stand }: Sight): Working {
  return {
    ...working,
    inputs: [
      ...working.inputs,
      { name: 'scale', value: Math.round(scale.value * 1e5) / 1e5, unit: 'mm/px', source: MEASURED },
      {
        name: 'repeatability of its points (sd)',
        value: [...new Set(marks.map((m) => m.sdMm))].sort().join(', '),
        unit: 'mm',
        source: COMMON_PRACTICE,
      },
      ...(stand.yawPm > 0 || stand.yawDeg !== 0
        ? [
            {
              name: 'turn of the camera to the side, up or down',
              value: `${turnWords(stand.yawDeg, stand.yawPm)}, ${turnWords(stand.pitchDeg, stand.pitchPm)}`,
              unit: '°',
              source: stand.yawDeg === 0 && stand.pitchDeg === 0 ? COMMON_PRACTICE : MEASURED,
            },
          ]
        : []),
    ],
  };
}

const turnWords = (deg: number, pm: number): string => `${deg.toFixed(1)} ±${pm.toFixed(1)}`;
