import type { PlannedTooth } from '../contour/plan.js';
import { smoothstep } from '../geometry/curve.js';
import { hypot, type Vec3 } from '../geometry/vec.js';
import type { Design } from '../restoration/design.js';
import { neededAt, preparedEdge } from '../restoration/thickness.js';
import { isPremolar } from '../teeth/notation.js';
import { type Cusps, cuspsOf } from './cusps.js';
import { ANGLES, DIRECTIONS } from './target-grid.js';
import type { AxisPlace, TargetRays } from './target-rays.js';

/** The cap of an edge that stays begins so far above it, mm. */
const CAP_MM = 0.2;
/** A finish line stands at least so far below where a scan ends, mm. House value. */
const SCAN_END_MM = 0.1;
/** Where a design ends at the sides, mm behind the middle of the contact. Common practice, no source. */
const CONTACT_BACK_MM = { left: -0.5, 'half way': 0, broken: 0.5 } as const;

/** How a target ends towards the edge. Heights are mm over the planned edge. */
interface EdgeGround {
  /** Where the wall ends in each direction. */
  readonly from: readonly number[];
  /** Whether anything of the edge is cut, and to which height over a place across the axis. */
  readonly cut: boolean;
  readonly to: (x: number, y: number) => number;
  /** Where the planned edge lies there. */
  readonly plan: (x: number, y: number) => number;
  /** A premolar's cusps are followed; what lies between them is no edge. */
  readonly cusps?: Cusps;
  /** Where the same thickness would leave the edge without a plan, in each direction. */
  readonly bare: readonly number[];
}

/** What the target is drawn of. */
export interface Ground {
  readonly rays: TargetRays;
  readonly design: Design;
  /** The planned surface moved inward by what is needed. */
  readonly needed: (u: Vec3, z: number) => number | undefined;
  /** Covered all round, so that it goes on along the axis. */
  readonly around: boolean;
  readonly edge: EdgeGround;
  readonly finish: readonly number[];
  readonly gum: readonly number[];
  readonly top: readonly number[];
  /** Directions in which nothing of the tooth would be left at some height. */
  readonly thin: Set<number>;
}

/** Where the axis goes through the tooth: midway, and near the edge, where a tooth is thinnest. House values. */
const AXIS = {
  around: { height: 0.3, back: 0.5 },
  face: { height: 0.25, back: 0.5 },
} as const;
/** What is left of a tooth behind its cut face lies behind the axis: so much of it at least, mm. House value. */
const BEHIND_MM = 0.25;
/** So far over the edge a design is asked where it is thinnest, mm. House value. */
const LOW_MM = 0.5;

/**
 * A thin tooth is cut beyond its middle near the edge: there the axis stands behind what is cut. What goes around the
 * sides or over the edge is told from the middle.
 */
const faceAxis = ({ needs, edge, contact, wrap }: Design): AxisPlace =>
  wrap && edge.kind === 'thickness'
    ? { ...AXIS.face, between: { frontMm: needs.incisal, backMm: wrap.deepMm, z: edge.mm + LOW_MM } }
    : contact === 'broken'
      ? AXIS.face
      : {
          ...AXIS.face,
          behind: { mm: needs.incisal + BEHIND_MM, z: edge.kind === 'thickness' ? edge.mm : LOW_MM },
        };

/** Where the axis of a design goes through the tooth. */
export const axisOf = (design: Design, around: boolean): AxisPlace => (around ? AXIS.around : faceAxis(design));

export function groundOf(rays: TargetRays, planned: PlannedTooth, design: Design, around: boolean): Ground {
  const top = rays.ends(DIRECTIONS);
  const gum = rays.gum(DIRECTIONS);
  const below = Math.min(0, design.finish.belowGumMm);
  const ends = top.map((z, k) => Math.min(z - SCAN_END_MM, (gum[k] as number) + below));
  const finish = around ? ends : notBehindPapillae(ends);
  const needed = rays.sheet((p) => neededOn(design, p, rays));
  const covers = (u: Vec3, r: number) => around || besideContact(design, rays, u, r) > 0;
  const edge = isPremolar(planned.tooth)
    ? cuspGround(rays, planned, design, finish, (u, z, r) => (covers(u, r) ? Math.min(r, needed(u, z) ?? r) : r))
    : flatGround(rays, design, (u, z) => {
        const r = rays.side(u, z)?.r ?? 0;
        return covers(u, r) ? Math.min(r, needed(u, z) ?? r) : r;
      });
  return { rays, design, needed, around, edge, finish, gum, top, thin: new Set() };
}

/** An edge is cut flat, square to the axis or rising behind its facial corner. */
function flatGround(rays: TargetRays, design: Design, wallAt: (u: Vec3, z: number) => number): EdgeGround {
  const own = rays.edge;
  // The edge is told from the planned one as it was brushed.
  const to = rays.planEdge + preparedEdge(design, own - rays.planEdge);
  const cut = to > own + 0.02;
  const bare = design.edge.kind === 'thickness' ? own + design.edge.mm : -Infinity;
  const deg = design.edge.kind === 'thickness' ? (design.edge.slopeDeg ?? 0) : 0;
  const rise = cut && deg > 0 ? Math.tan((deg * Math.PI) / 180) : 0;
  const corner = rise > 0 ? -wallAt([0, -1, 0], to) : 0;
  const heightAt = (y: number) => to + rise * Math.max(0, y - corner);
  return {
    from: DIRECTIONS.map((u) => (cut ? heightAt(rise > 0 ? wallAt(u, to) * u[1] : 0) : own + CAP_MM)),
    cut,
    to: (_, y) => (cut ? heightAt(rise > 0 ? y : 0) : -Infinity),
    plan: () => rays.planEdge,
    bare: DIRECTIONS.map(() => bare),
  };
}

