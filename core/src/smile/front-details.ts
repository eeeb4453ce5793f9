import { type Fdi, kindOf, sideOf, UPPER_TEN } from '../teeth/notation.js';
import { OWN_ROLES, type Roles, roleOf } from '../teeth/roles.js';
import { COMMON_PRACTICE, type Figure, MEASURED } from '../working/working.js';
import type { Px } from './calibration.js';
import { type FrontSeen, type FrontSight, frontSight } from './front-sight.js';
import { seenRoom } from './gaps.js';
import type { LandmarkSet } from './landmarks.js';
import { LEVEL_NOTE } from './level.js';
import { type Marked, propagated } from './propagate.js';
import type { ViewFigure } from './reading.js';
import { contactsIn, type ViewPoints } from './views.js';

/**
 * Crown length of a lower central where nobody has measured it, mm, and how far most lie from it. Common practice, no
 * source.
 */
export const LOWER_CENTRAL_LENGTH = { value: 8.8, band: 1 } as const;

/**
 * What goes further than length and width on the retracted front view: levels, axes, contacts, gaps, width series,
 * overbite.
 * @param roles where teeth stand in another's place
 * @param seen level, camera and arch, where they are known
 */
export function measureFrontDetails(
  set: LandmarkSet,
  points: ViewPoints,
  scale: Figure,
  roles: Roles = OWN_ROLES,
  seen: FrontSeen = {},
): ViewFigure[] {
  const f = frontSight(set, points, scale, roles, seen);
  return [
    ...UPPER_TEN.flatMap((t) => axisAndZenith(f, t)),
    ...lateralZeniths(f),
    ...contactsIn(points, f.row).flatMap(([a, b]) => contact(f, a, b)),
    ...widthSeries(f),
    ...midlineLean(f),
    ...overbite(f),
  ];
}

const inputs = (name: string) => [{ name, value: 'marked', unit: '', source: MEASURED }];
/** +1 where distal is to the right of the picture, the patient's left. */
const distalSign = (tooth: Fdi): number => (sideOf(tooth) === 'left' ? 1 : -1);

/** The long axis: from the middle between the outline's mesial and distal point to the middle of the neck. */
function axisAndZenith({ own, extra, sight }: FrontSight, tooth: Fdi): ViewFigure[] {
  const marks = [extra(`neck-${tooth}`), own(tooth, 'mesial'), own(tooth, 'distal')];
  const zenith = own(tooth, 'zenith');
  if (marks.some((m) => !m)) return [];
  const middle = (m: Px, d: Px): Px => [(m[0] + d[0]) / 2, (m[1] + d[1]) / 2];
  const out: ViewFigure[] = [
    {
      id: `axis-${tooth}`,
      tooth,
      name: `axis of {${tooth}}, neck leaning distally`,
      figure: propagated(
        marks as Marked[],
        sight,
        '°',
        {
          formula: 'middle of the outline to middle of the neck, against the upright',
          inputs: inputs('neck and both borders'),
        },
        (p) => {
          const [n, m, d] = p as [Px, Px, Px];
          const e = middle(m, d);
          return (Math.atan2((n[0] - e[0]) * distalSign(tooth), e[1] - n[1]) * 180) / Math.PI;
        },
      ),
    },
  ];
  if (zenith)
    out.push({
      id: `zenith-distal-${tooth}`,
      tooth,
      name: `zenith of {${tooth}} distal of its axis`,
      figure: propagated(
        [...marks, zenith] as Marked[],
        sight,
        'mm',
        { formula: 'zenith beside the long axis', inputs: inputs('four points') },
        (p, mm) => {
          const [n, m, d, z] = p as [Px, Px, Px, Px];
          const e = middle(m, d);
          const t = (z[1] - e[1]) / (n[1] - e[1] || 1);
          return (z[0] - (e[0] + (n[0] - e[0]) * t)) * distalSign(tooth) * mm;
        },
      ),
    });
  return out;
}

/** The neighbour of a tooth in a row, by so many places towards the midline; outward where negative. */
function inRow(row: readonly Fdi[], tooth: Fdi, towardsMidline: number): Fdi | undefined {
  const neighbour = row[row.indexOf(tooth) + (tooth < 20 ? towardsMidline : -towardsMidline)];
  return neighbour !== undefined && sideOf(neighbour) === sideOf(tooth) ? neighbour : undefined;
}

function lateralZeniths({ own, sight, row, roles }: FrontSight): ViewFigure[] {
  return row.flatMap((lateral): ViewFigure[] => {
    if (roleOf(roles, lateral) !== 'lateral') return [];
    const [central, canine] = [inRow(row, lateral, 1), inRow(row, lateral, -1)];
    const marks = [central, lateral, canine].map((t) => (t === undefined ? undefined : own(t, 'zenith')));
    if (marks.some((m) => !m)) return [];
    const figure = propagated(
      marks as Marked[],
      sight,
      'mm',
      { formula: 'zenith below the line from the central’s to the canine’s', inputs: inputs('three zeniths') },
      (p, mm) => {
        const [central, l, canine] = p as [Px, Px, Px];
        const t = (l[0] - central[0]) / (canine[0] - central[0] || 1);
        return (l[1] - (central[1] + (canine[1] - central[1]) * t)) * mm;
      },
    );
    return [
      {
        id: `zenith-step-${lateral}`,
        tooth: lateral,
        name: `zenith of {${lateral}} below the gum line of its neighbours`,
        figure,
      },
    ];
  });
}

