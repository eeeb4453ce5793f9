import { isFrontKind } from '../teeth/norms.js';
import { type Fdi, isUpper } from '../teeth/notation.js';
import { frontRow, OWN_ROLES, type Roles, roleOf } from '../teeth/roles.js';
import { type Figure, MEASURED } from '../working/working.js';
import { LANDMARK_SD_MM, Z95 } from './calibration.js';
import { type LandmarkSet, levelled, rollOf } from './landmarks.js';
import { SEEN_FROM_FRONT } from './measures.js';

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
  const roll = rollOf(set) ?? 0;
  const p = set[right]?.[right < 20 ? 'mesial' : 'distal'];
  const q = set[left]?.[left < 20 ? 'distal' : 'mesial'];
  if (!p || !q) return undefined;
  const mm = (levelled(q, roll)[0] - levelled(p, roll)[0]) * scale.value;
  return mm / ((shareOf(right, roles) + shareOf(left, roles)) / 2);
}

/**
 * Sum of the gaps between neighbouring upper teeth, mm along the arch. Overlaps count as no gap; a gap smaller than a
 * point can be set again counts as none.
 * @param row the teeth in the order in which they stand, patient's right first
 */
export function gapsBetween(
  set: LandmarkSet,
  scale: Figure,
  row: readonly Fdi[] = frontRow(),
  roles: Roles = OWN_ROLES,
): Figure {
  const found = row.slice(1).flatMap((left, i) => {
    const right = row[i] as Fdi;
    const along = neighbourGap(set, scale, right, left, roles);
    if (along === undefined) return [];
    const inPicture = along * ((shareOf(right, roles) + shareOf(left, roles)) / 2);
    return inPicture > 2 * LANDMARK_SD_MM ? [along] : [];
  });
  return {
    value: found.reduce((a, b) => a + b, 0),
    pm: Math.sqrt(found.length) * Z95 * Math.SQRT2 * LANDMARK_SD_MM,
    unit: 'mm',
    working: {
      formula: 'gaps = distances between neighbouring outlines, each divided by the share seen from the front',
      inputs: [{ name: 'gaps found', value: found.length, unit: '', source: MEASURED }],
    },
  };
}

function shareOf(tooth: Fdi, roles: Roles): number {
  const kind = roleOf(roles, tooth);
  return isUpper(tooth) && isFrontKind(kind) ? SEEN_FROM_FRONT[kind].width : 1;
}
