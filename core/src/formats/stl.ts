import { Refusal } from '../errors.js';
import { type Mesh, triangleCount, weld } from '../geometry/mesh.js';
import { faceNormals } from '../geometry/tree/signed.js';

/**
 * An STL file as read: the surface with its corners welded, and the two free bytes that binary STL keeps a triangle.
 */
export interface StlContent {
  readonly mesh: Mesh;
  /** One number a triangle; all 0 for ASCII files. */
  readonly attributes: Uint16Array;
  readonly kind: 'binary' | 'ascii';
}

const HEADER_BYTES = 84;
const RECORD_BYTES = 50;

/**
 * Reads STL, binary or ASCII. A file counts as binary when its length fits the count in its header, whatever its first
 * word says. Triangles whose corners fall together are left out.
 * @throws Refusal `stl-broken` (neither kind, cut short, wrong count), `stl-empty` (no triangle), `number-invalid`
 *   (NaN or infinite)
 */
export function readStl(bytes: Uint8Array): StlContent {
  if (stlKind(bytes) === 'ascii') return readAscii(new TextDecoder().decode(bytes));
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  return readBinary(view, view.getUint32(80, true));
}

/**
 * Which kind of STL the bytes are, from the header alone.
 * @throws Refusal `stl-broken`, `stl-empty`
 */
export function stlKind(bytes: Uint8Array): StlContent['kind'] {
  if (bytes.length === 0) throw new Refusal('stl-empty', 'The STL file is empty.');
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length >= HEADER_BYTES) {
    const count = view.getUint32(80, true);
    const expected = HEADER_BYTES + RECORD_BYTES * count;
    if (expected === bytes.length) {
      if (count === 0) throw new Refusal('stl-empty', 'The STL file holds no triangles.');
      return 'binary';
    }
    if (!startsLikeAscii(bytes)) {
      throw new Refusal(
        'stl-broken',
        expected > bytes.length
          ? `The STL file is cut short: it announces ${count} triangles but holds ${Math.floor((bytes.length - HEADER_BYTES) / RECORD_BYTES)}.`
          : `The STL file is broken: it announces ${count} triangles but holds more.`,
      );
    }
  }
  if (!startsLikeAscii(bytes)) throw new Refusal('stl-broken', 'This is not an STL file.');
  if (!/\bvertex\b/.test(new TextDecoder('latin1').decode(bytes.subarray(0, 4096))))
    throw new Refusal('stl-empty', 'The STL file holds no triangles.');
  return 'ascii';
}

/** The two free bytes of each triangle of a binary STL file; of an ASCII file none. */
export function stlAttributes(bytes: Uint8Array): Uint16Array {
  if (stlKind(bytes) === 'ascii') return new Uint16Array();
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  return Uint16Array.from({ length: view.getUint32(80, true) }, (_, t) =>
    view.getUint16(HEADER_BYTES + RECORD_BYTES * t + 48, true),
  );
}

function startsLikeAscii(bytes: Uint8Array): boolean {
  return /^\s*solid\b/.test(new TextDecoder('latin1').decode(bytes.subarray(0, 80)));
}

function readBinary(view: DataView, count: number): StlContent {
  const corners = new Float64Array(9 * count);
  const attributes = new Uint16Array(count);
  for (let t = 0; t < count; t++) {
    const at = HEADER_BYTES + RECORD_BYTES * t;
    for (let k = 0; k < 9; k++) corners[9 * t + k] = view.getFloat32(at + 12 + 4 * k, true);
    attributes[t] = view.getUint16(at + 48, true);
  }
  return connect(corners, attributes, 'binary');
}

function readAscii(text: string): StlContent {
  const corners: number[] = [];
  for (const [, xyz] of text.matchAll(/\bvertex\s+([^\r\n]*)/g)) {
    const words = (xyz as string).trim().split(/\s+/);
    if (words.length !== 3)
      throw new Refusal('stl-broken', `The STL file is broken: a vertex has ${words.length} coordinates instead of 3.`);
    corners.push(...words.map(Number));
  }
  if (corners.length === 0) throw new Refusal('stl-empty', 'The STL file holds no triangles.');
  if (corners.length % 9 !== 0 || !/\bendsolid\b/.test(text))
    throw new Refusal('stl-broken', 'The STL file is cut short: its last triangle or its end is missing.');
  return connect(Float64Array.from(corners), new Uint16Array(corners.length / 9), 'ascii');
}

