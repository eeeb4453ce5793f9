import { type ExistingArch, type ExistingTooth, toothOf } from '../contour/fit.js';
import { type ContourPlan, crownZenith, type PlannedTooth, plannedTooth } from '../contour/plan.js';
import { type Frame, toLocal, toParent } from '../geometry/frame.js';
import { type Mesh, volume } from '../geometry/mesh.js';
import type { SignedField } from '../geometry/tree/signed.js';
import type { Vec3 } from '../geometry/vec.js';
import type { Design } from '../restoration/design.js';
import { neededAt, preparedEdge } from '../restoration/thickness.js';
import type { Fdi } from '../teeth/notation.js';
import { endedDepth, slopeOf } from './finish-profile.js';
import { NOTHING_MM } from './removal.js';
import { type AxisPlace, TargetRays, THINNEST_MM } from './target-rays.js';

/** Of a vertex: what of the preparation it lies on. */
export const TARGET_PLACES = ['kept', 'facial', 'proximal', 'palatal', 'edge'] as const;
export type TargetPlace = (typeof TARGET_PLACES)[number];

/**
 * The target preparation of a tooth, and the tooth as it is on the same grid: rows from the neck to the edge, each once
 * around the axis, then the edge's cap. Everything in the arch's own frame, mm.
 */
export interface TargetSurface {
  readonly tooth: Fdi;
  /** z along the planned crown's axis towards the root, 0 at its edge; x to the patient's left, y backward. */
  readonly frame: Frame;
  /** Closed. */
  readonly mesh: Mesh;
  /** The tooth as it is, vertex for vertex. */
  readonly before: Mesh;
  /** The tooth brought into line with the plan and no further, vertex for vertex. */
  readonly aligned: Mesh;
  /** What goes at each vertex, across the surface, and the part of it that only brings the tooth into line. */
  readonly removedMm: Float64Array;
  readonly alignMm: Float64Array;
  /** Height of each vertex of the tooth as a share of the planned crown's, 0 at its edge, 1 at its zenith. */
  readonly share: Float64Array;
  /** Height of each vertex as a share of the tooth's own crown, 0 at its edge, 1 at its zenith; beyond 1 it is root. */
  readonly toothShare: Float64Array;
  /** Index into TARGET_PLACES: what is cut where; `kept` where nothing goes. */
  readonly place: Uint8Array;
  /** The same of all that the restoration covers, whether something goes there or not. */
  readonly covered: Uint8Array;
  /** Where the preparation ends on the tooth, in order; empty where nothing ends. */
  readonly finishLine: readonly Vec3[];
  readonly removedMm3: number;
  /** The part of it that only brings the tooth into line with the plan. */
  readonly alignMm3: number;
  /** What the same thickness would take were it cut from the tooth as it is, without a plan. */
  readonly bareMm3: number;
  /** Of the tooth as it is, as far as it was scanned. */
  readonly crownMm3: number;
  /** What is to be known; `{11}` stands for a tooth number. */
  readonly notes: readonly string[];
}

const ANGLES = 128;
/** Rows below the finish line, mm from it: close where the profile turns. The last ones are spread to the edge. */
const NEAR_FINISH = [0, 0.015, 0.05, 0.1, 0.17, 0.25, 0.35, 0.5, 0.7, 0.95] as const;
const WALL_ROWS = 30;
const NECK_ROWS = 4;
const ROWS = NECK_ROWS + NEAR_FINISH.length + WALL_ROWS;
const CAP_ROWS = 10;
/** The grid of every target: rows from the neck to the edge, each once around, then the cap's rows to its tip. */
export const GRID = { angles: ANGLES, neckRows: NECK_ROWS, rows: ROWS, capRows: CAP_ROWS } as const;
/** Parts of the way from the axis: the first row stands close inside the walls, so that these go down to the edge. */
const CAP_PARTS = Array.from({ length: CAP_ROWS - 1 }, (_, c) => (c === 0 ? 0.985 : 1 - (c + 1) / CAP_ROWS));
const TIP = ROWS * ANGLES + (CAP_ROWS - 1) * ANGLES;
const NECK = TIP + 1;
const COUNT = NECK + 1;

