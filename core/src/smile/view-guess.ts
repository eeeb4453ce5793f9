import type { ViewId } from './views.js';

/**
 * Which of the ten standard views a photograph looks like, by rules of thumb on its colours. It is a guess and is told
 * as one: a person says the view. Nothing is learned from examples; each rule is a sentence that one can check by eye.
 * The rules want the picture the way round in which the views are kept (the front of the upper arch at the top of the
 * occlusal view, of the lower one at the foot). A mirror picture of one side looks like the other side, and nothing
 * in its colours tells that.
 */
export interface ViewGuess {
  readonly view: ViewId;
  /** What speaks for it, in words: `skin around the lips, a wide row of teeth`. */
  readonly because: string;
}

/** What is counted in a picture; shares of all its pixels. */
export interface ColourCounts {
  readonly teeth: number;
  readonly skin: number;
  /** Gum, lips, cheeks. */
  readonly red: number;
  /** Width of the stretch in which teeth are, of the picture's width. */
  readonly span: number;
  /** How far the middle of the tooth row lies below the line through its ends, of the picture's width; up is negative. */
  readonly sag: number;
  /** Red above the teeth and below them, of all red in the columns of the teeth. */
  readonly redAbove: number;
  /** Where the teeth are, −1 at the picture's left edge to 1 at its right one. */
  readonly lean: number;
  /** Teeth among teeth and red where a face has its mouth: the middle of the picture, below its half. */
  readonly mouth: number;
}

/** As many columns are looked at; finer only takes longer. */
const COLUMNS = 160;
/** A column counts as one with teeth when this share of it shows them. Common practice, no source: by eye. */
const COLUMN_HAS = 0.025;

enum Kind {
  other,
  tooth,
  skin,
  red,
}

/** Hue in degrees, saturation and value 0 to 1. */
function kindOf(r: number, g: number, b: number): Kind {
  const most = Math.max(r, g, b);
  const least = Math.min(r, g, b);
  const value = most / 255;
  const saturation = most === 0 ? 0 : (most - least) / most;
  if (value < 0.28) return Kind.other;
  // Teeth are bright and hardly coloured, and what colour they have is yellow: red over green over blue.
  if (value > 0.52 && saturation < 0.34 && r >= g - 2 && g >= b - 3 && r - b >= 12 && r - g < 0.13 * most)
    return Kind.tooth;
  if (r <= g || r <= b) return Kind.other;
  const hue = (60 * (g - b)) / Math.max(1, most - least);
  if (hue < 10 && saturation > 0.26) return Kind.red;
  if (hue >= 10 && hue < 42 && saturation > 0.16 && saturation < 0.68) return Kind.skin;
  return Kind.other;
}

/**
 * Counts what a picture shows.
 * @param rgba rows of pixels from the top left, 4 bytes each
 */
export function colourCounts(rgba: Uint8ClampedArray | Uint8Array, width: number, height: number): ColourCounts {
  const step = Math.max(1, width / COLUMNS);
  const columns = Math.floor(width / step);
  const rows = Math.floor(height / step);
  const kinds = new Uint8Array(columns * rows);
  const counts = [0, 0, 0, 0];
  for (let y = 0; y < rows; y++)
    for (let x = 0; x < columns; x++) {
      const at = 4 * (Math.floor((y + 0.5) * step) * width + Math.floor((x + 0.5) * step));
      const kind = kindOf(rgba[at] as number, rgba[at + 1] as number, rgba[at + 2] as number);
      kinds[y * columns + x] = kind;
      counts[kind] = (counts[kind] as number) + 1;
    }
  const row: { x: number; y: number; n: number }[] = [];
  let above = 0;
  let redThere = 0;
  for (let x = 0; x < columns; x++) {
    const teeth: number[] = [];
    for (let y = 0; y < rows; y++) if (kinds[y * columns + x] === Kind.tooth) teeth.push(y);
    if (teeth.length < Math.max(1, COLUMN_HAS * rows)) continue;
    const y = teeth.reduce((s, v) => s + v, 0) / teeth.length;
    row.push({ x, y, n: teeth.length });
    for (let at = 0; at < rows; at++)
      if (kinds[at * columns + x] === Kind.red) {
        redThere++;
        if (at < y) above++;
      }
  }
  const all = columns * rows;
  const first = row[0];
  const last = row.at(-1);
  const weight = row.reduce((s, c) => s + c.n, 0);
  return {
    teeth: (counts[Kind.tooth] as number) / all,
    skin: (counts[Kind.skin] as number) / all,
    red: (counts[Kind.red] as number) / all,
    span: first && last ? (last.x - first.x + 1) / columns : 0,
    sag: sagOf(row) / columns,
    redAbove: redThere === 0 ? 0.5 : above / redThere,
    lean: weight === 0 ? 0 : (2 * row.reduce((s, c) => s + c.n * (c.x + 0.5), 0)) / weight / columns - 1,
    mouth: mouthOf(kinds, columns, rows),
  };
}

