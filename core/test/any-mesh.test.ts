import {
  box,
  hasToothNumbers,
  isObj,
  type Mesh,
  meshFormat,
  readMesh,
  readObj,
  readPly,
  sphere,
  volume,
  writeObj,
  writePly,
  writeStlAscii,
  writeStlBinary,
} from '@radiant/core';
import { OBJLoader } from 'three/examples/jsm/loaders/OBJLoader.js';

const mesh = sphere(5, 12);
const bytesOf = (text: string) => new TextEncoder().encode(text);
const sentence = (bytes: Uint8Array): string => {
  try {
    readMesh(bytes);
    return 'read';
  } catch (error) {
    return (error as Error).message;
  }
};

describe('OBJ', () => {
  it('written is read back the same, and by three’s own loader as well', () => {
    const bytes = writeObj(mesh, 'a ball, mm');
    const { mesh: read } = readObj(bytes);
    expect([...read.triangles]).toEqual([...mesh.triangles]);
    for (let i = 0; i < mesh.positions.length; i++)
      expect(Math.abs((read.positions[i] as number) - (mesh.positions[i] as number))).toBeLessThan(0.00006);
    const group = new OBJLoader().parse(new TextDecoder().decode(bytes));
    const geometry = (group.children[0] as unknown as { geometry: { attributes: { position: { count: number } } } })
      .geometry;
    expect(geometry.attributes.position.count).toBe(mesh.triangles.length);
  });

  it('faces of many corners, counted from the end, with textures and normals, in groups, with the colours of vertices', () => {
    const text = `# made by hand\nmtllib none.mtl\no a square\nv 0 0 0 1 0 0\nv 2 0 0 0 1 0\nv 2 2 0 0 0 1\r\nv 0 2 0 1 1 1\nvn 0 0 1\nvt 0 0\ng one\nusemtl none\ns off\nf 1/1/1 2/1/1 3//1 4\nv 1 1 3 0 0 0\nf -1 -2 -3\n`;
    const { mesh: m, colours } = readObj(bytesOf(text));
    expect([...m.triangles]).toEqual([0, 1, 2, 0, 2, 3, 4, 3, 2]);
    expect([...(colours ?? [])].slice(0, 6)).toEqual([1, 0, 0, 0, 1, 0]);
    expect(isObj(bytesOf(text))).toBe(true);
  });

  it.each([
    [
      'a vertex of two numbers',
      'v 1 2\nf 1 1 1\n',
      /^Line 1 of the OBJ file is a vertex with fewer than three coordinates\.$/,
    ],
    [
      'an index that is not there',
      'v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 4\n',
      /^Line 4 of the OBJ file names a vertex that is not there; there are 3\.$/,
    ],
    ['an index before the first', 'v 0 0 0\nv 1 0 0\nv 0 1 0\nf -4 2 1\n', /names a vertex that is not there/],
    [
      'a word where a number belongs',
      'v 0 0 zero\nf 1 1 1\n',
      /^Line 1 of the OBJ file holds a coordinate that is not a number\.$/,
    ],
    ['a face of two corners', 'v 0 0 0\nv 1 0 0\nf 1 2\n', /^Line 3 of the OBJ file is a face of 2 corners\.$/],
    ['points alone', 'v 0 0 0\nv 1 0 0\nv 0 1 0\n', /^The OBJ file holds no faces\.$/],
  ])('%s is refused in a sentence', (_, text, words) => {
    expect(sentence(bytesOf(text))).toMatch(words);
  });
});

