import { Buffer } from 'node:buffer';
import { gzipSync } from 'node:zlib';
import {
  box,
  MOST_TRIANGLES,
  Refusal,
  readMesh,
  requireMesh,
  volume,
  weld,
  writeObj,
  writePly,
  writeStlAscii,
  writeStlBinary,
} from '@radiant/core';

// Forms that real programs write, each of one box whose volume is known.
const BOX = box(4, 5, 6);
const text = (s: string) => new TextEncoder().encode(s);
const ascii = writeStlAscii(BOX);
const binary = writeStlBinary(BOX);
const obj = new TextDecoder().decode(writeObj(BOX));
const plyText = (() => {
  const p = BOX.positions;
  const t = BOX.triangles;
  const vertices = Array.from({ length: p.length / 3 }, (_, i) => [...p.subarray(3 * i, 3 * i + 3)].join(' '));
  const faces = Array.from({ length: t.length / 3 }, (_, i) => `3 ${[...t.subarray(3 * i, 3 * i + 3)].join(' ')}`);
  return `ply\nformat ascii 1.0\nelement vertex ${vertices.length}\nproperty float x\nproperty float y\nproperty float z\nelement face ${faces.length}\nproperty list uchar int vertex_indices\nend_header\n${[...vertices, ...faces].join('\n')}\n`;
})();
const with_ = (a: Uint8Array, b: Uint8Array) => Uint8Array.from([...a, ...b]);
const headed = (head: string) => {
  const out = binary.slice();
  out.fill(0, 0, 80);
  out.set(text(head).subarray(0, 80));
  return out;
};
const utf16 = (s: string) => Uint8Array.from(Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(s, 'utf16le')]));

const VALID: [string, Uint8Array][] = [
  ['binary STL', binary],
  ['binary STL that begins with solid', headed('solid a name of a scanner')],
  ['binary STL with bytes behind its end', with_(binary, text('written by a program'))],
  ['binary STL that begins with solid, with bytes behind', with_(headed('solid scan'), new Uint8Array(7))],
  ['ASCII STL', text(ascii)],
  ['ASCII STL in capitals', text(ascii.toUpperCase())],
  ['ASCII STL with a byte-order mark', text(`\ufeff${ascii}`)],
  ['ASCII STL in UTF-16', utf16(ascii)],
  ['ASCII STL in one line', text(ascii.replace(/\s+/g, ' '))],
  ['ASCII STL with CR alone', text(ascii.replaceAll('\n', '\r'))],
  [
    'ASCII STL with the words of the format in its name',
    text(ascii.replace('solid surface', 'solid facet vertex 1 2 3 of a scan')),
  ],
  ['ASCII STL with a long name', text(ascii.replace('solid surface', `solid ${'long '.repeat(2000)}`))],
  ['ASCII STL with tabs and spaces before', text(`  \n\t${ascii.replaceAll(' ', '\t')}`)],
  ['OBJ', text(obj)],
  ['OBJ that begins with normals', text(`vn 0 0 1\nvt 0 0\n${obj}`)],
  ['OBJ that begins with a group', text(`g\ng default\no box\n${obj}`)],
  ['OBJ with indented lines', text(obj.replaceAll(/^/gm, '   '))],
  ['OBJ with CR alone', text(obj.replaceAll('\n', '\r'))],
  ['OBJ with CR and LF', text(obj.replaceAll('\n', '\r\n'))],
  ['OBJ with faces over two lines', text(obj.replaceAll(/^f (\d+) /gm, 'f $1 \\\n '))],
  ['OBJ with words behind its faces', text(obj.replaceAll(/^(f .*)$/gm, '$1 # a face'))],
  ['OBJ with slashes', text(obj.replaceAll(/^f (\d+) (\d+) (\d+)$/gm, 'f $1/1/1 $2//2 $3/3'))],
  ['OBJ with a byte-order mark', text(`\ufeff${obj}`)],
  ['OBJ in UTF-16', utf16(obj)],
  ['PLY', writePly(BOX)],
  ['PLY as text', text(plyText)],
  ['PLY as text with CR alone', text(plyText.replaceAll('\n', '\r'))],
  ['PLY as text with CR and LF', text(plyText.replaceAll('\n', '\r\n'))],
  ['PLY as text with a byte-order mark', text(`\ufeff${plyText}`)],
  [
    'PLY with strips',
    text(
      plyText
        .replace(
          /element face \d+\nproperty list uchar int vertex_indices/,
          'element tristrips 1\nproperty list int int vertex_indices',
        )
        .replace(/(\n3 \d+ \d+ \d+)+\n$/, (faces) => {
          const all = [...faces.matchAll(/3 (\d+) (\d+) (\d+)/g)].map((m) => `${m[1]} ${m[2]} ${m[3]} -1`);
          return `\n${4 * all.length} ${all.join(' ')}\n`;
        }),
    ),
  ],
];

