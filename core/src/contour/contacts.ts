import { bounds } from '../geometry/mesh.js';
import { liesInside, rayCaster } from '../geometry/tree/ray.js';
import { type SignedField, signedDistances } from '../geometry/tree/signed.js';
import type { Vec3 } from '../geometry/vec.js';
import type { Fdi } from '../teeth/notation.js';
import { archSide, quadrantOf, rowOf } from './arch.js';
import type { ExistingArch } from './fit.js';
import { PLAN_LIMITS } from './parameters.js';
import { type ContourPlan, type PlannedTooth, plannedField, plannedTooth } from './plan.js';

/** How two neighbours meet; right and left as in the arch's own frame, where x grows to the left. */
export interface Contact {
  readonly right: Fdi;
  readonly left: Fdi;
  /** Least distance, mm; negative is how deep one passes into the other. */
  readonly gapMm: number;
  /** Where, in the arch's own frame. */
  readonly at: Vec3;
}

/** Passing into a neighbour by more than this is told: floss would not go through. House limit. */
export const TIGHT_MM = 0.1;

/** Least distance of one surface from its neighbour's field. Only what lies near the neighbour is measured. */
export function contactBetween(positions: Float64Array, neighbour: SignedField): { gapMm: number; at: Vec3 } {
  const b = bounds(neighbour.mesh);
  const near: number[] = [];
  for (let margin = 1; near.length === 0 && margin <= 16; margin *= 2) {
    for (let i = 0; i < positions.length; i += 3) {
      const inside = [0, 1, 2].every((k) => {
        const v = positions[i + k];
        return v > b.min[k as 0] - margin && v < b.max[k as 0] + margin;
      });
      if (inside) near.push(positions[i], positions[i + 1], positions[i + 2]);
    }
  }
  const points = Float64Array.from(near);
  const place = (i: number): Vec3 => [points[3 * i], points[3 * i + 1], points[3 * i + 2]];
  const cast = rayCaster(neighbour.tree);
  let gapMm = Infinity;
  let at: Vec3 = [0, 0, 0];
  const found = [...signedDistances(neighbour, points)].map((d, i) => ({ d, i })).sort((p, q) => p.d - q.d);
  for (const { d, i } of found) {
    // The sorted list has the deepest first; what is not inside after all lies as far outside.
    if (d >= gapMm) break;
    const sure = d >= 0 || liesInside(cast, place(i)) ? d : -d;
    if (sure < gapMm) {
      gapMm = sure;
      at = place(i);
    }
    if (d < 0 && sure === d) break;
  }
  return { gapMm, at };
}

/** How a tooth of the row meets the one on its left, planned where they are planned and as they are elsewhere. */
export function contactLeftOf(
  arch: ExistingArch,
  planned: ReadonlyMap<Fdi, PlannedTooth>,
  right: Fdi,
): Contact | undefined {
  const row = rowOf(arch.jaw).filter((t) => arch.teeth.has(t));
  const left = row[row.indexOf(right) + 1];
  if (left === undefined || !row.includes(right)) return undefined;
  const [p, q] = [planned.get(right), planned.get(left)];
  if (!p && !q) return undefined;
  const surface = p?.mesh.positions ?? (arch.teeth.get(right)?.field.mesh.positions as Float64Array);
  const field = q ? plannedField(q) : (arch.teeth.get(left)?.field as SignedField);
  return { right, left, ...contactBetween(surface, field) };
}

/** How the teeth of the row meet, from the patient's right to the left. */
export function contacts(arch: ExistingArch, planned: ReadonlyMap<Fdi, PlannedTooth>): Contact[] {
  return rowOf(arch.jaw).flatMap((t) => contactLeftOf(arch, planned, t) ?? []);
}

/**
 * The tooth that stands on the mesial side, over places where teeth are missing. Of two planned centrals the left one
 * meets the right one, which stands; a planned right one alone meets the left one, which stays.
 */
function mesialOf(arch: ExistingArch, plan: ContourPlan, tooth: Fdi): Fdi | undefined {
  const [right, left] = [quadrantOf(arch.jaw, 'right') + 1, quadrantOf(arch.jaw, 'left') + 1];
  if (tooth === left) return arch.teeth.has(right) ? right : undefined;
  if (tooth === right) return arch.teeth.has(left) && !plan[left] ? left : undefined;
  for (let t = tooth - 1; t % 10 > 0; t--) if (arch.teeth.has(t)) return t;
  return undefined;
}

const ROUNDS = 4;

/**
 * Slides the planned teeth along the arch, from the midline outward, until each meets its mesial neighbour by `tightMm`
 * (positive passes in). A planned tooth keeps its size and its other numbers.
 * @param which all of them, or those alone that are pressed into their neighbour by more: gaps that are wished stay
 * @returns the plan with new `distalMm`, and the contacts that could not be set within the limits
 */
