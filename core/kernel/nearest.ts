/**
 * The closest-point search of core/src/geometry/tree/closest.ts for a tree laid out in pairs, two nodes or two
 * triangles at a time (WebAssembly, 128-bit SIMD). AssemblyScript, not TypeScript: `npm run kernel` compiles it into
 * core/src/geometry/tree/nearest-wasm.ts. What lies where in memory is written down in
 * core/src/geometry/tree/packed.ts.
 */

const BOXES_BYTES: usize = 96;
const LINKS_BYTES: usize = 16;
const TRIANGLES_BYTES: usize = 192;
const STACK_BYTES: usize = 16;

/**
 * The nearest point to each of n queries. All but n are addresses; the root's link lies just before the links of the
 * pairs.
 */
export function nearest(
  boxes: usize,
  links: usize,
  triangles: usize,
  stack: usize,
  n: usize,
  queries: usize,
  points: usize,
  squares: usize,
  slots: usize,
): void {
  const zero = f64x2.splat(0);
  const one = f64x2.splat(1);
  // The last answer bounds the next search; before the first there is none.
  let x = Infinity;
  let y = Infinity;
  let z = Infinity;
  let best: f64 = Infinity;
  let slot: i32 = 0;
  for (let q: usize = 0; q < n; q++) {
    const px = load<f64>(queries + 24 * q);
    const py = load<f64>(queries + 24 * q, 8);
    const pz = load<f64>(queries + 24 * q, 16);
    best = (px - x) * (px - x) + (py - y) * (py - y) + (pz - z) * (pz - z);
    const pxs = f64x2.splat(px);
    const pys = f64x2.splat(py);
    const pzs = f64x2.splat(pz);
    let top = stack;
    let first = load<i32>(links - LINKS_BYTES);
    let count = load<i32>(links - LINKS_BYTES, 4);
    for (;;) {
      if (count > 0) {
        let t = triangles + TRIANGLES_BYTES * <usize>first;
        const end = t + TRIANGLES_BYTES * <usize>count;
        for (let s = 2 * first; t < end; t += TRIANGLES_BYTES, s += 2) {
          const ax = f64x2.sub(pxs, v128.load(t, 0));
          const ay = f64x2.sub(pys, v128.load(t, 16));
          const az = f64x2.sub(pzs, v128.load(t, 32));
          const bx = v128.load(t, 48);
          const by = v128.load(t, 64);
          const bz = v128.load(t, 80);
          const cx = v128.load(t, 96);
          const cy = v128.load(t, 112);
          const cz = v128.load(t, 128);
          const bc = v128.load(t, 160);
          const d1 = f64x2.add(f64x2.add(f64x2.mul(bx, ax), f64x2.mul(by, ay)), f64x2.mul(bz, az));
          const d2 = f64x2.add(f64x2.add(f64x2.mul(cx, ax), f64x2.mul(cy, ay)), f64x2.mul(cz, az));
          const d3 = f64x2.sub(d1, v128.load(t, 144));
          const d4 = f64x2.sub(d2, bc);
          const d5 = f64x2.sub(d1, bc);
          const d6 = f64x2.sub(d2, v128.load(t, 176));
          const vc = f64x2.sub(f64x2.mul(d1, d4), f64x2.mul(d3, d2));
          const vb = f64x2.sub(f64x2.mul(d5, d2), f64x2.mul(d1, d6));
          const va = f64x2.sub(f64x2.mul(d3, d6), f64x2.mul(d5, d4));
          const e1 = f64x2.sub(d4, d3);
          const e2 = f64x2.sub(d5, d6);
          // The regions of a triangle as in closest.ts, the last to hold winning: a + (v·ab + w·ac) / k.
          let v = vb;
          let w = vc;
          let k = f64x2.add(f64x2.add(va, vb), vc);
          let m = v128.and(f64x2.le(va, zero), v128.and(f64x2.ge(e1, zero), f64x2.ge(e2, zero)));
          v = v128.bitselect(e2, v, m);
          w = v128.bitselect(e1, w, m);
          k = v128.bitselect(f64x2.add(e1, e2), k, m);
          m = v128.and(f64x2.le(vb, zero), v128.and(f64x2.ge(d2, zero), f64x2.le(d6, zero)));
          v = v128.andnot(v, m);
          w = v128.bitselect(d2, w, m);
          k = v128.bitselect(f64x2.sub(d2, d6), k, m);
          m = v128.and(f64x2.le(vc, zero), v128.and(f64x2.ge(d1, zero), f64x2.le(d3, zero)));
          v = v128.bitselect(d1, v, m);
          w = v128.andnot(w, m);
          k = v128.bitselect(f64x2.sub(d1, d3), k, m);
          m = v128.and(f64x2.ge(d6, zero), f64x2.le(d5, d6));
          v = v128.andnot(v, m);
          w = v128.bitselect(one, w, m);
          k = v128.bitselect(one, k, m);
          m = v128.and(f64x2.ge(d3, zero), f64x2.le(d4, d3));
          v = v128.bitselect(one, v, m);
          w = v128.andnot(w, m);
          k = v128.bitselect(one, k, m);
          m = v128.and(f64x2.le(d1, zero), f64x2.le(d2, zero));
          v = v128.andnot(v, m);
          w = v128.andnot(w, m);
          k = v128.bitselect(one, k, m);
          k = f64x2.div(one, k);
          v = f64x2.mul(v, k);
          w = f64x2.mul(w, k);
          const ex = f64x2.sub(f64x2.sub(ax, f64x2.mul(v, bx)), f64x2.mul(w, cx));
          const ey = f64x2.sub(f64x2.sub(ay, f64x2.mul(v, by)), f64x2.mul(w, cy));
          const ez = f64x2.sub(f64x2.sub(az, f64x2.mul(v, bz)), f64x2.mul(w, cz));
          const d = f64x2.add(f64x2.add(f64x2.mul(ex, ex), f64x2.mul(ey, ey)), f64x2.mul(ez, ez));
          if (v128.any_true(f64x2.lt(d, f64x2.splat(best)))) {
            const da = f64x2.extract_lane(d, 0);
            const db = f64x2.extract_lane(d, 1);
            // Written so that a lane that is not a number never wins.
            if (db < best && !(da <= db)) {
              best = db;
              slot = s + 1;
              x = px - f64x2.extract_lane(ex, 1);
              y = py - f64x2.extract_lane(ey, 1);
              z = pz - f64x2.extract_lane(ez, 1);
            } else {
              best = da;
              slot = s;
              x = px - f64x2.extract_lane(ex, 0);
              y = py - f64x2.extract_lane(ey, 0);
              z = pz - f64x2.extract_lane(ez, 0);
            }
          }
        }
      } else {
        // The way out of each box along the axes. The pseudo-maximum is one instruction and lets what is not a number
        // through.
        const o = boxes + BOXES_BYTES * <usize>first;
        const dx = f64x2.pmax(f64x2.pmax(f64x2.sub(v128.load(o, 0), pxs), f64x2.sub(pxs, v128.load(o, 48))), zero);
        const dy = f64x2.pmax(f64x2.pmax(f64x2.sub(v128.load(o, 16), pys), f64x2.sub(pys, v128.load(o, 64))), zero);
        const dz = f64x2.pmax(f64x2.pmax(f64x2.sub(v128.load(o, 32), pzs), f64x2.sub(pzs, v128.load(o, 80))), zero);
        const d = f64x2.add(f64x2.add(f64x2.mul(dx, dx), f64x2.mul(dy, dy)), f64x2.mul(dz, dz));
        const dl = f64x2.extract_lane(d, 0);
        const dr = f64x2.extract_lane(d, 1);
        const pair = links + LINKS_BYTES * <usize>first;
        if (dl <= dr) {
          if (dr < best) {
            store<u64>(top, load<u64>(pair, 8));
            store<f64>(top, dr, 8);
            top += STACK_BYTES;
          }
          if (dl < best) {
            first = load<i32>(pair);
            count = load<i32>(pair, 4);
            continue;
          }
        } else {
          if (dl < best) {
            store<u64>(top, load<u64>(pair));
            store<f64>(top, dl, 8);
            top += STACK_BYTES;
          }
          if (dr < best) {
            first = load<i32>(pair, 8);
            count = load<i32>(pair, 12);
            continue;
          }
        }
      }
      let further = false;
      while (top > stack) {
        top -= STACK_BYTES;
        if (load<f64>(top, 8) < best) {
          further = true;
          break;
        }
      }
      if (!further) break;
      first = load<i32>(top);
      count = load<i32>(top, 4);
    }
    store<f64>(points + 24 * q, x);
    store<f64>(points + 24 * q, y, 8);
    store<f64>(points + 24 * q, z, 16);
    store<f64>(squares + 8 * q, best);
    store<i32>(slots + 4 * q, slot);
  }
}