/** The cap of an edge that stays begins so far above it, mm. */
const CAP_MM = 0.2;
/** Radius to which a cut edge is rounded where a design says none, mm: what mills can cut. Common practice, no source. */
const CORNER_MM = 0.2;
/** A finish line stands at least so far below where a scan ends, mm. House value. */
const SCAN_END_MM = 0.1;
/** A finish line that lies further beyond the scan is told, mm: less lies within the scan's own error at the gum. */
const BEYOND_MM = 0.3;
/** Where a design ends at the sides, mm behind the middle of the contact. Common practice, no source. */
const CONTACT_BACK_MM = { left: -0.5, 'half way': 0, broken: 0.5 } as const;

/** Directions across the axis, from the left over the face to the right and back behind. */
const DIRECTIONS = Array.from({ length: ANGLES }, (_, k): Vec3 => {
  const a = (2 * Math.PI * (k + 0.5)) / ANGLES;
  return [Math.cos(a), -Math.sin(a), 0];
});

/** The target preparation of one tooth under a contour plan. */
export const targetSurface = (arch: ExistingArch, plan: ContourPlan, tooth: Fdi, design: Design): TargetSurface =>
  targetOf(toothOf(arch, tooth), plannedTooth(arch, plan, tooth), design);

/** The same of a tooth that stands in a scan, under its planned crown. */
export const targetOf = (there: ExistingTooth, planned: PlannedTooth, design: Design, raysOf?: RaysOf): TargetSurface =>
  targetBetween(there.field, planned, design, spanOf(there, planned), raysOf);

/** The rays of a tooth and its planned crown to an axis: made, or remembered from another design. */
export type RaysOf = (axis: AxisPlace, make: () => TargetRays) => TargetRays;

/** What the target is drawn of. */
interface Ground {
  readonly rays: TargetRays;
  readonly design: Design;
  /** The planned surface moved inward by what is needed. */
  readonly needed: (u: Vec3, z: number) => number | undefined;
  /** Covered all round, so that it goes on along the axis. */
  readonly around: boolean;
  /** Where walls end towards the edge, whether the edge is cut, and to which height; and without a plan. */
  readonly edge: {
    readonly from: number;
    readonly cut: boolean;
    readonly to: number;
    readonly bare: number;
    /** The planned one. */
    readonly plan: number;
  };
  readonly finish: readonly number[];
  readonly top: readonly number[];
  /** Directions in which nothing of the tooth would be left at some height. */
  readonly thin: Set<number>;
}

/** Vertices as they are made, in the frame of the rays. */
interface Draft {
  readonly now: Float64Array;
  readonly left: Float64Array;
  readonly aligned: Float64Array;
  readonly removedMm: Float64Array;
  readonly alignMm: Float64Array;
  readonly share: Float64Array;
  readonly toothShare: Float64Array;
  readonly place: Uint8Array;
  readonly covered: Uint8Array;
  /** The tooth as the same thickness would leave it without a plan. */
  readonly bare: Float64Array;
}

/** From where to where a tooth's own crown reaches along the planned one's axis, over the planned edge, mm. */
export interface CrownSpan {
  readonly edge: number;
  readonly zenith: number;
}

/** Where the crown of a tooth in a scan lies along its planned crown's axis. */
export function spanOf(there: ExistingTooth, planned: PlannedTooth): CrownSpan {
  const heightOf = (p: Vec3) => toLocal(planned.frame, toParent(there.frame, p))[2];
  return { edge: heightOf([0, 0, 0]), zenith: heightOf([0, 0, there.lengthMm]) };
}

