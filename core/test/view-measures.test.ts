import {
  edgeCourse,
  type Figure,
  frontRow,
  LIP_KNOTS,
  LOWER_CENTRAL_LENGTH,
  lipCurve,
  measureFrontDetails,
  measurePortrait,
  measureRest,
  measureSide,
  measureSmile,
  neckSeen,
  type Px,
  pointSpec,
  pointsOf,
  propagated,
  rolesOf,
  STRAIGHT,
  STRAIGHT_BELOW_PERCENT,
  VIEW_IDS,
} from '@radiant/core';
import { random } from '@radiant/standins';

const SCALE: Figure = { value: 0.1, pm: 0, unit: 'mm/px', working: { formula: '', inputs: [] } };
/** Points on squared paper: there is no camera that could be turned, and nothing lies behind. */
const PAPER = { stand: STRAIGHT };

const of = (figures: readonly { id: string; figure: Figure; word?: string }[], id: string) => {
  const f = figures.find((q) => q.id === id);
  if (!f) throw new Error(`There is no ${id} among ${figures.map((q) => q.id).join(', ')}.`);
  return f;
};

describe('the points of the views', () => {
  const all = VIEW_IDS.map((view) => [view, pointsOf(view)] as const);
  it.each(all)('%s: every id once, every fellow mutual, every repeatability more than nothing', (view, specs) => {
    expect(new Set(specs.map((s) => s.id)).size).toBe(specs.length);
    for (const s of specs) {
      expect(s.sdMm).toBeGreaterThan(0);
      if (s.fellow) expect(pointSpec(view, s.fellow)?.fellow).toBe(s.id);
    }
  });

  it('where laterals are missing and the gaps closed, the teeth that stand in front are asked for', () => {
    const row = frontRow(rolesOf(new Set([12, 22]), () => true));
    expect(row).toEqual([14, 13, 11, 21, 23, 24]);
    const ids = pointsOf('retracted-front', row).map((s) => s.id);
    expect(ids).toEqual(expect.arrayContaining(['papilla-14-13', 'contact-13-11', 'embrasure-21-23', 'neck-24']));
    expect(ids.filter((id) => /12|22/.test(id))).toEqual([]);
    expect(pointSpec('retracted-front', 'papilla-13-11')).toMatchObject({ fellow: 'papilla-21-23' });
    expect(pointsOf('close-smile', row).filter((s) => s.id.startsWith('edge-'))).toHaveLength(6);
    // On one side only: what has no fellow in the row is set alone.
    const one = pointsOf('retracted-front', frontRow(rolesOf(new Set([12]), () => true)));
    expect(one.find((s) => s.id === 'papilla-13-11')).not.toHaveProperty('fellow');
    // A gap that is kept keeps its place: nobody stands for the lateral.
    expect(frontRow(rolesOf(new Set([12, 22]), () => false))).toEqual([13, 11, 21, 23]);
  });

  it('both sides have the same number of points', () => {
    for (const [, specs] of all) {
      const lonely = specs.filter((s) => !s.fellow).map((s) => s.id);
      for (const id of lonely.filter((l) => !l.endsWith('11-21')))
        expect(id).not.toMatch(/right|left|-1[1-5]$|-2[1-5]$/);
    }
  });
});

const onPaper = (scale: Figure) => ({
  view: 'paper',
  scale,
  stand: STRAIGHT,
  about: [0, 0] as Px,
  rollPmDeg: 0,
  archPm: 0,
});

describe('propagated errors', () => {
  it('of a plain distance are those of the textbook: √2 · sd · 1.96, and the scale’s share on top', () => {
    const marks = [
      { id: 'a', at: [0, 0] as Px, sdMm: 0.2 },
      { id: 'b', at: [300, 0] as Px, sdMm: 0.2 },
    ];
    const length = (p: readonly Px[], mm: number) =>
      Math.hypot((p[1] as Px)[0] - (p[0] as Px)[0], (p[1] as Px)[1] - (p[0] as Px)[1]) * mm;
    expect(propagated(marks, onPaper(SCALE), 'mm', SCALE.working, length).pm).toBeCloseTo(1.96 * Math.SQRT2 * 0.2, 2);
    const unsure = { ...SCALE, pm: 0.002 };
    expect(propagated(marks, onPaper(unsure), 'mm', SCALE.working, length).pm).toBeCloseTo(
      Math.hypot(1.96 * Math.SQRT2 * 0.2, 30 * 0.02),
      2,
    );
    expect(propagated(marks, onPaper(SCALE), 'mm', SCALE.working, length, { other: 3 }).pm).toBeCloseTo(
      Math.hypot(1.96 * Math.SQRT2 * 0.2, 3),
      2,
    );
  });

  it('agree with a Monte Carlo of the same hand (seed 8)', () => {
    const r = random(8);
    const marks = [
      [0, 0],
      [420, 30],
      [260, 310],
    ].map((at, i) => ({ id: `${i}`, at: at as unknown as Px, sdMm: 0.3 }));
    const angle = (p: readonly Px[]) => {
      const [a, b, c] = p as [Px, Px, Px];
      return ((Math.atan2(c[1] - a[1], c[0] - a[0]) - Math.atan2(b[1] - a[1], b[0] - a[0])) * 180) / Math.PI;
    };
    const first = propagated(marks, onPaper(SCALE), '°', SCALE.working, angle);
    const tries = Array.from({ length: 4000 }, () =>
      angle(marks.map((m): Px => [m.at[0] + r.normal(3), m.at[1] + r.normal(3)])),
    );
    const mean = tries.reduce((n, t) => n + t, 0) / tries.length;
    const sd = Math.sqrt(tries.reduce((n, t) => n + (t - mean) ** 2, 0) / tries.length);
    expect(first.pm / (1.96 * sd)).toBeGreaterThan(0.95);
    expect(first.pm / (1.96 * sd)).toBeLessThan(1.05);
  });
});

