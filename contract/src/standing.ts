import { type ContourVersion, sameContour } from './contours.js';
import type { ToothPlanInput } from './sections.js';

/** What the contour that stands now is, among those that were kept. */
export type Standing =
  | { readonly kind: 'approved'; readonly version: ContourVersion }
  | { readonly kind: 'kept'; readonly version: ContourVersion }
  | { readonly kind: 'left-approved'; readonly version: ContourVersion }
  | { readonly kind: 'free' };

/** Whether later stages stand on a contour that the patient approved, on one that was kept, or on neither. */
export function standingOf(teeth: readonly ToothPlanInput[], contours: readonly ContourVersion[]): Standing {
  const newest = [...contours].reverse();
  const same = newest.filter((c) => sameContour(c.teeth, teeth));
  const approved = same.find((c) => c.approved);
  if (approved) return { kind: 'approved', version: approved };
  const last = newest.find((c) => c.approved);
  if (last) return { kind: 'left-approved', version: last };
  return same[0] ? { kind: 'kept', version: same[0] } : { kind: 'free' };
}

/** In words, for the stages and documents that stand on the contour. */
export function standingWords(s: Standing): string {
  switch (s.kind) {
    case 'approved':
      return `as kept in “${s.version.name}”, approved by the patient`;
    case 'left-approved':
      return `changed since “${s.version.name}” was approved`;
    case 'kept':
      return `as kept in “${s.version.name}”, not approved yet`;
    default:
      return 'not approved yet';
  }
}
