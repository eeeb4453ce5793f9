import type { ContourPlan, PlanChange } from '@radiant/core';
import { planChange } from '@radiant/core';

const tooth = (widthMm: number) => ({ lengthMm: 10, widthMm, facialVolumeMm: 0, rotationDeg: 0 });

describe('a plan goes over by difference', () => {
  const [a, b, c] = [tooth(8.5), tooth(6.5), tooth(7.5)];

  it('nothing goes where nothing has changed', () => {
    const plan: ContourPlan = { 11: a, 12: b };
    expect(planChange(plan, plan)).toBeUndefined();
    expect(planChange(plan, { ...plan })).toBeUndefined();
  });

  it('what is new or another record, and what is gone; nothing of the rest', () => {
    const change = planChange({ 11: a, 12: b }, { 11: a, 13: c, 21: { ...b } }) as PlanChange;
    expect(change.set.map(([t]) => t)).toEqual([13, 21]);
    expect(change.gone).toEqual([12]);
  });
});
