import {
  difference,
  type Fdi,
  type Figure,
  OWN_ROLES,
  propose,
  roleOf,
  rolesOf,
  SCANNED_SIZE_PM_MM,
  type ScannedTooth,
  type ToothMeasure,
  usedMeasures,
} from '@radiant/core';

const mm = (value: number, pm = 0.2): Figure => ({ value, pm, unit: 'mm', working: { formula: 'given', inputs: [] } });
const tooth = (t: Fdi, widthMm: number, lengthMm: number): ToothMeasure => ({
  tooth: t,
  width: mm(widthMm),
  length: mm(lengthMm),
  ratio: { ...mm((100 * widthMm) / lengthMm), unit: '%' },
  edgeLevel: mm(0),
  zenithLevel: mm(lengthMm),
});
const SIX = [
  tooth(13, 7.5, 9.5),
  tooth(12, 6.5, 8.5),
  tooth(11, 8.5, 10),
  tooth(21, 8.5, 10),
  tooth(22, 6.5, 8.5),
  tooth(23, 7.5, 9.5),
];
const CHOICE = { school: 'ratio', referenceTooth: 11, edgeMm: 0 } as const;
const total = (p: ReturnType<typeof propose>) => p?.targets.reduce((n, t) => n + t.width.value, 0) ?? Number.NaN;

describe('the roles of teeth', () => {
  it('are their own where none is missing, and where the gap of a missing one is kept for what may come', () => {
    expect(rolesOf(new Set(), () => true)).toEqual(OWN_ROLES);
    const kept = rolesOf(new Set([12]), () => false);
    expect([roleOf(kept, 13), roleOf(kept, 14), kept.has(12)]).toEqual(['canine', 'premolar1', false]);
  });

  it('move up one where a gap has closed: a canine stands for the lateral, the first premolar for the canine; the other side stays', () => {
    const closed = rolesOf(new Set([12, 22]), (t) => t === 12);
    expect([11, 13, 14, 15].map((t) => roleOf(closed, t))).toEqual(['central', 'lateral', 'canine', 'premolar1']);
    expect([21, 23, 24].map((t) => roleOf(closed, t))).toEqual(['central', 'canine', 'premolar1']);
  });
});

describe('targets for a part of the front', () => {
  it('one tooth beside a sound one: all others keep their size, and it is to be like its fellow with the gap closed', () => {
    const p = propose(SIX, { ...CHOICE, planned: [21] }, mm(0.6));
    for (const t of p?.targets ?? []) {
      const is = SIX.find((m) => m.tooth === t.tooth) as Required<ToothMeasure>;
      expect(t.stays).toBe(t.tooth !== 21);
      if (t.stays) expect([t.width.value, t.length.value]).toEqual([is.width.value, is.length.value]);
    }
    expect(p?.targets.find((t) => t.tooth === 21)?.width.value).toBeCloseTo(9.1, 6);
    expect(total(p)).toBeCloseTo(45.6, 6);
  });

  it('a tooth that is not measured is left out of the space and named', () => {
    const p = propose(SIX.slice(1), CHOICE, mm(0));
    expect(p?.targets.map((t) => t.tooth)).toEqual([12, 11, 21, 22, 23]);
    expect(p?.notes).toContain('Not measured, and left out of the space: right canine.');
    expect(total(p)).toBeCloseTo(37.5, 6);
  });

  it('nothing is proposed while no tooth of the plan is measured', () => {
    expect(propose([], CHOICE, mm(0))).toBeUndefined();
    expect(propose(SIX, { ...CHOICE, planned: [14] }, mm(0))).toBeUndefined();
  });

  it('canines in the laterals’ place get a lateral’s width and edge, and it is said', () => {
    const roles = rolesOf(new Set([12, 22]), () => true);
    const row = [
      tooth(14, 7, 8.5),
      tooth(13, 7.6, 9.6),
      tooth(11, 8.5, 10),
      tooth(21, 8.5, 10),
      tooth(23, 7.6, 9.6),
      tooth(24, 7, 8.5),
    ];
    const p = propose(row, { ...CHOICE, school: 'population' }, mm(0), roles);
    expect(p?.targets.map((t) => t.role)).toEqual(['canine', 'lateral', 'central', 'central', 'lateral', 'canine']);
    const width = (t: Fdi) => p?.targets.find((q) => q.tooth === t)?.width.value ?? 0;
    // Population widths, all given way by the same share: a lateral's 6.5 to a central's 8.5.
    expect(width(13) / width(11)).toBeCloseTo(6.5 / 8.5, 6);
    expect(p?.notes).toContain('{13} stands for a lateral, in the place of the tooth that is missing.');
    // Its edge stands above the centrals', as a lateral's does.
    expect(p?.targets.find((t) => t.tooth === 13)?.length.value).toBeCloseTo(9.1, 6);
  });

  it('left and right are kept alike by the place in which they stand', () => {
    const roles = rolesOf(new Set([12]), () => true);
    const row = [
      tooth(14, 7, 8.5),
      tooth(13, 7.9, 9.6),
      tooth(11, 8.5, 10),
      tooth(21, 8.5, 10),
      tooth(22, 6.1, 8.5),
      tooth(23, 7.6, 9.6),
    ];
    const p = propose(row, { ...CHOICE, school: 'recurring' }, mm(0), roles);
    const width = (t: Fdi) => p?.targets.find((q) => q.tooth === t)?.width.value;
    expect(width(13)).toBeCloseTo(width(22) as number, 9);
    expect(width(14)).toBeCloseTo(width(23) as number, 9);
  });
});