function mouthOf(kinds: Uint8Array, columns: number, rows: number): number {
  let teeth = 0;
  let red = 0;
  for (let y = Math.floor(0.45 * rows); y < 0.85 * rows; y++)
    for (let x = Math.floor(0.3 * columns); x < 0.7 * columns; x++) {
      const kind = kinds[y * columns + x];
      if (kind === Kind.tooth) teeth++;
      if (kind === Kind.red) red++;
    }
  return teeth + red === 0 ? 0 : teeth / (teeth + red);
}

/** By how much the middle third of a row lies below the mean of its outer sixths. */
function sagOf(row: readonly { readonly x: number; readonly y: number }[]): number {
  const mean = (part: readonly { readonly y: number }[]) => part.reduce((s, c) => s + c.y, 0) / part.length;
  const sixth = Math.floor(row.length / 6);
  if (sixth === 0) return 0;
  return mean(row.slice(2 * sixth, -2 * sixth)) - (mean(row.slice(0, sixth)) + mean(row.slice(-sixth))) / 2;
}

/**
 * Borders between the views. Common practice, no source: a mouth fills less than a twentieth of a portrait; lips in
 * full smile show teeth over half of the picture and more. Each is set midway between what the views show.
 */
const BORDERS = {
  /** Red of a picture in which the mouth is far away; hair can have the colours of teeth. */
  farMouth: 0.05,
  /** Skin of a portrait. */
  face: 0.15,
  /** Skin of a picture that is no view between the retractors. */
  skin: 0.3,
  /**
   * With the camera over the head the upper lip hides behind the teeth, so that most of the red beside them lies on one
   * side, and their row is bent the other way than a smile's.
   */
  oneLip: 0.6,
  bentAway: -0.02,
  smileTeeth: 0.045,
  smilingMouth: 0.26,
  retractedTeeth: 0.08,
  retractedRed: 0.2,
  /** The bow of an arch seen from its chewing side, of the picture's width. */
  bow: 0.12,
  side: 0.14,
} as const;

/** The view that a picture looks like; nothing where no rule speaks. Arguments as of `colourCounts`. */
export function guessView(rgba: Uint8ClampedArray | Uint8Array, width: number, height: number): ViewGuess | undefined {
  const c = colourCounts(rgba, width, height);
  if (c.skin > BORDERS.face && c.red < BORDERS.farMouth)
    return c.mouth > BORDERS.smilingMouth
      ? { view: 'portrait-smile', because: 'a whole face, with teeth in the mouth' }
      : { view: 'portrait-rest', because: 'a whole face, with hardly any teeth' };
  if (c.skin > BORDERS.skin && c.red >= BORDERS.farMouth) {
    if (c.redAbove > BORDERS.oneLip && c.sag < BORDERS.bentAway)
      return { view: 'twelve-oclock', because: 'skin around teeth, with a lip on one side of them only' };
    return c.teeth >= BORDERS.smileTeeth
      ? { view: 'close-smile', because: 'skin around the lips, and a wide row of teeth' }
      : { view: 'close-rest', because: 'skin around the lips, and few teeth' };
  }
  // Between retractors the picture is wider than high; one that stands was taken with the camera on its side.
  if (height > width || c.teeth < BORDERS.retractedTeeth || c.red < BORDERS.retractedRed) return undefined;
  if (c.sag < -BORDERS.bow) return { view: 'upper-occlusal', because: 'teeth in a bow, the front at the top' };
  if (c.sag > BORDERS.bow) return { view: 'lower-occlusal', because: 'teeth in a bow, the front at the foot' };
  if (c.lean < -BORDERS.side)
    return { view: 'retracted-right', because: 'teeth and gum to the left of the picture, no skin' };
  if (c.lean > BORDERS.side)
    return { view: 'retracted-left', because: 'teeth and gum to the right of the picture, no skin' };
  return { view: 'retracted-front', because: 'teeth and gum from side to side, no skin' };
}
