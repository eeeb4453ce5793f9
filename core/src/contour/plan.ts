import { Refusal } from '../errors.js';
import { type Frame, frameFrom, shift, toLocal, toParent, turn } from '../geometry/frame.js';
import { type Mesh, placeMesh } from '../geometry/mesh.js';
import { signedDistances, signedField } from '../geometry/tree/signed.js';
import { dot, rotateAbout, type Vec3 } from '../geometry/vec.js';
import { type Fdi, jawOf, PLANNABLE, UPPER_TEN } from '../teeth/notation.js';
import { CLOSED_GAP_MM, frontRow } from '../teeth/roles.js';
import { median } from '../working/middle.js';
import { type ArchPlace, archSide, frameToArch, meshToArch, placesAlong, type Room, rotateTooth } from './arch.js';
import { type Crown, type CrownSize, crown, ringVertex } from './crown.js';
import { archTurn, type ExistingArch, type ExistingTooth, roomBetween, toothOf } from './fit.js';
import { withOwnPalatal } from './own-palatal.js';
import { type CrownShape, type CrownStand, PLAN_LIMITS } from './parameters.js';
import { type Stroke, sculpted } from './sculpt.js';

/** What the dentist sets on one planned tooth. */
export interface ToothPlan extends CrownShape, CrownStand {
  /** What the brush has done to it. */
  readonly strokes?: readonly Stroke[];
  readonly lengthMm: number;
  readonly widthMm: number;
  readonly facialVolumeMm: number;
  /**
   * `own`: behind the edge the tooth's own surface stays, as under a veneer. By the form where nothing is said, as
   * under a crown that covers it.
   */
  readonly palatal?: 'own' | undefined;
}

/** The plan of front teeth and premolars of both jaws by FDI number. */
export type ContourPlan = Readonly<Partial<Record<Fdi, ToothPlan>>>;

/** A planned crown in its place, in its arch's own frame. */
export interface PlannedTooth {
  readonly tooth: Fdi;
  readonly crown: Crown;
  readonly frame: Frame;
  readonly mesh: Mesh;
}

/** What makes a crown of its numbers and strokes: from scratch, or by remembering what it made before. */
export interface CrownMaker {
  readonly crown: typeof crown;
  readonly sculpt: typeof sculpted;
}

const FROM_SCRATCH: CrownMaker = { crown, sculpt: sculpted };

/**
 * Stands a planned crown in the arch: side by side with its neighbours of the plan from the midline outward, on the
 * fitted arch, its zenith at the level of the tooth that is there (the gum line is kept) or as far above as the plan
 * says.
 * @param make another maker than one that begins from scratch each time
 * @throws Refusal `tooth-missing` where the plan or the scan does not have the tooth
 */
export function plannedTooth(
  arch: ExistingArch,
  plan: ContourPlan,
  tooth: Fdi,
  make: CrownMaker = FROM_SCRATCH,
): PlannedTooth {
  const own = plan[tooth];
  if (!own) throw new Refusal('tooth-missing', `Tooth {${tooth}} is not in the plan.`, tooth);
  const there = toothOf(arch, tooth);
  // As deep as the tooth that is there: a crown that is made wider does not come forward for it.
  const c = make.crown(tooth, { ...crownSize(own), depthMm: there.depthMm });
  const frame = planFrame(arch, plan, there, own, crownZenith(c));
  const mesh = placeMesh(make.sculpt(c, own.strokes).mesh, frame);
  return { tooth, crown: c, frame, mesh: own.palatal === 'own' ? withOwnPalatal(mesh, c, frame, there.field) : mesh };
}

/** A planned crown's place and surface in the mouth's coordinates: of an upper one the same. */
export function inMouth(p: PlannedTooth): PlannedTooth {
  const jaw = jawOf(p.tooth);
  return jaw === 'upper' ? p : { ...p, frame: frameToArch(jaw, p.frame), mesh: meshToArch(jaw, p.mesh) };
}

/** What of a plan makes the crown itself, without its place. */
export function crownSize(own: ToothPlan): CrownSize {
  const {
    rotationDeg: _,
    tipDeg: _1,
    torqueDeg: _2,
    forwardMm: _3,
    distalMm: _4,
    zenithUpMm: _5,
    strokes: _6,
    palatal: _7,
    ...size
  } = own;
  return size;
}

/** The crown's facial zenith, in its own frame. */
export function crownZenith(c: Crown): Vec3 {
  let at = 0;
  for (let k = 0; k <= c.ringSize / 2; k++) if (heightAt(c, k) > heightAt(c, at)) at = k;
  const v = 3 * ringVertex(c, 0, at);
  return [c.mesh.positions[v], c.mesh.positions[v + 1], c.mesh.positions[v + 2]];
}

