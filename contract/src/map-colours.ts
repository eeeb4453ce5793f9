/** sRGB, 0 to 1. */
export type Rgb = readonly [number, number, number];

/** Colours of every map, on the screen and on paper: what goes, nothing, what is added. */
export const MAP_COLOURS = {
  removed: [0.851, 0.514, 0.141],
  none: [0.965, 0.945, 0.91],
  added: [0.165, 0.435, 0.71],
} as const satisfies Readonly<Record<string, Rgb>>;

/** Full colour of what is still to cut, and of what was cut too much, mm. */
export const SHORT_RANGE_MM = 0.5;
/** What two scans can't tell from nothing stays pale, mm. */
const SHORT_PALE_MM = 0.07;
const NOT_CUT: Rgb = [0.78, 0.77, 0.75];

/** Colour of a prepared place: amber where tooth is still to go, blue where more is gone than asked, mm. */
export function shortColour(mm: number): Rgb {
  if (Number.isNaN(mm)) return NOT_CUT;
  const off = Math.abs(mm);
  const k = off < SHORT_PALE_MM ? 0 : 0.2 + 0.8 * Math.min(1, (off - SHORT_PALE_MM) / (SHORT_RANGE_MM - SHORT_PALE_MM));
  const { none, removed, added } = MAP_COLOURS;
  const end = mm > 0 ? removed : added;
  return [none[0] * (1 - k) + end[0] * k, none[1] * (1 - k) + end[1] * k, none[2] * (1 - k) + end[2] * k];
}
