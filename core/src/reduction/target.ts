import { archSide } from '../contour/arch.js';
import { type ExistingArch, type ExistingTooth, toothOf } from '../contour/fit.js';
import { type ContourPlan, crownZenith, type PlannedTooth, plannedTooth } from '../contour/plan.js';
import { type Frame, toLocal, toParent } from '../geometry/frame.js';
import { type Mesh, volume } from '../geometry/mesh.js';
import type { SignedField } from '../geometry/tree/signed.js';
import { hypot, type Vec3 } from '../geometry/vec.js';
import type { Design } from '../restoration/design.js';
import type { Fdi } from '../teeth/notation.js';
import { endedAround, endedDepth, slopeOf } from './finish-profile.js';
import { NOTHING_MM } from './removal.js';
import { evenTheBack, freeTheBack, freeTheSides, type Hidden, leaveHidden, NOTHING_HIDDEN } from './target-free.js';
import {
  ANGLES,
  belowFinish,
  CAP_PARTS,
  CAP_ROWS,
  COUNT,
  DIRECTIONS,
  type Draft,
  NEAR_FINISH,
  NECK,
  NECK_ROWS,
  placeOf,
  ROWS,
  TIP,
  TRIANGLES,
} from './target-grid.js';
import { aside, axisOf, type Ground, groundOf, neededOn, thicknessOf, wrapTopOf } from './target-ground.js';
import { type AxisPlace, TargetRays, THINNEST_MM } from './target-rays.js';
import { waysOut } from './way-out.js';

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
  /** The same along the gum, from the mesial side over the face to the distal one, and behind. */
  readonly margin: readonly MarginPlace[];
  readonly removedMm3: number;
  /** The part of it that only brings the tooth into line with the plan. */
  readonly alignMm3: number;
  /** What the same thickness would take were it cut from the tooth as it is, without a plan. */
  readonly bareMm3: number;
  /** Of the tooth as it is, as far as it was scanned. */
  readonly crownMm3: number;
  /** The way on which the restoration comes off, in the target's frame. */
  readonly way: Vec3;
  /** What is hidden on that way, and so left standing where the design asks to cut. */
  readonly hidden: Hidden;
  /** What is to be known; `{11}` stands for a tooth number. */
  readonly notes: readonly string[];
}

/** Radius to which a cut edge is rounded where a design says none, mm: what mills can cut. Common practice, no source. */
const CORNER_MM = 0.2;

/** What is left standing for the way out is told from here on, mm. House value. */
const HIDDEN_MM = 0.1;
/** Where so much of what the design cuts is hidden, the way is none: a share of its places. House value. */
const NO_WAY = 0.18;
/** A finish line that lies further beyond the scan is told, mm: less lies within the scan's own error at the gum. */
const BEYOND_MM = 0.3;

/** The finish line in one direction from the tooth's axis. Heights are mm over the planned edge. */
export interface MarginPlace {
  /** From straight to the front, degrees: below 0 towards the mesial side, above towards the distal one. */
  readonly turnDeg: number;
  readonly heightMm: number;
  /** Where the gum line lies there. */
  readonly gumMm: number;
  /** How far below the gum the design wishes it, mm; above it where below 0. */
  readonly wishedMm: number;
}

/** The target preparation of one tooth under a contour plan. */
export const targetSurface = (arch: ExistingArch, plan: ContourPlan, tooth: Fdi, design: Design): TargetSurface =>
  targetOf(toothOf(arch, tooth), plannedTooth(arch, plan, tooth), design);

/** The same of a tooth that stands in a scan, under its planned crown. */
export const targetOf = (there: ExistingTooth, planned: PlannedTooth, design: Design, raysOf?: RaysOf): TargetSurface =>
  targetBetween(there.field, planned, design, spanOf(there, planned), raysOf);

