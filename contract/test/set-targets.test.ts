import { changedSince, setTargets } from '@radiant/contract';
import type { Proposal } from '@radiant/core';

type Targets = Pick<Proposal, 'targets'>;
const proposal = (...of: readonly (readonly [number, number, number, boolean?])[]): Targets =>
  ({
    targets: of.map(([tooth, length, width, stays = false]) => ({
      tooth,
      stays,
      length: { value: length },
      width: { value: width },
    })),
  }) as unknown as Targets;

describe('what of a proposal has changed since crowns were set to it', () => {
  const first = proposal([11, 10.504, 8.5], [21, 10.5, 8.5], [22, 9, 6.5, true]);
  const kept = setTargets(first);

  it('is nothing where it says the same, though it was changed and changed back', () => {
    expect(kept).toEqual([
      { tooth: 11, lengthMm: 10.5, widthMm: 8.5, zenithUpMm: 0 },
      { tooth: 21, lengthMm: 10.5, widthMm: 8.5, zenithUpMm: 0 },
    ]);
    expect(changedSince(kept, first)).toEqual([]);
  });

  it('is each tooth that comes to another length or width', () => {
    expect(changedSince(kept, proposal([11, 11, 8.5], [21, 10.5, 8.3])).map((s) => s.tooth)).toEqual([11, 21]);
    expect(changedSince(kept, proposal([11, 10.51, 8.5], [21, 10.5, 8.5]))).toEqual([]);
  });

  it('is a crown of the same size that stands higher: edge and gum both moved', () => {
    expect(changedSince(setTargets(first, 0), first, 0.5).map((s) => s.tooth)).toEqual([11, 21]);
    expect(changedSince(setTargets(first, 0.5), first, 0.5)).toEqual([]);
  });

  it('is a tooth that came in or went out, or that stays as it is now', () => {
    const since = changedSince(kept, proposal([11, 10.5, 8.5], [21, 10.5, 8.5, true], [12, 9, 6.6]));
    expect(since.map(({ tooth, before, after }) => [tooth, before?.widthMm, after?.widthMm])).toEqual([
      [21, 8.5, undefined],
      [12, undefined, 6.6],
    ]);
  });
});