describe('a portrait drawn on squared paper', () => {
  const straight = {
    'pupil-right': [100, 100],
    'pupil-left': [700, 100],
    glabella: [400, 60],
    'nose-base': [400, 460],
    chin: [400, 860],
    'corner-right': [250, 600],
    'corner-left': [550, 600],
    'midline-edge': [420, 580],
    'canine-right': [300, 580],
    'canine-left': [500, 590],
  } as Record<string, Px>;
  const turned = (deg: number) => {
    const t = (deg * Math.PI) / 180;
    return Object.fromEntries(
      Object.entries(straight).map(([id, [x, y]]) => [
        id,
        [x * Math.cos(t) - y * Math.sin(t) + 500, x * Math.sin(t) + y * Math.cos(t) + 300] as Px,
      ]),
    );
  };

  it.each([0, 7, -12])(
    'turned by %d° gives the same: midline 2 mm to the left, edges 1 mm lower on the left, lips level',
    (deg) => {
      const figures = measurePortrait({ view: 'portrait-smile', points: turned(deg), scale: SCALE, ...PAPER });
      expect(of(figures, 'head-tilt').figure.value).toBeCloseTo(deg, 6);
      expect(of(figures, 'midline').figure.value).toBeCloseTo(2, 6);
      expect(of(figures, 'midline').word).toBe('to the patient’s left');
      expect(of(figures, 'midline-pupils').figure.value).toBeCloseTo(2, 6);
      expect(of(figures, 'cant-canine-mm').figure.value).toBeCloseTo(1, 6);
      expect(of(figures, 'cant-canine-deg').figure.value).toBeCloseTo((Math.atan2(10, 200) * 180) / Math.PI, 6);
      expect(of(figures, 'cant-canine-mm').word).toBe('left lower');
      expect(of(figures, 'cant-corner-deg').figure.value).toBeCloseTo(0, 6);
      expect(of(figures, 'cant-corner-mm').word).toBe('level');
      expect(of(figures, 'face-upright').figure.value).toBeCloseTo(0, 6);
      expect(of(figures, 'thirds').figure.value).toBeCloseTo(100, 6);
    },
  );

  it('says nothing of what is not marked', () => {
    const { 'pupil-left': _, ...rest } = straight;
    expect(measurePortrait({ view: 'portrait-smile', points: rest, scale: SCALE, ...PAPER }).map((f) => f.id)).toEqual([
      'midline',
      'thirds',
    ]);
    expect(measurePortrait({ view: 'portrait-rest', points: {}, scale: SCALE, ...PAPER })).toEqual([]);
  });
});

/** A mouth 600 px wide: borders as parabolas that rise `upper` and fall `lower` px in the middle. */
function mouth(upper: number, lower: number): Record<string, Px> {
  const out: Record<string, Px> = { 'corner-right': [200, 500], 'corner-left': [800, 500] };
  for (let i = 1; i <= LIP_KNOTS; i++) {
    const x = 200 + (600 * i) / (LIP_KNOTS + 1);
    const bend = 1 - ((x - 500) / 300) ** 2;
    out[`upper-lip-${i}`] = [x, 500 - upper * bend];
    out[`lower-lip-${i}`] = [x, 500 + lower * bend];
  }
  return out;
}
const EDGE_X: Readonly<Record<number, number>> = { 13: 330, 12: 400, 11: 460, 21: 540, 22: 600, 23: 670 };

