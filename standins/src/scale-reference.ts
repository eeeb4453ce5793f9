/** Digits as 3 × 5 cells, a row a number, highest bit left. */
const DIGITS: readonly (readonly number[])[] = [
  [7, 5, 5, 5, 7],
  [2, 6, 2, 2, 7],
  [7, 1, 7, 4, 7],
  [7, 1, 3, 1, 7],
  [5, 5, 7, 1, 1],
];

const CELL_MM = 0.28;
const DIGITS_TOP_MM = 3.1;
const TICK_MM = 0.14;

/**
 * Whether a place on the printed scale is inked. Ticks every millimetre from its upper edge, longer at 5 and 10, and
 * the tens in figures below.
 * @param x mm from the zero tick; `down` mm from the upper edge
 */
export function inkOnScale(x: number, down: number, lengthMm: number): boolean {
  const tick = Math.round(x);
  if (tick >= 0 && tick <= lengthMm && Math.abs(x - tick) <= TICK_MM / 2) {
    const long = tick % 10 === 0 ? 2.6 : tick % 5 === 0 ? 2 : 1.3;
    if (down <= long) return true;
  }
  const row = Math.floor((down - DIGITS_TOP_MM) / CELL_MM);
  if (row < 0 || row > 4) return false;
  const ten = Math.round(x / 10);
  if (ten < 0 || ten * 10 > lengthMm) return false;
  const text = ten === 0 ? [0] : [ten, 0];
  const left = ten * 10 - (text.length * 4 - 1) * 0.5 * CELL_MM;
  const column = Math.floor((x - left) / CELL_MM);
  const which = Math.floor(column / 4);
  const cell = column % 4;
  if (column < 0 || which >= text.length || cell > 2) return false;
  return ((DIGITS[text[which]] as readonly number[])[row] & (4 >> cell)) !== 0;
}