describe('a file of any format', () => {
  it.each([
    ['STL', writeStlBinary(mesh)],
    ['STL', bytesOf(writeStlAscii(mesh))],
    ['PLY', writePly(mesh)],
    ['OBJ', writeObj(mesh)],
  ] as const)('is known as %s by its bytes and read', (format, bytes) => {
    expect(meshFormat(bytes)).toBe(format);
    const read = readMesh(bytes);
    expect(read.format).toBe(format);
    expect(read.mesh.triangles.length).toBe(mesh.triangles.length);
    expect(volume(read.mesh)).toBeCloseTo(volume(mesh), 1);
  });

  // A binary file may begin with the word of the text format, and a text with anything.
  it('binary STL that begins with “solid” is binary, a text that looks like a binary header is refused', () => {
    const binary = writeStlBinary(mesh, undefined, 'solid not text at all');
    expect(readMesh(binary).mesh.triangles.length).toBe(mesh.triangles.length);
    expect(sentence(bytesOf(`${' '.repeat(90)}nothing of the kind`))).toMatch(/announces|no STL, PLY or OBJ/);
  });

  it.each([
    [
      'cut short',
      writeStlBinary(mesh).subarray(0, 3000),
      /^The STL file is cut short: it announces \d+ triangles but holds 58\.$/,
    ],
    [
      'with more triangles than it announces',
      new Uint8Array([...writeStlBinary(mesh), ...writeStlBinary(mesh).subarray(84, 184)]),
      /^The STL file is broken: it announces \d+ triangles but holds more\.$/,
    ],
    ['PLY cut short', writePly(mesh).subarray(0, 900), /^The PLY file is cut short\.$/],
    ['a text without triangles', bytesOf('solid nothing\nendsolid nothing\n'), /^The STL file holds no triangles\.$/],
    [
      'a picture',
      new Uint8Array([0x89, 0x50, 0x4e, 0x47, 1, 2, 3]),
      /^This is a picture \(PNG\)\. A scan is an STL, PLY or OBJ file\.$/,
    ],
    ['nothing', new Uint8Array(), /^The STL file is empty\.$/],
  ])('%s is refused in a sentence', (_, bytes, words) => {
    expect(sentence(bytes)).toMatch(words);
  });

  it('colours of a PLY’s vertices are kept, whole numbers and fractions alike', () => {
    const head = (type: string) =>
      `ply\nformat ascii 1.0\nelement vertex 3\nproperty float x\nproperty float y\nproperty float z\nproperty ${type} red\nproperty ${type} green\nproperty ${type} blue\nelement face 1\nproperty list uchar int vertex_indices\nend_header\n`;
    const whole = readPly(bytesOf(`${head('uchar')}0 0 0 255 0 51\n1 0 0 0 255 0\n0 1 0 0 0 255\n3 0 1 2\n`));
    const parts = readPly(bytesOf(`${head('float')}0 0 0 1 0 0.2\n1 0 0 0 1 0\n0 1 0 0 0 1\n3 0 1 2\n`));
    expect([...(whole.colours ?? [])].map((v) => v.toFixed(3))).toEqual(
      [...(parts.colours ?? [])].map((v) => v.toFixed(3)),
    );
    expect(whole.colours?.[2]).toBeCloseTo(0.2, 6);
  });

  it('says its teeth’s numbers or not; colours in the free bytes of an STL are no numbers', () => {
    const of = (n: number[]) =>
      writeStlBinary(
        mesh,
        Uint16Array.from({ length: mesh.triangles.length / 3 }, (_, t) => n[t % n.length] as number),
      );
    expect(hasToothNumbers(of([11, 21, 0]))).toBe(true);
    expect(hasToothNumbers(of([0]))).toBe(false);
    expect(hasToothNumbers(of([31, 32767, 11]))).toBe(false);
    expect(hasToothNumbers(bytesOf(writeStlAscii(mesh)))).toBe(false);
    expect(hasToothNumbers(writePly(mesh))).toBe(false);
    expect(hasToothNumbers(writePly(mesh, new Uint16Array(mesh.triangles.length / 3).fill(11)))).toBe(true);
  });

  it('more triangles than can be worked on are refused with their number', () => {
    const many: Mesh = { positions: box(1, 1, 1).positions, triangles: new Uint32Array(3 * 3_000_001) };
    for (let t = 0; t < many.triangles.length; t += 3) many.triangles.set([0, 1, 2], t);
    expect(sentence(writePly(many))).toMatch(/^The scan has 3,000,001 triangles; at most 3,000,000 are read\./);
  }, 120_000);
});
