import {
  type Bur,
  burName,
  DEPTH_TOLERANCE_MM,
  engagements,
  FIRST_TRAY,
  groove,
  isoDiameter,
  Refusal,
  type Removal,
  removal,
  strategyOf,
  type Zone,
} from '@radiant/core';

const sizes = { lengthMm: 8, shankMm: 1.6, grit: 'medium' } as const;
const taper: Bur = { shape: 'round-end', tipMm: 0.8, largestMm: 1.4, ...sizes };
const ball: Bur = { shape: 'ball', tipMm: 1.8, largestMm: 1.8, ...sizes, shankMm: 1.0 };
const depths = (b: Bur) => Object.fromEntries(engagements(b).map((e) => [e.how, e.depthMm]));

/** The trade's own arithmetic (common practice): a bur is a ruler. */
describe('depth-cut arithmetic', () => {
  it('tip buried is the tip’s diameter, body buried the body’s, half the tip half of it: the pair 1.4 and 0.8', () => {
    expect(depths(taper)).toEqual({
      'tip buried': 0.8,
      'body buried': 1.4,
      'half the tip in': 0.4,
      'half the body in': 0.7,
    });
  });

  it('a ball sunk to its shank cuts (ball − shank) / 2', () => {
    expect(depths(ball)['ball sunk to its shank']).toBeCloseTo(0.4, 12);
  });

  it.each([
    [0.3, 'ball diamond, 1.6 mm on a 1.0 mm shank'],
    [0.5, 'ball diamond, 2.0 mm on a 1.0 mm shank'],
    [0.7, 'ball diamond, 2.4 mm on a 1.0 mm shank'],
    [0.8, 'tapered round-end diamond, 1.4 mm, tip 0.8 mm'],
  ])('the tray gives %f mm on the face with a %s', (mm, name) => {
    const g = groove(mm, 'facial');
    expect(g.kind === 'cut' && burName(g.engagement.bur)).toBe(name);
    expect(g.kind === 'cut' && g.grooves).toBe('3 facial, 1 on each line angle');
  });

  it('the edge is cut with a taper, three grooves across', () => {
    const g = groove(1.4, 'edge');
    expect(g.kind === 'cut' && [isoDiameter(g.engagement.bur), g.engagement.how, g.grooves]).toEqual([
      '014',
      'body buried',
      '3 across the edge',
    ]);
  });

  it('says why no bur gives a depth, and what comes nearest without going too deep', () => {
    const between = groove(1.1, 'edge');
    expect(between.kind === 'none' && between.nearest?.depthMm).toBe(1.0);
    expect(between.kind === 'none' && between.why).toBe(
      'No bur gives 1.10 mm. The nearest below is 1.0 mm (tip buried); cut that, then 0.10 mm more by the index.',
    );
    const shallow = groove(0.12, 'facial');
    expect(shallow.kind === 'none' && shallow.why).toMatch(
      /^No groove: the shallowest that this tray cuts is 0\.3 mm\. Smooth by 0\.12 mm/,
    );
    expect(groove(0, 'facial')).toMatchObject({ kind: 'none', why: 'Nothing to cut.' });
  });

  it('never offers a groove deeper than wanted by more than the tolerance', () => {
    for (let mm = 0.05; mm < 2.4; mm += 0.01) {
      for (const where of ['facial', 'edge'] as const) {
        const g = groove(mm, where);
        const cut = g.kind === 'cut' ? g.engagement.depthMm : (g.nearest?.depthMm ?? 0);
        expect(cut).toBeLessThanOrEqual(mm + 0.0500001);
      }
    }
  });

  it('an empty tray still answers', () => {
    expect(groove(0.5, 'facial', []).kind).toBe('none');
    expect(() => groove(Number.NaN, 'edge')).toThrow(Refusal);
  });

  it('names sizes by ISO 6360-1: the largest diameter in tenths of a millimetre (standard)', () => {
    expect(FIRST_TRAY.burs.slice(0, 7).map(isoDiameter)).toEqual(['014', '016', '018', '016', '018', '020', '024']);
  });
});

describe('what each strategy asks for', () => {
  const r = removal(0.5, 0.2);
  const depth = (id: Parameters<typeof strategyOf>[0], of: Removal, zone: Zone = 'middle') => {
    const w = strategyOf(id).wish(of, zone);
    return w.kind === 'cut' ? w.depthMm : w.why;
  };

  it('through the mock-up the needed thickness, from the bare tooth what has to go', () => {
    expect(depth('mock-up', r)).toBe(0.5);
    expect(depth('margin', r)).toBeCloseTo(0.3, 12);
    expect(depth('align', r)).toBeCloseTo(0.3, 12);
    expect(depth('planes', r, 'incisal')).toBeCloseTo(0.3, 12);
    expect(depth('planes', r)).toMatch(/the two planes meet here; read 0\.30 mm/);
  });

  it('over a proud tooth there is no mock-up: the groove is as deep as what has to go, from the tooth', () => {
    // 0.5 needed, 0.3 proud: a groove of 0.5 mm into the bare tooth would leave 0.3 mm too little room.
    const w = strategyOf('mock-up').wish(removal(0.5, -0.3), 'middle');
    expect(w).toMatchObject({ kind: 'cut', first: expect.stringContaining('0.30 mm proud of the plan') });
    expect(depth('mock-up', removal(0.5, -0.3))).toBeCloseTo(0.8, 12);
    expect(strategyOf('mock-up').wish(r, 'middle')).not.toHaveProperty('first');
    // Brought into line first, what is left is the needed thickness.
    expect(depth('align', removal(0.5, -0.3))).toBeCloseTo(0.5, 12);
  });

  it('where nothing is removed the mock-up is thick enough to hold the whole groove', () => {
    expect(depth('mock-up', removal(0.5, 0.6))).toMatch(/stay within the mock-up/);
    expect(depth('margin', removal(0.5, 0.6))).toBe('Nothing to cut.');
  });
});

describe('near the gum no groove is deeper than what is wanted; elsewhere by the tolerance at most', () => {
  const deepest = (mm: number, where: 'cervical' | 'facial') => {
    const g = groove(mm, where);
    return g.kind === 'cut' ? g.engagement.depthMm : (g.nearest?.depthMm ?? 0);
  };
  it('over all depths', () => {
    for (let mm = 0.25; mm < 1.2; mm += 0.01) {
      expect(deepest(mm, 'cervical')).toBeLessThanOrEqual(mm + 1e-9);
      expect(deepest(mm, 'facial')).toBeLessThanOrEqual(mm + DEPTH_TOLERANCE_MM + 1e-9);
    }
    expect(deepest(0.27, 'facial')).toBeCloseTo(0.3, 9);
    expect(deepest(0.27, 'cervical')).toBeLessThan(0.27);
  });
});
