import { type Crown, ringVertex } from '@radiant/core';
import { random, smoothNoise } from './random.js';

/** How far the field moves a surface at most, mm, across, in depth and in height. */
const REACH = { across: 0.3, depth: 1, height: 0.3 } as const;
/** Width of its hills and hollows, mm. */
const HILL_MM = 4.2;

/**
 * A tooth that no set of the library's numbers makes: its crown bent and squeezed as a whole, fuller or hollower on
 * either side, and moved by a field of hills and hollows. Width and length stay what they were, so that what is
 * measured of it can be checked.
 * @param mm how strong the field is; a third of a millimetre is a tooth that one meets, twice that a rare one
 */
export function oddCrown(c: Crown, seed: number, mm: number): Crown {
  const r = random(seed * 977 + c.tooth);
  const length = c.size.lengthMm;
  const [bow, facial, palatal, twist] = [r.normal(0.9), r.normal(0.28), r.normal(0.32), r.normal(0.05)];
  const p = c.mesh.positions;
  const out = new Float64Array(p.length);
  for (let v = 0; v < p.length; v += 3) {
    const x = p[v];
    const y = p[v + 1];
    const z = p[v + 2];
    const n = (k: number) => smoothNoise(x / HILL_MM + 9 * k, y / HILL_MM, z / HILL_MM, seed * 31 + c.tooth * 7 + k);
    const h = z / length;
    const side = y < 0 ? facial : palatal;
    // Nothing is bent at the edge and the neck, so that bite and gum stay where they are.
    const middle = Math.sin(Math.PI * Math.min(1, Math.max(0, h)));
    out[v] = x * (1 + mm * 0.12 * Math.sin(2 * Math.PI * h)) + mm * REACH.across * n(0) + twist * mm * y * h;
    out[v + 1] = y * (1 + mm * side) + mm * (bow * middle + REACH.depth * middle * n(1));
    out[v + 2] = z + mm * REACH.height * middle * n(2);
  }
  settle(out, p, c);
  return { ...c, mesh: { positions: out, triangles: c.mesh.triangles } };
}

/** Width, lowest edge and length as they were. */
function settle(out: Float64Array, p: Float64Array, c: Crown): void {
  const span = (q: Float64Array, k: number) => {
    let [least, most] = [Infinity, -Infinity];
    for (let i = k; i < q.length; i += 3) {
      least = Math.min(least, q[i]);
      most = Math.max(most, q[i]);
    }
    return [least, most] as const;
  };
  const [a, b] = span(out, 0);
  const [a0, b0] = span(p, 0);
  for (let i = 0; i < out.length; i += 3) out[i] = a0 + ((out[i] - a) * (b0 - a0)) / (b - a);
  // The caliper's length: from the edge's lowest place to the facial zenith, in the sagittal plane.
  const caliper = (q: Float64Array) => {
    let [low, high] = [2, 2];
    for (let i = 2; i < q.length - 3; i += 3) if (q[i] < q[low]) low = i;
    for (let k = 0; k <= c.ringSize / 2; k++) {
      const i = 3 * ringVertex(c, 0, k) + 2;
      if (q[i] > q[high] || high === 2) high = i;
    }
    return { base: q[low], rise: q[high] - q[low], slope: q[high - 1] - q[low - 1] };
  };
  const before = caliper(p);
  const now = caliper(out);
  const k = Math.sqrt(before.rise ** 2 + before.slope ** 2 - now.slope ** 2) / now.rise;
  for (let i = 2; i < out.length; i += 3) out[i] = before.base + (out[i] - now.base) * k;
}
