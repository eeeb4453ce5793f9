import { meshToArch, rowOf } from '../../contour/arch.js';
import { contactBetween } from '../../contour/contacts.js';
import { toothOf } from '../../contour/fit.js';
import { type PlannedTooth, plannedField } from '../../contour/plan.js';
import { emergenceOf, matrixFor, papillaFills, USUAL_SOUNDING_MM } from '../../direct/gap.js';
import { growth } from '../../direct/plan.js';
import { Refusal } from '../../errors.js';
import { signedDistances } from '../../geometry/tree/signed.js';
import { hypot } from '../../geometry/vec.js';
import type { Fdi, Jaw } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';
import { missingOn } from './direct.js';

/** A space between two neighbours that the plan closes or brings lower, or that stays dark under it. */
export interface ClosedGap {
  readonly right: Fdi;
  readonly left: Fdi;
  /** Least distance of the teeth as they are and as planned, mm; below 0 they press. */
  readonly nowMm: number;
  readonly plannedMm: number;
  /** Added to each at this contact, mm. */
  readonly share: { readonly right: number; readonly left: number };
  /** What width each planned tooth comes to, of its length, %. */
  readonly ratio: { readonly right?: number; readonly left?: number };
  /** From the planned contact's end at the gum to the papilla's tip, mm; below 0 it lies over it. Nothing without gum. */
  readonly openMm?: number;
  /** And to the bone, with what was sounded or is usual over the tip. */
  readonly boneMm?: number;
  readonly sounded: boolean;
  /** How often such a space fills, %. */
  readonly fills?: number;
  /** Which is built first and polished before the other. */
  readonly first: Fdi;
  readonly matrix: { readonly words: string; readonly why: string };
}

/** Nearer than this two teeth touch over an area, mm. House value. */
const TOUCHES_MM = 0.12;
/** So far around a contact gum is looked at, mm. House value. */
const PAPILLA_MM = 1.2;
/** A space under a contact that is open by more than this is seen as a dark triangle, mm. House value. */
const DARK_MM = 1.5;
/** A contact that is changed by less than this is none that composite closes, mm. House value. */
const CHANGES_MM = 0.08;

/**
 * The spaces that a plan closes, and those that stay dark beside it, from right to left in the arch's own frame.
 * @param sounding from the papilla's tip to the bone by contact, `right-left`, where somebody has sounded it, mm
 */
export function directGaps(engine: CaseEngine, jaw: Jaw, sounding: Readonly<Record<string, number>> = {}): ClosedGap[] {
  const { teeth } = engine.arch(jaw);
  const row = rowOf(jaw).filter((t) => teeth.has(t));
  const crowns = engine.crowns();
  const gum = meshToArch(jaw, engine.scan(jaw).rest).positions;
  return row.slice(0, -1).flatMap((right, i): ClosedGap[] => {
    const left = row[i + 1] as Fdi;
    const [p, q] = [crowns.get(right), crowns.get(left)];
    if (!p && !q) return [];
    const [a, b] = [toothOf(engine.arch(jaw), right).field, toothOf(engine.arch(jaw), left).field];
    const nowMm = contactBetween(a.mesh.positions, b).gapMm;
    const surface = p?.mesh.positions ?? a.mesh.positions;
    const field = q ? plannedField(q) : b;
    const met = contactBetween(surface, field);
    const grown = (tooth: Fdi, planned: boolean, side: 'left' | 'right') =>
      planned ? sideGrown(engine, tooth, side) : { mm: 0, deg: 0 };
    const [r, l] = [grown(right, p !== undefined, 'left'), grown(left, q !== undefined, 'right')];
    // Where the two touch over an area its end at the gum counts.
    const around = nearPlaces(surface, met.at);
    const apart = signedDistances(field, around);
    let contactZ = met.at[2];
    apart.forEach((d, k) => {
      if (d < TOUCHES_MM) contactZ = Math.max(contactZ, around[3 * k + 2] as number);
    });
    let tipZ = Infinity;
    for (let v = 0; v < gum.length; v += 3)
      if (hypot((gum[v] as number) - met.at[0], (gum[v + 1] as number) - met.at[1]) < PAPILLA_MM)
        tipZ = Math.min(tipZ, gum[v + 2] as number);
    const own = sounding[`${right}-${left}`];
    const openMm = Number.isFinite(tipZ) ? tipZ - contactZ : undefined;
    const changes = nowMm - met.gapMm >= CHANGES_MM || r.mm + l.mm >= CHANGES_MM;
    if (!changes && !(openMm !== undefined && openMm > DARK_MM)) return [];
    const boneMm = openMm === undefined ? undefined : openMm + (own ?? USUAL_SOUNDING_MM);
    return [
      {
        right,
        left,
        nowMm,
        plannedMm: met.gapMm,
        share: { right: r.mm, left: l.mm },
        ratio: { ...(p && { right: ratioOf(p) }), ...(q && { left: ratioOf(q) }) },
        ...(openMm !== undefined && { openMm }),
        ...(boneMm !== undefined && { boneMm, fills: papillaFills(boneMm) }),
        sounded: own !== undefined,
        first: r.mm >= l.mm ? right : left,
        matrix: matrixFor(Math.max(r.mm, l.mm), Math.max(r.deg, l.deg)),
      },
    ];
  });
}

const ratioOf = ({ crown }: PlannedTooth): number => (100 * crown.size.widthMm) / crown.size.lengthMm;

/** By how much a tooth becomes wider on one side, and how it leaves the gum there. */
function sideGrown(engine: CaseEngine, tooth: Fdi, side: 'left' | 'right'): { mm: number; deg: number } {
  try {
    const missing = missingOn(engine, tooth);
    return { mm: growth(missing).wider[side], deg: emergenceOf(missing, side === 'left' ? 1 : -1)?.deg ?? 0 };
  } catch (error) {
    // A tooth to which the plan adds nothing grows to no side.
    if (error instanceof Refusal && error.code === 'nothing-missing') return { mm: 0, deg: 0 };
    throw error;
  }
}

/** So far around a contact its area is looked for, mm. */
const AREA_MM = 5;

const nearPlaces = (positions: Float64Array, at: readonly [number, number, number]): Float64Array => {
  const out: number[] = [];
  for (let v = 0; v < positions.length; v += 3)
    if ([0, 1, 2].every((k) => Math.abs((positions[v + k] as number) - (at[k as 0] as number)) < AREA_MM))
      out.push(positions[v] as number, positions[v + 1] as number, positions[v + 2] as number);
  return Float64Array.from(out);
};
