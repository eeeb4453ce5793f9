import { AVOCET, INTRAORAL_SCANNER, makePatient, scan } from '@radiant/standins';
import {
  contourDifference,
  contourDifferenceQuick,
  existingArch,
  plannedTooth,
  planOfExisting,
  readScan,
} from '../src/index.js';

describe('the difference between planned and existing surface', () => {
  const arch = existingArch(readScan(scan(makePatient(AVOCET), INTRAORAL_SCANNER)));
  const plan = planOfExisting(arch);

  it.each([11, 13, 22])(
    'drawn quickly, tooth %i differs from the full answer by less than a scan can tell',
    (tooth) => {
      const planned = plannedTooth(
        arch,
        { ...plan, [tooth]: { ...plan[tooth], facialVolumeMm: 0.3 } } as typeof plan,
        tooth,
      );
      const full = contourDifference(arch, planned);
      const quick = contourDifferenceQuick(arch, planned);
      expect(quick).toHaveLength(full.length);
      const off = [...full].map((mm, i) => Math.abs(mm - (quick[i] as number))).sort((a, b) => a - b);
      expect(off[Math.floor(off.length * 0.95)]).toBeLessThan(0.025);
      expect(off.at(-1)).toBeLessThan(0.25);
      // A quarter of the net is measured outright.
      expect(off.filter((d) => d === 0).length).toBeGreaterThan(off.length / 4);
    },
  );

  it('a facial fuller by 0.6 mm lies up to 0.6 mm further from the tooth, over a third of the crown', () => {
    const of = (facialVolumeMm: number) =>
      contourDifference(arch, plannedTooth(arch, { ...plan, 11: { ...plan[11], facialVolumeMm } } as typeof plan, 11));
    const flat = of(0);
    const change = [...of(0.6)].map((mm, i) => mm - (flat[i] as number));
    expect(Math.max(...change)).toBeGreaterThan(0.45);
    expect(Math.max(...change)).toBeLessThan(0.7);
    expect(change.filter((mm) => mm > 0.1).length).toBeGreaterThan(change.length / 3);
  });
});
