import { hypot, type Mesh, mergeMeshes, smoothstep, type Vec3 } from '@radiant/core';
import { type GumTrait, innerBorder, type Standing } from './gum.js';

/** Across a vault or a floor so many places are worked out. */
const ACROSS = 48;
/** How far it goes on behind the last teeth, mm, and in how many rows. */
const BEHIND_MM = 26;
const BEHIND_ROWS = 26;

/** A chord from the right border to the left one. */
interface Chord {
  readonly right: Vec3;
  readonly left: Vec3;
}

/** The waves of the necks are smoothed away over so many places to each side. */
const SMOOTH = 24;
/** The gum overlaps what begins at its border by so much, sideways and towards the roots, mm. */
const LAP = { out: 0.9, up: 0.5 };

/** The gum's border without its waves, a little behind the gum. */
function beginning(border: readonly Vec3[]): Vec3[] {
  const n = border.length;
  const smooth = border.map((_, i): Vec3 => {
    const reach = Math.min(SMOOTH, i, n - 1 - i);
    const sum: [number, number, number] = [0, 0, 0];
    for (let d = -reach; d <= reach; d++)
      for (const k of [0, 1, 2] as const) sum[k] += (border[i + d] as Vec3)[k] / (2 * reach + 1);
    return sum;
  });
  return smooth.map(([x, y, z], i): Vec3 => {
    const [a, b] = [smooth[Math.max(0, i - 3)] as Vec3, smooth[Math.min(n - 1, i + 3)] as Vec3];
    const l = hypot(b[0] - a[0], b[1] - a[1]) || 1;
    return [x + (LAP.out * (b[1] - a[1])) / l, y - (LAP.out * (b[0] - a[0])) / l, z + LAP.up];
  });
}

/** Chords from the front backward: where the two sides of the border face each other, then straight back. */
function chordsIn(gumBorder: readonly Vec3[]): Chord[] {
  const border = beginning(gumBorder);
  const half = Math.floor(border.length / 2);
  const chords = Array.from({ length: half }, (_, i): Chord => {
    const k = half - 1 - i;
    return { right: border[k] as Vec3, left: border[border.length - 1 - k] as Vec3 };
  });
  const last = chords.at(-1) as Chord;
  const back = ([x, y, z]: Vec3, by: number): Vec3 => [x, y + by, z];
  for (let i = 1; i <= BEHIND_ROWS; i++) {
    const by = (i / BEHIND_ROWS) * BEHIND_MM;
    chords.push({ right: back(last.right, by), left: back(last.left, by) });
  }
  return chords;
}

/** A sheet over chords. @param up how far a place lies over its chord, mm, by share across and depth from the front */
function over(chords: readonly Chord[], up: (share: number, p: Vec3, widthMm: number) => number): Mesh {
  const positions: number[] = [];
  const triangles: number[] = [];
  chords.forEach(({ right, left }, j) => {
    const wide = hypot(left[0] - right[0], left[1] - right[1]);
    for (let i = 0; i <= ACROSS; i++) {
      const t = i / ACROSS;
      const p: Vec3 = [
        right[0] + (left[0] - right[0]) * t,
        right[1] + (left[1] - right[1]) * t,
        right[2] + (left[2] - right[2]) * t,
      ];
      positions.push(p[0], p[1], p[2] + up(2 * t - 1, p, wide));
      if (i === ACROSS || j === chords.length - 1) continue;
      const a = j * (ACROSS + 1) + i;
      triangles.push(a, a + 1, a + ACROSS + 2, a, a + ACROSS + 2, a + ACROSS + 1);
    }
  });
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}

/**
 * The vault of the palate inside the gum of an upper row: it rises from the gum's border, with the papilla behind the
 * centrals, the folds beside the middle and the seam in it.
 */
export function vaultOf(teeth: readonly Standing[], trait?: GumTrait): Mesh {
  const border = innerBorder(teeth, trait);
  const front = Math.min(...border.map((p) => p[1]));
  return over(chordsIn(border), (share, [x, y], wide) => {
    const q = Math.abs(share);
    const deep = y - front;
    const dome = Math.min(7.5, 0.42 * wide) * (1 - q ** 2.2) ** 0.9;
    const wave = deep * 1.15 + 1.1 * Math.sin(q * 2.6) + 0.5 * Math.sin(x * 0.5);
    const folds =
      0.34 *
      Math.sin(wave) *
      smoothstep(1.2, 3, Math.abs(x)) *
      (1 - smoothstep(0.62, 0.95, q)) *
      smoothstep(3, 6, deep) *
      (1 - smoothstep(13, 19, deep));
    const papilla = 1.1 * Math.exp(-((x / 1.7) ** 2) - ((deep - 1.6) / 2.6) ** 2);
    const seam = 0.3 * Math.exp(-((x / 0.7) ** 2)) * smoothstep(3, 7, deep);
    // Towards the root is up: what stands out of the vault comes down.
    return dome - folds - papilla - seam;
  });
}

/** The tongue: how far behind the front of the floor its tip lies, how long its tip is round, and how wide it is, mm. */
const TIP = { behindMm: 6, roundMm: 13, halfMm: 18 };
/** How far from the gum its borders lie, and how far over the floor its back comes, mm. */
const TONGUE = { besideMm: 2.2, highMm: 9.5 };

/** The floor of the mouth inside the gum of a lower row, turned over as the row is, with the tongue lying on it. */
export function floorOf(teeth: readonly Standing[], trait?: GumTrait): Mesh {
  const border = innerBorder(teeth, trait);
  const front = Math.min(...border.map((p) => p[1]));
  const chords = chordsIn(border);
  const tip = front + TIP.behindMm;
  const tongue = chords.flatMap(({ right, left }): Chord[] => {
    const y = (right[1] + left[1]) / 2;
    if (y < tip) return [];
    const round = Math.min(1, (y - tip) / TIP.roundMm);
    const share = Math.sqrt(1 - (1 - round) ** 2);
    const middle = (left[0] + right[0]) / 2;
    const room = Math.abs(left[0] - right[0]) / 2 - TONGUE.besideMm;
    const half = Math.max(0.05, Math.min(room, TIP.halfMm * share));
    return [{ right: [middle - half, y, right[2] + 1], left: [middle + half, y, left[2] + 1] }];
  });
  // Turned over, up is down: the tongue rises away from the roots.
  return mergeMeshes([
    over(chords, (share) => 2.5 * (1 - share ** 2)),
    over(tongue, (share, [x, y]) => {
      const round = smoothstep(0, TIP.roundMm, y - tip);
      const groove = 0.9 * Math.exp(-((x / 1.6) ** 2)) * smoothstep(4, 14, y - tip);
      return -TONGUE.highMm * (0.35 + 0.65 * round) * (1 - Math.abs(share) ** 2.6) + groove;
    }),
  ]);
}
