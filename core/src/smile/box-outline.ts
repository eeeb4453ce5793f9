import type { Px } from './calibration.js';
import { type Patch, smoothed } from './snap.js';

/** The box that a hand drew over a tooth, px of the patch. */
export interface ToothBox {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** A tooth's outline points as they lie in the picture. */
export interface BoxOutline {
  readonly zenith: Px;
  readonly edge: Px;
  readonly left: Px;
  readonly right: Px;
}

/** How far from a side of the box its border is looked for, of the box's size: outwards, inwards. House preference. */
const REACH = { out: 0.12, in: 0.17 } as const;
/** A border must be at least so strong beside the strongest of its side, and in brightness levels a pixel. */
const SHARE = 0.35;
/** Of a line's strongest border, how strong one farther out must be to be the tooth's. House preference. */
const OUTERMOST = 0.5;
const WEAKEST = 2;
/** Where a front tooth is widest, of its height from the gum. Common practice, no source: the contacts lie there. */
const CONTACT = { from: 0.45, to: 0.84 } as const;
/** Lines on which a side is looked for. */
const LINES = 32;

interface Found {
  /** Along the side, and how far outwards it lies, px. */
  readonly along: number;
  readonly out: number;
  readonly strength: number;
}

/**
 * The outline points of an upper front tooth from a coarse box over it: at the gum and at both sides the border from
 * dark to the light tooth is followed, and its farthest stretch taken; where none is seen the box's own side stays. The
 * edge is where the hand has put it: with the lower teeth behind it, light on light, no border can be trusted there.
 * They are suggestions to be looked at.
 * @param patch what the box covers and at least an eighth of its size around; teeth bright, gum and mouth dark
 */
export function outlineInBox(patch: Patch, box: ToothBox): BoxOutline {
  const light = smoothed(patch);
  const w = box.right - box.left;
  const h = box.bottom - box.top;
  const cx = (box.left + box.right) / 2;
  const at = (x: number, y: number): number => {
    const i = Math.min(patch.width - 1, Math.max(0, Math.round(x - 0.5)));
    const j = Math.min(patch.height - 1, Math.max(0, Math.round(y - 0.5)));
    return light[j * patch.width + i] as number;
  };
  /** @param from place on the side, `to` outwards by px */
  const border = (place: (along: number, out: number) => Px, from: number, to: number, size: number): Found[] => {
    const found: Found[] = [];
    for (let k = 0; k < LINES; k++) {
      const along = from + ((to - from) * (k + 0.5)) / LINES;
      const rise = (out: number): number => at(...place(along, out - 1.5)) - at(...place(along, out + 1.5));
      const line: { out: number; strength: number; score: number }[] = [];
      for (let out = -REACH.in * size; out <= REACH.out * size; out++) {
        const strength = rise(out) / 3;
        const far = out < 0 ? -out / (REACH.in * size) : out / (REACH.out * size);
        if (strength > WEAKEST) line.push({ out, strength, score: strength * (1 - 0.45 * far * far) });
      }
      const most = Math.max(0, ...line.map((l) => l.score));
      // Light and shade within the tooth make borders too; its own is the outermost that is about as strong.
      const peak = line.findLast((l, i) => {
        const [before, after] = [line[i - 1], line[i + 1]];
        return l.score >= OUTERMOST * most && l.score >= (before?.score ?? 0) && l.score >= (after?.score ?? 0);
      });
      if (peak) found.push({ along, out: peak.out, strength: peak.strength });
    }
    const most = Math.max(0, ...found.map((f) => f.strength));
    return found.filter((f) => f.strength >= SHARE * most);
  };
  /** The stretch that lies farthest out; slips of single lines don't count. */
  const farthest = (found: readonly Found[]): { along: number; out: number } | undefined => {
    if (found.length < LINES / 4) return undefined;
    const outs = found.map((f) => f.out).sort((a, b) => a - b);
    const out = outs[Math.floor(0.85 * (outs.length - 1))] as number;
    const near = found.filter((f) => Math.abs(f.out - out) <= Math.max(1.5, 0.012 * h));
    return { along: near.reduce((s, f) => s + f.along, 0) / near.length, out };
  };
  const side = (sign: -1 | 1): Px => {
    const x = sign < 0 ? box.left : box.right;
    const place = (y: number, out: number): Px => [x + sign * out, y];
    const found = farthest(border(place, box.top + CONTACT.from * h, box.top + CONTACT.to * h, w));
    const y = box.top + h * Math.min(0.75, Math.max(0.55, ((found?.along ?? 0) - box.top) / h));
    return found ? place(y, found.out) : [x, box.top + 0.65 * h];
  };
  const upward = (x: number, out: number): Px => [x, box.top - out];
  const gum = farthest(border(upward, box.left + 0.25 * w, box.right - 0.25 * w, h));
  return {
    zenith: gum ? upward(gum.along, gum.out) : [cx, box.top],
    edge: [cx, box.bottom],
    left: side(-1),
    right: side(1),
  };
}