function contact(f: FrontSight, a: Fdi, b: Fdi): ViewFigure[] {
  const { own, extra, sight } = f;
  const out: ViewFigure[] = [];
  const figure = seenRoom(f, a, b);
  if (figure) {
    const word = Math.abs(figure.value) <= figure.pm ? 'touch' : figure.value > 0 ? 'gap' : 'overlap';
    out.push({ id: `gap-${a}-${b}`, name: `between {${a}} and {${b}}`, figure, word });
  }
  const papilla = extra(`papilla-${a}-${b}`);
  const top = extra(`contact-${a}-${b}`);
  const embrasure = extra(`embrasure-${a}-${b}`);
  const down = ([u, v]: readonly Px[], mm: number) => ((v as Px)[1] - (u as Px)[1]) * mm;
  if (top && embrasure)
    out.push({
      id: `connector-${a}-${b}`,
      name: `contact of {${a}} and {${b}}, length`,
      figure: propagated(
        [top, embrasure],
        sight,
        'mm',
        { formula: 'upper to lower end of the contact', inputs: inputs('two points') },
        down,
      ),
    });
  if (papilla && top)
    out.push({
      id: `triangle-${a}-${b}`,
      name: `dark triangle between {${a}} and {${b}}, height`,
      figure: propagated(
        [papilla, top],
        sight,
        'mm',
        { formula: 'papilla tip to the upper end of the contact', inputs: inputs('two points') },
        down,
      ),
    });
  const ea = own(a, 'edge');
  const eb = own(b, 'edge');
  if (embrasure && ea && eb)
    out.push({
      id: `embrasure-${a}-${b}`,
      name: `embrasure of {${a}} and {${b}}, depth`,
      figure: propagated(
        [ea, eb, embrasure],
        sight,
        'mm',
        {
          formula: 'lower end of the contact over the mean of both edges',
          inputs: inputs('two edges and the contact'),
        },
        (all, mm) => {
          const [x, y, e] = all as [Px, Px, Px];
          return ((x[1] + y[1]) / 2 - e[1]) * mm;
        },
      ),
    });
  return out;
}

/** Widths in the front view, each over its mesial neighbour's. */
function widthSeries({ own, sight, row }: FrontSight): ViewFigure[] {
  const out: ViewFigure[] = [];
  for (const tooth of row) {
    const inner = inRow(row, tooth, 1);
    if (inner === undefined) continue;
    const marks = [own(tooth, 'mesial'), own(tooth, 'distal'), own(inner, 'mesial'), own(inner, 'distal')];
    if (marks.some((m) => !m)) continue;
    const figure = propagated(
      marks as Marked[],
      sight,
      '%',
      {
        formula: 'front-view width ÷ front-view width of the neighbour towards the midline',
        inputs: inputs('four borders'),
      },
      (p) => {
        const [a, b, c, d] = p as [Px, Px, Px, Px];
        return (100 * Math.abs(a[0] - b[0])) / Math.abs(c[0] - d[0]);
      },
    );
    out.push({ id: `series-${tooth}`, tooth, name: `{${tooth}} to {${inner}}, widths from the front`, figure });
  }
  return out;
}

/** How far the line between the centrals leans: from the papilla to the lower end of their contact. */
function midlineLean({ extra, sight, level }: FrontSight): ViewFigure[] {
  const marks = [extra('papilla-11-21'), extra('embrasure-11-21')];
  if (marks.some((m) => !m)) return [];
  const figure = propagated(
    marks as Marked[],
    sight,
    '°',
    {
      formula: 'papilla to the lower end of the contact, against the upright; + leaning to the patient’s left below',
      inputs: inputs('two points'),
      ...(level && { note: LEVEL_NOTE[level.by] }),
    },
    ([a, b]) => (Math.atan2((b as Px)[0] - (a as Px)[0], (b as Px)[1] - (a as Px)[1]) * 180) / Math.PI,
  );
  const word =
    Math.abs(figure.value) <= figure.pm
      ? 'upright'
      : figure.value > 0
        ? 'to the patient’s left'
        : 'to the patient’s right';
  return [{ id: 'lean', name: 'lean of the dental midline', figure, word }];
}

/** Overbite with the teeth together: what of the lower central's crown the upper edge hides. */
function overbite({ own, extra, sight }: FrontSight): ViewFigure[] {
  const margin = extra('lower-margin');
  const edges = [own(11, 'edge'), own(21, 'edge')].filter((m) => m !== undefined);
  if (!margin || edges.length === 0) return [];
  const { value: crown, band } = LOWER_CENTRAL_LENGTH;
  const figure = propagated(
    [margin, ...edges],
    sight,
    'mm',
    {
      formula: 'lower crown length − what is seen of it below the upper edge',
      inputs: [{ name: 'lower crown length', value: `${crown} ±${band}`, unit: 'mm', source: COMMON_PRACTICE }],
      note: `The lower edge is hidden when the teeth are together; its crown is taken as a usual ${kindOf(31)}’s.`,
    },
    (p, mm) => {
      const [m, ...e] = p as [Px, ...Px[]];
      const lowest = Math.max(...e.map((q) => q[1]));
      return crown - (m[1] - lowest) * mm;
    },
    { 'length of the lower crown': band },
  );
  return [{ id: 'overbite', name: 'overbite', figure }];
}
