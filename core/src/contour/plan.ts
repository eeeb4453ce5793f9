import { type Frame, frameFrom, toLocal, toParent } from '../geometry/frame.js';
import { type Mesh, placeMesh } from '../geometry/mesh.js';
import { signedDistances, signedField } from '../geometry/tree/signed.js';
import { rotateAbout, type Vec3 } from '../geometry/vec.js';
import { type Fdi, kindOf, sideOf, UPPER_SIX } from '../teeth/notation.js';
import { type ArchPlace, placesAlong, type Room, rotateTooth } from './arch.js';
import { CROWN_LIMITS, type Crown, crown, ringVertex } from './crown.js';
import { archTurn, type ExistingArch, type ExistingTooth } from './fit.js';

/** What the dentist sets on one planned tooth. */
export interface ToothPlan {
  readonly lengthMm: number;
  readonly widthMm: number;
  readonly facialVolumeMm: number;
  /** Against the arch, positive mesial edge forward. */
  readonly rotationDeg: number;
  /** Zenith above (+) the one that is there: the gum is moved up with it. 0 where nothing is said. */
  readonly zenithUpMm?: number;
}

/** Limits of a plan's numbers; the same the fields and the server keep. */
export const PLAN_LIMITS = {
  lengthMm: CROWN_LIMITS.lengthMm,
  widthMm: CROWN_LIMITS.widthMm,
  facialVolumeMm: CROWN_LIMITS.facialVolumeMm,
  rotationDeg: { min: -30, max: 30 },
  zenithUpMm: { min: -1, max: 5 },
} as const;

/** The plan of the six upper front teeth by FDI number. */
export type ContourPlan = Readonly<Partial<Record<Fdi, ToothPlan>>>;

export interface PlannedTooth {
  readonly tooth: Fdi;
  readonly crown: Crown;
  readonly frame: Frame;
  /** In the mouth's coordinates. */
  readonly mesh: Mesh;
}

/**
 * Stands a planned crown in the arch: side by side with its neighbours of the plan from the midline outward, on the
 * fitted arch, its zenith at the level of the tooth that is there (the gum line is kept) or as far above as the plan says.
 */
export function plannedTooth(arch: ExistingArch, plan: ContourPlan, tooth: Fdi): PlannedTooth {
  const own = plan[tooth] as ToothPlan;
  const there = arch.teeth.get(tooth) as ExistingTooth;
  const c = crown(tooth, { lengthMm: own.lengthMm, widthMm: own.widthMm, facialVolumeMm: own.facialVolumeMm });
  const frame = planFrame(arch, plan, there, own, zenithOf(c));
  return { tooth, crown: c, frame, mesh: placeMesh(c.mesh, frame) };
}

/** Height of the crown's facial zenith over its edge, mm, in its own frame. */
function zenithOf(c: Crown): number {
  let z = 0;
  for (let k = 0; k <= c.ringSize / 2; k++) z = Math.max(z, c.mesh.positions[3 * ringVertex(c, 0, k) + 2] as number);
  return z;
}

function planFrame(arch: ExistingArch, plan: ContourPlan, there: ExistingTooth, own: ToothPlan, zenithMm: number): Frame {
  const rooms: Room[] = [];
  for (let position = 1; position <= there.tooth % 10; position++) {
    const t = there.tooth - (there.tooth % 10) + position;
    rooms.push({ widthMm: plan[t]?.widthMm ?? arch.teeth.get(t)?.widthMm ?? own.widthMm });
  }
  const place = placesAlong(arch.arch, sideOf(there.tooth), rooms).at(-1) as ArchPlace;
  const origin: Vec3 = [place.x + arch.arch.x0, place.y + arch.arch.y0, there.frame.origin[2]];
  // The axis keeps its own torque and tip: it is carried round the arch to the new place.
  const axis = rotateAbout(there.frame.z, [0, 0, 1], place.turnDeg - archTurn(arch.arch, there.frame.origin[0]));
  const t = (place.turnDeg * Math.PI) / 180;
  const upright = frameFrom(origin, axis, [Math.cos(t), Math.sin(t), 0]);
  const turned = rotateTooth(there.tooth, upright, own.rotationDeg);
  // Slide along the axis until the zenith stands at the level of the existing one.
  const zenithLevel = toParent(there.frame, [0, 0, there.zenithMm])[2] + (own.zenithUpMm ?? 0);
  const ownLevel = toParent(turned, [0, 0, zenithMm])[2];
  const slide = (zenithLevel - ownLevel) / turned.z[2];
  return { ...turned, origin: toParent(turned, [0, 0, slide]) };
}