describe('lips', () => {
  it('the border is a curve through all of its knots that never swings past them', () => {
    const knots: Px[] = [
      [250, 480],
      [350, 470],
      [500, 468],
      [650, 471],
      [750, 482],
    ];
    const curve = lipCurve(
      [
        [200, 500],
        [800, 500],
      ],
      knots,
    );
    for (const [x, y] of knots) expect(curve(x)).toBeCloseTo(y, 9);
    for (let x = 200; x <= 800; x += 5) expect(curve(x)).toBeLessThanOrEqual(500);
    // Knots one over the other, as while dragging, make no NaN.
    expect(
      lipCurve(
        [
          [200, 500],
          [800, 500],
        ],
        [
          [400, 480],
          [400, 470],
          [399.9, 475],
        ],
      )(400),
    ).not.toBeNaN();
  });

  it('at rest each tooth shows what lies below the border; a covered edge is less than nothing', () => {
    const points = {
      ...mouth(20, 30),
      'edge-11': [460, 500],
      'edge-12': [400, 480],
      'nose-base': [500, 300],
    } as Record<string, Px>;
    const figures = measureRest({ view: 'close-rest', points, scale: SCALE, ...PAPER });
    const border = (x: number) =>
      lipCurve(
        [points['corner-right'] as Px, points['corner-left'] as Px],
        [1, 2, 3, 4, 5].map((i) => points[`upper-lip-${i}`] as Px),
      )(x);
    expect(of(figures, 'display-11').figure.value).toBeCloseTo((500 - border(460)) / 10, 6);
    expect(of(figures, 'display-12').figure.value).toBeLessThan(0.4);
    expect(of(figures, 'lips-apart').figure.value).toBeCloseTo(5, 1);
    expect(of(figures, 'lip-length').figure.value).toBeCloseTo(18, 1);
    expect(figures.some((f) => f.id === 'display-21')).toBe(false);
  });

  it('in smile: width, both corridors, and 20 % dark is called medium narrow', () => {
    const points = { ...mouth(60, 60), 'outer-right': [260, 500], 'outer-left': [740, 500] } as Record<string, Px>;
    const figures = measureSmile({ view: 'close-smile', points, scale: SCALE, ...PAPER });
    expect(of(figures, 'smile-width').figure.value).toBeCloseTo(60, 6);
    expect(of(figures, 'corridor-right').figure.value).toBeCloseTo(10, 6);
    expect(of(figures, 'corridor-left').figure.value).toBeCloseTo(10, 6);
    expect(of(figures, 'corridor').figure.value).toBeCloseTo(20, 6);
    expect(of(figures, 'corridor').word).toBe('medium narrow smile');
  });

  it('a neck lies in the visible zone by as much gum as shows over it; where its zenith is not marked the lip covers it', () => {
    const points = { ...mouth(0, 60) } as Record<string, Px>;
    for (const t of [11, 12] as const) points[`edge-${t}`] = [EDGE_X[t] as number, 620];
    points['zenith-11'] = [EDGE_X[11] as number, 520];
    const r = { view: 'close-smile' as const, points, scale: SCALE, ...PAPER };
    const shown = neckSeen(r, 11);
    expect(shown?.seen).toBe(true);
    // The figure that the gum measure of the same view takes.
    const most = measureSmile(r).find((f) => f.id === 'gum');
    expect(shown?.gumMm?.value).toBeCloseTo(most?.figure.value ?? Number.NaN, 9);
    expect(neckSeen(r, 12)).toEqual({ seen: false, gumMm: undefined });
    expect(neckSeen(r, 21)).toBeUndefined();
  });

  it('gum over every front tooth makes a high lip line, three quarters of the crowns an average one, less a low one', () => {
    const lengths = Object.fromEntries(
      frontRow().map((t) => [t, { ...SCALE, value: 10, pm: 0.1, unit: 'mm' as const }]),
    );
    const line = (shownMm: number, gumMm: number) => {
      const points = mouth(0, 60);
      for (const t of frontRow()) {
        const x = EDGE_X[t] as number;
        points[`edge-${t}`] = [x, 500 + shownMm * 10];
        if (gumMm > 0) points[`zenith-${t}`] = [x, 500 + gumMm * 10];
      }
      return of(measureSmile({ view: 'close-smile', points, scale: SCALE, ...PAPER }, { lengths }), 'crowns-seen');
    };
    expect(line(10.5, 0.9)).toMatchObject({ word: 'high lip line', figure: { value: 100 } });
    // A band of gum that its own error may be made of makes no high line.
    expect(line(10.5, 0.2)).toMatchObject({ word: 'average lip line', figure: { value: 100 } });
    expect(line(7.5, 0).word).toBe('average lip line');
    expect(line(7.5, 0).figure.value).toBeCloseTo(75, 6);
    expect(line(7.4, 0).word).toBe('low lip line');
  });

  it('edges on the lip’s own parabola run parallel at 100 %, on a line straight at 0 %, on its mirror reverse at −100 %', () => {
    const course = (bend: number) => {
      const points = mouth(60, 60);
      for (const t of frontRow())
        points[`edge-${t}`] = [EDGE_X[t] as number, 480 + bend * 60 * (1 - (((EDGE_X[t] as number) - 500) / 300) ** 2)];
      return of(measureSmile({ view: 'close-smile', points, scale: SCALE, ...PAPER }), 'edge-curve');
    };
    // The lip between its knots is a spline and not the parabola itself.
    expect(Math.abs(course(1).figure.value - 100)).toBeLessThan(12);
    expect(course(1).word).toMatch(/parallel$/);
    expect(course(0).figure.value).toBeCloseTo(0, 6);
    expect(course(0).word).toBe('reverse or straight');
    expect(course(-1).word).toBe('reverse');
  });

  it.each([
    [100, 5, 'parallel'],
    [STRAIGHT_BELOW_PERCENT, 0, 'parallel'],
    [STRAIGHT_BELOW_PERCENT - 0.1, 0, 'straight'],
    [STRAIGHT_BELOW_PERCENT, 5, 'straight or parallel'],
    [0, 0, 'straight'],
    [-4, 5, 'reverse or straight'],
    [-6, 5, 'reverse'],
    [10, 60, 'can’t be told'],
  ])('%d %% with ±%d %% is %s', (percent, pm, word) => expect(edgeCourse(percent, pm)).toBe(word));
});

