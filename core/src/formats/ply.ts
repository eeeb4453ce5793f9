import { Refusal } from '../errors.js';
import { type Mesh, triangleCount, vertexCount } from '../geometry/mesh.js';

/** A PLY file as read: its surface, and the whole number that a face property `tooth` gives each triangle. */
export interface PlyContent {
  readonly mesh: Mesh;
  /** One number a triangle; all 0 where the file has no such property. */
  readonly attributes: Uint16Array;
  /** What a face property `made` says of each triangle, where the file has it: see `SegmentedScan`. */
  readonly made?: Uint8Array;
  /** Red, green and blue of each vertex, 0–1, where the file has them. */
  readonly colours?: Float32Array;
  readonly kind: 'ascii' | 'binary_little_endian' | 'binary_big_endian';
}

type Kind = PlyContent['kind'];
type Scalar = 'int8' | 'uint8' | 'int16' | 'uint16' | 'int32' | 'uint32' | 'float32' | 'float64';

interface Property {
  readonly name: string;
  readonly type: Scalar;
  /** Type of the count in front of a list. */
  readonly count?: Scalar;
}

interface Element {
  readonly name: string;
  readonly count: number;
  readonly properties: Property[];
}

/** Names of the scalar types, old and new. */
const SCALARS: Readonly<Record<string, Scalar>> = {
  char: 'int8',
  uchar: 'uint8',
  short: 'int16',
  ushort: 'uint16',
  int: 'int32',
  uint: 'uint32',
  float: 'float32',
  double: 'float64',
  int8: 'int8',
  uint8: 'uint8',
  int16: 'int16',
  uint16: 'uint16',
  int32: 'int32',
  uint32: 'uint32',
  float32: 'float32',
  float64: 'float64',
};

/** More corners than this are no face of a scan. */
const MOST_CORNERS = 64;

/** Whether the bytes begin as a PLY file does. */
export function isPly(bytes: Uint8Array): boolean {
  return bytes.length > 4 && /^ply[\r\n]/.test(new TextDecoder('latin1').decode(bytes.subarray(0, 5)));
}

/**
 * Reads PLY 1.0: ASCII and both byte orders. Faces of more than three corners are split into a fan. Other elements and
 * properties are read over.
 * @throws Refusal `ply-broken` (header or body), `ply-empty` (no face), `number-invalid` (NaN, infinite)
 */
export function readPly(bytes: Uint8Array): PlyContent {
  const { kind, elements, bodyAt } = readHeader(bytes);
  requireRoom(elements, kind, bytes.length - bodyAt);
  const source =
    kind === 'ascii' ? wordsFrom(bytes.subarray(bodyAt)) : valuesFrom(bytes, bodyAt, kind === 'binary_little_endian');
  const positions: number[] = [];
  const triangles: number[] = [];
  const attributes: number[] = [];
  const made: number[] = [];
  const colours: number[] = [];
  for (const e of elements) {
    for (let i = 0; i < e.count; i++) {
      if (e.name === 'vertex') vertexFrom(source, e, positions, colours);
      else if (e.name === 'tristrips') stripsFrom(source, e, positions.length / 3, triangles, attributes);
      else if (e.name === 'face') faceFrom(source, e, positions.length / 3, triangles, attributes, made);
      else for (const p of e.properties) skip(source, p);
    }
  }
  if (triangles.length === 0) throw new Refusal('ply-empty', 'The PLY file holds no faces.');
  return {
    mesh: { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) },
    attributes: Uint16Array.from(attributes),
    ...(made.some((n) => n > 0) && made.length === attributes.length && { made: Uint8Array.from(made) }),
    ...(colours.length === positions.length && { colours: Float32Array.from(colours) }),
    kind,
  };
}

/** How many faces the head announces. @throws Refusal `ply-broken` */
export const plyFaces = (bytes: Uint8Array): number =>
  readHeader(bytes).elements.find((e) => e.name === 'face')?.count ?? 0;

/**
 * Which kind of PLY the bytes are, by a header that must be whole.
 * @throws Refusal `ply-broken`
 */
export const plyKind = (bytes: Uint8Array): Kind => readHeader(bytes).kind;

const broken = (sentence: string, received?: unknown) => new Refusal('ply-broken', sentence, received);

