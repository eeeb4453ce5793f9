import { Refusal } from '../errors.js';
import type { Mesh } from '../geometry/mesh.js';
import { plainBytes, requireNoForeign } from './file-bytes.js';
import { isObj, readObj } from './obj.js';
import { isPly, plyFaces, plyKind, readPly } from './ply.js';
import { NOT_STL, readStl, requireStl, stlKind, stlTriangles } from './stl.js';

/** A surface out of a file of any format that is read. */
export interface AnyMesh {
  readonly format: 'STL' | 'PLY' | 'OBJ';
  readonly mesh: Mesh;
  /** Whole numbers a triangle, where the format has them; else all 0. */
  readonly attributes: Uint16Array;
  /** Red, green and blue of each vertex, 0–1, where the file has them. */
  readonly colours?: Float32Array;
}

/**
 * The format of a file by its first bytes, whatever it is called.
 * @throws Refusal `mesh-unknown`, and of broken headers `stl-broken`, `stl-empty`, `ply-broken`
 */
export function meshFormat(file: Uint8Array): AnyMesh['format'] {
  requireNoForeign(file);
  const bytes = plainBytes(file);
  if (isPly(bytes)) return plyKind(bytes) && 'PLY';
  if (isObj(bytes)) return 'OBJ';
  try {
    stlKind(bytes);
    return 'STL';
  } catch (error) {
    if (error instanceof Refusal && error.message === NOT_STL)
      throw new Refusal('mesh-unknown', 'This is no STL, PLY or OBJ file.');
    throw error;
  }
}

/** Most triangles that are read. */
export const MOST_TRIANGLES = 3_000_000;

/**
 * Reads STL, PLY or OBJ by what the bytes say, whatever the file is called.
 * @throws Refusal of the format's reader; `mesh-too-large`; `mesh-unknown` when it is none of them
 */
export function readMesh(file: Uint8Array): AnyMesh {
  const format = meshFormat(file);
  const bytes = plainBytes(file);
  requireFewTold(format, bytes);
  const read = format === 'PLY' ? readPly(bytes) : format === 'OBJ' ? readObj(bytes) : readStl(bytes);
  const count = read.mesh.triangles.length / 3;
  requireFew(count);
  return { attributes: new Uint16Array(count), ...read, format };
}

/** Whether `readMesh` reads a file, told in less time. @throws Refusal as `readMesh` */
export function requireMesh(file: Uint8Array): void {
  const format = meshFormat(file);
  const bytes = plainBytes(file);
  if (format !== 'STL' || stlKind(bytes) === 'ascii') return void readMesh(file);
  requireFewTold(format, bytes);
  requireStl(bytes);
}

/** Told from the head: nothing is read that is refused for its size. */
function requireFewTold(format: AnyMesh['format'], bytes: Uint8Array): void {
  requireFew(format === 'PLY' ? plyFaces(bytes) : format === 'STL' ? stlTriangles(bytes) : 0);
}

function requireFew(count: number): void {
  if (count > MOST_TRIANGLES)
    throw new Refusal(
      'mesh-too-large',
      `The scan has ${count.toLocaleString('en-GB')} triangles; at most ${MOST_TRIANGLES.toLocaleString('en-GB')} are read. Let the scanner’s program write it coarser.`,
      count,
    );
}
