/**
 * Composite by kinds of work: bevels, breaks, troughs and emergence on bodies whose answers are known, side guidance by
 * moving the jaw, colours against layers worked out by hand, papillae by Tarnow, Magner, Fletcher 1992.
 */
import {
  ask,
  bevelled,
  box,
  brokenOff,
  CaseEngine,
  clearances,
  colourOver,
  compositeLayers,
  DIRECT_LIMITS,
  deltaE00,
  emergenceOf,
  evenSpectrum,
  FINISHING_STEPS,
  gauged,
  genericShades,
  type HeightField,
  LAYERS,
  leadBack,
  matrixFor,
  mergeMeshes,
  missingOf,
  mixes,
  papillaFills,
  readScan,
  SIDE_STEP_MM,
  schools,
  troughBody,
  USUAL_DIRECT,
  volume,
  wornEdge,
} from '@radiant/core';
import { INTRAORAL_SCANNER, makePatient, RECIPES, scan } from '@radiant/standins';
import { joined, prism, shifted, solids } from './direct-bodies.js';

/** Without lobes and side walls: slabs whose answers are known. */
const S = { ...USUAL_DIRECT, lobeMm: 0, sideMm: 0 };
/** 8 wide, 4 deep, 10 high; its edge lies at −5. */
const WHOLE = box(8, 4, 10);

describe('a broken corner or edge', () => {
  it('has a bevel of the length of its size, whose wedge is the volume that geometry says', () => {
    // The lower 4 mm are gone.
    const high = bevelled(missingOf(WHOLE, shifted(box(8, 4, 6), 0, 0, 2)), S);
    expect([high.frontMm, high.behindMm]).toEqual([2, 0.5]);
    expect(high.breakHighMm).toBeCloseTo(4, 0);
    const wedge = 8 * ((0.5 * 2) / 2 + (0.3 * 0.5) / 2);
    expect(Math.abs(high.cutMm3 - wedge)).toBeLessThan(0.06 * wedge);
    expect(Math.abs(high.missing.missingMm3 - (8 * 4 * 4 + wedge))).toBeLessThan(0.02 * 128);
    // A small break gets half of it.
    expect(bevelled(missingOf(WHOLE, shifted(box(8, 4, 8.5), 0, 0, 0.75)), S).frontMm).toBe(1);
    expect(bevelled(missingOf(WHOLE, shifted(box(8, 4, 6), 0, 0, 2)), { bevelMm: 0, bevelBehindMm: 0 }).cutMm3).toBe(0);
  });

  it('its layers are all of what is missing, the bevel with it', () => {
    const { missing } = bevelled(missingOf(WHOLE, shifted(box(8, 4, 6), 0, 0, 2)), S);
    const sum = compositeLayers(missing, S).reduce((a, l) => a + l.mm3, 0);
    expect(sum).toBeCloseTo(missing.missingMm3, 6);
  });

  it('can be drawn on a crown that stands whole: a triangle of it goes', () => {
    const drawn = { corner: 'mesial', heightMm: 3, widthMm: 4 } as const;
    for (const mesialX of [1, -1] as const) {
      const m = brokenOff(missingOf(WHOLE, WHOLE), drawn, mesialX);
      const off = m.columns.filter((c) => c.whole);
      const mm3 = m.grid.step ** 2 * off.reduce((a, c) => a + c.planned.to - c.planned.from, 0);
      expect(Math.abs(mm3 - ((3 * 4) / 2) * 4)).toBeLessThan(0.06 * 24);
      const xs = off.map((c) => m.grid.a0 + (c.column % m.grid.na) * m.grid.step);
      expect(Math.sign(xs.reduce((a, b) => a + b, 0))).toBe(mesialX);
    }
  });

  it('a probe stands half a millimetre deep where enamel is to be laid (common practice)', () => {
    const m = missingOf(WHOLE, shifted(box(8, 4, 6.5), 0, 0, 1.75));
    const gauge = gauged(m, compositeLayers(m, S));
    expect(gauge.map((g) => g.fromEdgeMm)).toEqual([0.5, 1, 2, 3]);
    for (const g of gauge) {
      expect(g.enamelMm).toBeCloseTo(0.5, 6);
      // 4 mm less enamel and shell.
      expect(g.dentinMm).toBeCloseTo(3.2, 6);
    }
  });
});