/**
 * The target between any closed tooth and a planned crown: at each place the deeper one of the tooth as it is and of the
 * planned surface moved inward by the thickness that is needed there, ended at the finish line with the profile of the
 * design. Seen from the axis each row is a single line around it, so that from the front nothing hangs over; where the
 * restoration covers all round and goes on along the axis, walls lean inward by the design's taper.
 * @param span where the tooth's own crown lies; as the planned one where left out
 */
export function targetBetween(
  existing: SignedField,
  planned: PlannedTooth,
  design: Design,
  span: CrownSpan = { edge: 0, zenith: crownZenith(planned.crown)[2] },
  raysOf: RaysOf = (_, make) => make(),
): TargetSurface {
  const around = (design.covers as readonly string[]).includes('palatal');
  const axis = around ? AXIS.around : faceAxis(design);
  const rays = raysOf(axis, () => new TargetRays(existing, planned, axis));
  const ground = groundOf(rays, design, around);
  const draft: Draft = {
    now: new Float64Array(3 * COUNT),
    left: new Float64Array(3 * COUNT),
    aligned: new Float64Array(3 * COUNT),
    removedMm: new Float64Array(COUNT),
    alignMm: new Float64Array(COUNT),
    share: new Float64Array(COUNT),
    toothShare: new Float64Array(COUNT),
    place: new Uint8Array(COUNT),
    covered: new Uint8Array(COUNT),
    bare: new Float64Array(3 * COUNT),
  };
  for (let k = 0; k < ANGLES; k++) column(ground, draft, k);
  if (!ground.around && design.finish.form !== 'none') clearWayOut(ground, draft);
  acrossTheSurface(draft);
  for (let c = 1; c < CAP_ROWS; c++)
    for (let k = 0; k < ANGLES; k++)
      capPlace(ground, draft, k, CAP_PARTS[c - 1] as number, (ROWS + c - 1) * ANGLES + k);
  capPlace(ground, draft, 0, 0, TIP);
  closeNeck(draft);
  const { now, left, aligned, bare, ...values } = draft;
  for (let i = 0; i < COUNT; i++) {
    const z = now[3 * i + 2] as number;
    values.share[i] = z / rays.zenith;
    values.toothShare[i] = (z - span.edge) / (span.zenith - span.edge);
  }
  const inArch = (own: Float64Array): Mesh => ({ positions: placed(own, rays.frame), triangles: TRIANGLES });
  const [before, mesh, inLine] = [inArch(now), inArch(left), inArch(aligned)];
  const crownMm3 = volume(before);
  return {
    tooth: planned.tooth,
    frame: rays.frame,
    mesh,
    before,
    aligned: inLine,
    ...values,
    finishLine: design.finish.form === 'none' ? [] : lineOf(ground, before),
    removedMm3: Math.max(0, crownMm3 - volume(mesh)),
    alignMm3: Math.max(0, crownMm3 - volume(inLine)),
    bareMm3: Math.max(0, crownMm3 - volume({ positions: bare, triangles: TRIANGLES })),
    crownMm3,
    notes: notesOn(ground, planned.tooth),
  };
}

/** Where the axis goes through the tooth: midway, and near the edge, where a tooth is thinnest. House values. */
const AXIS = { around: { height: 0.3, back: 0.5 }, face: { height: 0.25, back: 0.5 } } as const;

/** What is left of a tooth behind its cut face lies behind the axis: so much of it at least, mm. House value. */
const BEHIND_MM = 0.25;
/** So far over the planned edge a design is asked that says no thickness of the edge, mm. House value. */
const LOW_MM = 0.5;

/**
 * A thin tooth is cut beyond its middle near the edge: there the axis stands behind what is cut. What goes around the
 * sides is told from the middle.
 */
const faceAxis = ({ needs, edge, contact }: Design): AxisPlace =>
  contact === 'broken'
    ? AXIS.face
    : {
        ...AXIS.face,
        behind: { mm: needs.incisal + BEHIND_MM, z: edge.kind === 'thickness' ? edge.mm : LOW_MM },
      };

