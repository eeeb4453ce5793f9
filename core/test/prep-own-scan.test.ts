import {
  ask,
  CaseEngine,
  type CutChoice,
  firstScan,
  type PrepVerdict,
  RawJaw,
  readPly,
  readScan,
  writeStlBinary,
} from '@radiant/core';
import {
  cutRow,
  INTRAORAL_SCANNER,
  makePatient,
  RECIPES,
  type RowOrder,
  scan,
  WHOLE_SCANNER,
  wholeJaw,
} from '@radiant/standins';

// A scan as any scanner gives it: nothing told apart, gum over the necks, teeth run together where they touch. What
// closes the picked teeth was seen by nobody, and must not be judged.

const patient = makePatient(RECIPES.Sandpiper);
const first = new Uint8Array(scan(patient, INTRAORAL_SCANNER));

function verdict(choice: CutChoice, how: Omit<RowOrder, 'plan' | 'choice'>): { bytes: Uint8Array; own: PrepVerdict } {
  const engine = new CaseEngine();
  engine.take(readScan(first));
  const all = ask(engine, 'existingPlan');
  const plan = { 11: all[11], 21: all[21] } as RowOrder['plan'];
  engine.setPlan(plan);
  const cut = cutRow(patient, { plan, choice, ...how });
  const teeth = patient.teeth.map((t) => ({ ...t, mesh: cut.get(t.tooth) ?? t.mesh }));
  const { mesh } = wholeJaw({ ...patient, teeth }, 'upper', { ...WHOLE_SCANNER, stepMm: 0.25, drops: 0, holes: 0 });
  const raw = new RawJaw(new Uint8Array(writeStlBinary(mesh)), () => undefined);
  raw.layOn('upper', firstScan(first));
  const { bytes } = raw.finish();
  engine.takeLater(readScan(bytes));
  return { bytes, own: ask(engine, 'prepVerdict', 'upper', choice) };
}

const found = (own: PrepVerdict) =>
  own.teeth.flatMap((t) =>
    t.findings.filter((f) => f.state !== 'right').map((f) => `${f.tooth} ${f.check} ${f.state}`),
  );

describe('veneers that end over the gum, in a scan of the whole jaw', () => {
  const above = { design: 'graduated', cervical: 0.3, middle: 0.5, incisal: 0.7, belowGumMm: -0.6 } as const;
  const choice: CutChoice = { design: 'graduated', from: 'mock-up', thickness: [above] };
  let own: PrepVerdict;
  let bytes: Uint8Array;
  beforeAll(() => {
    ({ own, bytes } = verdict(choice, { faults: { 11: { 'edge short': 0.45 } }, nicked: { 22: 0.7 } }));
  });

  it('say in the working copy which triangles nobody saw, and it is read back', () => {
    const { made, attributes } = readPly(bytes);
    expect(made?.length).toBe(attributes.length);
    expect(new Set(made)).toEqual(new Set([0, 1, 2]));
    // Only of teeth, and few of them.
    expect(attributes.filter((a, t) => a === 0 && made?.[t]).length).toBe(0);
    expect((made?.filter((m) => m > 0).length ?? 0) / attributes.length).toBeLessThan(0.1);
  });

  it('lie on what was not cut, and nothing that was closed is taken for tooth', () => {
    expect(own.laid.doubtful).toBe(false);
    expect(own.laid.mostMm).toBeLessThan(0.1);
    expect([own.missing, own.uncut]).toEqual([[], []]);
  });

  it('have the edge that was cut too little, and the neighbour that was nicked, and no other neighbour', () => {
    expect(found(own)).toContain('11 edge cut');
    expect(found(own).filter((f) => f.includes('neighbours'))).toEqual(['21 neighbours over']);
    expect(found(own).filter((f) => /contacts|draw|corners cut/.test(f))).toEqual([]);
  });

  it('have their finish lines where they were to be, told against the gum line', () => {
    const lines = own.teeth.flatMap((t) => t.findings.filter((f) => f.check === 'finish'));
    expect(lines.map((f) => `${f.tooth} ${f.place} ${f.state}`)).toEqual([
      '11 facial finish line right',
      '11 course of the finish line right',
      '21 facial finish line right',
      '21 course of the finish line right',
    ]);
    for (const f of lines.filter((l) => l.place.startsWith('facial'))) {
      const mm = Number(/([\d.]+) mm above the gum line as it was/.exec(f.says)?.[1]);
      expect(Math.abs(mm - 0.6)).toBeLessThan(0.25);
    }
  });
});

it('crowns that end under gum that was not pushed back: nobody sees where, and it is said and not guessed', () => {
  const { own } = verdict({ design: 'ceramic-crown', from: 'align' }, {});
  for (const t of own.teeth) {
    const finish = t.findings.filter((f) => f.check === 'finish');
    expect(finish.some((f) => f.place === 'beyond the finish line' && f.state === 'look')).toBe(true);
    expect(finish.filter((f) => f.state === 'cut' || f.state === 'over')).toEqual([]);
  }
});