describe('details of the front view', () => {
  const set = {
    11: { zenith: [455, 300], edge: [455, 400], mesial: [500, 350], distal: [415, 350] },
    21: { zenith: [545, 300], edge: [545, 400], mesial: [500, 350], distal: [585, 350] },
    12: { zenith: [382, 310], edge: [382, 392], mesial: [412, 350], distal: [355, 350] },
    13: { zenith: [325, 300], edge: [325, 400], mesial: [358, 350], distal: [295, 350] },
  } as Record<number, Record<string, Px>>;

  it('gaps and overlaps, contacts, triangles, embrasures', () => {
    const points = {
      'papilla-11-21': [500, 345],
      'contact-11-21': [500, 350],
      'embrasure-11-21': [500, 392],
    } as Record<string, Px>;
    const figures = measureFrontDetails(set, points, SCALE, undefined, PAPER);
    expect(of(figures, 'gap-12-11').figure.value).toBeCloseTo(0.3, 9);
    expect(of(figures, 'gap-12-11').word).toBe('gap');
    expect(of(figures, 'gap-13-12').figure.value).toBeCloseTo(-0.3, 9);
    expect(of(figures, 'gap-13-12').word).toBe('overlap');
    expect(of(figures, 'gap-11-21').word).toBe('touch');
    expect(of(figures, 'connector-11-21').figure.value).toBeCloseTo(4.2, 9);
    expect(of(figures, 'triangle-11-21').figure.value).toBeCloseTo(0.5, 9);
    expect(of(figures, 'embrasure-11-21').figure.value).toBeCloseTo(0.8, 9);
    expect(of(figures, 'series-12').figure.value).toBeCloseTo((100 * 57) / 85, 6);
  });

  it('axis, zenith beside it, and the lateral’s zenith below the line of its neighbours', () => {
    // Neck 5 px to the right of the middle of 21: distal.
    const figures = measureFrontDetails(
      set,
      { 'neck-21': [547.5, 300] } as Record<string, Px>,
      SCALE,
      undefined,
      PAPER,
    );
    expect(of(figures, 'axis-21').figure.value).toBeCloseTo((Math.atan2(5, 50) * 180) / Math.PI, 6);
    expect(of(figures, 'zenith-distal-21').figure.value).toBeCloseTo(-0.25, 6);
    expect(of(figures, 'zenith-step-12').figure.value).toBeCloseTo(1, 6);
  });

  it('overbite is the lower crown less what is seen of it, and knows that the crown’s length is a mean', () => {
    const { figure } = of(
      measureFrontDetails(set, { 'lower-margin': [500, 460] } as Record<string, Px>, SCALE, undefined, PAPER),
      'overbite',
    );
    expect(figure.value).toBeCloseTo(LOWER_CENTRAL_LENGTH.value - 6, 9);
    expect(figure.pm).toBeGreaterThan(LOWER_CENTRAL_LENGTH.band);
  });
});

it('overjet runs along the plane of the cusps, whichever way the picture looks', () => {
  const right = {
    'plane-back': [200, 500],
    'plane-front': [500, 500],
    'upper-edge': [700, 505],
    'lower-facial': [670, 480],
  } as Record<string, Px>;
  const left = Object.fromEntries(Object.entries(right).map(([id, [x, y]]) => [id, [1000 - x, y] as Px]));
  for (const [view, points] of [
    ['retracted-right', right],
    ['retracted-left', left],
  ] as const)
    expect(of(measureSide({ view, points, scale: SCALE, ...PAPER }), 'overjet').figure.value).toBeCloseTo(3, 9);
});
