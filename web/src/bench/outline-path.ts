/** An outline polygon [x0, z0, …] in mm as an SVG path; z up becomes y down. */
export function outlinePath(outline: Float64Array, closed = true): string {
  let d = '';
  for (let i = 0; i < outline.length; i += 2) d += `${i === 0 ? 'M' : 'L'}${(outline[i] as number).toFixed(2)} ${(-(outline[i + 1] as number)).toFixed(2)}`;
  return closed ? `${d}Z` : d;
}
