import type { Fdi, Proposal } from '@radiant/core';
import type { SetTarget } from './sections/index.js';

const rounded = (mm: number) => Math.round(100 * mm) / 100;

/** The targets of a proposal that crowns can be set to, as they are kept. */
export const setTargets = ({ targets }: Pick<Proposal, 'targets'>): SetTarget[] =>
  targets
    .filter((t) => !t.stays)
    .map((t) => ({ tooth: t.tooth, lengthMm: rounded(t.length.value), widthMm: rounded(t.width.value) }));

/** Less than this nobody sets or reads, mm. */
const SAME_MM = 0.02;

/** What a tooth's target is now beside what its crown was set to; `undefined` where it had or has none. */
export interface TargetSince {
  readonly tooth: Fdi;
  readonly before: SetTarget | undefined;
  readonly after: SetTarget | undefined;
}

/** The targets that are other than the ones that the crowns were set to: none when a change was taken back. */
export function changedSince(then: readonly SetTarget[], proposal: Pick<Proposal, 'targets'>): TargetSince[] {
  const now = setTargets(proposal);
  const teeth = [...new Set([...then, ...now].map((t) => t.tooth))];
  return teeth.flatMap((tooth): TargetSince[] => {
    const [a, b] = [then, now].map((all) => all.find((t) => t.tooth === tooth));
    const same = a && b && Math.abs(a.lengthMm - b.lengthMm) < SAME_MM && Math.abs(a.widthMm - b.widthMm) < SAME_MM;
    return same ? [] : [{ tooth, before: a, after: b }];
  });
}
