import { type Curve, monotoneCurve } from '../geometry/curve.js';
import { hypot } from '../geometry/vec.js';
import { isFrontKind, LENGTH_WORN } from '../teeth/norms.js';
import { type Fdi, kindOf, UPPER_TEN } from '../teeth/notation.js';
import { DERIVED, derived, type Figure, MEASURED } from '../working/working.js';
import type { Px } from './calibration.js';
import { corridor, type EdgeCurve, lipLine } from './norms.js';
import { type Marked, propagated, propagatedEach } from './propagate.js';
import { along, directionDeg, marksOf, sightOf, type ViewFigure, type ViewReading } from './reading.js';
import { LIP_KNOTS } from './views.js';

/** What else is known of the teeth that the lips show. */
export interface LipContext {
  /** Crown lengths by tooth, mm, from the retracted front view or the scan. */
  readonly lengths?: Readonly<Partial<Record<Fdi, Figure>>>;
}

const CORNER_IDS = ['corner-right', 'corner-left'] as const;
const lipIds = (which: 'upper' | 'lower') => Array.from({ length: LIP_KNOTS }, (_, i) => `${which}-lip-${i + 1}`);
const marked = (name: string, value: number | string = 'marked', unit = '') => [
  { name, value, unit, source: MEASURED },
];

/** The lip's border as a curve over the level line: a monotone cubic through the corners and its knots, all px. */
export function lipCurve(corners: readonly [Px, Px], knots: readonly Px[]): Curve {
  const rising: (readonly [number, number])[] = [];
  for (const p of [corners[0], ...knots, corners[1]].sort((a, b) => a[0] - b[0])) {
    const before = rising.at(-1);
    if (!before || p[0] - before[0] > 0.5) rising.push(p);
  }
  return monotoneCurve(rising);
}

/** All points turned so that the line through the corners is level. */
function level(points: readonly Px[]): Px[] {
  const [a, b] = [points[0] as Px, points[1] as Px];
  const deg = directionDeg(a, b);
  return points.map((p) => along(p, a, deg));
}

const curveOf = (levelled: readonly Px[], from: number): Curve =>
  lipCurve([levelled[0] as Px, levelled[1] as Px], levelled.slice(from, from + LIP_KNOTS));

/**
 * How far edges or zeniths lie below the border of the upper lip, mm, by their ids; those that are not marked are left
 * out.
 */
function belowLip(
  r: ViewReading,
  corners: Marked[],
  lip: Marked[],
  kind: 'edge' | 'zenith',
  formula: string,
): Map<Fdi, Figure> {
  const teeth = UPPER_TEN.filter((t) => r.points[`${kind}-${t}`]);
  const own =
    marksOf(
      r,
      teeth.map((t) => `${kind}-${t}`),
    ) ?? [];
  const figures = propagatedEach(
    [...corners, ...lip],
    own,
    sightOf(r),
    'mm',
    { formula, inputs: marked('corners, lip and tooth') },
    (points, mm) => {
      const [a, b] = [points[0] as Px, points[1] as Px];
      const deg = directionDeg(a, b);
      const curve = curveOf(level(points), 2);
      return (p) => {
        const at = along(p, a, deg);
        return (at[1] - curve(at[0])) * mm;
      };
    },
  );
  return new Map(teeth.map((t, i) => [t, figures[i] as Figure]));
}

/** Whether the neck of a tooth lies in the visible zone: what the smile photograph says of it. */
export type NeckSeen =
  | { readonly seen: true; readonly gumMm: Figure }
  | { readonly seen: false; readonly gumMm?: Figure | undefined };

/**
 * Whether the neck of an upper tooth is seen in a full smile, by the close view: where its zenith is marked it lies below
 * the border of the lip by so much; where its edge is marked and its zenith is not, the lip covers it.
 * @returns undefined where the view says nothing of this tooth
 */
export function neckSeen(r: ViewReading, tooth: Fdi): NeckSeen | undefined {
  const corners = marksOf(r, CORNER_IDS);
  const upper = marksOf(r, lipIds('upper'));
  if (!corners || !upper || !r.points[`edge-${tooth}`]) return undefined;
  const gumMm = belowLip(r, corners, upper, 'zenith', 'zenith below the border of the upper lip').get(tooth);
  return gumMm && gumMm.value > 0 ? { seen: true, gumMm } : { seen: false, gumMm };
}