const heightAt = (c: Crown, k: number): number => c.mesh.positions[3 * ringVertex(c, 0, k) + 2];

function planFrame(arch: ExistingArch, plan: ContourPlan, there: ExistingTooth, own: ToothPlan, zenith: Vec3): Frame {
  const rooms: Room[] = [];
  for (let position = 1; position <= there.tooth % 10; position++) {
    const t = there.tooth - (there.tooth % 10) + position;
    const widthMm = plan[t]?.widthMm ?? arch.teeth.get(t)?.widthMm;
    // A missing tooth takes no room of its own: the next one stands where it stands, or closes up to its neighbour.
    if (widthMm !== undefined) rooms.push({ widthMm, gapBeforeMm: gapBehindMissing(arch, t) });
  }
  const place = placesAlong(arch.arch, archSide(there.tooth), rooms).at(-1) as ArchPlace;
  const origin: Vec3 = [place.x + arch.arch.x0, place.y + arch.arch.y0, there.frame.origin[2]];
  // The axis keeps its own torque and tip: it is carried round the arch to the new place.
  const axis = rotateAbout(there.frame.z, [0, 0, 1], place.turnDeg - archTurn(arch.arch, there.frame.origin[0]));
  const t = (place.turnDeg * Math.PI) / 180;
  const upright = frameFrom(origin, axis, [Math.cos(t), Math.sin(t), 0]);
  const turned = rotateTooth(there.tooth, moved(upright, there.tooth, own), own.rotationDeg);
  // Slide along the axis until the zenith stands at the level of the existing one.
  const zenithLevel = toParent(there.frame, [0, 0, there.zenithMm])[2] + (own.zenithUpMm ?? 0);
  const ownLevel = toParent(turned, [0, 0, zenith[2]])[2];
  const slide = (zenithLevel - ownLevel) / turned.z[2];
  return leaning(there.tooth, shift(turned, [0, 0, slide]), own, zenith);
}

/**
 * Where teeth are missing on the mesial side of a tooth, the gap that is left there, mm; 0 elsewhere and where it has
 * closed.
 */
function gapBehindMissing(arch: ExistingArch, tooth: Fdi): number {
  const own = arch.teeth.get(tooth);
  let mesial = tooth - 1;
  while (mesial % 10 > 0 && !arch.teeth.has(mesial)) mesial--;
  const before = arch.teeth.get(mesial);
  if (!own || !before || mesial === tooth - 1 || mesial % 10 === 0) return 0;
  const gap = roomBetween(own, before);
  return gap > CLOSED_GAP_MM ? gap : 0;
}

/** What a planned tooth's place depends on beside its own plan: the widths between it and the midline, as one word. */
export function widthsToMidline(plan: ContourPlan, tooth: Fdi): string {
  const widths = [];
  for (let t = tooth - 1; t % 10 >= 1; t--) widths.push(plan[t]?.widthMm);
  return widths.join();
}

/** Carried forward of the arch, and along it away from the midline. */
function moved(upright: Frame, tooth: Fdi, own: ToothPlan): Frame {
  const left = archSide(tooth) === 'left' ? 1 : -1;
  const [x, y, z] = upright.origin;
  const [c, s] = [upright.x[0], upright.x[1]];
  const along = left * (own.distalMm ?? 0);
  const out = own.forwardMm ?? 0;
  return { ...upright, origin: [x + along * c + out * s, y + along * s - out * c, z] };
}

/** Tilted and torqued about the zenith, which stays where it is. */
function leaning(tooth: Fdi, f: Frame, own: ToothPlan, zenith: Vec3): Frame {
  if (!own.tipDeg && !own.torqueDeg) return f;
  const left = archSide(tooth) === 'left' ? 1 : -1;
  const leant = turn(turn(f, 'x', -(own.torqueDeg ?? 0)), 'y', left * (own.tipDeg ?? 0));
  const [a, b] = [toParent(f, zenith), toParent(leant, zenith)];
  return {
    ...leant,
    origin: [leant.origin[0] + a[0] - b[0], leant.origin[1] + a[1] - b[1], leant.origin[2] + a[2] - b[2]],
  };
}

/** The front teeth as they are, as a plan: what a contour starts from before anything is proposed. */
export function planOfExisting(arch: ExistingArch): ContourPlan {
  return Object.fromEntries(
    frontRow()
      .filter((t) => arch.teeth.has(t))
      .map((t) => [t, planOfTooth(toothOf(arch, t))]),
  );
}

