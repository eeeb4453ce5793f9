import { bounds, RawJaw, writeStlBinary } from '@radiant/core';
import { makePatient, scatteredRecipe, WHOLE_SCANNER, wholeJaw } from '@radiant/standins';
import { JAWS } from './trials/jaws.js';
import { keptJaw } from './trials/kept-jaw.js';
import { sizeTrial } from './trials/size.js';

const at = (list: readonly number[], part: number): number =>
  [...list].sort((p, q) => p - q)[Math.min(list.length - 1, Math.floor(part * list.length))]!;

it('what is measured on picked teeth is within 0.3 mm of what was modelled, and the library’s forms lie on them', () => {
  const teeth = JAWS.flatMap(sizeTrial);
  expect(teeth).toHaveLength(20);
  const widths = teeth.map((t) => Math.abs(t.widthOff));
  const lengths = teeth.map((t) => Math.abs(t.lengthOff));
  // Gum and contacts hide some of each crown.
  expect(at(widths, 0.5)).toBeLessThan(0.15);
  expect(at(widths, 1)).toBeLessThan(0.35);
  expect(at(lengths, 0.5)).toBeLessThan(0.25);
  expect(at(lengths, 1)).toBeLessThan(0.45);
  for (const t of teeth) expect(t.fitMm).toBeLessThan(0.12);
  // What stands beside each picked tooth, before a form lies on it; the last of the row ends where the scan's next
  // would begin.
  // On one of the twelve a drop of saliva fills the fold to the gum.
  const seen = teeth.filter((x) => x.tooth % 10 <= 3).map((t) => Math.abs(t.seenWidthOff));
  expect(at(seen, 0.9)).toBeLessThan(0.25);
  expect(at(seen, 1)).toBeLessThan(0.4);
  for (const t of teeth) expect(Math.abs(t.seenLengthOff)).toBeLessThan(0.45);
  // The jaw laid seven degrees steeper leaves the lengths as they are.
  for (const t of teeth) expect(Math.abs(t.tiltedBy)).toBeLessThan(0.25);
});

it('a scan that is told to be of another unit has that size whenever it is laid again', () => {
  const whole = keptJaw(['size', 'upper'], () =>
    wholeJaw(makePatient(scatteredRecipe(611)), 'upper', { ...WHOLE_SCANNER, seed: 611 }),
  );
  const raw = new RawJaw(writeStlBinary(whole.mesh), () => undefined);
  const wide = () => {
    const { min, max } = bounds(raw.lay('upper', 1).mesh);
    return max[0] - min[0];
  };
  const before = wide();
  raw.lay('upper', 1.1);
  expect(wide() / before).toBeCloseTo(1.1, 2);
  expect(wide() / before).toBeCloseTo(1.1, 2);
});