/** The lips at rest: how much each tooth shows, how long the upper lip is, how far the lips stand apart. */
export function measureRest(r: ViewReading): ViewFigure[] {
  const corners = marksOf(r, CORNER_IDS);
  const upper = marksOf(r, lipIds('upper'));
  const lower = marksOf(r, lipIds('lower'));
  const out: ViewFigure[] = [];
  if (corners && upper) {
    for (const [tooth, figure] of belowLip(r, corners, upper, 'edge', 'edge below the border of the upper lip'))
      out.push({ id: `display-${tooth}`, tooth, name: `{${tooth}} shown at rest`, figure });
  }
  if (corners && upper && lower) out.push(lipsApart(r, corners, upper, lower));
  if (corners && upper) out.push(lipSymmetry(r, corners, upper, 'lip-symmetry-rest'));
  const length = marksOf(r, [...CORNER_IDS, 'nose-base', `upper-lip-${(LIP_KNOTS + 1) / 2}`]);
  if (length) {
    const figure = propagated(
      length,
      sightOf(r),
      'mm',
      { formula: 'nose base to the border of the upper lip, in the middle', inputs: marked('two points') },
      (p, mm) => {
        const q = level(p);
        return ((q[3] as Px)[1] - (q[2] as Px)[1]) * mm;
      },
    );
    out.push({ id: 'lip-length', name: 'length of the upper lip', figure });
  }
  return out;
}

/**
 * How much lower the border of the upper lip hangs on the patient's left than on the right, mm: the mean of its two
 * pairs of knots beside the middle, across the line of the corners.
 */
function lipSymmetry(r: ViewReading, corners: Marked[], upper: Marked[], id: string): ViewFigure {
  const figure = propagated(
    [...corners, ...upper],
    sightOf(r),
    'mm',
    {
      formula: 'border of the upper lip on the left − on the right, below the line of the corners',
      inputs: marked('corners and upper lip'),
    },
    (p, mm) => {
      const q = level(p).slice(2);
      const pairs = Math.floor(LIP_KNOTS / 2);
      let sum = 0;
      for (let i = 0; i < pairs; i++) sum += (q[LIP_KNOTS - 1 - i] as Px)[1] - (q[i] as Px)[1];
      return (sum / pairs) * mm;
    },
  );
  const word = Math.abs(figure.value) <= figure.pm ? 'even' : figure.value > 0 ? 'left lower' : 'right lower';
  return { id, name: 'upper lip, left against right', figure, word };
}

function lipsApart(r: ViewReading, corners: Marked[], upper: Marked[], lower: Marked[]): ViewFigure {
  const middle = (LIP_KNOTS - 1) / 2;
  const figure = propagated(
    [...corners, upper[middle] as Marked, lower[middle] as Marked],
    sightOf(r),
    'mm',
    { formula: 'between the borders of the lips, in the middle', inputs: marked('two points') },
    (p, mm) => {
      const q = level(p);
      return ((q[3] as Px)[1] - (q[2] as Px)[1]) * mm;
    },
  );
  return { id: 'lips-apart', name: 'between the lips', figure };
}

/** The lips in full smile: width, corridors, gum, lip line, and the edges against the lower lip. */
export function measureSmile(r: ViewReading, context: LipContext = {}): ViewFigure[] {
  const corners = marksOf(r, CORNER_IDS);
  if (!corners) return [];
  const out: ViewFigure[] = [];
  const width = propagated(
    corners,
    sightOf(r),
    'mm',
    { formula: 'corner to corner', inputs: marked('both corners') },
    ([a, b], mm) => hypot((b as Px)[0] - (a as Px)[0], (b as Px)[1] - (a as Px)[1]) * mm,
  );
  out.push({ id: 'smile-width', name: 'width of the smile', figure: width });
  out.push(...corridors(r, corners));
  const upper = marksOf(r, lipIds('upper'));
  const lower = marksOf(r, lipIds('lower'));
  if (upper) out.push(...gumAndLipLine(r, corners, upper, context));
  if (upper) out.push(lipSymmetry(r, corners, upper, 'lip-symmetry-smile'));
  if (lower) out.push(...edgeCurve(r, corners, lower));
  return out;
}