describe('a gap', () => {
  it('leaves the gum as steep as its side leans: 30° of a wedge', () => {
    const tooth = box(6, 4, 10);
    const out = 4 * Math.tan(Math.PI / 6);
    // Below the middle the plan steps out by 30° to the left over 4 mm.
    const planned = joined(
      prism(
        [
          [-3, 5],
          [3, 5],
          [3, 0],
          [3 + out, -4],
          [3 + out, -5],
          [-3, -5],
        ],
        4,
      ),
    );
    const m = missingOf(planned, tooth);
    expect(emergenceOf(m, 1)?.deg).toBeGreaterThan(28);
    expect(emergenceOf(m, 1)?.deg).toBeLessThan(32);
    expect(emergenceOf(m, -1)).toBeUndefined();
  });

  it('fills as often as was found: 98 % at 5 mm, 56 % at 6, 27 % at 7, seldom beyond', () => {
    expect([4, 5, 6, 7].map(papillaFills)).toEqual([98, 98, 56, 27]);
    expect(papillaFills(9)).toBeLessThanOrEqual(10);
  });

  it('takes a matrix as curved as it leaves the gum', () => {
    expect(matrixFor(0.3, 10).words).toMatch(/straight/);
    expect(matrixFor(1, 10).words).toMatch(/^curved/);
    expect(matrixFor(1, 35).words).toMatch(/strongly curved/);
  });
});

describe('a worn edge', () => {
  it('is troughed within its walls: the volume of the island times its depth', async () => {
    const solid = await solids();
    const tooth = box(6, 3, 10);
    const worn = wornEdge(tooth, S);
    const want = (6 - 1.6) * (3 - 1.6) * 1.2;
    expect(Math.abs(worn.troughMm3 - want)).toBeLessThan(0.06 * want);
    expect(worn.wallMm).toBeGreaterThanOrEqual(S.wallMm);
    expect(Math.abs(worn.facetMm2 - 18)).toBeLessThan(1);
    expect(worn.edgeMm).toBeCloseTo(3, 0);
    // The core is one closed body that lies wholly within the tooth.
    const core = troughBody(worn);
    expect(volume(core)).toBeGreaterThan(0);
    expect(solid(core).status()).toBe('NoError');
    expect(solid(core).subtract(solid(tooth)).volume()).toBeLessThan(0.01);
  });

  it('is left alone where walls of that thickness leave nothing', () => {
    const worn = wornEdge(box(6, 1.5, 10), S);
    expect([worn.troughMm3, worn.wallMm]).toEqual([0, undefined]);
  });

  it('is troughed 1.0 to 1.5 mm deep (common practice)', () => {
    expect(DIRECT_LIMITS.troughMm.usual).toBeGreaterThanOrEqual(1);
    expect(DIRECT_LIMITS.troughMm.usual).toBeLessThanOrEqual(1.5);
    expect([DIRECT_LIMITS.cureMm.usual, DIRECT_LIMITS.enamelMm.usual]).toEqual([2, 0.5]);
  });
});

