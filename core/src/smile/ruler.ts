import type { Px } from './calibration.js';
import type { Patch } from './snap.js';

/** A ruler's ticks as they lie in a picture. */
export interface FoundRuler {
  /** Middle of the first and of the last tick of the row, px. */
  readonly from: Px;
  readonly to: Px;
  /** Spaces between them. How wide one is, only the person knows: most rulers for photographs have millimetres. */
  readonly spaces: number;
}

/** A row of ticks that is shorter may be anything: furrows of the gum, lower teeth. House values, in spaces and px. */
const LEAST_SPACES = 14;
const SPACING = { min: 5, max: 80 } as const;
/** How far a tick may be from where the ones before let it be awaited, of a space. */
const OFF = 0.18;
/** A tick is so much darker than what is beside it, grey levels of 255. */
const DARKER = 30;
/** Rulers are held so far from level at most, degrees, and looked for in such steps. */
const TURN = { most: 15, coarse: 1.5, fine: 0.25 } as const;
/** Every so many px a line is looked along: ticks are longer than that. */
const LINE_STEP = 4;

interface Row {
  /** Places of the ticks along the line, px from its middle. */
  readonly ticks: readonly number[];
  readonly turnDeg: number;
  /** How far the line passes below the picture's middle, px across its direction. */
  readonly down: number;
}

/**
 * Looks for a ruler: the longest row of evenly spaced dark ticks on something light, level or turned by up to 15°. A
 * suggestion to be looked at; how far apart its ticks are is not seen.
 * @param picture the upright picture as brightness, 0–255; 1000 to 2000 px wide serve best
 * @returns undefined where no row of at least 14 spaces is seen
 */
export function findRuler(picture: Patch): FoundRuler | undefined {
  let best: Row | undefined;
  const half = Math.ceil(picture.height / 2);
  for (let turn = -TURN.most; turn <= TURN.most; turn += TURN.coarse)
    for (let down = -half; down <= half; down += LINE_STEP) best = longer(best, rowAlong(picture, turn, down));
  if (!best || best.ticks.length <= LEAST_SPACES) return undefined;

  // Ticks are long across the ruler: turned rightly, the most lines beside each other meet all of them.
  const rows: Row[] = [];
  let most: Row[] = [];
  for (let turn = best.turnDeg - TURN.coarse; turn <= best.turnDeg + TURN.coarse; turn += TURN.fine) {
    const level = Array.from({ length: 41 }, (_, i) => rowAlong(picture, turn, (best as Row).down + 2 * (i - 20)));
    const full = level.filter((r): r is Row => !!r && r.ticks.length >= (best as Row).ticks.length);
    if (full.length > most.length) most = full;
    rows.push(...full);
  }
  const all = most.length > 0 ? most : [best];
  const longest = Math.max(...all.map((r) => r.ticks.length));
  const kept = all.filter((r) => r.ticks.length === longest);
  const middle = kept[kept.length >> 1] as Row;
  const at = (along: number) => placeOn(picture, middle.turnDeg, middle.down, along);
  return {
    from: at(middle.ticks[0] as number),
    to: at(middle.ticks.at(-1) as number),
    spaces: middle.ticks.length - 1,
  };
}

const longer = (a: Row | undefined, b: Row | undefined): Row | undefined =>
  b && (!a || b.ticks.length > a.ticks.length) ? b : a;

function placeOn({ width, height }: Patch, turnDeg: number, down: number, along: number): Px {
  const [c, s] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)];
  return [width / 2 + along * c - down * s, height / 2 + along * s + down * c];
}

/** The longest row of even ticks along one line of the picture. */
function rowAlong(picture: Patch, turnDeg: number, down: number): Row | undefined {
  const reach = Math.floor(picture.width / 2);
  const light = new Float32Array(2 * reach + 1);
  for (let i = 0; i < light.length; i++) {
    const [x, y] = placeOn(picture, turnDeg, down, i - reach);
    light[i] = brightness(picture, x, y);
  }
  const ticks = darkPlaces(light);
  let best: number[] = [];
  for (let i = 0; i + LEAST_SPACES < ticks.length && ticks.length - i > best.length; i++) {
    const run = runFrom(ticks, i);
    if (run.length > best.length) best = run;
  }
  return best.length > LEAST_SPACES ? { ticks: best.map((t) => t - reach), turnDeg, down } : undefined;
}

/** Between the four nearest pixels; dark outside the picture. */
function brightness({ width, height, light }: Patch, x: number, y: number): number {
  const [i, j] = [Math.floor(x - 0.5), Math.floor(y - 0.5)];
  if (i < 0 || j < 0 || i + 1 >= width || j + 1 >= height) return 0;
  const [u, v] = [x - 0.5 - i, y - 0.5 - j];
  const k = j * width + i;
  const [a, b, c, d] = [light[k], light[k + 1], light[k + width], light[k + width + 1]] as [
    number,
    number,
    number,
    number,
  ];
  return (a * (1 - u) + b * u) * (1 - v) + (c * (1 - u) + d * u) * v;
}

/** How far to both sides of a tick something lighter is looked for, px. */
const BESIDE = 5;

/** Narrow dark places along a line, to a part of a pixel. */
function darkPlaces(light: Float32Array): number[] {
  const places: number[] = [];
  for (let i = BESIDE; i < light.length - BESIDE; i++) {
    const own = light[i] as number;
    if (!(own < (light[i - 1] as number) && own <= (light[i + 1] as number))) continue;
    let [before, after] = [0, 0];
    for (let d = 1; d <= BESIDE; d++) {
      before = Math.max(before, light[i - d] as number);
      after = Math.max(after, light[i + d] as number);
    }
    if (Math.min(before, after) - own < DARKER) continue;
    const [p, n] = [light[i - 1] as number, light[i + 1] as number];
    places.push(i + (p - n) / (2 * (p - 2 * own + n)));
  }
  return places;
}

/** Ticks that follow each other evenly, from one on; between them there may lie no other dark place. */
function runFrom(ticks: readonly number[], first: number): number[] {
  const run = [ticks[first] as number, ticks[first + 1] as number];
  let space = (run[1] as number) - (run[0] as number);
  if (space < SPACING.min || space > SPACING.max) return [];
  for (let k = first + 2; k < ticks.length; k++) {
    const next = ticks[k] as number;
    if (Math.abs(next - (run.at(-1) as number) - space) > OFF * space) break;
    run.push(next);
    // Seen slantwise spaces grow little by little.
    space += (next - (run.at(-2) as number) - space) / 4;
  }
  return run;
}
