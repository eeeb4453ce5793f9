import { isFrontKind } from '../teeth/norms.js';
import { type Fdi, isUpper } from '../teeth/notation.js';
import { frontRow, OWN_ROLES, type Roles, roleOf } from '../teeth/roles.js';
import { derived, type Figure, MEASURED } from '../working/working.js';
import type { Px } from './calibration.js';
import { type FrontSeen, type FrontSight, frontSight, widthShare } from './front-sight.js';
import type { LandmarkSet } from './landmarks.js';
import { propagated } from './propagate.js';

/** Room between the outlines of two neighbours as the front shows it, mm; negative where they overlap. */
export function seenRoom(f: FrontSight, right: Fdi, left: Fdi): Figure | undefined {
  // Seen from the front: the right one's border towards the patient's left, the left one's towards the right.
  const p = f.own(right, right < 20 ? 'mesial' : 'distal');
  const q = f.own(left, left < 20 ? 'distal' : 'mesial');
  if (!p || !q) return undefined;
  return propagated(
    [p, q],
    f.sight,
    'mm',
    {
      formula: 'between the neighbours’ outlines, along the level line',
      inputs: [{ name: 'both borders', value: 'marked', unit: '', source: MEASURED }],
    },
    ([m, n], mm) => ((n as Px)[0] - (m as Px)[0]) * mm,
  );
}

/** The same along the arch: over the share that is seen of the two. */
function roomAlong(f: FrontSight, right: Fdi, left: Fdi): Figure | undefined {
  const seen = seenRoom(f, right, left);
  const share = (shareOf(f, right) + shareOf(f, left)) / 2;
  return (
    seen && derived([seen], 'mm', { formula: 'room seen ÷ share seen', inputs: [] }, ([v]) => (v as number) / share)
  );
}

/**
 * Room between the outlines of two upper teeth along the arch, mm; negative where they overlap. Undefined without their
 * landmarks.
 */
export function neighbourGap(
  set: LandmarkSet,
  scale: Figure,
  right: Fdi,
  left: Fdi,
  roles: Roles = OWN_ROLES,
): number | undefined {
  return roomAlong(frontSight(set, {}, scale, roles), right, left)?.value;
}

/**
 * Sum of the gaps between neighbouring upper teeth, mm along the arch. Overlaps count as no gap, and so does what is
 * smaller than its own error: teeth that touch would come to show one by the spread of the hand alone.
 * @param row the teeth in the order in which they stand, patient's right first
 */
export function gapsBetween(
  set: LandmarkSet,
  scale: Figure,
  row: readonly Fdi[] = frontRow(),
  roles: Roles = OWN_ROLES,
  seen: FrontSeen = {},
): Figure {
  const f = frontSight(set, {}, scale, roles, seen);
  const rooms = row.slice(1).flatMap((left, i) => roomAlong(f, row[i] as Fdi, left) ?? []);
  const open = rooms.filter((room) => room.value > room.pm);
  // What is not told from touching may still be open or closed by its error.
  const unsure = rooms.filter((room) => Math.abs(room.value) <= room.pm);
  const zero = unsure.reduce((n, room) => n + room.value, 0);
  return derived(
    [...open, ...unsure],
    'mm',
    {
      formula: 'gaps = distances between neighbouring outlines, each divided by the share seen from the front',
      inputs: [{ name: 'gaps larger than their error', value: open.length, unit: '', source: MEASURED }],
      note: 'What is smaller than its own error is not added; it is in the ±.',
    },
    (v) => v.reduce((a, b) => a + b, 0) - zero,
  );
}

function shareOf(f: FrontSight, tooth: Fdi): number {
  const kind = roleOf(f.roles, tooth);
  return isUpper(tooth) && isFrontKind(kind) ? widthShare(kind, f.arch.perMm) : 1;
}