describe('the lead of a canine', () => {
  /** Two rows of flat teeth: a canine and a premolar on each side, the premolars meeting, the canines apart. */
  const field = (z: (tooth: number) => number): HeightField => {
    const grid = { a0: -20, b0: 0, step: 0.1, na: 401, nb: 60 };
    const own: HeightField = {
      grid,
      z: new Float32Array(grid.na * grid.nb).fill(NaN),
      tooth: new Int16Array(grid.na * grid.nb),
    };
    const put = (tooth: number, x: number, y: number) => {
      for (let j = y * 10; j < y * 10 + 20; j++)
        for (let i = Math.round((x + 20) * 10) - 15; i < Math.round((x + 20) * 10) + 15; i++) {
          own.z[j * grid.na + i] = z(tooth);
          own.tooth[j * grid.na + i] = tooth;
        }
    };
    const upper = z(13) > 0;
    put(upper ? 13 : 43, -10, 0);
    put(upper ? 14 : 44, -15, 3);
    put(upper ? 23 : 33, 10, 0);
    put(upper ? 24 : 34, 15, 3);
    return own;
  };
  const upper = field((t) => (t % 10 === 3 ? 1.4 : 1));
  const lower = field(() => 0);
  lower.z.forEach((v, i) => {
    if (!Number.isNaN(v)) lower.z[i] = 0;
  });

  it('needs so much that moving the jaw with it parts the back teeth as wished', () => {
    for (const to of ['right', 'left'] as const)
      for (const part of [0.3, 0.5, 1]) {
        const need = leadBack(upper, lowerRow(), to, part)!;
        expect(need.addMm).toBeCloseTo(0.4 + part, 4);
        expect(need.partNowMm).toBeCloseTo(0, 6);
        // The canine longer by that much, the jaw moved until the first teeth meet.
        const longer = { ...upper, z: upper.z.map((v, i) => (upper.tooth[i] === need.upper ? v - need.addMm : v)) };
        const at = (z: number) => clearances(longer, lowerRow(), [(to === 'right' ? -1 : 1) * SIDE_STEP_MM, 0, z]);
        const least = Math.min(...at(0).map((c) => c.spaceMm));
        const met = at(least);
        expect(met.find((c) => c.tooth === need.upper)?.spaceMm).toBeCloseTo(0, 4);
        for (const c of met.filter((c) => c.tooth % 10 > 3)) expect(c.spaceMm).toBeGreaterThanOrEqual(part - 1e-4);
      }
  });

  it('needs nothing where it leads already', () => {
    const leads = { ...upper, z: upper.z.map((v, i) => ((upper.tooth[i] as number) % 10 === 3 ? 0.2 : v)) };
    const own = leadBack(leads, lowerRow(), 'right', 0.5)!;
    expect(own.addMm).toBe(0);
    expect(own.partNowMm).toBeCloseTo(0.8, 4);
  });

  it('is followed along the whole way: a slope that takes over late lacks most at its beginning', () => {
    const k = 0.5;
    const sloped = (f: HeightField): HeightField => ({
      ...f,
      z: f.z.map((v, i) => {
        const x = f.grid.a0 + (i % f.grid.na) * f.grid.step;
        return (f.tooth[i] as number) % 10 === 3 ? v + k * (x + 10) : v;
      }),
    });
    const own = leadBack(sloped(upper), sloped(lowerRow()), 'right', 0.5)!;
    // Both canines rise to the left alike: to the right the jaw meets them the nearer the further it goes.
    for (const s of own.way) {
      const wanted = 0.5 * Math.min(1, s.alongMm / 1.5);
      expect(s.wantedMm).toBeCloseTo(wanted, 9);
      expect(s.addMm).toBeCloseTo(Math.max(0, 0.4 - k * s.alongMm + wanted), 4);
      expect(s.partMm).toBeCloseTo(Math.max(0, k * s.alongMm - 0.4), 4);
      expect(s.leads).toBe(k * s.alongMm >= 0.4 - 0.05);
    }
    expect(own.mostAtMm).toBeCloseTo(0.3, 9);
    expect(own.addMm).toBeCloseTo(0.4 - k * 0.3 + 0.1, 4);
    // The canines are 3 mm wide: at 3 mm they stand beside each other.
    expect(own.way.at(-1)?.alongMm).toBeLessThan(3);
  });

  /** The lower row of the same teeth, flat. */
  function lowerRow(): HeightField {
    const names: Readonly<Record<number, number>> = { 13: 43, 14: 44, 23: 33, 24: 34 };
    return {
      ...upper,
      z: upper.z.map((v) => (Number.isNaN(v) ? v : 0)),
      tooth: upper.tooth.map((t) => names[t] ?? 0),
    };
  }
});