function readHeader(bytes: Uint8Array): { kind: Kind; elements: Element[]; bodyAt: number } {
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 65536));
  if (!isPly(bytes)) throw broken('This is not a PLY file.');
  const end = /[\r\n]end_header(\r\n|[\r\n])/.exec(head);
  if (!end) throw broken('The PLY file’s header has no end.');
  let kind: Kind | undefined;
  const elements: Element[] = [];
  for (const line of head
    .slice(0, end.index)
    .split(/\r\n|[\r\n]/)
    .slice(1)) {
    const [word, ...rest] = line.trim().split(/\s+/);
    if (word === 'format') {
      const [name, version] = rest;
      if (name !== 'ascii' && name !== 'binary_little_endian' && name !== 'binary_big_endian')
        throw broken(`The PLY format “${name}” is not known.`, line);
      if (version !== '1.0') throw broken(`PLY version ${version} is not read; version 1.0 is.`, line);
      kind = name;
    } else if (word === 'element') {
      const count = Number(rest[1]);
      if (!rest[0] || !Number.isInteger(count) || count < 0)
        throw broken('An element of the PLY file has no count.', line);
      elements.push({ name: rest[0], count, properties: [] });
    } else if (word === 'property') {
      const element = elements.at(-1);
      const list = rest[0] === 'list';
      const type = SCALARS[(list ? rest[2] : rest[0]) ?? ''];
      const countType = list ? SCALARS[rest[1] ?? ''] : undefined;
      const name = list ? rest[3] : rest[1];
      if (!element || !type || !name || (list && !countType))
        throw broken(`A property of the PLY file can’t be read: “${line.trim().slice(0, 60)}”.`, line);
      element.properties.push({ name, type, ...(countType && { count: countType }) });
    }
  }
  if (!kind) throw broken('The PLY file does not say its format.');
  const vertex = elements.find((e) => e.name === 'vertex');
  if (!vertex || !['x', 'y', 'z'].every((n) => vertex.properties.some((p) => p.name === n && !p.count)))
    throw broken('The PLY file has no vertices with x, y and z.');
  return { kind, elements, bodyAt: end.index + end[0].length };
}

/** What the header announces needs at least these bytes; a file that holds fewer is not begun with. */
function requireRoom(elements: readonly Element[], kind: Kind, bytes: number): void {
  // In text a number is a digit and what parts it from the next.
  const least = (p: Property) => (kind === 'ascii' ? 2 : SIZE[p.count ?? p.type]);
  let needed = 0;
  for (const e of elements) {
    if (e.count > 0 && e.properties.length === 0)
      throw broken(`The element “${e.name.slice(0, 20)}” of the PLY file has no properties.`);
    needed += e.count * e.properties.reduce((sum, p) => sum + least(p), 0);
  }
  if (needed > bytes + 1) throw broken('The PLY file is cut short.', needed);
}

/** The next number of the body, of a type. */
type Source = (type: Scalar) => number;

const SIZE: Readonly<Record<Scalar, number>> = {
  int8: 1,
  uint8: 1,
  int16: 2,
  uint16: 2,
  int32: 4,
  uint32: 4,
  float32: 4,
  float64: 8,
};

function valuesFrom(bytes: Uint8Array, from: number, little: boolean): Source {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = from;
  return (type) => {
    const here = at;
    at += SIZE[type];
    if (at > view.byteLength) throw broken('The PLY file is cut short.');
    switch (type) {
      case 'int8':
        return view.getInt8(here);
      case 'uint8':
        return view.getUint8(here);
      case 'int16':
        return view.getInt16(here, little);
      case 'uint16':
        return view.getUint16(here, little);
      case 'int32':
        return view.getInt32(here, little);
      case 'uint32':
        return view.getUint32(here, little);
      case 'float32':
        return view.getFloat32(here, little);
      default:
        return view.getFloat64(here, little);
    }
  };
}

function wordsFrom(body: Uint8Array): Source {
  const words = new TextDecoder('latin1').decode(body).split(/\s+/);
  let at = words[0] === '' ? 1 : 0;
  return () => {
    const word = words[at++];
    if (word === undefined || word === '') throw broken('The PLY file is cut short.');
    const value = Number(word);
    if (!Number.isFinite(value))
      throw new Refusal('number-invalid', `The PLY file holds “${word.slice(0, 20)}” where a number belongs.`, word);
    return value;
  };
}

function skip(source: Source, p: Property): void {
  const n = p.count ? source(p.count) : 1;
  for (let i = 0; i < n; i++) source(p.type);
}

const COLOURS = ['red', 'green', 'blue'];