function corridors(r: ViewReading, corners: Marked[]): ViewFigure[] {
  const outer = marksOf(r, ['outer-right', 'outer-left']);
  if (!outer) return [];
  const marks = [...corners, ...outer];
  const share = (of: (width: number, right: number, left: number) => number) => (points: readonly Px[]) => {
    const [, b, c, d] = level(points) as [Px, Px, Px, Px];
    return (100 * of(b[0], c[0], b[0] - d[0])) / b[0];
  };
  const figure = (what: string, of: (width: number, right: number, left: number) => number) =>
    propagated(
      marks,
      sightOf(r),
      '%',
      { formula: `${what} ÷ width of the smile`, inputs: marked('corners and last teeth') },
      share(of),
    );
  const both = figure('dark space of both sides', (_, right, left) => right + left);
  return [
    {
      id: 'corridor-right',
      name: 'corridor, right',
      figure: figure('dark space of the right side', (_, right) => right),
    },
    {
      id: 'corridor-left',
      name: 'corridor, left',
      figure: figure('dark space of the left side', (_, __, left) => left),
    },
    { id: 'corridor', name: 'corridor, both', figure: both, word: `${corridor(both.value).kind} smile` },
  ];
}

function gumAndLipLine(r: ViewReading, corners: Marked[], upper: Marked[], { lengths = {} }: LipContext): ViewFigure[] {
  const out: ViewFigure[] = [];
  const gums = belowLip(r, corners, upper, 'zenith', 'zenith below the border of the upper lip');
  for (const [tooth, gum] of gums) out.push({ id: `gum-${tooth}`, tooth, name: `gum over {${tooth}}`, figure: gum });
  const seen: { tooth: Fdi; shown: Figure; whole: Figure }[] = [];
  for (const [tooth, shown] of belowLip(r, corners, upper, 'edge', 'edge below the border of the upper lip')) {
    const kind = kindOf(tooth);
    const norm = isFrontKind(kind) ? LENGTH_WORN[kind] : undefined;
    const whole =
      lengths[tooth] ??
      (norm && { value: norm.value, pm: 1, unit: 'mm' as const, working: { formula: 'mean length', inputs: [] } });
    out.push({ id: `shown-${tooth}`, tooth, name: `{${tooth}} shown in smile`, figure: shown });
    if (whole) seen.push({ tooth, shown, whole });
  }
  if (seen.length < 2) return out;
  const share = shareSeen(seen, gums, Object.keys(lengths).length > 0);
  // The lip lies over the gum of every tooth, and by more than the error: only then is the line high.
  const free = seen.every(({ tooth }) => {
    const gum = gums.get(tooth);
    return gum !== undefined && gum.value > gum.pm;
  });
  out.push({
    id: 'crowns-seen',
    name: 'share of the front crowns seen',
    word: `${lipLine(share.value, free).kind} lip line`,
    figure: share,
  });
  if (gums.size > 0) {
    const most = [...gums.values()].reduce((a, b) => (b.value > a.value ? b : a));
    out.push({ id: 'gum', name: 'most gum shown', figure: most });
  }
  return out;
}

/** How much of the front crowns is seen, %; a crown whose zenith is free is seen whole, and none counts for more. */
function shareSeen(
  seen: readonly { readonly tooth: Fdi; readonly shown: Figure; readonly whole: Figure }[],
  gums: ReadonlyMap<Fdi, Figure>,
  measured: boolean,
): Figure {
  const n = seen.length;
  const free = seen.map((s) => (gums.get(s.tooth)?.value ?? 0) > 0);
  const all = [...seen.map((s) => s.shown), ...seen.map((s) => s.whole)];
  return derived(
    all,
    '%',
    {
      formula: 'crown below the lip ÷ crown length, all marked front teeth together, none more than whole',
      inputs: [
        { name: 'teeth', value: n, unit: '', source: MEASURED },
        { name: 'with a free zenith', value: free.filter(Boolean).length, unit: '', source: MEASURED },
        {
          name: 'crown lengths',
          value: measured ? 'from the retracted view' : 'means of worn teeth',
          unit: '',
          source: DERIVED,
        },
      ],
    },
    (v) => {
      let [shown, whole] = [0, 0];
      for (let i = 0; i < n; i++) {
        whole += v[n + i] as number;
        shown += free[i] ? (v[n + i] as number) : Math.min(v[i] as number, v[n + i] as number);
      }
      return (100 * shown) / whole;
    },
  );
}