describe('colour by layers', () => {
  const shades = genericShades();
  const of = (id: string) => shades.find((s) => s.id === id)!;
  const zone = { enamelMm: 0.5, bodyMm: 2, shellMm: 0.3 };

  it('is what the layers come to over the dark of the mouth, worked out one after the other', () => {
    const wanted = { L: 72, a: 1, b: 15 };
    for (const mix of mixes(zone, wanted, shades, 'two').slice(0, 4)) {
      const lab = colourOver(
        [
          { optics: of(mix.enamel).optics, mm: 0.5 },
          // A layer in two halves is the same layer (two-flux theory).
          { optics: of(mix.bodies[0] as string).optics, mm: 0.8 },
          { optics: of(mix.bodies[0] as string).optics, mm: 1.2 },
          { optics: of(mix.enamel).optics, mm: 0.3 },
        ],
        evenSpectrum(0.02),
      );
      expect(deltaE00(lab, mix.lab)).toBeLessThan(0.01);
      expect(mix.dE).toBeCloseTo(deltaE00(mix.lab, wanted), 9);
    }
  });

  it('four shades come no further from the neighbour than two, in any zone', () => {
    const zones = [
      { zone: 'incisal', layers: zone, wanted: { L: 68, a: 0, b: 10 } },
      { zone: 'middle', layers: { ...zone, bodyMm: 2.6 }, wanted: { L: 74, a: 1, b: 16 } },
    ];
    const [two, four] = schools(zones, shades);
    expect(four!.worstDE).toBeLessThanOrEqual(two!.worstDE + 1e-9);
    // Two shades are the same two everywhere.
    expect(new Set(two!.zones.map((z) => `${z.mix.bodies} ${z.mix.enamel}`)).size).toBe(1);
    for (const [i, z] of two!.zones.entries()) expect(four!.zones[i]!.mix.dE).toBeLessThanOrEqual(z.mix.dE + 1e-9);
  });

  it('too much enamel over a light body takes value away: the tooth turns grey (common practice)', () => {
    const light = shades.filter((s) => ['body-light', 'enamel-neutral'].includes(s.id));
    const [only] = schools([{ zone: 'middle', layers: zone, wanted: { L: 78, a: 0, b: 14 } }], light);
    expect(only!.zones[0]!.tenthL).toBeLessThan(-0.02);
  });

  it('an opaque body hides the dark behind better than a translucent one', () => {
    const apart = (id: string) => {
      const at = (behind: number) => colourOver([{ optics: of(id).optics, mm: 1.5 }], evenSpectrum(behind));
      return deltaE00(at(0.02), at(0.8));
    };
    expect(apart('body-opaque')).toBeLessThan(apart('body-middle'));
  });
});

describe('finishing', () => {
  it('is outline, line angles, lobes, texture, and only then shine; rubber runs under water', () => {
    const ids = FINISHING_STEPS.map((s) => s.id);
    expect(ids.slice(0, 4)).toEqual(['outline', 'line-angles', 'lobes', 'texture']);
    expect(ids.at(-1)).toBe('shine');
    expect(FINISHING_STEPS.find((s) => s.id === 'shine')?.speed).toMatch(/under water/);
  });
});

