import {
  adviseEdge,
  adviseGum,
  displayAtRest,
  edgeOutcome,
  levelMouth,
  type Px,
  roomToLowerLip,
  SPEECH_MARGIN_MM,
  speechRoom,
} from '@radiant/core';

const woman34 = displayAtRest({ ageYears: 34, sex: 'female' });

describe('an edge that is set up', () => {
  const said = (edgeMm: number) => edgeOutcome({ norms: woman34 }, edgeMm).warnings.map((w) => [w.weight, w.text]);

  it('by less than a millimetre says nothing; further, dentin is named, and from two on the pulp', () => {
    expect(said(-0.9)).toEqual([]);
    expect(said(-1)).toEqual([['watch', expect.stringMatching(/^1\.0 mm come off the edges: dentin may be met/)]]);
    expect(said(-3)).toEqual([['stop', expect.stringMatching(/3\.0 mm .*pulp .*radiograph first/)]]);
    expect(said(3)).toEqual([]);
  });
});

describe('where the edge is proposed', () => {
  it('by display at rest: a woman of 34 who shows 0.9 mm is set down to the 1.58 mm of her age (Vig & Brundo 1978, from memory)', () => {
    const a = adviseEdge({ norms: woman34, restMm: 0.9, roomMm: 3 });
    expect(a?.edgeMm).toBeCloseTo(0.7, 9);
    expect(a?.because[0]).toBe('0.9 mm show at rest; usual for 30–39 years: 1.6 mm');
  });

  it('no further than the lower lip in smile leaves, with the margin for speech', () => {
    const a = adviseEdge({ norms: woman34, restMm: 0.1, roomMm: 1.2 });
    expect(a?.edgeMm).toBeCloseTo(1.2 - SPEECH_MARGIN_MM, 9);
    expect(a?.because.join()).toMatch(/lower lip leaves 0.7 mm/);
    expect(adviseEdge({ norms: woman34, restMm: 0.1, roomMm: 0.3 })?.edgeMm).toBe(0);
  });

  it('keeps more for speech where the edge stands far in front or is planned thicker, and says which', () => {
    expect(speechRoom({})).toEqual({ mm: SPEECH_MARGIN_MM, because: [] });
    // A usual overjet asks for nothing more.
    expect(speechRoom({ overjetMm: 3 }).mm).toBe(SPEECH_MARGIN_MM);
    const far = speechRoom({ overjetMm: 6, thickerMm: 0.4 });
    expect(far.mm).toBeCloseTo(0.5 + 0.5 + 0.2, 9);
    expect(far.because).toEqual(['the edge stands 6.0 mm in front of the lower teeth', 'it is planned 0.4 mm thicker']);
    expect(speechRoom({ overjetMm: 14, thickerMm: 2 }).mm).toBeCloseTo(1.5, 9);
    const a = adviseEdge({ norms: woman34, restMm: 0.1, roomMm: 1.2, thickerMm: 0.4 });
    expect(a?.edgeMm).toBeCloseTo(0.5, 9);
    expect(a?.because.join()).toMatch(
      /lower lip leaves 0.5 mm, with 0.7 mm kept for speech \(it is planned 0.4 mm thicker\)/,
    );
    // Nothing is lengthened, and the thicker edge alone comes near the lip.
    const { warnings } = edgeOutcome({ norms: woman34, roomMm: 0.6, thickerMm: 0.4 }, 0);
    expect(warnings.map((w) => w.text)).toEqual([
      'Only 0.6 mm stay to the lower lip; it is planned 0.4 mm thicker: try F and V with the mock-up.',
    ]);
    expect(edgeOutcome({ norms: woman34, roomMm: 0.6 }, 0).warnings).toEqual([]);
  });

  it('never shorter: more than usual stays as it is', () => {
    expect(adviseEdge({ norms: woman34, restMm: 3.2, roomMm: 3 })).toMatchObject({ edgeMm: 0 });
  });

  it('a wish for longer or shorter teeth is part of the sentence', () => {
    expect(adviseEdge({ norms: woman34, restMm: 0.9, wish: 'longer' })?.because.join('; ')).toBe(
      '0.9 mm show at rest; usual for 30–39 years: 1.6 mm; longer teeth are wished for',
    );
    const enough = adviseEdge({ norms: woman34, restMm: 3, wish: 'longer' });
    expect(enough).toMatchObject({ edgeMm: 0 });
    expect(enough?.because.join('; ')).toMatch(/how much longer is tried in the mock-up$/);
  });

  it('says nothing without a norm or without a measured display', () => {
    expect(adviseEdge({ norms: [], restMm: 1 })).toBeUndefined();
    expect(adviseEdge({ norms: woman34 })).toBeUndefined();
  });

  it('names a reverse curve as a reason', () => {
    expect(adviseEdge({ norms: woman34, restMm: 0.5, curve: 'reverse' })?.because.join()).toMatch(
      /longer centrals turn the curve/,
    );
  });
});

