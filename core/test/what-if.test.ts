import {
  ask,
  CaseEngine,
  type ContourPlan,
  designOf,
  type Fdi,
  firstContour,
  inMaterial,
  MATERIALS,
  readScan,
  TARGET_PLACES,
  type ToothPlan,
  type WhatIf,
} from '@radiant/core';
import { INTRAORAL_SCANNER, makePatient, scan } from '@radiant/standins';

const engineOf = (traits: Parameters<typeof makePatient>[0]['traits']) => {
  const engine = new CaseEngine();
  engine.take(readScan(scan(makePatient({ seed: 12, traits }), INTRAORAL_SCANNER)));
  return engine;
};
/** The row as it would stand in its arch, planned as the first contour says. */
const planned = (engine: CaseEngine): ContourPlan => firstContour(engine.arch('upper'), new Map());

const crooked = engineOf({ 12: { rotationDeg: 18 }, 21: { forwardMm: 1.8 } });
crooked.setPlan(planned(crooked));
const told = (engine: CaseEngine, tooth: Fdi) => ask(engine, 'whatIf', tooth, { design: 'graduated' });
const by = (all: readonly WhatIf[], id: WhatIf['id']) => all.find((w) => w.id === id) as WhatIf;

describe('what a preparation would come to, were one thing otherwise', () => {
  const all = told(crooked, 21);
  const chosen = by(all, 'graduated');

  it('a tooth that stands before the arch, moved first, loses less, goes as far as it stood before it, and meets less dentin', () => {
    const moved = by(all, 'moved');
    expect(moved.told.removedMm3).toBeLessThan(0.8 * chosen.told.removedMm3);
    expect(moved.told.dentinMm2.sure).toBeLessThanOrEqual(chosen.told.dentinMm2.sure);
    // It was made 1.8 mm too far forward, and the arch is fitted through all teeth.
    const mm = Number(/by ([\d.]+) mm/.exec(moved.words)?.[1]);
    expect(mm).toBeGreaterThan(0.8);
    expect(mm).toBeLessThan(1.8);
  });

  it('of what goes where it stands, the part that only brings it into line is about what moving it first saves', () => {
    // Under a crown of the tooth's own form: where the plan is fuller, moving makes room for ceramic too.
    const engine = engineOf({ 12: { rotationDeg: 18 }, 21: { forwardMm: 1.8 } });
    const plan = planned(engine);
    engine.setPlan({ ...plan, 21: { ...(plan[21] as ToothPlan), facialVolumeMm: 0 } });
    const own = told(engine, 21);
    const { alignMm3, removedMm3 } = by(own, 'graduated').told;
    expect(alignMm3).toBeGreaterThan(25);
    expect(Math.abs(removedMm3 - by(own, 'moved').told.removedMm3 - alignMm3) / alignMm3).toBeLessThan(0.4);
  });

  it('a lateral that is turned by 18° is turned back by about that', () => {
    const deg = Number(/turned (\d+)°/.exec(by(told(crooked, 12), 'moved').words)?.[1]);
    expect(Math.abs(deg - 18)).toBeLessThan(7);
  });

  it('a contour 0.1 mm further to the front costs less tooth, and a material that is made thicker more', () => {
    expect(by(all, 'forward').told.removedMm3).toBeLessThan(chosen.told.removedMm3);
    expect(by(all, 'feldspathic').told.removedMm3).toBe(chosen.told.removedMm3);
    expect(by(all, 'milled').told.removedMm3).toBeGreaterThan(by(all, 'pressed').told.removedMm3);
    expect(by(all, 'pressed').told.removedMm3).toBeGreaterThan(chosen.told.removedMm3);
  });
});

describe('a design in a material', () => {
  const even = designOf('even');

  it('is raised to the least that the material is made in, and nowhere thinned (common practice)', () => {
    for (const m of MATERIALS) {
      const own = inMaterial(designOf('graduated'), m);
      const least = m.least.veneer.face;
      expect(own.needs).toEqual({
        cervical: Math.max(0.3, least),
        middle: Math.max(0.5, least),
        incisal: Math.max(0.7, least),
      });
    }
    expect(inMaterial(even, MATERIALS[0])).toBe(even);
  });

  it('a crown is raised at its sides and behind too, and keeps its finish line and taper', () => {
    const pressed = MATERIALS.find((m) => m.id === 'pressed') as (typeof MATERIALS)[number];
    const zirconia = designOf('zirconia-crown');
    const own = inMaterial(zirconia, pressed);
    expect(own.around).toEqual({ proximalMm: 1, palatalMm: 1 });
    expect(own.needs).toEqual({ cervical: 1, middle: 1, incisal: 1.2 });
    expect([own.finish, own.taperDeg]).toEqual([zirconia.finish, zirconia.taperDeg]);
  });

  it('a crown in a material of which no crowns are made stays as it is', () => {
    expect(inMaterial(designOf('ceramic-crown'), MATERIALS[0])).toBe(designOf('ceramic-crown'));
  });
});

it('all that goes is what brings a tooth into line and what the ceramic takes after it, vertex for vertex', () => {
  const target = ask(crooked, 'target', 21, { design: 'graduated' }).surface;
  const { aligned, before, mesh } = target;
  expect(aligned.triangles).toEqual(mesh.triangles);
  // Along its ray each vertex of the tooth in line lies between the tooth as it is and the target.
  for (let i = 0; i < mesh.positions.length; i += 3) {
    // On the edge's cap a vertex is no one ray's.
    if (TARGET_PLACES[target.place[i / 3] as number] !== 'facial') continue;
    const [whole, part, rest] = [
      [before, mesh],
      [before, aligned],
      [aligned, mesh],
    ].map(([a, b]) =>
      Math.hypot(...[0, 1, 2].map((c) => (a?.positions[i + c] as number) - (b?.positions[i + c] as number))),
    ) as [number, number, number];
    expect(part + rest - whole).toBeLessThan(1e-6 + 0.02 * whole);
  }
});
