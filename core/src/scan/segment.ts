import { type Adjacency, type Neighbourhood, openLoops } from '../geometry/adjacency.js';
import { type Mesh, vertexDistance } from '../geometry/mesh.js';
import { type Fdi, kindOf } from '../teeth/notation.js';
import { usualSize } from '../teeth/usual-sizes.js';
import { onRow, type RowCurve, type ToothRoom } from './row.js';
import { SURELY, toothSide } from './tooth-side.js';

/** What is known of a tooth before its border is sought: its room in the row, or places on it that were clicked. */
export interface ToothSeed {
  readonly tooth: Fdi;
  readonly place: ToothRoom;
}

/**
 * Shortest crowns that are thought of, mm: what lies so near to an edge in the middle of a tooth is surely crown, worn
 * or not. House limits.
 */
const SURE_CROWN_MM = { central: 3, lateral: 2.8, canine: 3.1, premolar1: 4, premolar2: 3.6 } as const;
/** Share of a tooth's room that is surely it, about its middle. */
const SURE_SHARE = 0.42;
/** What lies so far over an edge is no crown, mm, and no root that lies bare. */
const SURE_GUM_MM = 17;
/** Behind the row a crown shows less of its length, and beside its middle the gum stands higher. House values. */
const INNER = { from: -1.5, share: 0.7 } as const;
const BESIDE_SHARE = 0.85;
/** So far within the row no crown reaches, mm. House value. */
const INNER_MM = 6;
/**
 * What lies further from an edge than the tooth is usually long, or so far within the row, is gum rather than tooth
 * where folds leave it open: each mm² of it weighs as so many mm of border on a smooth face. House value.
 */
const BEYOND = 0.15;
/**
 * On the face of a tooth's middle, short of such a share of its usual length, is tooth rather than gum by so much, as
 * above: a prepared tooth folds at its ledge before it folds at the gum. Where nothing folds further up it is too little
 * to carry the border there. House values.
 */
const SHORT_OF = 0.9;
const WITHIN = 0.3;
/** Gum within this of the scan's own border on the root side, over the edge, mm. */
const BORDER_GUM_MM = 6;

/** Going across a fold costs so much more than going along a face. */
const FOLD_COST = 12;
/** A fold of so much counts once, 1/mm. */
const FOLD_UNIT = 0.7;

const GUM = 0;
const UNKNOWN = 255;

/**
 * Tells the teeth from the gum by the cheapest border, and from one another: every tooth spreads from its sure middle,
 * each step the dearer the stronger the surface folds inward there, until they meet in the folds. In the arch's own
 * frame.
 * @param concavity of each vertex, 1/mm
 * @param painted vertices that a hand has given to a tooth (its number) or to the gum (0)
 * @returns the tooth of each vertex, 0 for gum
 */
