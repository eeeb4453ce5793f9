import { Refusal } from '../errors.js';
import { type Mesh, triangleCount, weld } from '../geometry/mesh.js';
import { faceNormals } from '../geometry/tree/signed.js';
import { wordsOf } from './file-bytes.js';

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
    const text = startsLikeAscii(bytes);
    // Text in the place of the count is a number that no file holds.
    if (expected < bytes.length && count > 0 && isRecord(view, HEADER_BYTES)) {
      // Some programs write something behind the last triangle; more triangles are another thing.
      if (bytes.length - expected >= RECORD_BYTES && isRecord(view, expected))
        throw new Refusal('stl-broken', `The STL file is broken: it announces ${count} triangles but holds more.`);
      return 'binary';
    }
    if (!text) {
      if (expected > bytes.length && bytes.length > HEADER_BYTES + RECORD_BYTES && isRecord(view, HEADER_BYTES))
        throw new Refusal(
          'stl-broken',
          `The STL file is cut short: it announces ${count} triangles but holds ${Math.floor((bytes.length - HEADER_BYTES) / RECORD_BYTES)}.`,
        );
      throw new Refusal('stl-broken', NOT_STL);
    }
  }
  if (!startsLikeAscii(bytes)) throw new Refusal('stl-broken', NOT_STL);
  // A name may be long: a file is called empty only when all of a short one was looked through.
  if (bytes.length < SHORT_BYTES && !/\bfacet\b/i.test(new TextDecoder('latin1').decode(bytes)))
    throw new Refusal('stl-empty', 'The STL file holds no triangles.');
  return 'ascii';
}

/** What a file that is none is told. */
export const NOT_STL = 'This is not an STL file.';
const SHORT_BYTES = 1_000_000;
/** No scan reaches so far, in any unit that scanners write. */
const FAR = 1e7;

/** Whether twelve numbers that can be a triangle stand at a place. */
function isRecord(view: DataView, at: number): boolean {
  if (at + RECORD_BYTES > view.byteLength) return false;
  let nothing = true;
  for (let k = 0; k < 12; k++) {
    const v = view.getFloat32(at + 4 * k, true);
    if (!(Math.abs(v) < FAR) || (v !== 0 && Math.abs(v) < 1e-30)) return false;
    if (v !== 0) nothing = false;
  }
  return !nothing;
}

/** How many triangles the head announces; 0 of text, which announces none. @throws Refusal as `stlKind` */
export const stlTriangles = (bytes: Uint8Array): number =>
  stlKind(bytes) === 'ascii' ? 0 : new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength).getUint32(80, true);

/** The two free bytes of each triangle of a binary STL file; of an ASCII file none. */
export function stlAttributes(bytes: Uint8Array): Uint16Array {
  if (stlKind(bytes) === 'ascii') return new Uint16Array();
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const out = new Uint16Array(view.getUint32(80, true));
  for (let t = 0; t < out.length; t++) out[t] = view.getUint16(HEADER_BYTES + RECORD_BYTES * t + 48, true);
  return out;
}

function startsLikeAscii(bytes: Uint8Array): boolean {
  return /^\s*solid\b/i.test(new TextDecoder('latin1').decode(bytes.subarray(0, 80)));
}

function readBinary(view: DataView, count: number): StlContent {
  const { corners, attributes } = cornersOf(view, count);
  return connect(corners, attributes, 'binary');
}

function cornersOf(view: DataView, count: number): { corners: Float64Array; attributes: Uint16Array } {
  const corners = new Float64Array(9 * count);
  const attributes = new Uint16Array(count);
  for (let t = 0; t < count; t++) {
    const at = HEADER_BYTES + RECORD_BYTES * t;
    for (let k = 0; k < 9; k++) corners[9 * t + k] = view.getFloat32(at + 12 + 4 * k, true);
    attributes[t] = view.getUint16(at + 48, true);
  }
  return { corners, attributes };
}

/** By its words and not by its lines: capitals, names that hold words of the format, and a file of one line are read. */
function readAscii(text: string): StlContent {
  const next = wordsOf(text);
  const corners: number[] = [];
  let ended = false;
  let word = next()?.toLowerCase();
  while (word !== undefined) {
    if (word === 'endsolid') ended = true;
    if (word !== 'facet') {
      word = next()?.toLowerCase();
      continue;
    }
    word = next()?.toLowerCase();
    // A name may hold the word.
    if (word !== 'normal') continue;
    const at = corners.length;
    for (word = next()?.toLowerCase(); word !== undefined && word !== 'endfacet'; word = next()?.toLowerCase()) {
      if (word !== 'vertex') continue;
      for (let k = 0; k < 3; k++) {
        const number = next() ?? '';
        if (number === '' || /^(vertex|outer|endloop|end?facet|facet|endsolid)$/i.test(number))
          throw new Refusal('stl-broken', `The STL file is broken: a vertex has ${k} coordinates instead of 3.`);
        corners.push(Number(number));
      }
    }
    if (word === undefined) break;
    if (corners.length !== at + 9)
      throw new Refusal(
        'stl-broken',
        `The STL file is broken: a triangle has ${(corners.length - at) / 3} corners instead of 3.`,
      );
  }
  if (corners.length === 0) throw new Refusal('stl-empty', 'The STL file holds no triangles.');
  if (corners.length % 9 !== 0 || !ended)
    throw new Refusal('stl-broken', 'The STL file is cut short: its last triangle or its end is missing.');
  return connect(Float64Array.from(corners), new Uint16Array(corners.length / 9), 'ascii');
}

/** Whether a binary file can be read, without connecting its triangles. @throws Refusal as `readStl` */
export function requireStl(bytes: Uint8Array): void {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const { corners, attributes } = cornersOf(view, view.getUint32(80, true));
  keepSound(corners, attributes);
}

function connect(corners: Float64Array, attributes: Uint16Array, kind: StlContent['kind']): StlContent {
  const kept = keepSound(corners, attributes);
  const triangles = new Uint32Array(3 * kept);
  for (let k = 0; k < triangles.length; k++) triangles[k] = k;
  return {
    mesh: weld({ positions: corners.subarray(0, 9 * kept), triangles }),
    attributes: attributes.slice(0, kept),
    kind,
  };
}

/** Brings the triangles with an area to the front of both. @returns how many they are @throws Refusal */
function keepSound(corners: Float64Array, attributes: Uint16Array): number {
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
  return kept;
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
