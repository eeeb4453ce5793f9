import { contactBetween } from '../contour/contacts.js';
import { MADE } from '../contour/scan.js';
import { bounds } from '../geometry/mesh.js';
import { closestPoints } from '../geometry/tree/closest.js';
import { hypot, type Vec3 } from '../geometry/vec.js';
import { madeAround, type SeenField } from './seen.js';

/** How a scanned tooth stands to the one beside it. */
export interface Meeting {
  /** Least distance, mm; below 0 where one passes into the other. */
  readonly gapMm: number;
  readonly at: Vec3;
  /** The scan runs on from one into the other, so that they touch or stand nearer than a scanner sees; then 0. */
  readonly bridged: boolean;
}

/** Where a scan ran on, its two rims lie this far apart at most: both were cut back from where they met, mm. House. */
const RIMS_MM = 1.4;

/** How two teeth of one scan meet, by what was seen of them. */
export function meetingOf(own: SeenField, beside: SeenField): Meeting {
  const made = madeAround(own);
  const { positions } = own.mesh;
  const at = (v: number): Vec3 => [positions[3 * v]!, positions[3 * v + 1]!, positions[3 * v + 2]!];
  const rim = Array.from(made.keys()).filter((v) => made[v] === MADE.met);
  const ran = ranInto(rim.map(at), beside);
  if (ran) return { gapMm: 0, at: ran, bridged: true };
  const b = bounds(own.mesh);
  const seen = Array.from(made.keys()).filter((v) => made[v] === MADE.seen);
  const points = seen.length > 0 ? Float64Array.from(seen.flatMap((v) => at(v))) : Float64Array.from([...b.min]);
  return { ...contactBetween(points, beside), bridged: false };
}

/** The rim where a scan ran on into the tooth beside it; of two neighbours it is the one that stands that near. */
function ranInto(rim: readonly Vec3[], beside: SeenField): Vec3 | undefined {
  if (rim.length === 0) return undefined;
  const { distances } = closestPoints(beside.tree, Float64Array.from(rim.flat()));
  const nearest = rim.map((_, i) => i).reduce((a, b) => (distances[b]! < distances[a]! ? b : a));
  return distances[nearest]! < RIMS_MM ? rim[nearest] : undefined;
}

/** A place counts as not seen where what closes the tooth begins within, mm. House value. */
const UNSEEN_MM = 0.8;

/** Whether what lies around a place was not seen on a tooth. */
export function isUnseenAt(field: SeenField, [x, y, z]: Vec3): boolean {
  const { positions } = field.mesh;
  return madeAround(field).some(
    (m, v) =>
      m !== MADE.seen && hypot(positions[3 * v]! - x, positions[3 * v + 1]! - y, positions[3 * v + 2]! - z) < UNSEEN_MM,
  );
}