describe('on a mouth', () => {
  const engine = new CaseEngine();
  const patient = makePatient(RECIPES.Dunlin);
  engine.take(readScan(scan(patient, INTRAORAL_SCANNER)));
  const own = ask(engine, 'existingPlan');
  engine.setPlan({
    11: { ...own[11]!, widthMm: own[11]!.widthMm + 0.5, lengthMm: own[11]!.lengthMm + 1 },
    21: { ...own[21]!, widthMm: own[21]!.widthMm + 0.5, lengthMm: own[21]!.lengthMm + 1 },
  });

  it('the bodies of the layers are closed and sum to what is missing', async () => {
    const solid = await solids();
    const told = ask(engine, 'direct', 11, S);
    const bodies = ask(engine, 'directLayers', 11, S);
    expect(bodies.map((b) => b.name)).toEqual(told.layers.map((l) => LAYERS[l.name]));
    expect(bodies.map((b) => b.name)).toContain('dentin and lobes');
    let sum = 0;
    for (const b of bodies) {
      expect(solid(b.mesh).status()).toBe('NoError');
      sum += solid(b.mesh).volume();
    }
    // Walls between columns run through their middles: thin rims are left out.
    expect(sum / told.missingMm3).toBeGreaterThan(0.85);
    expect(sum / told.missingMm3).toBeLessThan(1.001);
    // They lie where the tooth lies.
    const [one] = bodies;
    const middle = (k: number) => {
      const p = mergeMeshes([one!.mesh]).positions.filter((_, i) => i % 3 === k);
      return p.reduce((a, b) => a + b, 0) / p.length;
    };
    expect(Math.abs(middle(0) - engine.crown(11).frame.origin[0])).toBeLessThan(3);
  });

  it('a gap is told with its shares, the way to the bone and how often that fills', () => {
    const [gap] = ask(engine, 'directGaps', 'upper');
    expect([gap!.right, gap!.left, gap!.sounded]).toEqual([12, 11, false]);
    expect(gap!.boneMm).toBeCloseTo((gap!.openMm as number) + 4.5, 6);
    expect(gap!.fills).toBe(papillaFills(gap!.boneMm as number));
    // Worked by hand: half a millimetre wider, anchored at its mesial side, is half a millimetre here and nothing there.
    expect(gap!.share.right).toBe(0);
    expect(Math.abs(gap!.share.left - 0.5)).toBeLessThan(0.11);
    expect(gap!.first).toBe(11);
    const { widthMm, lengthMm } = engine.crown(11).crown.size;
    expect(gap!.ratio).toEqual({ left: (100 * widthMm) / lengthMm });
    const [deeper] = ask(engine, 'directGaps', 'upper', { '12-11': 7 });
    expect(deeper!.sounded).toBe(true);
    expect((deeper!.boneMm as number) - (gap!.boneMm as number)).toBeCloseTo(2.5, 6);
    expect(deeper!.fills as number).toBeLessThan(gap!.fills as number);
  });

  it('a plan without room in the closed bite says by how much it would be raised, and stops', () => {
    const own = new CaseEngine();
    own.take(readScan(scan(patient, INTRAORAL_SCANNER)));
    own.take(readScan(scan(patient, INTRAORAL_SCANNER, 'stl', 'lower')));
    const tooth = ask(own, 'asItStands', 41);
    const told = (addMm: number) => {
      own.setPlan({ 41: { ...tooth, lengthMm: tooth.lengthMm + addMm } });
      return ask(own, 'direct', 41, S, 52, { kind: 'worn' });
    };
    const high = told(4);
    expect(high.raisesMm).toBeGreaterThan(0.5);
    expect(high.notes[0]).toMatchObject({ state: 'stop', says: expect.stringMatching(/no room/) });
    expect(told(0.5).notes.some((n) => /no room/.test(n.says))).toBe(false);
  });

  it('the palatal key is one closed body behind the teeth, with the face open', async () => {
    const solid = await solids();
    const { parts, seats } = ask(engine, 'palatalGuide', 'upper');
    expect(seats).toBeGreaterThan(0);
    const [key] = parts;
    const own = solid(key!);
    expect(own.status()).toBe('NoError');
    expect(own.genus()).toBe(0);
    // It takes no room from the planned crowns but for the grid of 0.35 mm: it lies on them.
    for (const t of [11, 21] as const) expect(own.intersect(solid(engine.crown(t).mesh)).volume()).toBeLessThan(0.3);
    // In front of the centrals' edges there is nothing of it.
    const edgeY = engine.crown(11).frame.origin[1];
    let front = Infinity;
    for (let i = 0; i < key!.positions.length; i += 3)
      if (Math.abs((key!.positions[i] as number) - engine.crown(11).frame.origin[0]) < 2)
        front = Math.min(front, key!.positions[i + 1] as number);
    expect(front).toBeGreaterThan(edgeY - 0.4);
    // Trimmed further for dam and clamps it is lower behind.
    const high = (mm: number) => {
      const p = ask(engine, 'palatalGuide', 'upper', { frontMm: 0, upMm: mm }).parts[0]!.positions;
      return p.reduce((a, v, i) => (i % 3 === 2 ? Math.max(a, v) : a), -Infinity);
    };
    expect(high(2)).toBeLessThan(high(5));
  });

  it('colours are asked for where composite covers, and a plate without readings is a sentence', () => {
    const told = ask(
      engine,
      'directColours',
      11,
      S,
      { kind: 'addition' },
      {
        wanted: { incisal: { L: 70, a: 0.5, b: 12 }, middle: { L: 74, a: 1, b: 16 } },
        tooth: {},
      },
    );
    expect(told.thirds.map((t) => t.third)).toContain('incisal');
    expect(told.schools.map((s) => s.school)).toEqual(['two', 'four']);
    const flat = Array.from({ length: 31 }, () => 0.5);
    expect(() =>
      ask(
        engine,
        'directColours',
        11,
        S,
        { kind: 'addition' },
        {
          wanted: { incisal: { L: 70, a: 0.5, b: 12 } },
          tooth: {},
          plates: [
            {
              name: 'composite enamel, ours',
              mm: 1,
              overBlack: flat,
              overWhite: flat,
              blackGround: flat,
              whiteGround: flat,
            },
          ],
        },
      ),
    ).toThrow(/has no readings by which its colour can be told/);
  });
});
