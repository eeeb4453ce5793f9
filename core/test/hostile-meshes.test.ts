import { Refusal } from '../src/errors.js';
import { isObj, readPly } from '../src/index.js';

const bytes = (text: string) => new TextEncoder().encode(text);
const header = (elements: string, format = 'binary_little_endian') =>
  `ply\nformat ${format} 1.0\n${elements}end_header\n`;
const VERTEX = 'property float x\nproperty float y\nproperty float z\n';
const FACE = 'property list uchar int vertex_indices\n';

/** A reader that would go on for ever fails the test by the runner's own time limit. */
const refusal = (read: () => unknown) => {
  try {
    read();
  } catch (error) {
    return error as Refusal;
  }
  throw new Error('it was read');
};

describe('a few bytes never keep a reader busy', () => {
  it.each([
    ['blank lines', '\n'.repeat(30)],
    ['blank lines and spaces', ' \n\t\n'.repeat(1000)],
    ['lines that end in both ways', '\r\n \r\n'.repeat(600)],
  ])('%s before something that is no vertex are no OBJ, and before a vertex one', (_, blank) => {
    expect(isObj(bytes(`${blank}x`))).toBe(false);
    expect(isObj(bytes(`${blank}v 1 2 3\n`))).toBe(true);
  });

  it('names and comments may stand before the first vertex, other words not', () => {
    expect(isObj(bytes('# made by hand\nmtllib a.mtl\no jaw\ng\ns off\nusemtl b\n v 1 2 3\n'))).toBe(true);
    expect(isObj(bytes('object\nv 1 2 3\n'))).toBe(false);
    expect(isObj(bytes('g a\nsolid x\n'))).toBe(false);
  });

  it.each([
    ['vertices', header(`element vertex 1000000000000000\n${VERTEX}element face 1\n${FACE}`)],
    ['faces', header(`element vertex 0\n${VERTEX}element face 1000000000000000\n${FACE}`)],
    ['vertices as text', header(`element vertex 1000000000000000\n${VERTEX}element face 1\n${FACE}`, 'ascii')],
    [
      'an element of another name',
      header(`element vertex 0\n${VERTEX}element dust 1000000000000000\nproperty char a\n`),
    ],
    [
      'many elements together',
      header(`element vertex 3\n${VERTEX}${'element dust 1000000000\nproperty char a\n'.repeat(50)}`),
    ],
  ])('a PLY that announces 10¹⁵ %s in 200 bytes is cut short', (_, text) => {
    expect(refusal(() => readPly(bytes(text)))).toMatchObject({
      code: 'ply-broken',
      message: 'The PLY file is cut short.',
    });
  });

  it('an element without properties takes no bytes, and is refused with its count', () => {
    const text = header(`element vertex 0\n${VERTEX}element dust 1000000000000000\nelement face 0\n${FACE}`);
    expect(refusal(() => readPly(bytes(text))).message).toBe('The element “dust” of the PLY file has no properties.');
  });

  it('a list that announces four thousand million entries is cut short', () => {
    const head = bytes(
      header(`element vertex 0\n${VERTEX}element dust 1\nproperty list uint char a\nelement face 0\n${FACE}`),
    );
    const file = new Uint8Array(head.length + 8);
    file.set(head);
    file.fill(0xff, head.length, head.length + 4);
    expect(refusal(() => readPly(file)).message).toBe('The PLY file is cut short.');
  });
});
