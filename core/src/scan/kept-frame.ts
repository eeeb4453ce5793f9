import type { Frame } from '../geometry/frame.js';
import { cross, dot, length, scale, type Vec3 } from '../geometry/vec.js';

// A working copy lies in the mouth's coordinates. How the mouth lies in the scan that it was made from is kept with it:
// the other jaw of the same sitting lies by it too, and what is laid once need not be laid again.

/**
 * Takes points of one file into another's coordinates: 4 × 4, row by row, for columns of points. A file that is not in
 * millimetres is brought into them by it.
 */
export type FrameMatrix = readonly number[];

/** How far axes may be from standing square on each other and from being equally long, as a share. */
const SQUARE = 1e-6;

/** The matrix from a file's own coordinates into the mouth's. @param unitMm millimetres of the file's unit */
export function matrixInto(mouth: Frame, unitMm = 1): FrameMatrix {
  const row = (axis: Vec3) => [...scale(axis, unitMm), 0 - dot(axis, mouth.origin)];
  return [...row(mouth.x), ...row(mouth.y), ...row(mouth.z), 0, 0, 0, 1];
}

/** The mouth's frame in the file's coordinates, mm; undefined for numbers that are no such matrix. */
export function mouthBy(matrix: FrameMatrix): Frame | undefined {
  if (!isFrameMatrix(matrix)) return undefined;
  const [x, y, z] = axesOf(matrix);
  const unitMm = length(x);
  const [ux, uy, uz] = [scale(x, 1 / unitMm), scale(y, 1 / unitMm), scale(z, 1 / unitMm)];
  const [tx, ty, tz] = [3, 7, 11].map((i) => -matrix[i]) as [number, number, number];
  const origin = ([0, 1, 2] as const).map((k) => tx * ux[k] + ty * uy[k] + tz * uz[k]);
  return { origin: origin as unknown as Vec3, x: ux, y: uy, z: uz };
}

/** Whether these are 16 numbers that turn, move and measure, and do nothing else: nothing is bent or mirrored. */
export function isFrameMatrix(n: readonly unknown[]): n is FrameMatrix {
  if (n.length !== 16 || !n.every((v) => typeof v === 'number' && Number.isFinite(v))) return false;
  const m = n as readonly number[];
  if (m[12] !== 0 || m[13] !== 0 || m[14] !== 0 || m[15] !== 1) return false;
  const [x, y, z] = axesOf(m);
  const size = length(x);
  if (!(size > 0)) return false;
  const near = (a: number, b: number) => Math.abs(a - b) <= SQUARE * size * size;
  const alike = near(dot(y, y), size * size) && near(dot(z, z), size * size);
  const square = near(dot(x, y), 0) && near(dot(y, z), 0) && near(dot(z, x), 0);
  return alike && square && dot(cross(x, y), z) > 0;
}

const axesOf = (m: readonly number[]): [Vec3, Vec3, Vec3] =>
  [0, 4, 8].map((i) => m.slice(i, i + 3) as unknown as Vec3) as [Vec3, Vec3, Vec3];

const WORD = 'mouth in the scan:';

/**
 * The mouth's frame as the head of an older working copy's file tells it; undefined where it says nothing. What is made
 * now keeps it in its record.
 */
export function frameInHead(bytes: Uint8Array): Frame | undefined {
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 4096));
  const at = head.indexOf(WORD);
  if (at < 0) return undefined;
  const n = head
    .slice(at + WORD.length)
    .trim()
    .split(/\s+/)
    .slice(0, 12)
    .map(Number);
  if (n.length < 12 || !n.every(Number.isFinite)) return undefined;
  const three = (i: number): Vec3 => [n[i], n[i + 1], n[i + 2]];
  return { origin: three(0), x: three(3), y: three(6), z: three(9) };
}
