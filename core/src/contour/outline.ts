import { type Crown, ringVertex } from './crown.js';

/**
 * The crown's facial outline seen straight from the front in its own frame: a closed polygon [x0, z0, x1, z1, …], mm,
 * x to the patient's left, z up from the edge; along the neck, down one border, along the edge, up the other.
 */
export function facialOutline(c: Crown): Float64Array {
  const half = c.ringSize / 2;
  const top = c.rings - 1;
  const out: number[] = [];
  const put = (r: number, k: number) => {
    const v = 3 * ringVertex(c, r, k);
    out.push(c.mesh.positions[v], c.mesh.positions[v + 2]);
  };
  for (let k = 0; k <= half; k++) put(0, k);
  for (let r = 1; r <= top; r++) put(r, half);
  for (let k = half - 1; k >= 0; k--) put(top, k);
  for (let r = top - 1; r >= 1; r--) put(r, 0);
  return Float64Array.from(out);
}
