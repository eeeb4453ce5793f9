import { hypot } from '../geometry/vec.js';
import { type FrontKind, isFrontKind } from '../teeth/norms.js';
import { type Fdi, isUpper, kindOf, PLANNABLE } from '../teeth/notation.js';
import { OWN_ROLES, type Roles, roleOf } from '../teeth/roles.js';
import {
  COMMON_PRACTICE,
  DERIVED,
  derived,
  type Errors,
  type Figure,
  MEASURED,
  type Source,
  together,
} from '../working/working.js';
import { type Px, Z95 } from './calibration.js';
import { SCANNED_SD_MM } from './front-depth.js';
import {
  CHORD_SHARE,
  type FrontSeen,
  type FrontSight,
  frontSight,
  SEEN_FROM_FRONT,
  widthShare,
} from './front-sight.js';
import type { LandmarkSet } from './landmarks.js';
import { LEVEL_NOTE } from './level.js';
import { type Marked, propagated } from './propagate.js';
import type { Sight } from './sight.js';

/** What a photograph tells of one tooth; each figure only when its landmarks are set. mm, ratio in %. */
export interface ToothMeasure {
  readonly tooth: Fdi;
  /** Mesial to distal as seen from the front. */
  readonly frontWidth?: Figure;
  /** The crown's own width: the front width divided by the share of it that is seen from the front. */
  readonly width?: Figure;
  readonly length?: Figure;
  readonly ratio?: Figure;
  /** Levels over the lowest central edge, up positive. */
  readonly edgeLevel?: Figure;
  readonly zenithLevel?: Figure;
}

const HOUSE_SHARE: Source = {
  mark: 'house',
  text: 'mean of virtual patients, by the arch; no published source',
};

/**
 * Measures every tooth that has landmarks; the upper teeth that stand in front come first, also
 * where they have none. Crown sizes
 * are told of teeth that stand in the place of an upper front tooth: how much of them the front shows is known of
 * these. Widths run along and lengths across the level line; what depth and the camera's turn do is taken out as far as
 * it is known, and is in the ± as far as it is not.
 * @param scale mm a pixel, from `scaleOf`
 * @param roles where teeth stand in another's place
 * @param seen level, camera and arch, where they are known
 */
export function measureTeeth(
  set: LandmarkSet,
  scale: Figure,
  roles: Roles = OWN_ROLES,
  seen: FrontSeen = {},
): ToothMeasure[] {
  const f = frontSight(set, {}, scale, roles, seen);
  const centrals = [11, 21].flatMap((t) => f.own(t, 'edge') ?? []);
  const others = PLANNABLE.filter((t) => set[t] && !f.row.includes(t));
  return [...f.row, ...others].map((tooth): ToothMeasure => {
    const [zenith, edge] = [f.own(tooth, 'zenith'), f.own(tooth, 'edge')];
    const [mesial, distal] = [f.own(tooth, 'mesial'), f.own(tooth, 'distal')];
    const kind = roleOf(roles, tooth);
    const share = isUpper(tooth) && isFrontKind(kind) ? kind : undefined;
    const frontWidth = mesial && distal && lengthFigure(f, [mesial, distal], 'mesial to distal, along the level line');
    const frontLength = zenith && edge && lengthFigure(f, [zenith, edge], 'zenith to edge, across the level line');
    const width = frontWidth && share ? crownWidth(frontWidth, f, share, tooth) : undefined;
    const length = frontLength && share ? crownLength(frontLength, share, tooth) : undefined;
    const over = (mark: Marked | undefined, what: string) =>
      mark && isUpper(tooth) && centrals.length > 0 ? levelFigure(f, centrals, mark, what) : undefined;
    const [edgeLevel, zenithLevel] = [over(edge, 'edge'), over(zenith, 'zenith')];
    return {
      tooth,
      ...(frontWidth && { frontWidth }),
      ...(width && { width }),
      ...(length && { length }),
      ...(width && length && { ratio: ratioFigure(width, length) }),
      ...(edgeLevel && { edgeLevel }),
      ...(zenithLevel && { zenithLevel }),
    };
  });
}

/** The distance of two landmarks along the level line (`across` in what is said of it) or across it. */
function lengthFigure(f: FrontSight, ends: readonly Marked[], what: string): Figure {
  const way = what.includes('across') ? 1 : 0;
  return propagated(
    ends,
    f.sight,
    'mm',
    {
      formula: 'length = distance in the picture × scale',
      inputs: [{ name: what, value: 'marked', unit: '', source: MEASURED }],
    },
    ([a, b], mm) => Math.abs((a as Px)[way] - (b as Px)[way]) * mm,
  );
}

/** How far a landmark lies over the lowest central edge. */
function levelFigure(f: FrontSight, centrals: readonly Marked[], mark: Marked, what: string): Figure {
  // The central's own edge is one point, not two.
  const marks = [...centrals.filter((c) => c.id !== mark.id), mark];
  const at = marks.length - 1;
  const own = centrals.some((c) => c.id === mark.id);
  return propagated(
    marks,
    f.sight,
    'mm',
    {
      formula: `lowest central edge to this ${what}, across the level line`,
      inputs: [{ name: 'centrals’ edges and this point', value: 'marked', unit: '', source: MEASURED }],
      ...(f.level && { note: LEVEL_NOTE[f.level.by] }),
    },
    (p, mm) => {
      const y = (p[at] as Px)[1];
      const edges = p.slice(0, at).map((e) => e[1]);
      return (Math.max(...(own ? [...edges, y] : edges)) - y) * mm;
    },
    own ? { 'which edge is lowest': lowestPm(mark, marks.slice(0, at), f.sight) } : {},
  );
}

