import { Refusal } from '../errors.js';
import type { Mesh } from '../geometry/mesh.js';

/** More corners than this are no face of a scan. */
const MOST_CORNERS = 64;

/** Whether the bytes begin as a Wavefront OBJ file does: comments, names, then vertices. */
export function isObj(bytes: Uint8Array): boolean {
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 4096));
  for (const line of head.split(/[\r\n]+/)) {
    const plain = line.trim();
    if (plain !== '' && !BEFORE_VERTICES.test(plain)) return /^v[ \t]+[-+.\d]/.test(plain);
  }
  return false;
}

/** Lines that may stand before the first vertex: comments, materials, names, normals and places in textures. */
const BEFORE_VERTICES = /^(#|(mtllib|usemtl|vn|vt|vp|[ogs])([ \t]|$))/;

/**
 * A surface as an OBJ file holds it, with the colour of each vertex (0–1) where it is written behind the coordinates.
 */
export interface ObjContent {
  readonly mesh: Mesh;
  readonly colours?: Float32Array;
}

/**
 * Reads Wavefront OBJ: vertices and faces of any number of corners, split into fans; counted from 1 or backward from
 * the last. Normals, textures, groups and materials are read over.
 * @throws Refusal `obj-broken` (a line that can't be read, an index out of range), `obj-empty` (no face),
 *   `number-invalid`
 */
export function readObj(bytes: Uint8Array): ObjContent {
  const text = new TextDecoder('latin1').decode(bytes);
  const positions: number[] = [];
  const colours: number[] = [];
  const triangles: number[] = [];
  let line = 0;
  for (let at = 0; at < text.length; ) {
    line++;
    let end = endOfLine(text, at);
    let own = text.slice(at, end);
    // A line that ends in a backslash goes on in the next.
    while (own.endsWith('\\') && end < text.length) {
      const from = nextLine(text, end);
      end = endOfLine(text, from);
      own = `${own.slice(0, -1)} ${text.slice(from, end)}`;
      line++;
    }
    at = nextLine(text, end);
    const [word, ...rest] = own.split('#', 1)[0].trim().split(/\s+/) as [string, ...string[]];
    // Most lines are vertices or faces; everything else is looked at no further.
    if (word === 'v') {
      const words = rest.map(Number);
      if (words.length < 3)
        throw new Refusal(
          'obj-broken',
          `Line ${line} of the OBJ file is a vertex with fewer than three coordinates.`,
          line,
        );
      if (!words.slice(0, 3).every(Number.isFinite))
        throw new Refusal(
          'number-invalid',
          `Line ${line} of the OBJ file holds a coordinate that is not a number.`,
          line,
        );
      positions.push(words[0], words[1], words[2]);
      if (words.length >= 6) colours.push(words[3], words[4], words[5]);
    } else if (word === 'f') {
      const corners = rest.map((w) => Number.parseInt(w, 10));
      if (corners.length < 3 || corners.length > MOST_CORNERS)
        throw new Refusal('obj-broken', `Line ${line} of the OBJ file is a face of ${corners.length} corners.`, line);
      const vertices = positions.length / 3;
      const own = corners.map((n) => (n < 0 ? vertices + n : n - 1));
      for (const v of own)
        if (!(v >= 0 && v < vertices))
          throw new Refusal(
            'obj-broken',
            `Line ${line} of the OBJ file names a vertex that is not there; there are ${vertices}.`,
            line,
          );
      for (let i = 2; i < own.length; i++) triangles.push(own[0], own[i - 1], own[i]);
    }
  }
  if (triangles.length === 0) throw new Refusal('obj-empty', 'The OBJ file holds no faces.');
  return {
    mesh: { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) },
    ...(colours.length === positions.length && { colours: shares(colours) }),
  };
}

/** Colours 0 to 1; what runs beyond was written 0 to 255. */
function shares(colours: readonly number[]): Float32Array {
  const whole = colours.some((c) => c > 1) ? 255 : 1;
  return Float32Array.from(colours, (c) => c / whole);
}

function endOfLine(text: string, from: number): number {
  let at = from;
  while (at < text.length && text.charCodeAt(at) !== 10 && text.charCodeAt(at) !== 13) at++;
  return at;
}

/** The line after the one that ends here: lines end as any system ends them. */
const nextLine = (text: string, end: number): number =>
  text.charCodeAt(end) === 13 && text.charCodeAt(end + 1) === 10 ? end + 2 : end + 1;

/** Writes a surface as Wavefront OBJ, millimetres, a tenth of a micrometre fine. */
export function writeObj(mesh: Mesh, comment = 'mm'): Uint8Array {
  const lines = [`# ${comment.replaceAll(/[\r\n]/g, ' ')}`];
  const p = mesh.positions;
  for (let i = 0; i < p.length; i += 3)
    lines.push(`v ${(p[i]).toFixed(4)} ${(p[i + 1]).toFixed(4)} ${(p[i + 2]).toFixed(4)}`);
  const t = mesh.triangles;
  for (let k = 0; k < t.length; k += 3) lines.push(`f ${t[k] + 1} ${t[k + 1] + 1} ${t[k + 2] + 1}`);
  lines.push('');
  return new TextEncoder().encode(lines.join('\n'));
}