/** Connects the triangles; takes `corners` and `attributes` for itself. */
function connect(corners: Float64Array, attributes: Uint16Array, kind: StlContent['kind']): StlContent {
  for (let i = 0; i < corners.length; i++) {
    // Only a number with an end leaves nothing when taken from itself.
    if (corners[i] - corners[i] !== 0) {
      throw new Refusal(
        'number-invalid',
        `The STL file holds a coordinate that is not a number, in triangle ${Math.floor(i / 9) + 1}.`,
      );
    }
  }
  let kept = 0;
  for (let t = 0; t < attributes.length; t++) {
    const at = 9 * t;
    if (sameCorner(corners, at, at + 3) || sameCorner(corners, at + 3, at + 6) || sameCorner(corners, at + 6, at))
      continue;
    if (kept < t) {
      corners.copyWithin(9 * kept, at, at + 9);
      attributes[kept] = attributes[t];
    }
    kept++;
  }
  if (kept === 0) throw new Refusal('stl-empty', 'The STL file holds no triangle with an area.');
  const triangles = new Uint32Array(3 * kept);
  for (let k = 0; k < triangles.length; k++) triangles[k] = k;
  return {
    mesh: weld({ positions: corners.slice(0, 9 * kept), triangles }),
    attributes: attributes.slice(0, kept),
    kind,
  };
}

function sameCorner(corners: Float64Array, a: number, b: number): boolean {
  return corners[a] === corners[b] && corners[a + 1] === corners[b + 1] && corners[a + 2] === corners[b + 2];
}

/**
 * Writes binary STL, little-endian, coordinates as 32-bit floats, mm.
 * @param attributes one number a triangle for the format's two free bytes, 0 where left out
 */
export function writeStlBinary(mesh: Mesh, attributes?: Uint16Array, title = 'Radiant Arch, mm'): Uint8Array {
  const count = triangleCount(mesh);
  const bytes = new Uint8Array(HEADER_BYTES + RECORD_BYTES * count);
  bytes.set(new TextEncoder().encode(title).subarray(0, 80), 0);
  const view = new DataView(bytes.buffer);
  view.setUint32(80, count, true);
  const normals = faceNormals(mesh);
  for (let t = 0; t < count; t++) {
    const at = HEADER_BYTES + RECORD_BYTES * t;
    for (let k = 0; k < 3; k++) view.setFloat32(at + 4 * k, normals[3 * t + k], true);
    for (let c = 0; c < 3; c++) {
      const v = 3 * mesh.triangles[3 * t + c];
      for (let k = 0; k < 3; k++) view.setFloat32(at + 12 + 12 * c + 4 * k, mesh.positions[v + k], true);
    }
    view.setUint16(at + 48, attributes?.[t] ?? 0, true);
  }
  return bytes;
}

/** Writes ASCII STL with the shortest decimals that give the same numbers back. */
export function writeStlAscii(mesh: Mesh, name = 'surface'): string {
  const normals = faceNormals(mesh);
  const lines = [`solid ${name}`];
  for (let t = 0; t < triangleCount(mesh); t++) {
    lines.push(` facet normal ${normals[3 * t]} ${normals[3 * t + 1]} ${normals[3 * t + 2]}`, '  outer loop');
    for (let c = 0; c < 3; c++) {
      const v = 3 * mesh.triangles[3 * t + c];
      lines.push(`   vertex ${mesh.positions[v]} ${mesh.positions[v + 1]} ${mesh.positions[v + 2]}`);
    }
    lines.push('  endloop', ' endfacet');
  }
  lines.push(`endsolid ${name}`, '');
  return lines.join('\n');
}
