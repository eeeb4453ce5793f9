import { MADE } from '../contour/scan.js';
import { vertexAreas } from '../geometry/mesh.js';
import type { Vec3 } from '../geometry/vec.js';
import { hoodOf } from './hood.js';
import { madeAround, type SeenField, seenDistances } from './seen.js';

/** A place where a tooth was cut that was not to be. */
export interface Nick {
  readonly deepMm: number;
  readonly areaMm2: number;
  readonly at: Vec3;
}

/** A smaller place may be a scan's own slip, mm². House value. */
const LEAST_MM2 = 0.25;

/**
 * Where a tooth has lost more than a depth between two scans, largest first.
 * What either scan has not seen says nothing.
 * @param counts which of its vertices are looked at: not those under the gum, that no scan has seen
 */
export function nicks(before: SeenField, after: SeenField, overMm: number, counts: (at: Vec3) => boolean): Nick[] {
  const { mesh } = before;
  const gone = seenDistances(after, mesh.positions);
  const made = madeAround(before);
  const hood = hoodOf(mesh);
  const areas = vertexAreas(mesh);
  const at = (v: number): Vec3 => [mesh.positions[3 * v]!, mesh.positions[3 * v + 1]!, mesh.positions[3 * v + 2]!];
  const lost = (v: number) => made[v] === MADE.seen && gone[v]! > overMm && counts(at(v));
  const seen = new Uint8Array(gone.length);
  const found: Nick[] = [];
  for (let v = 0; v < gone.length; v++) {
    if (seen[v] || !lost(v)) continue;
    const own = [v];
    seen[v] = 1;
    for (let k = 0; k < own.length; k++)
      for (let i = hood.from[own[k]!]!; i < hood.from[own[k]! + 1]!; i++) {
        const w = hood.beside[i]!;
        if (seen[w] || !lost(w)) continue;
        seen[w] = 1;
        own.push(w);
      }
    const areaMm2 = own.reduce((sum, w) => sum + areas[w]!, 0);
    if (areaMm2 < LEAST_MM2) continue;
    const deepest = own.reduce((a, b) => (gone[b]! > gone[a]! ? b : a));
    found.push({ deepMm: gone[deepest]!, areaMm2, at: at(deepest) });
  }
  return found.sort((a, b) => b.areaMm2 - a.areaMm2);
}