export function segmented(
  m: Mesh,
  a: Adjacency,
  n: Neighbourhood,
  concavity: Float32Array,
  row: RowCurve,
  seeds: readonly ToothSeed[],
  painted: ReadonlyMap<number, Fdi> = new Map(),
): Uint8Array {
  const p = m.positions;
  const count = p.length / 3;
  const label = new Uint8Array(count).fill(UNKNOWN);
  const towardsGum = new Float32Array(count);
  const cost = new Float64Array(count).fill(Infinity);
  const queue = new Queue(count);
  const begin = (v: number, tooth: number) => {
    label[v] = tooth;
    cost[v] = 0;
    if (tooth !== GUM) queue.push(v, 0);
  };
  const lost = lostEdges(seeds);
  for (let v = 0; v < count; v++) {
    const place = onRow(row, p[3 * v], p[3 * v + 1]);
    const z = p[3 * v + 2];
    const own = seeds.find((s) => place.along >= s.place.from && place.along < s.place.to);
    if (!own) {
      const nearest = seeds.reduce<ToothSeed | undefined>(
        (best, s) => (!best || away(s, place.along) < away(best, place.along) ? s : best),
        undefined,
      );
      if (!nearest || away(nearest, place.along) > 3 || z > nearest.place.edgeMm + SURE_GUM_MM) begin(v, GUM);
      continue;
    }
    // A broken crown's neck is where it was: heights count from where its edge would be.
    const gone = lost.get(own.tooth) ?? 0;
    const up = z - own.place.edgeMm + gone;
    if (up > SURE_GUM_MM || place.out < -9) {
      begin(v, GUM);
      continue;
    }
    const middle = (own.place.from + own.place.to) / 2;
    const beside = Math.abs(place.along - middle) > (own.place.to - own.place.from) / 4;
    const usual = usualSize(own.tooth).lengthMm * crownShare(place.out) * (beside ? BESIDE_SHARE : 1);
    if (up > usual || place.out < -INNER_MM) towardsGum[v] = BEYOND;
    else if (!beside && up < SHORT_OF * usual) towardsGum[v] = -WITHIN;
    const half = ((own.place.to - own.place.from) / 2) * SURE_SHARE;
    const kind = kindOf(own.tooth) as keyof typeof SURE_CROWN_MM;
    if (
      Math.abs(place.along - middle) < half &&
      up < Math.max(SURE_CROWN_MM[kind] * crownShare(place.out), gone + LEFT_CROWN_MM) &&
      Math.abs(place.out) < 5
    )
      begin(v, own.tooth);
  }
  for (const v of scanBorder(m, a)) {
    const place = onRow(row, p[3 * v], p[3 * v + 1]);
    const near = seeds.find((s) => place.along >= s.place.from && place.along < s.place.to);
    if (label[v] === UNKNOWN && (!near || p[3 * v + 2] - near.place.edgeMm > BORDER_GUM_MM)) begin(v, GUM);
  }
  for (const [v, tooth] of painted) begin(v, tooth);
  const sure = label.slice();
  const isTooth = toothSide(
    m,
    n,
    concavity,
    label.map((l) => (l === UNKNOWN ? 0 : l === GUM ? SURELY.gum : SURELY.tooth)),
    towardsGum,
  );
  for (let v = 0; v < count; v++) {
    if (label[v] !== UNKNOWN || isTooth[v]) continue;
    label[v] = GUM;
    cost[v] = 0;
  }
  spread(m, n, concavity, label, cost, queue);
  settle(m, n, concavity, label, sure);
  return label;
}

/** Loops of the scan's border that are this much shorter than its longest are holes where nothing was seen. */
const A_BORDER = 0.5;

/** The vertices of the scan's own border: what is open between two teeth is none. */
function scanBorder(m: Mesh, a: Adjacency): readonly number[] {
  const p = m.positions;
  const loops = openLoops(m, a).map((loop) => ({
    loop,
    mm: loop.reduce((sum, v, i) => {
      const w = loop[(i + 1) % loop.length];
      return sum + vertexDistance(p, v, w);
    }, 0),
  }));
  const longest = loops.reduce((most, l) => Math.max(most, l.mm), 0);
  return loops.filter((l) => l.mm >= A_BORDER * longest).flatMap((l) => l.loop);
}

/** How far from the cheapest border its true course is sought, mm. House value. */
const SETTLE_MM = 0.7;

/** The cheapest border takes short ways over a scallop: near it both sides spread anew into the depth of the fold. */
function settle(m: Mesh, n: Neighbourhood, concavity: Float32Array, label: Uint8Array, sure: Uint8Array): void {
  const p = m.positions;
  const count = label.length;
  const far = new Float64Array(count).fill(Infinity);
  const queue = new Queue(count);
  for (let v = 0; v < count; v++) {
    let border = false;
    for (let i = n.from[v]; i < n.from[v + 1] && !border; i++)
      border = (label[v] === GUM) !== (label[n.beside[i]] === GUM);
    if (!border) continue;
    far[v] = 0;
    queue.push(v, 0);
  }
  const band: number[] = [];
  for (let v = queue.pop(); v >= 0; v = queue.pop()) {
    if (sure[v] === UNKNOWN) band.push(v);
    for (let i = n.from[v]; i < n.from[v + 1]; i++) {
      const w = n.beside[i];
      const d = far[v] + vertexDistance(p, v, w);
      if (d > SETTLE_MM || d >= far[w]) continue;
      far[w] = d;
      queue.push(w, d);
    }
  }
  const cost = new Float64Array(count);
  for (const v of band) {
    label[v] = UNKNOWN;
    cost[v] = Infinity;
  }
  const again = new Queue(count);
  for (const v of band)
    for (let i = n.from[v]; i < n.from[v + 1]; i++) if (label[n.beside[i]] !== UNKNOWN) again.push(n.beside[i], 0);
  spread(m, n, concavity, label, cost, again);
}

/**
 * An edge this much higher than those beside it is not the tooth's own any more, mm. House limit: a canine, a short
 * lateral differ by less.
 */
const LOST_MM = 1.5;
/** So much of a broken crown is surely left, mm. */
const LEFT_CROWN_MM = 1.5;

