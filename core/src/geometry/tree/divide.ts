/**
 * The triangles while a tree is being built. Boxes, numbers and bins of a triangle move together, so that every pass
 * reads memory in its order. 32-bit boxes do: they decide where to divide, never a distance.
 */
export interface Sorting {
  /** 6 numbers a triangle: minX minY minZ maxX maxY maxZ. */
  readonly own: Float32Array;
  /** The triangle's number in the mesh. */
  readonly order: Uint32Array;
  readonly bin: Uint8Array;
  readonly binCount: Int32Array;
  /** 6 numbers a bin, as for triangles. */
  readonly binBox: Float64Array;
  readonly rightArea: Float64Array;
  /** A box that grows bin by bin, and the bounds of the centroids; 6 numbers. */
  readonly sweep: Float64Array;
}

const BINS = 16;
/** Down from this many triangles the middle is good enough: bins would cost more than the better split saves. */
const FEW = 32;

export function sorting(own: Float32Array): Sorting {
  const n = own.length / 6;
  const order = new Uint32Array(n);
  for (let i = 0; i < n; i++) order[i] = i;
  return {
    own,
    order,
    bin: new Uint8Array(n),
    binCount: new Int32Array(BINS),
    binBox: new Float64Array(6 * BINS),
    rightArea: new Float64Array(BINS),
    sweep: new Float64Array(6),
  };
}

/**
 * Sorts [start..end) into two parts along the longest side of its centroids and returns where the second begins, or
 * `start` when all centroids lie at one place. One-axis binned surface-area heuristic: three axes doubled the build for
 * queries no faster, and 8 or 32 bins made no difference that could be measured.
 * Each loop is a function of its own: as closures of the build they were optimised anew for every mesh.
 */
export function divide(s: Sorting, start: number, end: number): number {
  centroidBounds(s, start, end);
  const b = s.sweep;
  const x = b[3] - b[0];
  const y = b[4] - b[1];
  const z = b[5] - b[2];
  const axis = x >= y && x >= z ? 0 : y >= z ? 1 : 2;
  const low = b[axis];
  const extent = b[axis + 3] - low;
  if (!(extent > 0)) return start;
  if (end - start <= FEW) binsOfHalves(s, start, end, axis, low + extent / 2);
  else fillBins(s, start, end, axis, low, (BINS * 0.999999) / extent);
  return gather(s, start, end, end - start <= FEW ? 1 : cheapest(s, end - start));
}

/** Bounds of twice the centroids, into `sweep`. */
function centroidBounds(s: Sorting, start: number, end: number): void {
  const own = s.own;
  let x0 = Infinity;
  let y0 = Infinity;
  let z0 = Infinity;
  let x1 = -Infinity;
  let y1 = -Infinity;
  let z1 = -Infinity;
  for (let b = 6 * start; b < 6 * end; b += 6) {
    const x = own[b] + own[b + 3];
    const y = own[b + 1] + own[b + 4];
    const z = own[b + 2] + own[b + 5];
    if (x < x0) x0 = x;
    if (y < y0) y0 = y;
    if (z < z0) z0 = z;
    if (x > x1) x1 = x;
    if (y > y1) y1 = y;
    if (z > z1) z1 = z;
  }
  const out = s.sweep;
  out[0] = x0;
  out[1] = y0;
  out[2] = z0;
  out[3] = x1;
  out[4] = y1;
  out[5] = z1;
}

function binsOfHalves(s: Sorting, start: number, end: number, axis: number, middle: number): void {
  const { own, bin } = s;
  for (let i = start, o = 6 * start + axis; i < end; i++, o += 6) bin[i] = own[o] + own[o + 3] > middle ? 1 : 0;
}