export function setContacts(
  arch: ExistingArch,
  plan: ContourPlan,
  tightMm: number,
  which: 'all' | 'pressed' = 'all',
): { plan: ContourPlan; left: readonly [Fdi, Fdi][] } {
  const out: Record<number, ContourPlan[number]> = { ...plan };
  const left: [Fdi, Fdi][] = [];
  const limit = PLAN_LIMITS.distalMm;
  const surfaceOf = (t: Fdi) => (out[t] ? plannedTooth(arch, out, t) : undefined);
  for (const side of ['right', 'left'] as const) {
    for (let position = 1; position <= 5; position++) {
      const tooth = quadrantOf(arch.jaw, side) + position;
      const mesial = mesialOf(arch, out, tooth);
      if (!out[tooth] || mesial === undefined) continue;
      const other = surfaceOf(mesial);
      const field = other ? plannedField(other) : (arch.teeth.get(mesial)?.field as SignedField);
      let met = false;
      for (let round = 0; round < ROUNDS && !met; round++) {
        const own = out[tooth] as NonNullable<ContourPlan[number]>;
        const gap = contactBetween(plannedTooth(arch, out, tooth).mesh.positions, field).gapMm;
        met = Math.abs(gap + tightMm) <= 0.01 || (which === 'pressed' && round === 0 && gap >= -tightMm);
        const next = Math.round((own.distalMm ?? 0) * 1000 - (gap + tightMm) * 1000) / 1000;
        if (!met) out[tooth] = { ...own, distalMm: Math.min(limit.max, Math.max(limit.min, next)) };
      }
      if (
        which === 'all' &&
        !met &&
        Math.abs(contactBetween(plannedTooth(arch, out, tooth).mesh.positions, field).gapMm + tightMm) > 0.03
      )
        left.push(archSide(tooth) === 'right' ? [tooth, mesial] : [mesial, tooth]);
    }
  }
  return { plan: out, left };
}

/** More than this is not a matter of narrowing. House limit. */
const NARROWEST_SHARE = 0.85;
/** Halvings of what is between: to a thousandth of the width. */
const HALVINGS = 8;

/** What narrowing a row of one side has come to. */
export interface NarrowedSide {
  readonly side: 'right' | 'left';
  /** Width taken from the teeth of the row together, mm. */
  readonly takenMm: number;
}

/**
 * Narrows planned teeth that stand side by side, all by the same share, until the last of them no longer passes into the
 * tooth behind it, which stays. A row that has room is left alone: a gap would open.
 */
export function madeRoom(
  arch: ExistingArch,
  plan: ContourPlan,
  tightMm: number,
): { plan: ContourPlan; narrowed: readonly NarrowedSide[] } {
  let out: ContourPlan = plan;
  const narrowed: NarrowedSide[] = [];
  for (const side of ['right', 'left'] as const) {
    const q = quadrantOf(arch.jaw, side);
    const present = [1, 2, 3, 4, 5].map((position) => q + position).filter((t) => arch.teeth.has(t));
    let row: Fdi[] = [];
    for (const tooth of present) {
      if (plan[tooth]) {
        row.push(tooth);
        continue;
      }
      const next: ContourPlan = row.length > 0 ? narrowedRow(arch, out, row, tooth, tightMm) : out;
      const takenMm = row.reduce((n, t) => n + (out[t]?.widthMm ?? 0) - (next[t]?.widthMm ?? 0), 0);
      if (takenMm > 0) narrowed.push({ side, takenMm });
      out = next;
      row = [];
    }
  }
  return { plan: out, narrowed };
}

/** A row of planned teeth as wide as the tooth behind it lets it be. */
function narrowedRow(
  arch: ExistingArch,
  plan: ContourPlan,
  row: readonly Fdi[],
  behind: Fdi,
  tightMm: number,
): ContourPlan {
  const end = row.at(-1) as Fdi;
  const field = arch.teeth.get(behind)?.field as SignedField;
  const at = (share: number): ContourPlan => {
    const next: Record<number, ContourPlan[number]> = { ...plan };
    for (const t of row) {
      const own = plan[t] as NonNullable<ContourPlan[number]>;
      next[t] = { ...own, widthMm: Math.max(PLAN_LIMITS.widthMm.min, Math.round(own.widthMm * share * 1000) / 1000) };
    }
    return next;
  };
  const fits = (p: ContourPlan) => contactBetween(plannedTooth(arch, p, end).mesh.positions, field).gapMm >= -tightMm;
  if (fits(plan)) return plan;
  // The widest share that fits, between the narrowest that is thought of and all of the width.
  let [low, high] = [NARROWEST_SHARE, 1];
  for (let round = 0; round < HALVINGS; round++) {
    const middle = (low + high) / 2;
    if (fits(at(middle))) low = middle;
    else high = middle;
  }
  return at(low);
}
