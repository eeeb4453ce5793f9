import type { Mesh } from '../../geometry/mesh.js';
import { type Reach, stripUnder } from './edge-strip.js';
import { facialWall } from './facial-index.js';
import type { IndexGround } from './ground.js';
import { type Slab, STEP_MM } from './sheet.js';

/**
 * How the index of a mock-up is made: as thick as one of silicone and close to the plan. In front, where it makes the
 * face, it goes between the teeth as far as it does not break at once; behind as any guide. Thickness: common practice,
 * no source; the rest are house values.
 */
const SLAB: Slab = { thicknessMm: 5, reliefMm: 0.05 };
const FACE: Slab = { ...SLAB, finMm: 0.7 };
/** Over the edges and onto the palate, by which it is held. House values. */
const REACH: Reach = { frontMm: 4, backMm: 8, upInFrontMm: 1.5, upBehindMm: 5 };

/** The index of a mock-up: parts that are to be joined, and how far it has to give way, mm. */
export interface MockUpIndex {
  readonly parts: readonly Mesh[];
  /** The way on which it is put on with the least of that: so far from straight up to the back, degrees. */
  readonly tiltDeg: number;
  /** Put on so it is narrower at the gum than the teeth bulge: by so much, but for a twentieth of its width. */
  readonly givesMm: number;
}

/**
 * An index that is filled and put on over the edges: a wall in front that ends along the gum's scallop, so that what is
 * too much comes off easily, and a floor under the edges and over the palate. It follows the plan everywhere; where the
 * teeth bulge it has to give way.
 */
export function mockUpIndex(ground: IndexGround): MockUpIndex {
  const xs = facingFront(ground);
  const { edge } = ground;
  const gum = scallop(ground, xs);
  const heights = xs.map((x, i): readonly [number, number] => [edge(x), Math.max(edge(x) + 2, gum[i] as number)]);
  return {
    parts: [facialWall(ground, heights, xs, FACE), stripUnder({ ...ground, xs }, REACH, SLAB)],
    ...wayOn(ground, xs, gum),
  };
}

/** Where the row turns more from the front its wall would be thin: the tangent of 50°. House value. */
const STEEPEST = 1.2;

/** The stretch about the middle that faces the front. */
function facingFront({ xs, slope }: IndexGround): readonly number[] {
  // Embrasures are steep for a moment, the row for longer.
  const steep = xs.map((x) => [-1, 0, 1].every((d) => slope(x + d) > STEEPEST));
  const middle = Math.floor(xs.length / 2);
  const from = steep.lastIndexOf(true, middle) + 1;
  const to = steep.indexOf(true, middle);
  return xs.slice(from, to < 0 ? xs.length : to);
}

/** Single columns that see a speck of gum are no scallop. */
function scallop(ground: IndexGround, xs: readonly number[]): number[] {
  const raw = xs.map((x) => ground.gum(x));
  return raw.map((_, i) => {
    const near = [-1, 0, 1].map((d) => raw[Math.max(0, Math.min(raw.length - 1, i + d))] as number);
    return near.sort((a, b) => a - b)[1] as number;
  });
}

/** Of the width of an index so much is judged. */
const SHARE = 0.95;

/** Ways on that are tried, degrees from straight up to the back. House values. */
const TILTS = Array.from({ length: 23 }, (_, i) => 2 * i - 4);

/** The way on over the edges by which it has to give way least, in front and behind. */
function wayOn(
  { edge, edgeY, surface, below }: IndexGround,
  xs: readonly number[],
  gum: readonly number[],
): { tiltDeg: number; givesMm: number } {
  type Profile = (readonly [number, number])[];
  // In front from the gum to the edge, behind from the edge up, each as y and z.
  const profiles = xs.map((x, i) => {
    const [front, back]: [Profile, Profile] = [[], []];
    for (let z = (gum[i] as number) - STEP_MM; z > edge(x) + 0.5; z -= STEP_MM) {
      const y = surface(x, z);
      if (y !== undefined) front.push([y, z]);
    }
    for (let y = edgeY(x) + 1; y < edgeY(x) + REACH.backMm; y += STEP_MM) {
      const z = below(x, y);
      // Up to where the surface turns down again: there the next tooth begins, or the palate has been passed.
      if (z === undefined || z > edge(x) + REACH.upBehindMm || z < (back.at(-1)?.[1] ?? -Infinity)) break;
      back.push([y, z]);
    }
    return { front, back };
  });
  const ways = TILTS.map((tiltDeg) => {
    const tan = Math.tan((tiltDeg * Math.PI) / 180);
    const over = (p: Profile, sign: 1 | -1, start: number) => {
      // What has been passed on the way must not stand further in than where it is now.
      let [most, gives] = [start, 0];
      for (const [y, z] of p) {
        const across = sign * (y - tan * z);
        gives = Math.max(gives, most - across);
        most = Math.max(most, across);
      }
      return gives;
    };
    const each = profiles
      // From the edge to the gum in front, and from the edge up behind.
      .map(({ front, back }) => Math.max(over([...front].reverse(), -1, -Infinity), over(back, 1, -Infinity)))
      .sort((a, b) => a - b);
    return { tiltDeg, givesMm: each[Math.floor(SHARE * (each.length - 1))] ?? 0 };
  });
  return ways.reduce((a, b) => (b.givesMm < a.givesMm ? b : a));
}