function groundOf(rays: TargetRays, design: Design, around: boolean): Ground {
  const own = rays.edge;
  // The edge is told from the planned one as it was brushed.
  const to = rays.planEdge + preparedEdge(design, own - rays.planEdge);
  const cut = to > own + 0.02;
  const bare = design.edge.kind === 'thickness' ? own + design.edge.mm : -Infinity;
  const edge = { from: cut ? to : own + CAP_MM, cut, to, bare, plan: rays.planEdge };
  const top = rays.ends(DIRECTIONS);
  const gum = rays.gum(DIRECTIONS);
  const below = Math.min(0, design.finish.belowGumMm);
  const finish = top.map((z, k) => Math.min(z - SCAN_END_MM, (gum[k] as number) + below));
  return {
    rays,
    design,
    needed: rays.sheet((p) => neededOn(design, p, rays.zenith)),
    around,
    edge,
    finish: around ? finish : notBehindPapillae(finish),
    top,
    thin: new Set(),
  };
}

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
function neededOn(design: Design, [x, y, z]: Vec3, zenith: number): number {
  const facial = neededAt(design, z / zenith);
  if (!design.around) return facial;
  const out = -y / Math.hypot(x, y);
  const { proximalMm, palatalMm } = design.around;
  return proximalMm + ((out >= 0 ? facial : palatalMm) - proximalMm) * smooth(Math.abs(out), 0.2, 0.6);
}

/** mm below the finish line of a row; below 0 above it. */
function belowFinish(row: number, allMm: number): number {
  if (row < NECK_ROWS) return row - NECK_ROWS;
  const squeeze = Math.min(1, allMm / 2);
  const near = NEAR_FINISH[row - NECK_ROWS];
  if (near !== undefined) return near * squeeze;
  const from = (NEAR_FINISH.at(-1) as number) * squeeze;
  return from + ((allMm - from) * (row - NECK_ROWS - NEAR_FINISH.length + 1)) / WALL_ROWS;
}

/** One line of vertices from the neck to the edge. */
function column(g: Ground, d: Draft, k: number): void {
  const { rays, edge, design } = g;
  const u = DIRECTIONS[k] as Vec3;
  const [finish, top] = [g.finish[k] as number, g.top[k] as number];
  let above: { r: number; z: number } | undefined;
  let last = 1;
  for (let row = 0; row < ROWS; row++) {
    const s = belowFinish(row, Math.max(0.5, finish - edge.from));
    const z = s < 0 ? finish + ((top - finish) * -s) / NECK_ROWS : finish - s;
    const met = rays.sideAt(row * ANGLES + k, u, z) ?? { r: last, facing: 1, axial: 0 };
    last = met.r;
    const deep = s > 0 ? depthAt(g, u, z, met, s) : 0;
    let r = met.r - deep;
    if (deep > 0 && edge.cut) r -= rounded(z - edge.from, cornerOf(design));
    if (g.around && above) r = Math.min(r, above.r - leanOf(design) * (above.z - z));
    if (deep > 0 && r < THINNEST_MM) g.thin.add(k);
    r = Math.min(met.r, Math.max(THINNEST_MM, r));
    if (row > NECK_ROWS) above = { r, z };
    const i = row * ANGLES + k;
    d.now.set([met.r * u[0], met.r * u[1], z], 3 * i);
    d.left.set([r * u[0], r * u[1], z], 3 * i);
    const bare = s > 0 ? bareAt(g, u, z, met, s) : met.r;
    d.bare.set([bare * u[0], bare * u[1], Math.max(z, edge.bare)], 3 * i);
    // What a rounded corner takes beside the edge is no zone's own depth.
    const corner = edge.cut && z - edge.from < cornerOf(design);
    if (s > 0 && !corner && aside(g, u, met.r) > 0) d.covered[i] = placeOf(u);
    d.removedMm[i] = (met.r - r) * met.facing;
    // Into line it is brought as far as the plan reaches, and nowhere beyond what goes in all.
    const inLine = r < met.r ? Math.min(met.r, Math.max(r, rays.planAt(i, u, z) ?? met.r)) : met.r;
    d.aligned.set([inLine * u[0], inLine * u[1], z], 3 * i);
    if (r < met.r) {
      d.alignMm[i] = (met.r - inLine) * met.facing;
      d.place[i] = placeOf(u);
    }
  }
}

