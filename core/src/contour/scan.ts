import { Refusal } from '../errors.js';
import { plainBytes } from '../formats/file-bytes.js';
import { isPly, readPly } from '../formats/ply.js';
import { readStl, stlAttributes } from '../formats/stl.js';
import type { Mesh } from '../geometry/mesh.js';
import { requireSound } from '../geometry/validate.js';
import { type Fdi, type Jaw, LOWER_TEN, UPPER_TEN } from '../teeth/notation.js';

/** Whether a file says of its triangles which tooth they are of; only its header or its free bytes are looked at. */
export function hasToothNumbers(file: Uint8Array): boolean {
  const bytes = plainBytes(file);
  if (isPly(bytes))
    return /\nproperty +\w+ +tooth\r?\n/.test(new TextDecoder('latin1').decode(bytes.subarray(0, 4096)));
  const known = new Set<number>([0, ...UPPER_TEN, ...LOWER_TEN]);
  const attributes = stlAttributes(bytes);
  // Some scanners keep a colour there.
  return attributes.some((n) => n !== attributes[0]) && attributes.every((n) => known.has(n));
}

/** A scan with its teeth told apart; everything in the mouth's coordinates, mm. */
export interface SegmentedScan {
  readonly jaw: Jaw;
  /** Closed surface of each tooth. */
  readonly teeth: ReadonlyMap<Fdi, Mesh>;
  /** Everything else: gum. */
  readonly rest: Mesh;
  /** Of each triangle of a tooth how it came; all of a tooth that is not in it was seen. */
  readonly made?: ReadonlyMap<Fdi, Uint8Array>;
}

/**
 * How a triangle of a scanned tooth came: it was seen; it was made up to close the tooth where the scan ends, or where
 * the scan ran on into the tooth beside it.
 */
export const MADE = { seen: 0, closed: 1, met: 2 } as const;

/**
 * Reads a scan whose triangles carry the FDI number of their tooth, in STL's two free bytes or in PLY's face property
 * `tooth` (0 for gum), as the simulated scanner writes them. A scan that has teeth of both jaws counts as one of the
 * upper jaw.
 * @param needs teeth without which the scan is refused
 * @throws Refusal of `readStl` and `readPly`; `scan-without-teeth` when a tooth that is needed, or every tooth, is
 *   missing; `mesh-invalid` when a tooth's surface is not closed
 */
export function readScan(bytes: Uint8Array, needs: readonly Fdi[] = []): SegmentedScan {
  const read = isPly(bytes) ? readPly(bytes) : readStl(bytes);
  const { mesh, attributes } = read;
  const how = 'made' in read ? read.made : undefined;
  const teeth = new Map<Fdi, Mesh>();
  const jaw: Jaw =
    attributes.some((a) => UPPER_TEN.includes(a)) || !attributes.some((a) => LOWER_TEN.includes(a)) ? 'upper' : 'lower';
  const row = jaw === 'upper' ? UPPER_TEN : LOWER_TEN;
  for (const tooth of row) {
    const part = subMesh(mesh, attributes, (a) => a === tooth);
    if (part.triangles.length > 0) teeth.set(tooth, part);
  }
  const missing = needs.filter((t) => !teeth.has(t));
  if (missing.length > 0 || teeth.size === 0) {
    throw new Refusal(
      'scan-without-teeth',
      teeth.size === 0
        ? 'The scan does not say which triangles belong to which tooth. Its teeth have to be picked out first.'
        : `The scan lacks ${missing.join(', ')} of the teeth that are needed.`,
      missing,
    );
  }
  for (const part of teeth.values()) requireSound(part);
  const rest = subMesh(mesh, attributes, (a) => !row.includes(a));
  if (!how) return { jaw, teeth, rest };
  const made = new Map([...teeth.keys()].map((t) => [t, how.filter((_, i) => attributes[i] === t)]));
  return { jaw, teeth, rest, made };
}

/** The triangles whose number is kept, as a surface of its own. */
export function subMesh(mesh: Mesh, attributes: ArrayLike<number>, keep: (attribute: number) => boolean): Mesh {
  const map = new Int32Array(mesh.positions.length / 3).fill(-1);
  const positions: number[] = [];
  const triangles: number[] = [];
  for (let t = 0; t < attributes.length; t++) {
    if (!keep(attributes[t])) continue;
    for (let c = 0; c < 3; c++) {
      const v = mesh.triangles[3 * t + c];
      if (map[v] < 0) {
        map[v] = positions.length / 3;
        positions.push(mesh.positions[3 * v], mesh.positions[3 * v + 1], mesh.positions[3 * v + 2]);
      }
      triangles.push(map[v]);
    }
  }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}