/**
 * How much of its edge each tooth has lost, by the edges of up to two teeth on both sides; none where it stands with
 * them.
 */
function lostEdges(seeds: readonly ToothSeed[]): Map<Fdi, number> {
  const row = [...seeds].sort((p, q) => p.place.from - q.place.from);
  return new Map(
    row.map(({ tooth, place }, i) => {
      const beside = [i - 2, i - 1, i + 1, i + 2].flatMap((k) => row[k]?.place.edgeMm ?? []).sort((p, q) => p - q);
      const usual = beside[beside.length >> 1] ?? place.edgeMm;
      return [tooth, place.edgeMm - usual > LOST_MM ? place.edgeMm - usual : 0];
    }),
  );
}

const away = (s: ToothSeed, along: number): number => Math.max(0, s.place.from - along, along - s.place.to);

/** On the inner side of the row a crown may be shorter. */
const crownShare = (out: number): number => (out < INNER.from ? INNER.share : 1);

function spread(
  m: Mesh,
  n: Neighbourhood,
  concavity: Float32Array,
  label: Uint8Array,
  cost: Float64Array,
  queue: Queue,
): void {
  const p = m.positions;
  for (;;) {
    const v = queue.pop();
    if (v < 0) return;
    const here = cost[v];
    const fold = concavity[v];
    for (let i = n.from[v]; i < n.from[v + 1]; i++) {
      const w = n.beside[i];
      const length = vertexDistance(p, v, w);
      const k = Math.max(fold, concavity[w]) / FOLD_UNIT;
      const next = here + length * (1 + FOLD_COST * k * k);
      if (next >= cost[w]) continue;
      cost[w] = next;
      label[w] = label[v];
      queue.push(w, next);
    }
  }
}

/** Vertices by their cost, the cheapest first; stale ones are passed over. */
class Queue {
  private readonly heap: number[] = [];
  private readonly keys: number[] = [];
  private readonly done: Uint8Array;

  constructor(count: number) {
    this.done = new Uint8Array(count);
  }

  push(v: number, key: number): void {
    const { heap, keys } = this;
    let i = heap.length;
    heap.push(v);
    keys.push(key);
    while (i > 0) {
      const up = (i - 1) >> 1;
      if (keys[up] <= key) break;
      heap[i] = heap[up];
      keys[i] = keys[up];
      i = up;
    }
    heap[i] = v;
    keys[i] = key;
  }

  pop(): number {
    const { heap, keys } = this;
    while (heap.length > 0) {
      const v = heap[0];
      const last = heap.pop() as number;
      const key = keys.pop() as number;
      if (heap.length > 0) {
        let i = 0;
        for (;;) {
          let c = 2 * i + 1;
          if (c >= heap.length) break;
          if (c + 1 < heap.length && keys[c + 1] < keys[c]) c++;
          if (keys[c] >= key) break;
          heap[i] = heap[c];
          keys[i] = keys[c];
          i = c;
        }
        heap[i] = last;
        keys[i] = key;
      }
      if (this.done[v]) continue;
      this.done[v] = 1;
      return v;
    }
    return -1;
  }
}

/**
 * The tooth of each triangle: that of most of its corners, where those that lie in the bottom of the fold say nothing.
 * Which side a vertex of the bottom was given to is chance, and half a triangle of one side all along the border.
 */
export function ofTriangles(m: Mesh, label: Uint8Array, n: Neighbourhood, concavity: Float32Array): Uint8Array {
  const isBottom = (v: number): boolean => {
    let across = -1;
    for (let i = n.from[v]; i < n.from[v + 1]; i++) {
      const w = n.beside[i];
      if (label[w] !== label[v]) across = Math.max(across, concavity[w]);
    }
    return across >= 0 && concavity[v] > across;
  };
  const out = new Uint8Array(m.triangles.length / 3);
  for (let t = 0; t < out.length; t++) {
    const a = label[m.triangles[3 * t]];
    const b = label[m.triangles[3 * t + 1]];
    const c = label[m.triangles[3 * t + 2]];
    if (a === b && b === c) {
      out[t] = a;
      continue;
    }
    const told = [0, 1, 2].flatMap((k) => {
      const v = m.triangles[3 * t + k];
      return isBottom(v) ? [] : [label[v]];
    });
    const one = told[0];
    out[t] = one !== undefined && told.every((l) => l === one) ? one : b === c ? b : a;
  }
  return out;
}