/** One tooth as it is, as a plan. */
export function planOfTooth(e: ExistingTooth): ToothPlan {
  return {
    lengthMm: round(e.lengthMm, 0.05),
    widthMm: round(e.widthMm, 0.05),
    facialVolumeMm: 0,
    rotationDeg: 0,
    palatal: 'own',
  };
}

/**
 * A further tooth taken into the plan, standing where it stands now: its turn and its place against the arch become
 * numbers.
 * @param as another tooth in whose place and size it is taken in, such as that of a wax-up laid onto the arch
 */
export function takenIn(arch: ExistingArch, plan: ContourPlan, tooth: Fdi, as?: ExistingTooth): ToothPlan {
  const there = as ?? toothOf(arch, tooth);
  // A wax-up brings its own palatal side: there the form follows it, and not the tooth under it.
  const size = { ...planOfTooth(there), ...(as && { zenithUpMm: zenithUpOf(arch, as), palatal: undefined }) };
  const turnedBy = (deg: number): ToothPlan => ({
    ...size,
    rotationDeg: within(round(deg, 0.5), PLAN_LIMITS.rotationDeg),
  });
  const standing = (own: ToothPlan): Frame => plannedTooth(arch, { ...plan, [tooth]: own }, tooth).frame;
  // The arch runs another way where the row puts the tooth than where it stands: what that comes to is part of its
  // turn.
  const first = standing(turnedBy(there.rotationDeg));
  const side = archSide(tooth) === 'left' ? 1 : -1;
  const turned = turnedBy(there.rotationDeg + side * (heading(there.frame) - heading(first)));
  const f = standing(turned);
  const by: Vec3 = [there.frame.origin[0] - f.origin[0], there.frame.origin[1] - f.origin[1], 0];
  const turnRad = (archTurn(arch.arch, f.origin[0]) * Math.PI) / 180;
  const [c, s] = [Math.cos(turnRad), Math.sin(turnRad)];
  const along = (archSide(tooth) === 'left' ? 1 : -1) * (by[0] * c + by[1] * s);
  return {
    ...turned,
    distalMm: within(round(along, 0.05), PLAN_LIMITS.distalMm),
    forwardMm: within(round(by[0] * s - by[1] * c, 0.05), PLAN_LIMITS.forwardMm),
  };
}

/** How far over the zenith of the tooth that is there another one has its own, mm. */
function zenithUpOf(arch: ExistingArch, as: ExistingTooth): number {
  const level = (t: ExistingTooth) => toParent(t.frame, [0, 0, t.zenithMm])[2];
  return within(round(level(as) - level(toothOf(arch, as.tooth)), 0.05), PLAN_LIMITS.zenithUpMm);
}

/** A plan after a wax-up from outside, and how well it meets it. */
export interface FromWaxUp {
  readonly plan: ContourPlan;
  /** Of each tooth: the median and the 95th percentile of how far the planned face lies off the wax-up's, mm. */
  readonly off: readonly { readonly tooth: Fdi; readonly medianMm: number; readonly p95Mm: number }[];
}

/**
 * The library's crowns set to a wax-up that lies on the same arch: its sizes, places, leans and fullness become the
 * plan's numbers. What the forms can't follow is told, not hidden.
 */
export function planFromWaxUp(arch: ExistingArch, waxed: ExistingArch, teeth: readonly Fdi[]): FromWaxUp {
  const out: Record<number, ToothPlan> = {};
  const own = teeth.filter((t) => arch.teeth.has(t) && waxed.teeth.has(t)).sort((p, q) => (p % 10) - (q % 10));
  const as = (t: Fdi) => waxed.teeth.get(t) as ExistingTooth;
  for (const t of own) {
    out[t] = takenIn(arch, out, t, as(t));
    for (let round = 0; round < 3; round++) out[t] = nearer(arch, out, t, as(t));
  }
  const off = own.map((tooth) => {
    const d = [...faceGaps(as(tooth), plannedTooth(arch, out, tooth))].map(Math.abs).sort((p, q) => p - q);
    return { tooth, medianMm: median(d), p95Mm: d[Math.floor(0.95 * d.length)] ?? 0 };
  });
  return { plan: out, off };
}

