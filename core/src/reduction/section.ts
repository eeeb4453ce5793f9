import { crownZenith, type PlannedTooth } from '../contour/plan.js';
import { type Frame, toParent } from '../geometry/frame.js';
import type { Mesh } from '../geometry/mesh.js';
import { reachAtLevel, type SectionLine, section } from '../geometry/section.js';
import type { Design } from '../restoration/design.js';
import { neededAt, overThirds, preparedEdge, THIRDS } from '../restoration/thickness.js';
import { FACIAL_ENAMEL, type FacialThird } from '../teeth/norms.js';

/**
 * A place in the section: a mm behind the axis (facial is negative), z mm over the planned edge along the tooth's axis.
 */
export type SectionPoint = readonly [number, number];

/** Facio-palatal section through a tooth at its axis. All lines in section coordinates. */
export interface ToothSection {
  readonly existing: readonly SectionLine[];
  readonly planned: readonly SectionLine[];
  /** Surface that the preparation should have: from the neck down the face and across the edge. */
  readonly target: readonly SectionPoint[];
  /** Inner border of the enamel by the middle of its norm, under the existing facial surface. */
  readonly enamelEnds: readonly SectionPoint[];
  /** Where each third is dimensioned, with the three surfaces there. */
  readonly dimensions: readonly SectionDimension[];
  /** Levels of the two edges and of the target's edge, mm over the planned edge. */
  readonly edge: { readonly existing: number; readonly target: number };
}

export interface SectionDimension {
  readonly third: FacialThird;
  readonly z: number;
  readonly existing: number;
  readonly planned: number;
  readonly target: number;
}

const LEVEL_STEP_MM = 0.15;

/** Cuts existing and planned surface at the planned axis and draws the target between them. */
export function toothSection(existing: Mesh, planned: PlannedTooth, design: Design): ToothSection {
  // Section plane through the axis: its x is the tooth's y (backward), its y the tooth's z, its normal the tooth's x.
  const plane: Frame = { origin: planned.frame.origin, x: planned.frame.y, y: planned.frame.z, z: planned.frame.x };
  const now = section(existing, plane);
  const plan = section(planned.mesh, plane);
  const zenith = crownZenith(planned.crown)[2];
  const lowestNow = lowest(now);
  const edgeCut = preparedEdge(design, lowestNow);
  const target: SectionPoint[] = [];
  const enamelEnds: SectionPoint[] = [];
  for (let z = zenith - 0.25; z >= edgeCut; z -= LEVEL_STEP_MM) {
    const surfaces = at(now, plan, z, zenith, design);
    if (!surfaces) continue;
    target.push([surfaces.target, z]);
  }
  const atEdge = at(now, plan, edgeCut, zenith, design);
  const behind = reachAtLevel(now, edgeCut + 1e-6, 'most');
  if (atEdge) target.push([atEdge.target, edgeCut]);
  if (behind !== undefined) target.push([behind, edgeCut]);
  for (let z = zenith - 0.1; z > lowestNow + 1; z -= LEVEL_STEP_MM * 2) {
    const front = reachAtLevel(now, z, 'least');
    if (front !== undefined) enamelEnds.push([front + enamelAt(z / zenith) * slant(now, z), z]);
  }
  const dimensions = (
    [
      ['cervical', 5 / 6],
      ['middle', 1 / 2],
      ['incisal', 1 / 5],
    ] as const
  ).flatMap(([third, h]): SectionDimension[] => {
    const s = at(now, plan, h * zenith, zenith, design);
    return s ? [{ third, z: h * zenith, ...s }] : [];
  });
  return {
    existing: now,
    planned: plan,
    target,
    enamelEnds,
    dimensions,
    edge: { existing: lowestNow, target: edgeCut },
  };
}

/** A section point in the mouth's coordinates. */
export function sectionToMouth(planned: PlannedTooth, p: SectionPoint) {
  return toParent(planned.frame, [0, p[0], p[1]]);
}

function at(now: readonly SectionLine[], plan: readonly SectionLine[], z: number, zenith: number, design: Design) {
  const existing = reachAtLevel(now, z, 'least');
  const planned = reachAtLevel(plan, z, 'least');
  if (existing === undefined || planned === undefined) return undefined;
  const needed = neededAt(design, z / zenith) * slant(plan, z);
  // The target never lies outside the tooth: where the plan leaves room enough, the surface stays as it is.
  return { existing, planned, target: Math.max(existing, planned + needed) };
}

/** How much longer a thickness across the surface reads when measured horizontally. */
function slant(lines: readonly SectionLine[], z: number): number {
  const a = reachAtLevel(lines, z + 0.4, 'least');
  const b = reachAtLevel(lines, z - 0.4, 'least');
  return a === undefined || b === undefined ? 1 : Math.min(1.6, Math.hypot(1, (a - b) / 0.8));
}

/** Thickness of the enamel by the middle of its norm; from the middle of the gum third on it runs out. */
function enamelAt(share: number): number {
  const mid = (t: FacialThird) => (FACIAL_ENAMEL[t].from + FACIAL_ENAMEL[t].to) / 2;
  const beyond = Math.max(0, (share - THIRDS.cervical.middle) / (1 - THIRDS.cervical.middle));
  const full = overThirds({ incisal: mid('incisal'), middle: mid('middle'), cervical: mid('cervical') }, share);
  return full + Math.min(1, beyond) * (ENAMEL_AT_NECK_MM - full);
}

/** Enamel at the neck itself, mm. Common practice, no source. */
const ENAMEL_AT_NECK_MM = 0.1;

function lowest(lines: readonly SectionLine[]): number {
  let z = Infinity;
  for (const l of lines) for (let i = 1; i < l.points.length; i += 2) z = Math.min(z, l.points[i] as number);
  return z;
}