function fillBins(s: Sorting, start: number, end: number, axis: number, low: number, k: number): void {
  const { own, bin, binCount, binBox } = s;
  binCount.fill(0);
  for (let b = 0; b < 6 * BINS; b += 6) empty(binBox, b);
  for (let i = start, o = 6 * start; i < end; i++, o += 6) {
    const x0 = own[o];
    const y0 = own[o + 1];
    const z0 = own[o + 2];
    const x1 = own[o + 3];
    const y1 = own[o + 4];
    const z1 = own[o + 5];
    const c = axis === 0 ? x0 + x1 : axis === 1 ? y0 + y1 : z0 + z1;
    const w = ((c - low) * k) | 0;
    bin[i] = w;
    binCount[w] = binCount[w] + 1;
    const b = 6 * w;
    if (x0 < binBox[b]) binBox[b] = x0;
    if (y0 < binBox[b + 1]) binBox[b + 1] = y0;
    if (z0 < binBox[b + 2]) binBox[b + 2] = z0;
    if (x1 > binBox[b + 3]) binBox[b + 3] = x1;
    if (y1 > binBox[b + 4]) binBox[b + 4] = y1;
    if (z1 > binBox[b + 5]) binBox[b + 5] = z1;
  }
}

/** The bin border with the least surface-area cost: the first bin of the second part. */
function cheapest(s: Sorting, total: number): number {
  const { binCount, binBox, rightArea, sweep } = s;
  empty(sweep, 0);
  for (let b = BINS - 1; b > 0; b--) rightArea[b] = grow(sweep, binBox, b);
  empty(sweep, 0);
  let best = Infinity;
  let split = BINS >> 1;
  let left = 0;
  for (let b = 0; b < BINS - 1; b++) {
    const a = grow(sweep, binBox, b);
    left += binCount[b];
    if (left === 0 || left === total) continue;
    const cost = a * left + rightArea[b + 1] * (total - left);
    if (cost < best) {
      best = cost;
      split = b + 1;
    }
  }
  return split;
}

/** Brings the bins below `split` to the front and returns where the others begin. */
function gather(s: Sorting, start: number, end: number, split: number): number {
  const bin = s.bin;
  let i = start;
  let j = end - 1;
  for (;;) {
    while (i <= j && bin[i] < split) i++;
    while (i <= j && bin[j] >= split) j--;
    if (i >= j) return i;
    swap(s, i, j);
  }
}

function swap(s: Sorting, i: number, j: number): void {
  const { own, order, bin } = s;
  const t = order[i];
  order[i] = order[j];
  order[j] = t;
  const w = bin[i];
  bin[i] = bin[j];
  bin[j] = w;
  for (let a = 6 * i, b = 6 * j, end = a + 6; a < end; a++, b++) {
    const v = own[a];
    own[a] = own[b];
    own[b] = v;
  }
}

function empty(box: Float64Array, at: number): void {
  box[at] = box[at + 1] = box[at + 2] = Infinity;
  box[at + 3] = box[at + 4] = box[at + 5] = -Infinity;
}

/** Widens the box by a bin's and returns its half surface. */
function grow(sweep: Float64Array, binBox: Float64Array, bin: number): number {
  const b = 6 * bin;
  let x0 = sweep[0];
  let y0 = sweep[1];
  let z0 = sweep[2];
  let x1 = sweep[3];
  let y1 = sweep[4];
  let z1 = sweep[5];
  if (binBox[b] < x0) sweep[0] = x0 = binBox[b];
  if (binBox[b + 1] < y0) sweep[1] = y0 = binBox[b + 1];
  if (binBox[b + 2] < z0) sweep[2] = z0 = binBox[b + 2];
  if (binBox[b + 3] > x1) sweep[3] = x1 = binBox[b + 3];
  if (binBox[b + 4] > y1) sweep[4] = y1 = binBox[b + 4];
  if (binBox[b + 5] > z1) sweep[5] = z1 = binBox[b + 5];
  const dx = x1 - x0;
  const dy = y1 - y0;
  const dz = z1 - z0;
  return dx < 0 ? 0 : dx * dy + dy * dz + dz * dx;
}