/** One round nearer to a wax-up: its lean, its fullness, its place. */
function nearer(arch: ExistingArch, plan: ContourPlan, tooth: Fdi, as: ExistingTooth): ToothPlan {
  const own = plan[tooth] as ToothPlan;
  const side = archSide(tooth) === 'left' ? 1 : -1;
  const f = plannedTooth(arch, plan, tooth).frame;
  const axis = as.frame.z;
  const lean = (d: Vec3) => (Math.atan2(dot(d, axis), dot(f.z, axis)) * 180) / Math.PI;
  const leant: ToothPlan = {
    ...own,
    torqueDeg: within(round((own.torqueDeg ?? 0) + lean(f.y), 0.5), PLAN_LIMITS.torqueDeg),
    tipDeg: within(round((own.tipDeg ?? 0) + side * lean(f.x), 0.5), PLAN_LIMITS.tipDeg),
  };
  const next: ContourPlan = { ...plan, [tooth]: leant };
  const gap = median([...faceGaps(as, plannedTooth(arch, next, tooth))]);
  return { ...leant, facialVolumeMm: within(round(leant.facialVolumeMm - gap, 0.05), PLAN_LIMITS.facialVolumeMm) };
}

/** Turn of a frame's x about the vertical, degrees. */
const heading = (f: Frame): number => (Math.atan2(f.x[1], f.x[0]) * 180) / Math.PI;

const round = (v: number, step: number) => Math.round(Math.round(v / step) * step * 1000) / 1000;

/** How far in front of the tooth a first contour lies in the middle third, mm: additive first. House preference. */
export const FIRST_GAP_MM = 0.25;
const FIRST_VOLUME_MAX_MM = 0.8;

/** What a crown is wished to measure, and how far its zenith moves up, mm. */
export interface CrownTarget {
  readonly lengthMm: number;
  readonly widthMm: number;
  readonly zenithUpMm?: number;
}

/**
 * A first contour of the upper teeth that have targets, from their lengths and widths; without any, of the six front
 * teeth as they measure: aligned to the arch, and as full facially as it takes to lie at or in front of the teeth that
 * are there, so that as little as possible is cut (additive first, common practice).
 */
export function firstContour(arch: ExistingArch, targets: ReadonlyMap<Fdi, CrownTarget>): ContourPlan {
  const flat: Record<number, ToothPlan> = {};
  const front = UPPER_TEN.filter(
    (t) => arch.teeth.has(t) && (targets.size > 0 ? targets.has(t) : frontRow().includes(t)),
  );
  for (const t of front) {
    const target: CrownTarget = targets.get(t) ?? toothOf(arch, t);
    flat[t] = {
      lengthMm: within(round(target.lengthMm, 0.05), PLAN_LIMITS.lengthMm),
      widthMm: within(round(target.widthMm, 0.05), PLAN_LIMITS.widthMm),
      facialVolumeMm: 0,
      rotationDeg: 0,
      palatal: 'own',
      ...(target.zenithUpMm && { zenithUpMm: within(round(target.zenithUpMm, 0.05), PLAN_LIMITS.zenithUpMm) }),
    };
  }
  const out: Record<number, ToothPlan> = {};
  for (const t of front) {
    const own = flat[t] as ToothPlan;
    const lack = FIRST_GAP_MM - middleGap(arch, plannedTooth(arch, flat, t));
    out[t] = { ...own, facialVolumeMm: Math.min(FIRST_VOLUME_MAX_MM, Math.max(0, round(lack, 0.05))) };
  }
  return out;
}

const within = (v: number, l: { min: number; max: number }) => Math.min(l.max, Math.max(l.min, v));

/** Median distance of the planned facial surface in front of the existing one, middle third, mm. */
const middleGap = (arch: ExistingArch, planned: PlannedTooth): number =>
  median([...faceGaps(toothOf(arch, planned.tooth), planned)]);

/** How far the planned facial surface lies in front of a tooth in the middle third, mm. */
function faceGaps(there: ExistingTooth, planned: PlannedTooth): Float64Array {
  const points: number[] = [];
  const half = planned.crown.ringSize / 2;
  for (let r = 8; r < planned.crown.rings - 12; r += 2) {
    for (let k = half / 4; k <= (3 * half) / 4; k += 3) {
      const v = 3 * ringVertex(planned.crown, r, k);
      const local = toLocal(planned.frame, [
        planned.mesh.positions[v],
        planned.mesh.positions[v + 1],
        planned.mesh.positions[v + 2],
      ]);
      if (local[2] < planned.crown.size.lengthMm * 0.3 || local[2] > planned.crown.size.lengthMm * 0.72) continue;
      points.push(planned.mesh.positions[v], planned.mesh.positions[v + 1], planned.mesh.positions[v + 2]);
    }
  }
  return signedDistances(there.field, Float64Array.from(points));
}

/** Which tooth kinds can be planned. */
export const isPlannable = (tooth: Fdi): boolean => PLANNABLE.includes(tooth);

/** The planned mesh's field, for gaps measured from the tooth outward. */
export const plannedField = (p: PlannedTooth) => signedField(p.mesh);