function vertexFrom(source: Source, e: Element, positions: number[], colours: number[]): void {
  const at = positions.length;
  positions.push(0, 0, 0);
  for (const p of e.properties) {
    const axis = p.count ? -1 : ['x', 'y', 'z'].indexOf(p.name);
    if (axis < 0 && !p.count && COLOURS.includes(p.name)) {
      // Whole numbers run to 255, fractions to 1.
      colours.push(source(p.type) / (p.type.startsWith('float') ? 1 : 255));
      continue;
    }
    if (axis < 0) {
      skip(source, p);
      continue;
    }
    const value = source(p.type);
    if (!Number.isFinite(value))
      throw new Refusal('number-invalid', 'A vertex of the PLY file is not a number.', value);
    positions[at + axis] = value;
  }
}

function faceFrom(
  source: Source,
  e: Element,
  vertices: number,
  triangles: number[],
  attributes: number[],
  made: number[],
): void {
  let corners: number[] = [];
  let [tooth, own] = [0, 0];
  for (const p of e.properties) {
    if (p.count && (p.name === 'vertex_indices' || p.name === 'vertex_index')) {
      const n = source(p.count);
      if (n > MOST_CORNERS) throw broken(`A face of the PLY file announces ${n} corners.`, n);
      corners = Array.from({ length: n }, () => source(p.type));
    } else if (p.name === 'tooth' && !p.count) tooth = source(p.type);
    else if (p.name === 'made' && !p.count) own = source(p.type);
    else skip(source, p);
  }
  const outside = corners.find((c) => !(Number.isInteger(c) && c >= 0 && c < vertices));
  if (outside !== undefined)
    throw broken(`A face of the PLY file names vertex ${outside}; there are ${vertices}.`, outside);
  for (let i = 2; i < corners.length; i++) {
    const [a, b, c] = [corners[0], corners[i - 1], corners[i]];
    if (a === b || b === c || a === c) continue;
    triangles.push(a, b, c);
    attributes.push(tooth);
    made.push(own);
  }
}

/** Strips of triangles, each corner making one with the two before it; −1 begins anew. */
function stripsFrom(source: Source, e: Element, vertices: number, triangles: number[], attributes: number[]): void {
  for (const p of e.properties) {
    if (!p.count) {
      source(p.type);
      continue;
    }
    const n = source(p.count);
    let [a, b, turned] = [-1, -1, false];
    for (let i = 0; i < n; i++) {
      const c = source(p.type);
      if (c === -1 || c === 4294967295) {
        [a, b, turned] = [-1, -1, false];
        continue;
      }
      if (!(Number.isInteger(c) && c >= 0 && c < vertices))
        throw broken(`A strip of the PLY file names vertex ${c}; there are ${vertices}.`, c);
      if (a >= 0 && a !== b && b !== c && a !== c) {
        triangles.push(...(turned ? [b, a, c] : [a, b, c]));
        attributes.push(0);
      }
      if (a >= 0) turned = !turned;
      [a, b] = [b, c];
    }
  }
}

/**
 * Writes a surface as binary little-endian PLY 1.0, 32-bit floats.
 * @param attributes one whole number a triangle, written as the face property `tooth`
 * @param made one a triangle, written as the face property `made`: see `SegmentedScan`
 */
export function writePly(mesh: Mesh, attributes?: Uint16Array, comment = 'mm', made?: Uint8Array): Uint8Array {
  const vertices = vertexCount(mesh);
  const faces = triangleCount(mesh);
  const head = new TextEncoder().encode(
    `ply\nformat binary_little_endian 1.0\ncomment ${comment.replaceAll(/[\r\n]/g, ' ')}\nelement vertex ${vertices}\nproperty float x\nproperty float y\nproperty float z\nelement face ${faces}\nproperty list uchar uint vertex_indices\n${attributes ? 'property ushort tooth\n' : ''}${made ? 'property uchar made\n' : ''}end_header\n`,
  );
  const faceBytes = 13 + (attributes ? 2 : 0) + (made ? 1 : 0);
  const out = new Uint8Array(head.length + 12 * vertices + faceBytes * faces);
  out.set(head);
  const view = new DataView(out.buffer);
  let at = head.length;
  for (let i = 0; i < 3 * vertices; i++, at += 4) view.setFloat32(at, mesh.positions[i], true);
  for (let t = 0; t < faces; t++) {
    view.setUint8(at++, 3);
    for (let c = 0; c < 3; c++, at += 4) view.setUint32(at, mesh.triangles[3 * t + c], true);
    if (attributes) {
      view.setUint16(at, attributes[t], true);
      at += 2;
    }
    if (made) view.setUint8(at++, made[t]);
  }
  return out;
}
