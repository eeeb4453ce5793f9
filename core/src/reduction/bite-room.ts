import type { Design } from '../restoration/design.js';
import type { TargetSurface } from './target.js';
import { TARGET_PLACES, type TargetPlace } from './target-grid.js';

/** What a preparation leaves between itself and the teeth across, at one part of it. mm. */
export interface BiteRoom {
  readonly place: Exclude<TargetPlace, 'kept'>;
  /** The thickness that the restoration needs there. */
  readonly wantedMm: number;
  /** What is cut for the bite beside it. */
  readonly forBiteMm: number;
  /** The least space in the closed bite and on the way to the front and the sides, but for a hundredth of the places. */
  readonly closedMm: number;
  readonly movedMm: number;
}

/** Fewer places than this say nothing. */
const LEAST_PLACES = 8;
/** Single places of a mesh are noise. */
const WORST_SHARE = 0.01;

/**
 * The room that a preparation leaves in the bite, part by part, as far as teeth stand near it.
 * @param closed the distance of each vertex of `t` to the teeth across, mm, below 0 within them; `moved` the least of it
 * on the way to the front and the sides
 */
export function biteRoom(
  t: TargetSurface,
  design: Design,
  { closed, moved }: { readonly closed: Float32Array; readonly moved: Float32Array },
): BiteRoom[] {
  return (['edge', 'palatal', 'proximal', 'facial'] as const).flatMap((place): BiteRoom[] => {
    const at = TARGET_PLACES.indexOf(place);
    const own = Array.from(t.covered.keys()).filter((v) => t.covered[v] === at);
    const least = (space: Float32Array) => {
      const sorted = own.map((v) => space[v] as number).sort((a, b) => a - b);
      return sorted[Math.floor(WORST_SHARE * sorted.length)] ?? Infinity;
    };
    const [closedMm, movedMm] = [least(closed), least(moved)];
    return own.length < LEAST_PLACES || Math.min(closedMm, movedMm) > FAR_MM
      ? []
      : [{ place, wantedMm: wantedAt(design, place), forBiteMm: forBite(design, place), closedMm, movedMm }];
  });
}

/** What stays further from the teeth across than this is no question of the bite, mm. House value. */
export const FAR_MM = 4;

const forBite = ({ forBite: more }: Design, place: BiteRoom['place']): number =>
  (place === 'edge' || place === 'palatal' ? more?.[place] : undefined) ?? 0;

/** The thickness that a part needs, mm: of a face the least of its thirds. */
function wantedAt(design: Design, place: BiteRoom['place']): number {
  const { needs, around, edge } = design;
  const more = forBite(design, place);
  const facial = Math.min(needs.cervical, needs.middle, needs.incisal);
  if (place === 'edge') return edge.kind === 'thickness' ? edge.mm - more : 0;
  if (place === 'facial') return facial;
  return around ? (place === 'palatal' ? around.palatalMm - more : around.proximalMm) : facial;
}