/** The rays of a tooth and its planned crown to an axis: made, or remembered from another design. */
export type RaysOf = (axis: AxisPlace, make: () => TargetRays) => TargetRays;

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
  const axis = axisOf(design, around);
  const rays = raysOf(axis, () => new TargetRays(existing, planned, axis));
  const ground = groundOf(rays, planned, design, around);
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
  freeTheBack(ground, draft);
  evenTheBack(ground, draft);
  const puts = !ground.around && design.finish.form !== 'none';
  const way = puts ? freeTheSides(ground, draft) : waysOut(design, ANGLES)[0].way;
  for (let k = 0; k < ANGLES; k++) cap(ground, draft, k);
  capPlace(ground, draft, 0, 0, TIP);
  // A crown's rows stand one within the other, between the columns too: along its axis nothing is hidden.
  const hidden = puts ? leaveHidden(draft, way) : NOTHING_HIDDEN;
  for (const k of hidden.rims) cap(ground, draft, k);
  acrossTheSurface(draft, 0, ROWS);
  if (!ground.edge.cut) runOut(draft);
  if (ground.edge.cusps) acrossTheSurface(draft, ROWS, ROWS + CAP_ROWS - 1);
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
    margin: design.finish.form === 'none' ? [] : marginOf(ground, planned.tooth),
    removedMm3: Math.max(0, crownMm3 - volume(mesh)),
    alignMm3: Math.max(0, crownMm3 - volume(inLine)),
    bareMm3: Math.max(0, crownMm3 - volume({ positions: bare, triangles: TRIANGLES })),
    crownMm3,
    way,
    hidden,
    notes: notesOn(ground, planned.tooth, hidden),
  };
}