/** Facial, proximal or palatal, by where a direction across the axis looks. */
const placeOf = (u: Vec3): number => (-u[1] > SIDEWAYS ? 1 : -u[1] > -SIDEWAYS ? 2 : 3);

/** How far from the axis the same thickness would leave the tooth, were it cut from it as it is. */
function bareAt(g: Ground, u: Vec3, z: number, met: { r: number; facing: number }, below: number): number {
  const side = aside(g, u, met.r);
  if (side <= 0) return met.r;
  const need = neededOn(g.design, [met.r * u[0], met.r * u[1], z], g.rays.zenith);
  const full = need / Math.max(LEAST_FACING, met.facing);
  if (full === 0) return met.r;
  return Math.max(THINNEST_MM, met.r - endedDepth(g.design.finish.form, full, { below, side, slope: 0 }));
}

/** A surface that is met more at a slant is taken for one at this, or a thickness across it would be endless. */
const LEAST_FACING = 0.3;

/** A direction that looks forward less than this is to the side: the sine of 20°. House value. */
const SIDEWAYS = 0.35;
const cornerOf = (design: Design): number => design.cornerMm ?? CORNER_MM;
const leanOf = (design: Design): number => Math.tan(((design.taperDeg ?? 0) * Math.PI) / 180);

/** Levels on which what lies behind is kept, mm apart. */
const LEVEL_MM = 0.1;

/**
 * What is put on from the front must not hang over at the sides: every place of the face stands a little less far to the
 * side than what is cut behind it at its level. It is cut as far as that takes.
 */
function clearWayOut(g: Ground, d: Draft): void {
  const levels = Math.ceil((g.rays.zenith + 2) / LEVEL_MM);
  for (const toFront of [1, -1]) {
    const first = toFront === 1 ? 0 : ANGLES / 2 - 1;
    // How far to the side a place may stand, told for the axis' own depth: + lean for each millimetre in front of it.
    const limit = new Float64Array(levels).fill(Infinity);
    for (let n = -SIDE_ANGLES; n < ANGLES / 4; n++) {
      const k = (first + toFront * n + ANGLES) % ANGLES;
      const [ux, uy] = DIRECTIONS[k] as Vec3;
      const across = Math.max(1e-9, Math.abs(ux) - SIDE_LEAN * uy);
      let above: { z: number; x: number } | undefined;
      for (let row = NECK_ROWS + 1; row < ROWS; row++) {
        const i = row * ANGLES + k;
        const r = Math.hypot(d.left[3 * i] as number, d.left[3 * i + 1] as number);
        if (aside(g, [ux, uy, 0], r) <= 0) continue;
        const z = d.left[3 * i + 2] as number;
        const level = z / LEVEL_MM;
        const most = Math.min(limit[Math.floor(level)] as number, limit[Math.ceil(level)] as number) / across;
        const next = Math.max(THINNEST_MM, Math.min(r, most));
        if (next < r) lowered(d, i, next, k);
        // Where nothing is cut nothing lies behind that would have to come out.
        const x = (d.removedMm[i] as number) > NOTHING_MM ? next * across : Infinity;
        for (let at = Math.ceil(level - 1e-9); above && at * LEVEL_MM < above.z; at++) {
          const t = (at * LEVEL_MM - z) / (above.z - z);
          limit[at] = Math.min(limit[at] as number, t === 0 ? x : x + t * (above.x - x));
        }
        above = { z, x };
      }
    }
  }
}

