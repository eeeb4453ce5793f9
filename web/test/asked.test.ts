import { type AskedChange, type ToothPlanInput, withAsked } from '@radiant/contract';

const tooth = (t: number): ToothPlanInput => ({
  tooth: t,
  lengthMm: 10.5,
  widthMm: 8.4,
  facialVolumeMm: 0.2,
  rotationDeg: 0,
});

it('changes asked for after the mock-up become edits, several on one tooth, and a number that was left out begins at its usual value', () => {
  const asked: AskedChange[] = [
    { tooth: 11, key: 'lengthMm', by: -0.5 },
    { tooth: 11, key: 'lengthMm', by: -0.2 },
    { tooth: 21, key: 'mesialCornerMm', by: 0.3 },
    { tooth: 21, key: 'textureShare', by: -0.5 },
  ];
  const before = [tooth(11), tooth(21)];
  const { teeth, unmade } = withAsked(before, asked);
  expect(unmade).toEqual([]);
  expect(teeth[0]?.lengthMm).toBeCloseTo(9.8, 9);
  expect(teeth[1]).toMatchObject({ mesialCornerMm: 0.3, textureShare: 0.5 });
  // The version itself is not touched.
  expect(before[0]?.lengthMm).toBe(10.5);
});

it('what would leave the limits, or is asked of a tooth that is not planned, is not made and comes back', () => {
  const far: AskedChange = { tooth: 11, key: 'lengthMm', by: -9 };
  const none: AskedChange = { tooth: 14, key: 'widthMm', by: 0.1 };
  const { teeth, unmade } = withAsked([tooth(11)], [far, none]);
  expect(unmade).toEqual([far, none]);
  expect(teeth).toEqual([tooth(11)]);
});
