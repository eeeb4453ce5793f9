import {
  box,
  isPly,
  type Mesh,
  Refusal,
  readPly,
  readScan,
  sphere,
  vertexCount,
  volume,
  writePly,
} from '@radiant/core';
import { PLYLoader } from 'three/examples/jsm/loaders/PLYLoader.js';

const mesh = sphere(5, 12);
const bytesOf = (text: string) => new TextEncoder().encode(text);

/** The same surface in the three kinds, written here by hand. */
function written(kind: 'ascii' | 'binary_little_endian' | 'binary_big_endian', m: Mesh): Uint8Array {
  const n = vertexCount(m);
  const faces = m.triangles.length / 3;
  const head = `ply\nformat ${kind} 1.0\nelement vertex ${n}\nproperty double x\nproperty double y\nproperty double z\nproperty uchar red\nelement face ${faces}\nproperty list uchar int vertex_indices\nend_header\n`;
  if (kind === 'ascii') {
    const rows = Array.from(
      { length: n },
      (_, i) => `${m.positions[3 * i]} ${m.positions[3 * i + 1]} ${m.positions[3 * i + 2]} 200`,
    );
    const lists = Array.from(
      { length: faces },
      (_, t) => `3 ${m.triangles[3 * t]} ${m.triangles[3 * t + 1]} ${m.triangles[3 * t + 2]}`,
    );
    return bytesOf(`${head}${[...rows, ...lists].join('\n')}\n`);
  }
  const little = kind === 'binary_little_endian';
  const start = bytesOf(head);
  const out = new Uint8Array(start.length + 25 * n + 13 * faces);
  out.set(start);
  const view = new DataView(out.buffer);
  let at = start.length;
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < 3; k++, at += 8) view.setFloat64(at, m.positions[3 * i + k] as number, little);
    view.setUint8(at++, 200);
  }
  for (let t = 0; t < faces; t++) {
    view.setUint8(at++, 3);
    for (let k = 0; k < 3; k++, at += 4) view.setInt32(at, m.triangles[3 * t + k] as number, little);
  }
  return out;
}

it.each(['ascii', 'binary_little_endian', 'binary_big_endian'] as const)(
  '%s: the surface is read as three’s own loader reads it',
  (kind) => {
    const bytes = written(kind, mesh);
    const { mesh: read, kind: said } = readPly(bytes);
    expect(said).toBe(kind);
    expect(volume(read)).toBeCloseTo(volume(mesh), 9);
    const copy = bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer;
    const other = new PLYLoader().parse(copy);
    expect(Array.from(other.index?.array ?? [])).toEqual(Array.from(read.triangles));
    const positions = other.attributes.position?.array ?? new Float32Array();
    expect(positions.length).toBe(read.positions.length);
    for (let i = 0; i < positions.length; i += 7) expect(positions[i]).toBeCloseTo(read.positions[i] as number, 5);
  },
);

it('what is written is read back, tooth numbers with it, and three’s loader reads it too', () => {
  const teeth = Uint16Array.from({ length: mesh.triangles.length / 3 }, (_, t) => (t % 2 ? 11 : 0));
  const bytes = writePly(mesh, teeth, 'two\nlines');
  expect(isPly(bytes)).toBe(true);
  const read = readPly(bytes);
  expect(Array.from(read.attributes)).toEqual(Array.from(teeth));
  expect(volume(read.mesh)).toBeCloseTo(volume(mesh), 2);
  expect(new PLYLoader().parse(bytes.buffer as ArrayBuffer).index?.count).toBe(mesh.triangles.length);
});

it('a face of five corners is split into a fan', () => {
  const text = `ply\nformat ascii 1.0\nelement vertex 5\nproperty float x\nproperty float y\nproperty float z\nelement face 1\nproperty list uchar int vertex_index\nend_header\n0 0 0\n2 0 0\n3 1 0\n1 2 0\n0 1 0\n5 0 1 2 3 4\n`;
  expect(Array.from(readPly(bytesOf(text)).mesh.triangles)).toEqual([0, 1, 2, 0, 2, 3, 0, 3, 4]);
});

const HEAD =
  'ply\nformat ascii 1.0\nelement vertex 3\nproperty float x\nproperty float y\nproperty float z\nelement face 1\nproperty list uchar int vertex_indices\nend_header\n';
it.each([
  ['no PLY at all', 'solid cube', 'This is not a PLY file.'],
  ['a header without an end', 'ply\nformat ascii 1.0\nelement vertex 3\n', 'The PLY file’s header has no end.'],
  ['an unknown format', HEAD.replace('ascii', 'packed'), 'The PLY format “packed” is not known.'],
  ['a later version', HEAD.replace('1.0', '2.0'), 'PLY version 2.0 is not read; version 1.0 is.'],
  ['no z', HEAD.replace('property float z\n', ''), 'The PLY file has no vertices with x, y and z.'],
  [
    'an unknown type',
    HEAD.replace('float z', 'fixed z'),
    'A property of the PLY file can’t be read: “property fixed z”.',
  ],
  ['too few numbers', `${HEAD}0 0 0 1 0 0 0 1`, 'The PLY file is cut short.'],
  ['a word for a number', `${HEAD}0 0 0 1 0 nan 0 1 0 3 0 1 2`, 'The PLY file holds “nan” where a number belongs.'],
  [
    'a vertex that is not there',
    `${HEAD}0 0 0 1 0 0 0 1 0 3 0 1 7`,
    'A face of the PLY file names vertex 7; there are 3.',
  ],
  ['no faces', `${HEAD.replace('face 1', 'face 0')}0 0 0 1 0 0 0 1 0`, 'The PLY file holds no faces.'],
  ['a face of a thousand corners', `${HEAD}0 0 0 1 0 0 0 1 0 1000 0`, 'A face of the PLY file announces 1000 corners.'],
])('%s is refused with a sentence', (_, text, sentence) => {
  expect(() => readPly(bytesOf(text))).toThrow(sentence);
});

it('binary that ends early is refused, at whatever byte it ends', () => {
  const whole = written('binary_big_endian', box(1, 1, 1));
  for (const cut of [1, 5, 40, 90]) expect(() => readPly(whole.subarray(0, whole.length - cut))).toThrow(Refusal);
});

it('a PLY without tooth numbers is no scan that can be used yet', () => {
  expect(() => readScan(writePly(mesh))).toThrow(/does not say which triangles belong to which tooth/);
});