/** Cuts a place of the wall down to a distance from the axis, mm. */
function lowered(d: Draft, i: number, to: number, k: number): void {
  const [ux, uy] = DIRECTIONS[k] as Vec3;
  const from = Math.hypot(d.left[3 * i] as number, d.left[3 * i + 1] as number);
  const whole = Math.hypot(d.now[3 * i] as number, d.now[3 * i + 1] as number);
  const slant = whole - from > 1e-9 ? (d.removedMm[i] as number) / (whole - from) : 1;
  d.removedMm[i] = (d.removedMm[i] as number) + (from - to) * slant;
  d.left.set([to * ux, to * uy], 3 * i);
  if (d.place[i] === 0) d.place[i] = -uy > SIDEWAYS ? 1 : 2;
}

/** So many places to each side and up and down the target is looked for. */
const NEAR = { angles: 9, rows: 5 } as const;

/**
 * Tells what goes across the surface and not along the ray, which meets it at a slant about a line angle: from each
 * place of the tooth to the nearest of the target.
 */
function acrossTheSurface({ now, left, removedMm, alignMm }: Draft): void {
  for (let row = 0; row < ROWS; row++)
    for (let k = 0; k < ANGLES; k++) {
      const i = row * ANGLES + k;
      const along = removedMm[i] as number;
      if (along <= NOTHING_MM) continue;
      const [x, y, z] = [now[3 * i] as number, now[3 * i + 1] as number, now[3 * i + 2] as number];
      let least = along ** 2;
      for (let r = Math.max(0, row - NEAR.rows); r <= Math.min(ROWS - 1, row + NEAR.rows); r++)
        for (let a = k - NEAR.angles; a <= k + NEAR.angles; a++) {
          const j = 3 * (r * ANGLES + ((a + ANGLES) % ANGLES));
          const away =
            (x - (left[j] as number)) ** 2 + (y - (left[j + 1] as number)) ** 2 + (z - (left[j + 2] as number)) ** 2;
          if (away < least) least = away;
        }
      const across = Math.sqrt(least);
      removedMm[i] = across;
      alignMm[i] = ((alignMm[i] as number) * across) / along;
    }
}

/** So many directions behind the sides the back begins, beyond all that may be covered. */
const BACK_ANGLES = 8;
/** Lean of the sides of a veneer towards the front: the tangent of 3°. House value. */
const SIDE_LEAN = Math.tan((3 * Math.PI) / 180);
/** So many directions behind the sides may be covered still: contacts that are broken. */
const SIDE_ANGLES = 5;

/** mm from the end of the covered part at the sides, along the surface; without end where all round is covered. */
const aside = (g: Ground, u: Vec3, r: number): number =>
  g.around ? Infinity : -u[1] * r + CONTACT_BACK_MM[g.design.contact ?? 'half way'];

/** What goes at a place along the ray, ended at the finish line with the design's profile. */
function depthAt(g: Ground, u: Vec3, z: number, met: { r: number; axial: number }, below: number): number {
  const { r, axial } = met;
  const side = aside(g, u, r);
  if (side <= 0) return 0;
  const full = Math.max(0, r - (g.needed(u, z) ?? r));
  return endedDepth(g.design.finish.form, full, { below, side, slope: slopeOf(axial) });
}

