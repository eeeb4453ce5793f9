import { type PlannedTooth, plannedField } from '../contour/plan.js';
import { MADE } from '../contour/scan.js';
import { type Mesh, vertexAreas, vertexCount } from '../geometry/mesh.js';
import { closestPoints } from '../geometry/tree/closest.js';
import { rayCaster } from '../geometry/tree/ray.js';
import { type SignedField, signedDistances, signedField } from '../geometry/tree/signed.js';
import { scale, type Vec3 } from '../geometry/vec.js';
import type { TargetSurface } from '../reduction/target.js';
import { type TargetZone, ZONE_ORDER, zoneOf } from '../reduction/target-zones.js';
import type { Design } from '../restoration/design.js';
import type { Fdi } from '../teeth/notation.js';
import { madeAround, type SeenField } from './seen.js';

/** A tooth as it was prepared, beside what was planned for it; everything in its arch's own frame, mm. */
export interface PrepTooth {
  readonly tooth: Fdi;
  readonly design: Design;
  readonly planned: PlannedTooth;
  readonly target: TargetSurface;
  /** The tooth as it was, and as it was scanned after it was cut. */
  readonly before: SeenField;
  readonly scan: SeenField;
}

/** What each vertex of a prepared tooth's scan tells. */
export interface PrepMap {
  /**
   * From the prepared surface to the planned contour, mm: along the axis on a cut edge, else the nearest way; below 0
   * where it stands out of it.
   */
  readonly roomMm: Float64Array;
  /** The same the nearest way everywhere. */
  readonly nearMm: Float64Array;
  /** What is still to cut down to the target, mm; below 0 where more was cut than asked. */
  readonly shortMm: Float64Array;
  /** Index into ZONE_ORDER; `NO_ZONE` where the restoration covers nothing, and where no scan has seen. */
  readonly zone: Uint8Array;
  /** The part of the surface that stands for it, mm². */
  readonly areaMm2: Float64Array;
  /** The target's vertex that lies nearest. */
  readonly near: Uint32Array;
}

export const NO_ZONE = 255;
/**
 * What lies further from the target is none of this tooth's preparation: gum, or a hand at the scanner. House value.
 */
const FAR_MM = 3;

const zones = new WeakMap<TargetSurface, Uint8Array>();
const fields = new WeakMap<TargetSurface, SignedField>();

/** The zone of every vertex of a target, as an index into ZONE_ORDER. */
function zonesOf(t: TargetSurface): Uint8Array {
  const known = zones.get(t);
  if (known) return known;
  const own = Uint8Array.from(t.removedMm, (_, i) => {
    const zone = zoneOf(t, i);
    return zone ? ZONE_ORDER.indexOf(zone) : NO_ZONE;
  });
  zones.set(t, own);
  return own;
}

/** The field of a target, made once. */
export function targetField(t: TargetSurface): SignedField {
  const own = fields.get(t) ?? signedField(t.mesh);
  fields.set(t, own);
  return own;
}

/** Measures a prepared tooth's scan against plan and target, vertex by vertex. */
export function prepMap({ scan, target, planned }: PrepTooth): PrepMap {
  const { positions } = scan.mesh;
  const field = targetField(target);
  const shortMm = signedDistances(field, positions);
  const outside = signedDistances(plannedField(planned), positions);
  const { faces, points } = closestPoints(field.tree, positions);
  const own = zonesOf(target);
  const n = vertexCount(scan.mesh);
  const [zone, near] = [new Uint8Array(n).fill(NO_ZONE), new Uint32Array(n)];
  const made = madeAround(scan);
  for (let v = 0; v < n; v++) {
    near[v] = nearestCorner(target.mesh, faces[v] as number, points, 3 * v);
    if (made[v] === MADE.seen && Math.abs(shortMm[v] as number) <= FAR_MM) zone[v] = own[near[v] as number] as number;
  }
  const nearMm = outside.map((mm) => -mm);
  const roomMm = nearMm.slice();
  upTheEdge(roomMm, zone, scan.mesh, planned);
  return { roomMm, nearMm, shortMm, zone, areaMm2: vertexAreas(scan.mesh), near };
}

/** On a cut edge the face lies nearer than the planned edge does: there room is told along the axis. */
function upTheEdge(roomMm: Float64Array, zone: Uint8Array, { positions }: Mesh, planned: PlannedTooth): void {
  const edge = ZONE_ORDER.indexOf('edge');
  const cast = rayCaster(plannedField(planned).tree);
  const out = scale(planned.frame.z, -1);
  for (let v = 0; v < zone.length; v++) {
    if (zone[v] !== edge || (roomMm[v] as number) <= 0) continue;
    const hit = cast.first(positions.subarray(3 * v, 3 * v + 3) as unknown as Vec3, out);
    if (hit) roomMm[v] = hit.distance;
  }
}

function nearestCorner({ positions, triangles }: Mesh, face: number, p: Float64Array, at: number): number {
  let [best, least] = [triangles[3 * face] as number, Infinity];
  for (let c = 0; c < 3; c++) {
    const v = triangles[3 * face + c] as number;
    const away = [0, 1, 2].reduce((sum, k) => sum + ((positions[3 * v + k] as number) - (p[at + k] as number)) ** 2, 0);
    if (away < least) [best, least] = [v, away];
  }
  return best;
}

/** The vertices of a zone. */
export function inZone(map: PrepMap, zone: TargetZone): number[] {
  const at = ZONE_ORDER.indexOf(zone);
  return Array.from(map.zone.keys()).filter((v) => map.zone[v] === at);
}

/** A value that a share of the area stays under. @param of the vertices that count */
export function underShare(map: PrepMap, of: readonly number[], values: Float64Array, share: number): number {
  const sorted = [...of].sort((a, b) => (values[a] as number) - (values[b] as number));
  let left = share * of.reduce((sum, v) => sum + (map.areaMm2[v] as number), 0);
  for (const v of sorted) {
    left -= map.areaMm2[v] as number;
    if (left <= 0) return values[v] as number;
  }
  return values[sorted.at(-1) as number] ?? Number.NaN;
}
