import { type FrontKind, isFrontKind } from '../teeth/norms.js';
import { kindOf, UPPER_SIX } from '../teeth/notation.js';
import { type Figure, MEASURED } from '../working/working.js';
import { LANDMARK_SD_MM, Z95 } from './calibration.js';
import { type LandmarkSet, levelled, rollOf } from './landmarks.js';
import { SEEN_FROM_FRONT } from './measures.js';

/**
 * Sum of the gaps between the six upper front teeth, mm along the arch. Overlaps count as no gap; a gap smaller than
 * a point can be set again counts as none.
 */
export function gapsBetween(set: LandmarkSet, scale: Figure): Figure {
  const roll = rollOf(set) ?? 0;
  let total = 0;
  let counted = 0;
  for (let i = 0; i + 1 < UPPER_SIX.length; i++) {
    const a = UPPER_SIX[i] as number;
    const b = UPPER_SIX[i + 1] as number;
    const p = set[a]?.[a < 20 ? 'mesial' : 'distal'];
    const q = set[b]?.[b < 20 ? 'distal' : 'mesial'];
    if (!p || !q) continue;
    const mm = (levelled(q, roll)[0] - levelled(p, roll)[0]) * scale.value;
    if (mm <= 2 * LANDMARK_SD_MM) continue;
    total += mm / ((shareOf(a) + shareOf(b)) / 2);
    counted++;
  }
  return {
    value: total,
    pm: Math.sqrt(counted) * Z95 * Math.SQRT2 * LANDMARK_SD_MM,
    unit: 'mm',
    working: {
      formula: 'gaps = distances between neighbouring outlines, each divided by the share seen from the front',
      inputs: [{ name: 'gaps found', value: counted, unit: '', source: MEASURED }],
    },
  };
}

function shareOf(tooth: number): number {
  const kind = kindOf(tooth);
  return isFrontKind(kind) ? SEEN_FROM_FRONT[kind as FrontKind].width : 1;
}
