import { type ContourVersion, sameContour } from './contours.js';
import type { ToothPlanInput } from './sections/index.js';

/** What the contour that stands now is, among those that were kept. */
export type Standing =
  | { readonly kind: 'approved'; readonly version: ContourVersion }
  | { readonly kind: 'kept'; readonly version: ContourVersion }
  | { readonly kind: 'claimed'; readonly version: ContourVersion }
  | { readonly kind: 'left-approved'; readonly version: ContourVersion }
  | { readonly kind: 'free' };

/** Whether later stages stand on a contour that the patient approved, on one that was kept, or on neither. */
export function standingOf(teeth: readonly ToothPlanInput[], contours: readonly ContourVersion[]): Standing {
  const newest = [...contours].reverse();
  const same = newest.filter((c) => sameContour(c.teeth, teeth));
  const approved = same.find(isApproved);
  if (approved) return { kind: 'approved', version: approved };
  const claimed = same.find((c) => c.approved);
  if (claimed) return { kind: 'claimed', version: claimed };
  const last = newest.find(isApproved);
  if (last) return { kind: 'left-approved', version: last };
  return same[0] ? { kind: 'kept', version: same[0] } : { kind: 'free' };
}

/**
 * Whether the patient's approval of a version was recorded here; what a file that was brought in says of one is no
 * such.
 */
export const isApproved = (c: ContourVersion): boolean => c.approved !== null && !c.approved.claimed;

/** In words, for the stages and documents that stand on the contour. */
export function standingWords(s: Standing): string {
  switch (s.kind) {
    case 'approved':
      return `as kept in “${s.version.name}”, approved by the patient`;
    case 'claimed':
      return `as kept in “${s.version.name}”, approved by the word of the case it came from alone`;
    case 'left-approved':
      return `changed since “${s.version.name}” was approved`;
    case 'kept':
      return `as kept in “${s.version.name}”, not approved yet`;
    default:
      return 'not approved yet';
  }
}