describe('where short crowns stand under a high lip', () => {
  const facts = { gumMm: 3.4, gumPm: 0.6, lengthMm: 8, widthMm: 8.6, edgeMm: 0 };

  it('the length that their width asks for comes at the gum, less what the edge gives', () => {
    // 8.6 mm at 85.5 % want 10.06 mm: 2.06 more than 8.
    expect(adviseGum(facts)?.gumMm).toBeCloseTo(2.1, 9);
    expect(adviseGum({ ...facts, edgeMm: 0.8 })?.gumMm).toBeCloseTo(1.3, 9);
    expect(adviseGum({ ...facts, edgeMm: 0.8 })?.because.join('; ')).toMatch(/0\.8 mm of it at the edge/);
    expect(adviseGum(facts)?.because.join('; ')).toMatch(/find the cement line and the bone with a probe/);
  });

  it('no more than the gum that shows, and never more than three millimetres', () => {
    expect(adviseGum({ ...facts, gumMm: 2.7, gumPm: 0.3, lengthMm: 6.5 })?.gumMm).toBe(2.7);
    expect(adviseGum({ ...facts, gumMm: 5, lengthMm: 6 })?.gumMm).toBe(3);
  });

  it('nothing where the gum may be less than it looks, where the crowns are long enough, or nothing is known', () => {
    expect(adviseGum({ ...facts, gumMm: 2.4 })).toBeUndefined();
    expect(adviseGum({ ...facts, lengthMm: 9.6 })).toBeUndefined();
    expect(adviseGum({ edgeMm: 0, gumMm: 4 })).toBeUndefined();
  });
});

describe('what a planned edge comes to', () => {
  const facts = { norms: woman34, restMm: 1, roomMm: 1.4, overbiteMm: 2.6 };

  it('shows more at rest, leaves less to the lip, covers more of the lower teeth, all by the same millimetres', () => {
    expect(edgeOutcome(facts, 0.6)).toEqual({
      restMm: 1.6,
      roomMm: expect.closeTo(0.8, 9),
      overbiteMm: expect.closeTo(3.2, 9),
      warnings: [],
    });
  });

  it('through the lower lip is told with the amount, near it with what stays, a deep overbite too', () => {
    expect(edgeOutcome(facts, 1.9).warnings).toEqual([
      { weight: 'stop', text: 'The edge would lie 0.5 mm below the border of the lower lip in full smile.' },
      { weight: 'watch', text: 'The upper edge would cover the lower teeth by 4.5 mm: look at the bite in shape.' },
    ]);
    expect(edgeOutcome(facts, 1.1).warnings.map((w) => w.text)).toEqual([
      'Only 0.3 mm stay to the lower lip: try F and V with the mock-up.',
    ]);
    expect(edgeOutcome({ norms: [] }, 3).warnings).toEqual([]);
  });
});

describe('the mouth on a photograph', () => {
  /** A mouth 600 px wide whose lower lip lies 90 px under the corners in the middle, turned by some degrees. */
  const mouth = (deg: number) => {
    const t = (deg * Math.PI) / 180;
    const turned = (x: number, y: number): Px => [
      900 + x * Math.cos(t) - y * Math.sin(t),
      500 + x * Math.sin(t) + y * Math.cos(t),
    ];
    const lip = (which: string, deep: number) =>
      Object.fromEntries(
        [-200, -100, 0, 100, 200].map(
          (x, i) => [`${which}-lip-${i + 1}`, turned(x, deep * (1 - (x / 300) ** 2))] as const,
        ),
      );
    return {
      'corner-right': turned(-300, 0),
      'corner-left': turned(300, 0),
      ...lip('upper', -40),
      ...lip('lower', 90),
      'edge-11': turned(-60, 60),
      'edge-21': turned(60, 64),
    };
  };

  it.each([0, 7, -12])('turned by %i° the room under the centrals is the same', (deg) => {
    const m = levelMouth(mouth(deg));
    // Drawn through five knots, a parabola is met within a pixel: the lip at ±60 px lies 90·(1 − 0.04) = 86.4 px down;
    // the lower edge 64.
    expect(Math.abs(((m && roomToLowerLip(m)) ?? 0) - (86.4 - 64))).toBeLessThan(1);
    for (const p of [m?.corners[1], m?.edges.get(11)] as Px[]) {
      const back = m?.back(p) as Px;
      expect(m?.level(back)[0]).toBeCloseTo(p[0], 9);
      expect(m?.level(back)[1]).toBeCloseTo(p[1], 9);
    }
  });

  it('is not known while a border is not marked', () => {
    const { 'lower-lip-3': _, ...rest } = mouth(0) as Record<string, Px>;
    expect(levelMouth(rest)).toBeUndefined();
  });
});
