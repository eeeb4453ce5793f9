/** Middle value; the mean of the two middle ones for an even count; NaN for none. */
export function median(values: readonly number[]): number {
  const s = [...values].sort((a, b) => a - b);
  const m = s.length >> 1;
  return (s.length % 2 ? s[m] : ((s[m - 1] as number) + (s[m] as number)) / 2) as number;
}
