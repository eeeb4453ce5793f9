import type { Design } from '../restoration/design.js';
import { onlyAdded } from '../restoration/design.js';
import type { FacialThird } from '../teeth/norms.js';
import type { Fdi } from '../teeth/notation.js';
import { COMMON_PRACTICE } from '../working/working.js';
import type { PrepFinding } from './finding.js';
import { HAND_PLACES, HAND_WAYS, type HandPlace, type HandReading, type HandWay } from './hand-words.js';

/** What a design needs at a place, mm; undefined where it has no such place. */
export function handNeed({ needs, edge, around }: Design, place: HandPlace): number | undefined {
  if (place === 'edge') return edge.kind === 'thickness' ? edge.mm : undefined;
  if (place === 'palatal') return around?.palatalMm;
  return needs[place as FacialThird] || undefined;
}

/** The places at which a design is read. */
export const handPlaces = (design: Design): HandPlace[] =>
  onlyAdded(design) ? [] : HAND_PLACES.filter((p) => handNeed(design, p) !== undefined);

/** What is measured too little at once asks for so much more, mm: a probe reads no hundredths. House value. */
const STEP_MM = 0.1;

/**
 * What readings by hand say of one tooth: at every place of its design too little, enough, or not read; a flat face
 * where only the middle third falls short. Nothing is guessed for a place that was not read.
 */
export function handFindings(
  tooth: Fdi,
  design: Design,
  readings: readonly HandReading[],
  way: HandWay,
): PrepFinding[] {
  const { pmMm: pm, words } = HAND_WAYS[way];
  const read = (place: HandPlace) => readings.find((r) => r.tooth === tooth && r.way === way && r.place === place)?.mm;
  const own = handPlaces(design).map((place): PrepFinding => {
    const [need, value] = [handNeed(design, place) as number, read(place)];
    const base = {
      check: 'room' as const,
      tooth,
      place,
      pm,
      unit: 'mm' as const,
      limit: need,
      source: COMMON_PRACTICE,
    };
    if (value === undefined)
      return { ...base, state: 'unknown', value: Number.NaN, says: `{${tooth}} ${place}: not read` };
    const lacks = need - value;
    const stands = `{${tooth}} ${place}: ${value.toFixed(1)} mm of ${need.toFixed(1)} by ${words}`;
    if (value === 0 && way === 'provisional')
      return {
        ...base,
        state: 'cut',
        value,
        says: `{${tooth}} ${place}: a hole in the provisional`,
        todo: `cut ${need.toFixed(1)} mm more there`,
        cutMm: need,
      };
    if (lacks > pm)
      return {
        ...base,
        state: 'cut',
        value,
        says: `${stands}: not enough is cut`,
        todo: `cut ${mmUp(lacks)} mm more there`,
        cutMm: Number(mmUp(lacks)),
      };
    return { ...base, state: 'right', value, says: stands };
  });
  const lack = (place: HandPlace) => {
    const value = read(place);
    const need = handNeed(design, place);
    return value === undefined || need === undefined ? undefined : need - value;
  };
  const [gum, middle, edge] = [lack('cervical'), lack('middle'), lack('incisal')];
  if (gum !== undefined && middle !== undefined && edge !== undefined && middle > pm && gum <= pm && edge <= pm)
    own.push({
      check: 'face',
      tooth,
      state: 'cut',
      place: 'middle of the face',
      value: middle,
      pm,
      unit: 'mm',
      limit: pm,
      source: COMMON_PRACTICE,
      says: `{${tooth}} face: flat where the contour curves; gum and edge thirds are right, the middle falls short`,
      todo: 'cut the middle plane by the planned curve',
      cutMm: Number(mmUp(middle)),
    });
  return own;
}

const mmUp = (mm: number): string => (Math.ceil(mm / STEP_MM - 1e-9) * STEP_MM).toFixed(1);
