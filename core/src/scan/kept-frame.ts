import type { Frame } from '../geometry/frame.js';
import type { Vec3 } from '../geometry/vec.js';

// A working copy remembers how the mouth lies in the scan that it was made from: the other jaw of the same sitting lies
// by it too.

const WORD = 'mouth in the scan:';

/** The mouth's frame as words for a file's comment. */
export function frameWords(f: Frame): string {
  return `${WORD} ${[...f.origin, ...f.x, ...f.y, ...f.z].map((v) => v.toFixed(9)).join(' ')}`;
}

/** The frame out of the head of a file; undefined where it says nothing of it. */
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
  const three = (i: number): Vec3 => [n[i] as number, n[i + 1] as number, n[i + 2] as number];
  return { origin: three(0), x: three(3), y: three(6), z: three(9) };
}