describe('the measures that planning goes by', () => {
  const scan = (t: Fdi, widthMm: number, lengthMm: number): ScannedTooth => ({
    acrossMm: 0,
    tooth: t,
    widthMm,
    lengthMm,
    edgeUpMm: 0.2,
    zenithUpMm: 10.1,
  });

  it('are the scan’s wherever there is one, with the one ± of scanned sizes', () => {
    const [used] = usedMeasures([tooth(11, 8.5, 10)], [scan(11, 8.2, 9.7)]);
    expect(used?.width).toMatchObject({ value: 8.2, pm: SCANNED_SIZE_PM_MM });
    expect(used?.length).toMatchObject({ value: 9.7, pm: SCANNED_SIZE_PM_MM });
    expect(used?.width?.working.inputs[0]?.source.text).toBe('measured on the scan of this case');
    expect(used?.ratio?.value).toBeCloseTo((100 * 8.2) / 9.7, 9);
    expect(used?.zenithLevel).toMatchObject({ value: 9.9, pm: SCANNED_SIZE_PM_MM });
  });

  it('are the photograph’s where it is the surer one, and where the scan has no such tooth', () => {
    const exact = { ...tooth(11, 8.5, 10), width: mm(8.5, 0.02) };
    const used = usedMeasures([exact, tooth(12, 6.5, 8.5)], [scan(11, 8.2, 9.7)]);
    expect(used[0]?.width?.value).toBe(8.5);
    expect(used[1]?.width?.value).toBe(6.5);
  });

  it('levels are all over one line: where the scan lacks a tooth, the photograph’s are taken for the whole row', () => {
    const front = [tooth(11, 8.5, 10), tooth(12, 6.5, 8.5)];
    const both = usedMeasures(front, [scan(11, 8.2, 9.7), scan(12, 6.4, 8.4)]);
    expect(both.map((m) => m.zenithLevel?.value)).toEqual([9.9, 9.9]);
    const one = usedMeasures(front, [scan(11, 8.2, 9.7)]);
    expect(one.map((m) => m.zenithLevel?.value)).toEqual([10, 8.5]);
  });

  it('the scan’s levels are told against the pupils where the portrait says how the canines lie to them', () => {
    const at = (t: Fdi, acrossMm: number): ScannedTooth => ({ ...scan(t, 7.5, 9.9), acrossMm });
    const row = [at(13, -17), at(12, -11), at(11, -5), at(21, 5), at(22, 11), at(23, 17)];
    // In the scan the edges lie in one plane; the portrait has the left canine 1 mm lower over 34 mm.
    const cant: Figure = { ...mm((Math.atan(1 / 34) * 180) / Math.PI, 0.5), unit: '°' };
    const used = usedMeasures([], row, cant);
    const edge = (t: Fdi) => used.find((m) => m.tooth === t)?.edgeLevel as Figure;
    expect(edge(13).value - edge(23).value).toBeCloseTo(1, 9);
    expect(edge(21).value).toBeCloseTo(0, 9);
    expect(edge(11).value).toBeCloseTo(10 / 34, 9);
    // Right against left carries what nobody knows of the cant, a tooth beside its fellow’s height nothing of it.
    expect(difference(edge(13), edge(23)).pm).toBeGreaterThan((34 * 0.5 * Math.PI) / 180);
    expect(usedMeasures([], row).find((m) => m.tooth === 23)?.edgeLevel?.value).toBeCloseTo(0, 9);
    const zenith = used.find((m) => m.tooth === 13)?.zenithLevel as Figure;
    expect(difference(zenith, edge(13)).pm).toBeCloseTo(Math.SQRT2 * SCANNED_SIZE_PM_MM, 4);
  });

  it('of a scan alone targets can be set', () => {
    const six = [13, 12, 11, 21, 22, 23].map((t) => scan(t, 7.5, 9.9));
    expect(propose(usedMeasures([], six), CHOICE, mm(0))?.targets).toHaveLength(6);
  });
});
