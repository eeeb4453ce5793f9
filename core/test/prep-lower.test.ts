import {
  ask,
  bounds,
  CaseEngine,
  type CutChoice,
  closestPoints,
  type Fdi,
  type Mesh,
  meshToArch,
  readScan,
  restorationOf,
  signedField,
} from '@radiant/core';
import { cutByHand, INTRAORAL_SCANNER, makePatient, type PrepOrder, scan, scatteredRecipe } from '@radiant/standins';

const patient = makePatient({ ...scatteredRecipe(421), seed: 421 });
const [upper, lower] = (['upper', 'lower'] as const).map((jaw) =>
  readScan(scan(patient, INTRAORAL_SCANNER, 'stl', jaw)),
) as [ReturnType<typeof readScan>, ReturnType<typeof readScan>];

/** Teeth of a jaw that stay as they are in the plan, cut as asked. */
function cutIn(jaw: 'upper' | 'lower', teeth: readonly Fdi[], choice: CutChoice, faults: PrepOrder['faults'] = {}) {
  const before = jaw === 'upper' ? upper : lower;
  const engine = new CaseEngine();
  engine.take(upper);
  engine.take(lower);
  engine.setPlan(Object.fromEntries(teeth.map((t) => [t, ask(engine, 'asItStands', t)])) as never);
  const cut = teeth.map((t): [Fdi, Mesh] => {
    const { design } = restorationOf(t, choice);
    const { finishLine } = ask(engine, 'target', t, choice).surface;
    const own = cutByHand(meshToArch(jaw, before.teeth.get(t) as Mesh), {
      design,
      planned: engine.crown(t),
      finishLine,
      faults,
    });
    return [t, meshToArch(jaw, own)];
  });
  engine.takeLater({ jaw, rest: before.rest, teeth: new Map([...before.teeth, ...cut]) });
  return engine;
}

describe('lower teeth', () => {
  const choice: CutChoice = { design: 'graduated', from: 'mock-up' };

  it('cut right are judged right where they were asked for most, in the order of their numbers', () => {
    const engine = cutIn('lower', [41, 31], choice);
    const own = ask(engine, 'prepVerdict', 'lower', choice);
    expect([own.laid.doubtful, own.missing, own.uncut]).toEqual([false, [], []]);
    expect([...own.judged].sort()).toEqual([31, 41]);
    for (const t of own.teeth) {
      const asked = t.findings.filter((f) => /^(middle|incisal) middle$/.test(f.place) || f.check === 'edge');
      expect(asked.length).toBeGreaterThanOrEqual(2);
      expect(asked.filter((f) => f.state === 'cut')).toEqual([]);
    }
  });

  it('are shown where they stand in the mouth, and an edge that was cut too little is found there', () => {
    const engine = cutIn('lower', [41], choice, { 'edge short': 0.4 });
    const own = ask(engine, 'prepVerdict', 'lower', choice).teeth[0];
    const edge = own?.findings.find((f) => f.check === 'edge' && f.state === 'cut');
    expect(Math.abs((edge?.cutMm ?? 0) - 0.4)).toBeLessThan(0.15);
    const view = ask(engine, 'preparedView', 41, choice);
    const tooth = lower.teeth.get(41) as Mesh;
    const far = closestPoints(signedField(tooth).tree, view.mesh.positions).distances;
    expect(Math.max(...far)).toBeLessThan(2.2);
    // A lower edge lies on top: so does the place that is marked.
    const mark = view.marks.find((m) => own?.findings[m.finding] === edge)?.at;
    const { max } = bounds(view.mesh);
    expect(max[2] - (mark?.[2] ?? -99)).toBeLessThan(0.6);
  });
});

describe('a post and core', () => {
  const choice: CutChoice = { design: 'ceramic-crown', from: 'align' };
  const engine = cutIn('upper', [11], choice);
  const cores = (mouth: { cores?: readonly Fdi[] }) =>
    ask(engine, 'prepVerdict', 'upper', choice, mouth).teeth[0]?.findings.filter((f) => f.place.startsWith('core'));

  it('is asked for its millimetre to the teeth across (common practice), and no other tooth is', () => {
    expect(cores({})).toEqual([]);
    const [own] = cores({ cores: [11] }) ?? [];
    expect(own?.limit).toBe(1);
    expect(own?.state).toBe((own?.value ?? 0) < 1 - (own?.pm ?? 0) ? 'look' : 'right');
    // The closed bite is at least as far as the way forward and aside: brute force over the closed lower teeth.
    const view = ask(engine, 'preparedView', 11, choice);
    const across = [...lower.teeth.values()].map(
      (m) => closestPoints(signedField(m).tree, view.mesh.positions).distances,
    );
    const closed = Math.min(...across.map((d) => Math.min(...d)));
    expect(own?.value).toBeLessThanOrEqual(closed + 0.15);
  });
});