/** One line of vertices from the neck to the edge. */
function column(g: Ground, d: Draft, k: number): void {
  const { rays, edge, design } = g;
  const u = DIRECTIONS[k] as Vec3;
  const [finish, top, from] = [g.finish[k] as number, g.top[k] as number, edge.from[k] as number];
  const wrapTop = wrapTopOf(g);
  let above: { r: number; z: number } | undefined;
  let last = 1;
  for (let row = 0; row < ROWS; row++) {
    const s = belowFinish(row, Math.max(0.5, finish - from), wrapTop === undefined ? undefined : finish - wrapTop);
    const z = s < 0 ? finish + ((top - finish) * -s) / NECK_ROWS : finish - s;
    const met = rays.sideAt(row * ANGLES + k, u, z) ?? { r: last, facing: 1, axial: 0 };
    last = met.r;
    const deep = s > 0 ? depthAt(g, u, z, met, s) : 0;
    let r = met.r - deep;
    if (deep > 0 && edge.cut) r -= rounded(z - from, cornerOf(design));
    if (g.around && above) r = Math.min(r, above.r - leanOf(design) * (above.z - z));
    if (deep > 0 && r < THINNEST_MM) g.thin.add(k);
    r = Math.min(met.r, Math.max(THINNEST_MM, r));
    if (row > NECK_ROWS) above = { r, z };
    const i = row * ANGLES + k;
    d.now.set([met.r * u[0], met.r * u[1], z], 3 * i);
    d.left.set([r * u[0], r * u[1], z], 3 * i);
    const bare = s > 0 ? bareAt(g, u, z, met, s) : met.r;
    d.bare.set([bare * u[0], bare * u[1], Math.max(z, edge.bare[k] as number)], 3 * i);
    // What a rounded corner takes beside the edge is no zone's own depth.
    const corner = edge.cut && z - from < cornerOf(design);
    if (s > 0 && !corner && (aside(g, u, met.r) > 0 || (wrapTop !== undefined && z < wrapTop)))
      d.covered[i] = placeOf(u);
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

/** How far from the axis the same thickness would leave the tooth, were it cut from it as it is. */
function bareAt(g: Ground, u: Vec3, z: number, met: { r: number; facing: number }, below: number): number {
  const side = aside(g, u, met.r);
  if (side <= 0) return met.r;
  const need = neededOn(g.design, [met.r * u[0], met.r * u[1], z], g.rays);
  const full = need / Math.max(LEAST_FACING, met.facing);
  if (full === 0) return met.r;
  return Math.max(THINNEST_MM, met.r - endedDepth(g.design.finish.form, full, { below, side, slope: 0 }));
}

/** A surface that is met more at a slant is taken for one at this, or a thickness across it would be endless. */
const LEAST_FACING = 0.3;

const cornerOf = (design: Design): number => design.cornerMm ?? CORNER_MM;

const leanOf = (design: Design): number => Math.tan(((design.taperDeg ?? 0) * Math.PI) / 180);

/** So many places to each side and up and down the target is looked for. */
const NEAR = { angles: 10, rows: 6 } as const;

/**
 * Tells what goes across the surface and not along the ray, which meets it at a slant about a line angle: from each
 * place of the tooth to the nearest of the target. The nearest place lies beside that of the place before: from there,
 * and from the ray's own, one goes on to whichever of the eight beside is nearer until none is.
 */
function acrossTheSurface({ now, left, removedMm, alignMm }: Draft, from: number, to: number): void {
  for (let row = from; row < to; row++) {
    let [dRow, dAngle] = [0, 0];
    for (let k = 0; k < ANGLES; k++) {
      const i = row * ANGLES + k;
      const along = removedMm[i] as number;
      if (along <= NOTHING_MM) continue;
      const x = now[3 * i] as number;
      const y = now[3 * i + 1] as number;
      const z = now[3 * i + 2] as number;
      const away = (dr: number, da: number): number => {
        const r = row + dr;
        if (r < from || r >= to) return Infinity;
        const a = k + da;
        const j = 3 * (r * ANGLES + (a < 0 ? a + ANGLES : a >= ANGLES ? a - ANGLES : a));
        const dx = x - (left[j] as number);
        const dy = y - (left[j + 1] as number);
        const dz = z - (left[j + 2] as number);
        return dx * dx + dy * dy + dz * dz;
      };
      let least = away(dRow, dAngle);
      const own = away(0, 0);
      if (own < least) [least, dRow, dAngle] = [own, 0, 0];
      for (let moved = true; moved; ) {
        moved = false;
        const [r0, a0] = [dRow, dAngle];
        for (let r = Math.max(-NEAR.rows, r0 - 1); r <= Math.min(NEAR.rows, r0 + 1); r++)
          for (let a = Math.max(-NEAR.angles, a0 - 1); a <= Math.min(NEAR.angles, a0 + 1); a++) {
            const d = away(r, a);
            if (d >= least) continue;
            least = d;
            dRow = r;
            dAngle = a;
            moved = true;
          }
      }
      const across = Math.min(along, Math.sqrt(least));
      removedMm[i] = across;
      alignMm[i] = ((alignMm[i] as number) * across) / along;
    }
  }
}

/** What goes at a place along the ray, ended at the finish line with the design's profile. */
function depthAt(g: Ground, u: Vec3, z: number, met: { r: number; axial: number }, below: number): number {
  const { r, axial } = met;
  const side = aside(g, u, r);
  const over = (wrapTopOf(g) ?? -Infinity) - z;
  if (side <= 0 && over <= 0) return 0;
  const full = Math.max(0, r - (g.needed(u, z) ?? r));
  const { finish } = g.design;
  const facial = side > 0 ? endedAround(finish, -u[1], full, { below, side, slope: slopeOf(axial) }) : 0;
  // Behind the edge it ends by itself, wherever it is not the face's own.
  const behind = over > 0 ? endedDepth(finish.form, full, { below: over, side: Infinity, slope: 0 }) : 0;
  return Math.max(facial, behind);
}

/** The last row of the walls. */
const RIM = (ROWS - 1) * ANGLES;

/** The cap in one direction. */
function cap(g: Ground, d: Draft, k: number): void {
  for (let c = 1; c < CAP_ROWS; c++) capPlace(g, d, k, CAP_PARTS[c - 1] as number, (ROWS + c - 1) * ANGLES + k);
}

/** Beside an edge that stays the face goes on for a little: what goes there runs out towards the middle. */
function runOut({ removedMm, alignMm }: Draft): void {
  for (let c = 1; c < CAP_ROWS; c++)
    for (let k = 0; k < ANGLES; k++) {
      const [i, part] = [(ROWS + c - 1) * ANGLES + k, CAP_PARTS[c - 1] as number];
      removedMm[i] = part * (removedMm[RIM + k] as number);
      alignMm[i] = part * (alignMm[RIM + k] as number);
    }
}

/** A place of the edge's cap: flat where it is cut, as it is where it stays. @param part of the way from the axis */
function capPlace(g: Ground, d: Draft, k: number, part: number, i: number): void {
  const { rays, edge } = g;
  const rim = 3 * ((ROWS - 1) * ANGLES + k);
  const from = edge.from[k] as number;
  const on = (own: Float64Array) => [part * (own[rim] as number), part * (own[rim + 1] as number)] as const;
  // Between cusps a tooth lies higher than where its walls end.
  const under = (x: number, y: number) =>
    edge.cusps ? (rays.lowest(x, y) ?? from) : Math.min(rays.lowest(x, y) ?? from, from);
  const [now, stays] = [on(d.now), on(d.left)];
  const own = under(...stays);
  const to = edge.to(...stays);
  const height = Math.max(own, to);
  d.now.set([...now, under(...now)], 3 * i);
  d.left.set([...stays, height], 3 * i);
  d.removedMm[i] = edge.cut ? height - own : 0;
  const inLine = edge.cut ? Math.min(height, Math.max(own, edge.plan(...stays))) : own;
  d.aligned.set([...on(d.aligned), inLine], 3 * i);
  d.alignMm[i] = edge.cut ? inLine - own : 0;
  d.place[i] = height > own ? 4 : 0;
  if (edge.cusps ? to > -Infinity : edge.cut || g.design.edge.kind === 'thickness') d.covered[i] = 4;
  const bare = edge.cusps ? own + (to > -Infinity ? thicknessOf(g.design) : 0) : Math.max(own, edge.bare[k] as number);
  d.bare.set([...on(d.bare), bare], 3 * i);
}

/** The neck's lid lies at least so far over a ledge, mm. */
const LID_MM = 0.05;

/** The neck is closed at its middle height, and higher where the lid would cut through what lies under it. */
function closeNeck({ now, left, aligned, bare }: Draft): void {
  const height = (i: number) => now[3 * i + 2] as number;
  const out = (of: Float64Array, i: number) => hypot(of[3 * i] as number, of[3 * i + 1] as number);
  let level = 0;
  for (let k = 0; k < ANGLES; k++) level += height(k) / ANGLES;
  for (let k = 0; k < ANGLES; k++)
    for (let row = NECK_ROWS + 1; row < NECK_ROWS + NEAR_FINISH.length; row++) {
      const i = row * ANGLES + k;
      // From the rim to the middle the lid is straight.
      const part = Math.min(out(left, i), out(bare, i)) / out(now, k);
      if (part < 1) level = Math.max(level, (height(i) + LID_MM - part * height(k)) / (1 - part));
    }
  for (const own of [now, left, aligned, bare]) own.set([0, 0, level], 3 * NECK);
}

function placed(own: Float64Array, frame: Frame): Float64Array {
  const out = new Float64Array(own.length);
  const { origin: o, x: ex, y: ey, z: ez } = frame;
  for (let i = 0; i < own.length; i += 3) {
    const x = own[i] as number;
    const y = own[i + 1] as number;
    const z = own[i + 2] as number;
    for (let c = 0; c < 3; c++)
      out[i + c] = (o[c] as number) + x * (ex[c] as number) + y * (ey[c] as number) + z * (ez[c] as number);
  }
  return out;
}

/** The finish line as far as something is covered; a design that goes over the edge ends behind it as well. */
function lineOf(g: Ground, before: Mesh): Vec3[] {
  const at = (row: number, k: number): Vec3 => {
    const [x, y, z] = before.positions.subarray(3 * (row * ANGLES + k), 3 * (row * ANGLES + k) + 3);
    return [x as number, y as number, z as number];
  };
  const front = DIRECTIONS.map((u) => aside(g, u, 4) > 0);
  const top = wrapTopOf(g);
  if (top === undefined) return DIRECTIONS.flatMap((_, k) => (front[k] ? [at(NECK_ROWS, k)] : []));
  // The row at which a column comes down to where the design ends behind the edge.
  const last = (k: number): number => {
    const finish = g.finish[k] as number;
    const allMm = Math.max(0.5, finish - (g.edge.from[k] as number));
    let row = NECK_ROWS;
    while (row + 1 < ROWS && finish - belowFinish(row, allMm, finish - top) > top + 1e-9) row++;
    return row;
  };
  return DIRECTIONS.flatMap((_, k): Vec3[] => {
    if (front[k]) return [at(NECK_ROWS, k)];
    // At the contacts it comes down along the side.
    const down = Array.from({ length: last(k) - NECK_ROWS + 1 }, (_, n) => at(NECK_ROWS + n, k));
    if (front[(k + ANGLES - 1) % ANGLES]) return down;
    return front[(k + 1) % ANGLES] ? down.reverse() : [at(last(k), k)];
  });
}

/** The finish line along the gum with its level, in the order of its turns. */
function marginOf(g: Ground, tooth: Fdi): MarginPlace[] {
  const distal = archSide(tooth) === 'left' ? 1 : -1;
  return DIRECTIONS.flatMap((u, k): MarginPlace[] => {
    if (aside(g, u, 4) <= 0) return [];
    const turnDeg = (distal * Math.atan2(u[0], -u[1]) * 180) / Math.PI;
    return [
      { turnDeg, heightMm: g.finish[k] as number, gumMm: g.gum[k] as number, wishedMm: g.design.finish.belowGumMm },
    ];
  }).sort((a, b) => a.turnDeg - b.turnDeg);
}

function notesOn({ around, design, rays, top, thin }: Ground, tooth: Fdi, hidden: Hidden): string[] {
  const beyond = rays.zenith - Math.max(...top) + Math.max(0, design.finish.belowGumMm);
  return [
    ...(design.finish.form !== 'none' && beyond > BEYOND_MM
      ? [
          `{${tooth}}: the finish line is wished ${beyond.toFixed(1)} mm beyond where the scan ends at the gum; it is drawn there. Cord first, then place it.`,
        ]
      : []),
    ...((around || design.wrap) && thin.size > 0
      ? [
          `{${tooth}}: cut as the design asks, nothing of the tooth is left at one place towards the edge. Make it thinner or longer, or build the tooth up.`,
        ]
      : []),
    ...hiddenWords(tooth, design, hidden),
  ];
}

/** What is said where the way out leaves something standing. */
function hiddenWords(tooth: Fdi, { way }: Design, { mm, share, side }: Hidden): string[] {
  if (mm <= HIDDEN_MM || !side) return [];
  const distal = archSide(tooth) === side;
  const where = side === 'behind' ? 'behind the edge' : `on the ${distal ? 'distal' : 'mesial'} side`;
  if (way && share > NO_WAY)
    return [
      `{${tooth}}: nothing comes off on this way: ${(100 * share).toFixed(0)} % of what the design cuts is hidden on it, most of it ${where}. Set it otherwise, or let it be found.`,
    ];
  return [
    `{${tooth}}: ${where} up to ${mm.toFixed(1)} mm less is cut than the design asks, since it would be hidden on the way out; the restoration ends further to the front there. Move the tooth first or plan the crown otherwise where that shows.`,
  ];
}

/** What a rounded corner takes of a wall at a distance below it, mm. */
const rounded = (from: number, radius: number): number =>
  from >= radius ? 0 : radius - Math.sqrt(radius ** 2 - (radius - Math.max(0, from)) ** 2);