/** A place of the edge's cap: flat where it is cut, as it is where it stays. @param part of the way from the axis */
function capPlace(g: Ground, d: Draft, k: number, part: number, i: number): void {
  const { rays, edge } = g;
  const rim = 3 * ((ROWS - 1) * ANGLES + k);
  const on = (own: Float64Array) => [part * (own[rim] as number), part * (own[rim + 1] as number)] as const;
  const under = (x: number, y: number) => Math.min(rays.lowest(x, y) ?? edge.from, edge.from);
  const [now, stays] = [on(d.now), on(d.left)];
  const own = under(...stays);
  const height = edge.cut ? edge.to : own;
  d.now.set([...now, under(...now)], 3 * i);
  d.left.set([...stays, height], 3 * i);
  // Beside an edge that stays the face goes on for a little: what goes there runs out towards the middle.
  d.removedMm[i] = edge.cut ? Math.max(0, height - own) : part * (d.removedMm[rim / 3] as number);
  const inLine = edge.cut ? Math.min(height, Math.max(own, edge.plan)) : own;
  d.aligned.set([...on(d.aligned), inLine], 3 * i);
  d.alignMm[i] = edge.cut ? Math.max(0, inLine - own) : part * (d.alignMm[rim / 3] as number);
  d.place[i] = height > own ? 4 : 0;
  if (edge.cut || g.design.edge.kind === 'thickness') d.covered[i] = 4;
  d.bare.set([...on(d.bare), Math.max(own, edge.bare)], 3 * i);
}

function closeNeck({ now, left, aligned, bare }: Draft): void {
  let level = 0;
  for (let k = 0; k < ANGLES; k++) level += (now[3 * k + 2] as number) / ANGLES;
  for (const own of [now, left, aligned, bare]) own.set([0, 0, level], 3 * NECK);
}

function placed(own: Float64Array, frame: Frame): Float64Array {
  const out = new Float64Array(own.length);
  for (let i = 0; i < own.length; i += 3) out.set(toParent(frame, own.subarray(i, i + 3) as unknown as Vec3), i);
  return out;
}

/** The finish line as far as something is covered. */
const lineOf = (g: Ground, before: Mesh): Vec3[] =>
  DIRECTIONS.flatMap((u, k) => {
    const v = 3 * (NECK_ROWS * ANGLES + k);
    const p = before.positions.subarray(v, v + 3);
    return aside(g, u, 4) > 0 ? [[p[0], p[1], p[2]] as Vec3] : [];
  });

function notesOn({ around, design, rays, top, thin }: Ground, tooth: Fdi): string[] {
  const beyond = rays.zenith - Math.max(...top) + Math.max(0, design.finish.belowGumMm);
  return [
    ...(design.finish.form !== 'none' && beyond > BEYOND_MM
      ? [
          `{${tooth}}: the finish line is wished ${beyond.toFixed(1)} mm beyond where the scan ends at the gum; it is drawn there. Cord first, then place it.`,
        ]
      : []),
    ...(around && thin.size > 0
      ? [
          `{${tooth}}: cut as the design asks, nothing of the tooth is left at one place towards the edge. Make it thinner or longer, or build the tooth up.`,
        ]
      : []),
  ];
}

/** What a rounded corner takes of a wall at a distance below it, mm. */
const rounded = (from: number, radius: number): number =>
  from >= radius ? 0 : radius - Math.sqrt(radius ** 2 - (radius - Math.max(0, from)) ** 2);

function smooth(v: number, from: number, to: number): number {
  const t = Math.min(1, Math.max(0, (v - from) / (to - from)));
  return t * t * (3 - 2 * t);
}

/** Rows once around, a cap of rows to one tip, and the neck closed to one middle; the same for every tooth. */
const TRIANGLES = ((): Uint32Array => {
  const out: number[] = [];
  const next = (k: number) => (k + 1) % ANGLES;
  for (let row = 0; row + 1 < ROWS + CAP_ROWS - 1; row++)
    for (let k = 0; k < ANGLES; k++) {
      const [a, b] = [row * ANGLES, (row + 1) * ANGLES];
      out.push(a + k, b + next(k), b + k, a + k, a + next(k), b + next(k));
    }
  const inmost = (ROWS + CAP_ROWS - 2) * ANGLES;
  for (let k = 0; k < ANGLES; k++) out.push(inmost + k, inmost + next(k), TIP, k, NECK, next(k));
  return Uint32Array.from(out);
})();
