import {
  bounds,
  box,
  crown,
  inspectMesh,
  Refusal,
  readStl,
  sphere,
  volume,
  writeStlAscii,
  writeStlBinary,
} from '@radiant/core';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';

const tooth = crown(11, { lengthMm: 10, widthMm: 8, facialVolumeMm: 0 }).mesh;
const codeOf = (act: () => unknown) => {
  try {
    act();
  } catch (error) {
    return error instanceof Refusal ? error.code : String(error);
  }
  return 'accepted';
};

describe('STL', () => {
  it('binary comes back closed, with the same volume to 32-bit precision', () => {
    const back = readStl(writeStlBinary(tooth));
    expect(back.kind).toBe('binary');
    expect(inspectMesh(back.mesh).ok).toBe(true);
    expect(volume(back.mesh)).toBeCloseTo(volume(tooth), 3);
  });

  it('ASCII comes back with the very same numbers', () => {
    const back = readStl(new TextEncoder().encode(writeStlAscii(tooth)));
    expect(back.kind).toBe('ascii');
    expect(volume(back.mesh)).toBe(volume(tooth));
  });

  it.each(['binary', 'ascii'] as const)('%s is read alike by three’s loader', (kind) => {
    const data =
      kind === 'binary' ? writeStlBinary(tooth).buffer : new TextEncoder().encode(writeStlAscii(tooth)).buffer;
    const geometry = new STLLoader().parse(data as ArrayBuffer);
    geometry.computeBoundingBox();
    const own = bounds(tooth);
    expect(geometry.getAttribute('position').count).toBe(tooth.triangles.length);
    for (const [k, axis] of (['x', 'y', 'z'] as const).entries()) {
      expect(geometry.boundingBox?.min[axis]).toBeCloseTo(own.min[k] as number, 4);
      expect(geometry.boundingBox?.max[axis]).toBeCloseTo(own.max[k] as number, 4);
    }
  });

  it('keeps the two free bytes of each triangle', () => {
    const m = box(1, 1, 1);
    const numbers = Uint16Array.from({ length: 12 }, (_, i) => 11 + i);
    expect([...readStl(writeStlBinary(m, numbers)).attributes]).toEqual([...numbers]);
  });

  it('a binary file whose title begins with "solid" is still read as binary', () => {
    expect(readStl(writeStlBinary(box(1, 1, 1), undefined, 'solid by name only')).kind).toBe('binary');
  });

  it.each([
    ['nothing', new Uint8Array(), 'stl-empty'],
    ['text that is no STL', new TextEncoder().encode('hello'), 'stl-broken'],
    ['a file cut short', writeStlBinary(sphere(1, 8)).slice(0, 400), 'stl-broken'],
    [
      'a file with more triangles than it announces',
      Uint8Array.from([...writeStlBinary(box(1, 1, 1)), ...writeStlBinary(box(1, 1, 1)).subarray(84)]),
      'stl-broken',
    ],
    ['ASCII without its end', new TextEncoder().encode(writeStlAscii(box(1, 1, 1)).slice(0, -60)), 'stl-broken'],
    ['ASCII without triangles', new TextEncoder().encode('solid a\nendsolid a\n'), 'stl-empty'],
    [
      'ASCII with a word for a number',
      new TextEncoder().encode(writeStlAscii(box(1, 1, 1)).replace('vertex -0.5', 'vertex x')),
      'number-invalid',
    ],
    [
      'no triangles in binary',
      writeStlBinary({ positions: new Float64Array(), triangles: new Uint32Array() }),
      'stl-empty',
    ],
  ])('refuses %s', (_, bytes, code) => {
    expect(codeOf(() => readStl(bytes))).toBe(code);
  });

  it('refuses NaN and names the triangle', () => {
    const bytes = writeStlBinary(box(1, 1, 1));
    new DataView(bytes.buffer).setFloat32(84 + 50 * 4 + 12, Number.NaN, true);
    expect(() => readStl(bytes)).toThrow('in triangle 5');
  });
});
