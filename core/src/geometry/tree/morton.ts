/** Spreads the lower ten bits of v so that two empty bits follow each. */
function spread(v: number): number {
  let x = v & 0x3ff;
  x = (x | (x << 16)) & 0x030000ff;
  x = (x | (x << 8)) & 0x0300f00f;
  x = (x | (x << 4)) & 0x030c30c3;
  return (x | (x << 2)) & 0x09249249;
}

/** The order in which points lie along a Morton curve through their box: neighbours in it are neighbours in space. */
export function mortonOrder(points: Float64Array): Uint32Array {
  const n = points.length / 3;
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < points.length; i++) {
    const v = points[i];
    const k = i % 3;
    if (v < low[k]) low[k] = v;
    if (v > high[k]) high[k] = v;
  }
  const s = [0, 1, 2].map((k) => 1023 / (high[k] - low[k] || 1)) as [number, number, number];
  // 30-bit code and index packed in one exact double, so that a typed array sorts them without a comparator.
  const keys = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const x = spread((points[3 * i] - low[0]) * s[0]);
    const y = spread((points[3 * i + 1] - low[1]) * s[1]);
    const z = spread((points[3 * i + 2] - low[2]) * s[2]);
    keys[i] = (x + 2 * y + 4 * z) * 4194304 + i;
  }
  keys.sort();
  const order = new Uint32Array(n);
  for (let i = 0; i < n; i++) order[i] = keys[i] % 4194304;
  return order;
}
