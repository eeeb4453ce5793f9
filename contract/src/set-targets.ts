import { type CrownTarget, type Fdi, gumUpOf, type Proposal } from '@radiant/core';
import type { SetTarget } from './sections/index.js';

const rounded = (mm: number) => Math.round(100 * mm) / 100;

type Targets = Pick<Proposal, 'targets'>;

/** What the crowns of a proposal are set to. @param gumMm how far the gum is to be moved up */
export const crownTargets = ({ targets }: Targets, gumMm = 0): (readonly [Fdi, Required<CrownTarget>])[] =>
  targets
    .filter((t) => !t.stays)
    .map((t) => [t.tooth, { lengthMm: t.length.value, widthMm: t.width.value, zenithUpMm: gumUpOf(t, gumMm) }]);

/** The same as it is kept beside the crowns. */
export const setTargets = (proposal: Targets, gumMm = 0): SetTarget[] =>
  crownTargets(proposal, gumMm).map(([tooth, { lengthMm, widthMm, zenithUpMm }]) => ({
    tooth,
    lengthMm: rounded(lengthMm),
    widthMm: rounded(widthMm),
    zenithUpMm: rounded(zenithUpMm),
  }));

/** What of a target is told, in this order. */
export const TARGET_KEYS = ['lengthMm', 'widthMm', 'zenithUpMm'] as const;

/** Less than this nobody sets or reads, mm. */
const SAME_MM = 0.02;

/** Whether two lengths of a target are one, mm. */
export const sameTarget = (a: number, b: number): boolean => Math.abs(a - b) < SAME_MM;

/** What a tooth's target is now beside what its crown was set to; `undefined` where it had or has none. */
export interface TargetSince {
  readonly tooth: Fdi;
  readonly before: SetTarget | undefined;
  readonly after: SetTarget | undefined;
}

/** The targets that are other than the ones that the crowns were set to: none when a change was taken back. */
export function changedSince(then: readonly SetTarget[], proposal: Targets, gumMm = 0): TargetSince[] {
  const now = setTargets(proposal, gumMm);
  const teeth = [...new Set([...then, ...now].map((t) => t.tooth))];
  return teeth.flatMap((tooth): TargetSince[] => {
    const [a, b] = [then, now].map((all) => all.find((t) => t.tooth === tooth));
    const same = a && b && TARGET_KEYS.every((k) => sameTarget(a[k], b[k]));
    return same ? [] : [{ tooth, before: a, after: b }];
  });
}