/** The six as they are, as a plan: what a contour starts from before anything is proposed. */
export function planOfExisting(arch: ExistingArch): ContourPlan {
  return Object.fromEntries(
    UPPER_SIX.map((t) => {
      const e = arch.teeth.get(t) as ExistingTooth;
      return [t, { lengthMm: round(e.lengthMm, 0.05), widthMm: round(e.widthMm, 0.05), facialVolumeMm: 0, rotationDeg: 0 }];
    }),
  );
}

const round = (v: number, step: number) => Math.round(Math.round(v / step) * step * 1000) / 1000;

/** How far in front of the tooth a first contour lies in the middle third, mm: additive first. House preference. */
export const FIRST_GAP_MM = 0.25;
const FIRST_VOLUME_MAX_MM = 0.8;

/**
 * A first contour from target lengths and widths: aligned to the arch, and as full facially as it takes to lie at or in
 * front of the teeth that are there, so that as little as possible is cut (additive first, common practice).
 */
export function firstContour(arch: ExistingArch, targets: ReadonlyMap<Fdi, { lengthMm: number; widthMm: number; zenithUpMm?: number }>): ContourPlan {
  const flat: Record<number, ToothPlan> = {};
  for (const t of UPPER_SIX) {
    const e = arch.teeth.get(t) as ExistingTooth;
    const target: { lengthMm: number; widthMm: number; zenithUpMm?: number } = targets.get(t) ?? e;
    flat[t] = {
      lengthMm: within(round(target.lengthMm, 0.05), PLAN_LIMITS.lengthMm),
      widthMm: within(round(target.widthMm, 0.05), PLAN_LIMITS.widthMm),
      facialVolumeMm: 0,
      rotationDeg: 0,
      ...(target.zenithUpMm && { zenithUpMm: within(round(target.zenithUpMm, 0.05), PLAN_LIMITS.zenithUpMm) }),
    };
  }
  const out: Record<number, ToothPlan> = {};
  for (const t of UPPER_SIX) {
    const own = flat[t] as ToothPlan;
    const lack = FIRST_GAP_MM - middleGap(arch, plannedTooth(arch, flat, t));
    out[t] = { ...own, facialVolumeMm: Math.min(FIRST_VOLUME_MAX_MM, Math.max(0, round(lack, 0.05))) };
  }
  return out;
}

const within = (v: number, l: { min: number; max: number }) => Math.min(l.max, Math.max(l.min, v));

/** Median distance of the planned facial surface in front of the existing one, middle third, mm. */
function middleGap(arch: ExistingArch, planned: PlannedTooth): number {
  const there = arch.teeth.get(planned.tooth) as ExistingTooth;
  const points: number[] = [];
  const half = planned.crown.ringSize / 2;
  for (let r = 8; r < planned.crown.rings - 12; r += 2) {
    for (let k = half / 4; k <= (3 * half) / 4; k += 3) {
      const v = 3 * ringVertex(planned.crown, r, k);
      const local = toLocal(planned.frame, [
        planned.mesh.positions[v] as number,
        planned.mesh.positions[v + 1] as number,
        planned.mesh.positions[v + 2] as number,
      ]);
      if (local[2] < planned.crown.size.lengthMm * 0.3 || local[2] > planned.crown.size.lengthMm * 0.72) continue;
      points.push(planned.mesh.positions[v] as number, planned.mesh.positions[v + 1] as number, planned.mesh.positions[v + 2] as number);
    }
  }
  return median([...signedDistances(there.field, Float64Array.from(points))]);
}

/** Middle value; the mean of the two middle ones for an even count; NaN for none. */
export function median(values: readonly number[]): number {
  const s = [...values].sort((a, b) => a - b);
  const m = s.length >> 1;
  return s.length % 2 ? (s[m] as number) : ((s[m - 1] as number) + (s[m] as number)) / 2;
}

/** Which tooth kinds can be planned. */
export const isPlannable = (tooth: Fdi): boolean => ['central', 'lateral', 'canine'].includes(kindOf(tooth));

/** The planned mesh's field, for gaps measured from the tooth outward. */
export const plannedField = (p: PlannedTooth) => signedField(p.mesh);