/** Nineteen of twenty lie over this to one side, in standard deviations. */
const ONE_SIDED = 1.645;

/** An edge that is lowest by less than its error may not be: its level is off by what is left of the error then, mm. */
function lowestPm(edge: Marked, others: readonly Marked[], { scale, rollPmDeg }: Sight): number {
  const left = others.map((o) => {
    const apartMm = Math.abs(edge.at[0] - o.at[0]) * scale.value;
    const level = apartMm * Math.sin((rollPmDeg * Math.PI) / 180);
    const pm = hypot(ONE_SIDED * hypot(edge.sdMm, o.sdMm), level);
    return pm - Math.max(0, (edge.at[1] - o.at[1]) * scale.value);
  });
  return others.every((o) => o.at[1] <= edge.at[1]) ? Math.max(0, ...left) : 0;
}

/** The crown's own width: what is seen of it, over the share that its arch shows. */
function crownWidth(front: Figure, f: FrontSight, kind: FrontKind, tooth: Fdi): Figure {
  const back = f.turnedBack(tooth);
  if (back !== undefined) return widthByChord(front, back, kind, tooth);
  const share = widthShare(kind, f.arch.perMm);
  const deeper = widthShare(kind, f.arch.perMm * (1 + f.arch.pm));
  const { width, widthPm, mouthPm } = SEEN_FROM_FRONT[kind];
  return unforeshortened(front, share, 'width', {
    [`${f.sight.view} arch`]: deeper - share,
    [`turn of ${tooth}`]: (share * widthPm) / width,
    'form of the arch': (share * mouthPm) / width,
  });
}

/** With a scan it is known how a tooth turns away: what is seen and that make the chord from side to side. */
function widthByChord(front: Figure, backMm: number, kind: FrontKind, tooth: Fdi): Figure {
  const chord = hypot(front.value, backMm);
  // A tooth that stands in another's place keeps its own form.
  const own = kindOf(tooth);
  const form = isFrontKind(own) ? own : kind;
  const { share, pm, mouthPm } = CHORD_SHARE[form];
  const value = chord / share;
  const errors: Record<string, number> = {};
  for (const [cause, effect] of Object.entries(front.errors ?? {}))
    errors[cause] = (effect * front.value) / chord / share;
  errors[`form of ${tooth}`] = (value * pm) / share;
  errors[`form of the ${form}s`] = (value * mouthPm) / share;
  errors[`depth of ${tooth}`] = ((backMm / chord) * Z95 * Math.SQRT2 * SCANNED_SD_MM) / share;
  return {
    value,
    pm: together(errors),
    unit: 'mm',
    errors,
    working: {
      formula: 'crown width = √(width seen from the front² + depth from side to side²) ÷ share of the chord',
      inputs: [
        { name: 'width seen from the front', value: round(front.value), unit: 'mm', source: MEASURED },
        { name: 'depth from side to side, by the scan', value: round(backMm), unit: 'mm', source: MEASURED },
        { name: 'share of the chord', value: share, unit: '', source: COMMON_PRACTICE },
      ],
    },
  };
}

function crownLength(front: Figure, kind: FrontKind, tooth: Fdi): Figure {
  const { length, lengthPm } = SEEN_FROM_FRONT[kind];
  return unforeshortened(front, length, 'length', { [`lean of ${tooth}`]: lengthPm });
}

function unforeshortened(front: Figure, share: number, what: 'width' | 'length', shareErrors: Errors): Figure {
  const value = front.value / share;
  const errors: Record<string, number> = {};
  for (const [cause, effect] of Object.entries(front.errors ?? {})) errors[cause] = effect / share;
  for (const [cause, effect] of Object.entries(shareErrors))
    errors[cause] = (errors[cause] ?? 0) - (value * effect) / share;
  return {
    value,
    pm: together(errors),
    unit: 'mm',
    errors,
    working: {
      formula: `crown ${what} = ${what} seen from the front ÷ share seen`,
      inputs: [
        { name: `${what} seen from the front`, value: round(front.value), unit: 'mm', source: MEASURED },
        {
          name: 'share seen',
          value: `${round(share)} ±${round(together(shareErrors))}`,
          unit: '',
          source: HOUSE_SHARE,
        },
        ...front.working.inputs,
      ],
      note: 'Side teeth turn away round the arch, so the front view shows less than the whole crown.',
    },
  };
}

export function ratioFigure(width: Figure, length: Figure): Figure {
  return derived(
    [width, length],
    '%',
    {
      formula: 'width ÷ length',
      inputs: [
        { name: 'crown width', value: round(width.value), unit: 'mm', source: DERIVED },
        { name: 'crown length', value: round(length.value), unit: 'mm', source: DERIVED },
      ],
    },
    ([w, l]) => (100 * (w as number)) / (l as number),
  );
}

const round = (v: number) => Math.round(v * 100) / 100;