/** Below this share of the lip's own curvature the edges are called straight. House preference; no source. */
export const STRAIGHT_BELOW_PERCENT = 30;

/** Courses in the order of curvature: each from so much of the lower lip's own, %. */
const COURSES: readonly (readonly [EdgeCurve, number])[] = [
  ['reverse', Number.NEGATIVE_INFINITY],
  ['straight', 0],
  ['parallel', STRAIGHT_BELOW_PERCENT],
];

/**
 * The classes of the edges' course that its interval meets, in words: one, two ("straight or parallel"), or none where
 * it may be any. `percent` is of the lower lip's curvature; 100 is parallel.
 */
export function edgeCourse(percent: number, pm: number): string {
  const met = COURSES.filter(
    ([, from], i) => percent + pm >= from && percent - pm < (COURSES[i + 1]?.[1] ?? Number.POSITIVE_INFINITY),
  ).map(([course]) => course);
  return met.length === COURSES.length ? 'can’t be told' : met.join(' or ');
}

/** Curvature of points: the second-order term of the parabola that fits them best by least squares, 1/px. */
function curvature(points: readonly Px[]): number {
  const n = points.length;
  let [mx, my] = [0, 0];
  for (const p of points) {
    mx += p[0] / n;
    my += p[1] / n;
  }
  // Moments about the middle; the normal equations of 1, x, x² in closed form.
  let [s2, s3, s4, sxy, sx2y] = [0, 0, 0, 0, 0];
  for (const p of points) {
    const x = p[0] - mx;
    const y = p[1] - my;
    s2 += x * x;
    s3 += x * x * x;
    s4 += x * x * x * x;
    sxy += x * y;
    sx2y += x * x * y;
  }
  const below = s4 - (s2 * s2) / n - (s3 * s3) / s2;
  return below === 0 ? 0 : (sx2y - (s3 * sxy) / s2) / below;
}

function edgeCurve(r: ViewReading, corners: Marked[], lower: Marked[]): ViewFigure[] {
  const edges = UPPER_TEN.flatMap((t) => marksOf(r, [`edge-${t}`]) ?? []);
  if (edges.length < 4) return [];
  const marks = [...corners, ...lower, ...edges];
  const own = 2 + LIP_KNOTS;
  const lipUnder = (p: readonly Px[]): Px[] => {
    const curve = curveOf(p, 2);
    const xs = p.slice(own).map((e) => e[0]);
    const [from, to] = [Math.min(...xs), Math.max(...xs)];
    return Array.from({ length: 15 }, (_, i) => {
      const x = from + ((to - from) * i) / 14;
      return [x, curve(x)] as const;
    });
  };
  const percent = propagated(
    marks,
    sightOf(r),
    '%',
    {
      formula: 'curvature of the edges ÷ curvature of the lower lip below them',
      inputs: marked('edges and lower lip'),
      note: `100 % runs parallel, 0 % straight, less is reverse. Under ${STRAIGHT_BELOW_PERCENT} % it is called straight: house preference.`,
    },
    (points) => {
      const p = level(points);
      const lip = curvature(lipUnder(p));
      return Math.abs(lip) < 1e-9 ? 0 : (100 * curvature(p.slice(own))) / lip;
    },
  );
  const gap = propagated(
    marks,
    sightOf(r),
    'mm',
    { formula: 'mean distance of the edges over the lower lip', inputs: marked('edges and lower lip') },
    (points, mm) => {
      const p = level(points);
      const curve = curveOf(p, 2);
      const all = p.slice(own);
      return (all.reduce((n, e) => n + curve(e[0]) - e[1], 0) / all.length) * mm;
    },
  );
  return [
    {
      id: 'edge-curve',
      name: 'edges against the lower lip',
      figure: percent,
      word: edgeCourse(percent.value, percent.pm),
    },
    { id: 'edge-gap', name: 'edges over the lower lip', figure: gap },
  ];
}