describe('forms in which programs write one surface', () => {
  it.each(VALID)('%s is read', (_, bytes) => {
    const { mesh } = readMesh(bytes);
    expect(volume(weld(mesh))).toBeCloseTo(120, 2);
    expect(mesh.triangles.length).toBe(BOX.triangles.length);
    expect(() => requireMesh(bytes)).not.toThrow();
  });

  it('colours of an OBJ file run to 1 or to 255', () => {
    const coloured = (c: string) => text(obj.replaceAll(/^(v .*)$/gm, `$1 ${c}`));
    for (const c of ['0.5 0.25 1', '127.5 63.75 255'])
      expect([...(readMesh(coloured(c)).colours ?? []).slice(0, 3)].map((v) => Math.round(100 * v))).toEqual([
        50, 25, 100,
      ]);
  });

  it('a strip turns every second triangle, so that all look outward', () => {
    const strip = `ply\nformat ascii 1.0\nelement vertex 4\nproperty float x\nproperty float y\nproperty float z\nelement tristrips 1\nproperty list int int vertex_indices\nend_header\n0 0 0\n1 0 0\n0 1 0\n1 1 0\n4 0 1 2 3\n`;
    expect([...readMesh(text(strip)).mesh.triangles]).toEqual([0, 1, 2, 2, 1, 3]);
  });
});

describe('what is no scan is told as what it is', () => {
  it.each([
    [
      'a ZIP',
      text(
        'PK\u0003\u0004 and more of it, much more than a head has, up to a hundred bytes and then some, and some more',
      ),
      /a packed file \(ZIP\): unpack it first/,
    ],
    ['gzip', new Uint8Array(gzipSync(binary)), /a packed file \(gzip\)/],
    ['a PDF', text(`%PDF-1.7\n${'x'.repeat(200)}`), /a PDF/],
    ['a web page', text(`<!doctype html>${' '.repeat(200)}`), /a web page/],
    [
      'random bytes',
      Uint8Array.from({ length: 400 }, (_, i) => (i * 197 + 31) % 256),
      /This is no STL, PLY or OBJ file\./,
    ],
  ] as const)('%s', (_, bytes, sentence) => {
    expect(() => readMesh(bytes)).toThrow(sentence);
    expect(() => requireMesh(bytes)).toThrow(sentence);
  });

  it('what is asked of a file before it is kept is refused with the sentence of whoever would read it', () => {
    const edit = (change: (view: DataView) => void) => {
      const out = binary.slice();
      change(new DataView(out.buffer));
      return out;
    };
    const broken = [
      binary.subarray(0, 84 + 50 * 5 + 10),
      edit((v) => v.setUint32(80, 5, true)),
      edit((v) => v.setFloat32(84 + 50 * 3 + 12, Number.NaN, true)),
      // Every triangle a point.
      edit((v) => {
        for (let t = 0; t < 12; t++) for (let k = 0; k < 9; k++) v.setFloat32(84 + 50 * t + 12 + 4 * k, 1, true);
      }),
      text(ascii.slice(0, ascii.length - 200)),
      text(obj.slice(0, obj.indexOf('f '))),
      text(plyText.slice(0, plyText.length - 20)),
    ];
    const said = (look: (bytes: Uint8Array) => unknown) =>
      broken.map((bytes) => {
        try {
          look(bytes);
        } catch (error) {
          return (error as Error).message;
        }
        return 'nothing';
      });
    expect(said(requireMesh)).toEqual(said(readMesh));
    expect(said(requireMesh)).not.toContain('nothing');
  });

  it('a file cut short, one that holds more than it says, and one that is too large are told from the head', () => {
    expect(() => readMesh(binary.subarray(0, 84 + 50 * 5 + 10))).toThrow('announces 12 triangles but holds 5');
    const fewer = binary.slice();
    new DataView(fewer.buffer).setUint32(80, 5, true);
    expect(() => readMesh(fewer)).toThrow('announces 5 triangles but holds more');
    const huge = plyText.replace(/element face \d+/, `element face ${MOST_TRIANGLES + 1}`);
    expect(() => readMesh(text(huge))).toThrow('at most 3,000,000 are read');
    expect(() => readMesh(text(ascii.slice(0, ascii.length - 200)))).toThrow(Refusal);
    expect(() => readMesh(text(ascii.replace(/vertex (\S+) (\S+) \S+/, 'vertex $1 $2')))).toThrow(
      'a vertex has 2 coordinates instead of 3',
    );
  });
});
