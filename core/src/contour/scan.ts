import { Refusal } from '../errors.js';
import { readStl } from '../formats/stl.js';
import type { Mesh } from '../geometry/mesh.js';
import { requireSound } from '../geometry/validate.js';
import { type Fdi, UPPER_SIX, UPPER_TEN } from '../teeth/notation.js';

/** A scan with its teeth told apart; everything in the mouth's coordinates, mm. */
export interface SegmentedScan {
  /** Closed surface of each tooth. */
  readonly teeth: ReadonlyMap<Fdi, Mesh>;
  /** Everything else: gum. */
  readonly rest: Mesh;
}

/**
 * Reads a scan whose triangles carry the FDI number of their tooth in STL's two free bytes (0 for gum), as the simulated
 * scanner writes them.
 * @throws Refusal of `readStl`; `scan-without-teeth` when one of the six upper front teeth is missing; `mesh-invalid` when a
 *   tooth's surface is not closed
 */
export function readScan(bytes: Uint8Array): SegmentedScan {
  const { mesh, attributes } = readStl(bytes);
  const teeth = new Map<Fdi, Mesh>();
  for (const tooth of UPPER_TEN) {
    const part = subMesh(mesh, attributes, (a) => a === tooth);
    if (part.triangles.length > 0) teeth.set(tooth, part);
  }
  const missing = UPPER_SIX.filter((t) => !teeth.has(t));
  if (missing.length > 0) {
    throw new Refusal(
      'scan-without-teeth',
      teeth.size === 0
        ? 'The scan does not say which triangles belong to which tooth. For now only scans with tooth numbers can be used, such as those of the simulated scanner.'
        : `The scan lacks ${missing.join(', ')} of the six upper front teeth.`,
      missing,
    );
  }
  for (const part of teeth.values()) requireSound(part);
  return { teeth, rest: subMesh(mesh, attributes, (a) => !UPPER_TEN.includes(a)) };
}

function subMesh(mesh: Mesh, attributes: Uint16Array, keep: (attribute: number) => boolean): Mesh {
  const map = new Int32Array(mesh.positions.length / 3).fill(-1);
  const positions: number[] = [];
  const triangles: number[] = [];
  for (let t = 0; t < attributes.length; t++) {
    if (!keep(attributes[t] as number)) continue;
    for (let c = 0; c < 3; c++) {
      const v = mesh.triangles[3 * t + c] as number;
      if ((map[v] as number) < 0) {
        map[v] = positions.length / 3;
        positions.push(mesh.positions[3 * v] as number, mesh.positions[3 * v + 1] as number, mesh.positions[3 * v + 2] as number);
      }
      triangles.push(map[v] as number);
    }
  }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}
