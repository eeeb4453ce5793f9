import { existingArch, frontRow, planFromWaxUp, plannedTooth, readScan, signedDistances } from '@radiant/core';
import { AVOCET, INTRAORAL_SCANNER, inState, makePatient, scan } from '@radiant/standins';

const arch = existingArch(readScan(scan(makePatient(AVOCET), INTRAORAL_SCANNER)));
const waxed = existingArch(readScan(scan(makePatient(inState(AVOCET, 'mock-up')), INTRAORAL_SCANNER)));
const made = planFromWaxUp(arch, waxed, frontRow());

describe('a wax-up from outside as the plan', () => {
  it('sets each crown to its size and place: the faces lie within 0.05 mm at the median', () => {
    expect(made.off.map((o) => o.tooth).sort()).toEqual([...frontRow()].sort());
    for (const o of made.off) {
      expect(o.medianMm).toBeLessThan(0.05);
      expect(o.p95Mm).toBeLessThan(0.15);
    }
  });

  it('and so does all of the crown, asked of the surfaces themselves', () => {
    for (const t of frontRow()) {
      const field = waxed.teeth.get(t)?.field;
      if (!field) throw new Error(`the wax-up has ${t}`);
      const d = [...signedDistances(field, plannedTooth(arch, made.plan, t).mesh.positions)]
        .map(Math.abs)
        .sort((p, q) => p - q);
      expect(d[d.length >> 1]).toBeLessThan(0.08);
      expect(d[Math.floor(0.95 * d.length)]).toBeLessThan(0.25);
    }
  });

  it('tells what it could not follow: of an arch that lies elsewhere the figures are large', () => {
    const teeth = new Map(
      [...waxed.teeth].map(([t, e]) => [
        t,
        {
          ...e,
          frame: {
            ...e.frame,
            origin: [e.frame.origin[0], e.frame.origin[1] - 6, e.frame.origin[2]] as [number, number, number],
          },
        },
      ]),
    );
    const off = planFromWaxUp(arch, { ...waxed, teeth }, [11]).off;
    expect(off[0]?.medianMm).toBeGreaterThan(0.5);
  });

  it('leaves out teeth that one of the two lacks', () => {
    const teeth = new Map([...waxed.teeth].filter(([t]) => t !== 12));
    expect(planFromWaxUp(arch, { ...waxed, teeth }, frontRow()).plan[12]).toBeUndefined();
  });
});