/** The wall of a premolar is followed towards its cusps in such steps, mm. */
const WALL_STEP_MM = 0.1;

/** Cusps are followed: each wall ends where it meets the planned biting surface moved inward, or the cusp that stays. */
function cuspGround(
  rays: TargetRays,
  planned: PlannedTooth,
  design: Design,
  finish: readonly number[],
  wallAt: (u: Vec3, z: number, r: number) => number,
): EdgeGround {
  const around = (design.covers as readonly string[]).includes('palatal');
  const mm = thicknessOf(design);
  const cusps = cuspsOf(planned, rays.frame, mm, !around);
  const left = (x: number, y: number) => (mm > 0 ? (cusps.left(x, y) ?? -Infinity) : -Infinity);
  const ridge = DIRECTIONS.map((u) => rays.ridge(u));
  const from = DIRECTIONS.map((u, k) => {
    const stays = (ridge[k] as number) + CAP_MM;
    let last: number | undefined;
    for (let z = (finish[k] as number) - 0.5; z > stays; z -= WALL_STEP_MM) {
      const r = rays.side(u, z)?.r;
      if (r === undefined) break;
      const wall = wallAt(u, z, r);
      if (left(wall * u[0], wall * u[1]) > z) return last ?? z;
      last = z;
    }
    return stays;
  });
  return {
    from,
    cut: mm > 0,
    to: left,
    plan: (x, y) => cusps.plan(x, y) ?? -Infinity,
    cusps,
    bare: ridge.map((z) => z + mm),
  };
}

/** So many directions behind the sides the back begins, beyond all that may be covered. */
const BACK_ANGLES = 8;

/**
 * A line that is put on from the front does not go up again behind the papillae; at the back, where nothing is covered,
 * the rows go over from one side's height to the other's without a step.
 */
function notBehindPapillae(finish: readonly number[]): number[] {
  const out = [...finish];
  const front = ANGLES / 4;
  for (const step of [1, -1])
    for (let n = 1; n < ANGLES / 2; n++) {
      const [k, before] = [front + step * n, front + step * (n - 1)].map((i) => (i + ANGLES) % ANGLES) as [
        number,
        number,
      ];
      out[k] = Math.min(out[k] as number, out[before] as number);
    }
  const [from, to] = [ANGLES / 2 + BACK_ANGLES, ANGLES - 1 - BACK_ANGLES];
  const [right, left] = [out[from] as number, out[to] as number];
  for (let k = from; k <= to; k++) out[k] = right + ((left - right) * (k - from)) / (to - from);
  return out;
}

/** The thickness that a restoration needs at a place of the planned surface, mm: from the face over the sides behind. */
export function neededOn(design: Design, p: Vec3, rays: TargetRays): number {
  const mm = neededBeside(design, p, rays.zenith);
  const { belowBulgeMm } = design;
  if (belowBulgeMm === undefined || mm <= belowBulgeMm) return mm;
  const r = hypot(p[0], p[1]);
  const part = smoothstep(GUM_QUARTER.from, GUM_QUARTER.to, p[2] / rays.zenith);
  return part === 0 || !rays.bulges([p[0] / r, p[1] / r, 0]) ? mm : mm + part * (belowBulgeMm - mm);
}

/** Where the quarter at the gum begins, as shares of the crown's height: less is needed from the one to the other. */
const GUM_QUARTER = { from: 0.7, to: 0.78 } as const;

function neededBeside(design: Design, [x, y, z]: Vec3, zenith: number): number {
  const facial = neededAt(design, z / zenith);
  const { wrap } = design;
  if (wrap && y > 0) return facial + (wrap.deepMm - facial) * smoothstep(0.2, 0.6, y / hypot(x, y));
  if (!design.around) return facial;
  const out = -y / hypot(x, y);
  const { proximalMm, palatalMm } = design.around;
  return proximalMm + ((out >= 0 ? facial : palatalMm) - proximalMm) * smoothstep(0.2, 0.6, Math.abs(out));
}

/** mm from the end of the covered part at the sides, along the surface; without end where all round is covered. */
export const aside = (g: Ground, u: Vec3, r: number): number =>
  g.around ? Infinity : besideContact(g.design, g.rays, u, r);

const besideContact = (design: Design, rays: TargetRays, u: Vec3, r: number): number =>
  -u[1] * r + (design.edge.kind === 'thickness' ? 0 : rays.middleMm) + CONTACT_BACK_MM[design.contact ?? 'half way'];

/** How high a design that goes over the edge reaches behind it, mm over the planned edge. */
export const wrapTopOf = ({ design: { wrap }, edge }: Ground): number | undefined =>
  wrap && edge.cut && !edge.cusps ? (edge.from[0] as number) + wrap.downMm : undefined;
export const thicknessOf = ({ edge }: Design): number => (edge.kind === 'thickness' ? edge.mm : 0);
