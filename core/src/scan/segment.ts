import type { Adjacency, Neighbourhood } from '../geometry/adjacency.js';
import { OPEN } from '../geometry/adjacency.js';
import { type Mesh, triangleArea } from '../geometry/mesh.js';
import { cutInTwo } from '../geometry/min-cut.js';
import { type Fdi, kindOf } from '../teeth/notation.js';
import { onRow, type RowCurve, type ToothRoom } from './row.js';

/** What is known of a tooth before its border is sought: its room in the row, or places on it that were clicked. */
export interface ToothSeed {
  readonly tooth: Fdi;
  readonly place: ToothRoom;
}

/**
 * Shortest crowns that are thought of, mm: what lies so near to an edge in the middle of a tooth is surely crown. House
 * limits.
 */
const SURE_CROWN_MM = { central: 5, lateral: 4.6, canine: 5.2, premolar1: 4, premolar2: 3.6 } as const;
/** Share of a tooth's room that is surely it, about its middle. */
const SURE_SHARE = 0.42;
/** What lies so far over an edge is no crown, mm. */
const SURE_GUM_MM = 13.5;
/** Gum within this of the scan's own border on the root side, over the edge, mm. */
const BORDER_GUM_MM = 6;

/** Going across a fold costs so much more than going along a face. */
const FOLD_COST = 12;
/** A fold of so much counts once, 1/mm. */
const FOLD_UNIT = 0.7;

const GUM = 0;
const UNKNOWN = 255;

/**
 * Tells the teeth from the gum and from one another: every tooth spreads from its sure middle, the gum from the roots,
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
    const half = ((own.place.to - own.place.from) / 2) * SURE_SHARE;
    const kind = kindOf(own.tooth) as keyof typeof SURE_CROWN_MM;
    if (
      Math.abs(place.along - middle) < half &&
      up < Math.max(SURE_CROWN_MM[kind] * crownShare(place.out), gone + LEFT_CROWN_MM) &&
      Math.abs(place.out) < 5
    )
      begin(v, own.tooth);
  }
  for (let k = 0; k < a.across.length; k++) {
    if (a.across[k] !== OPEN) continue;
    const v = m.triangles[k];
    const place = onRow(row, p[3 * v], p[3 * v + 1]);
    const near = seeds.find((s) => place.along >= s.place.from && place.along < s.place.to);
    if (label[v] === UNKNOWN && (!near || p[3 * v + 2] - near.place.edgeMm > BORDER_GUM_MM)) begin(v, GUM);
  }
  for (const [v, tooth] of painted) begin(v, tooth);
  const sure = label.slice();
  const isTooth = toothSide(m, n, concavity, label);
  for (let v = 0; v < count; v++) {
    if (label[v] !== UNKNOWN || isTooth[v]) continue;
    label[v] = GUM;
    cost[v] = 0;
  }
  spread(m, n, concavity, label, cost, queue);
  if (T('BAND', 1) > 0) settle(m, n, concavity, label, sure, T('BAND', 1));
  return label;
}

/** The cheapest border takes short ways over a scallop: near it both sides spread anew into the depth of the fold. */
function settle(
  m: Mesh,
  n: Neighbourhood,
  concavity: Float32Array,
  label: Uint8Array,
  sure: Uint8Array,
  bandMm: number,
): void {
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
      const d = far[v] + Math.hypot(p[3 * w] - p[3 * v], p[3 * w + 1] - p[3 * v + 1], p[3 * w + 2] - p[3 * v + 2]);
      if (d > bandMm || d >= far[w]) continue;
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

const T = (k: string, d: number) => Number(process.env[k] ?? d);
/** Where the surface does not fold a millimetre of border costs 1; where it folds by more and more, ever less. */
const SHARP = T('SHARP', 0.5);
const LEAST_COST = T('EPS', 0.04);

/** Which vertices that are not known yet are of a tooth: the cheapest border between what is surely crown and gum. */
function toothSide(m: Mesh, n: Neighbourhood, concavity: Float32Array, label: Uint8Array): Uint8Array {
  const count = label.length;
  const node = new Int32Array(count).fill(-1);
  let nodes = 0;
  for (let v = 0; v < count; v++) if (label[v] === UNKNOWN) node[v] = nodes++;
  const lengths = borderLengths(m, n);
  const from = new Uint32Array(nodes + 1);
  const head: number[] = [];
  const costs: number[] = [];
  const pull = new Float32Array(nodes);
  for (let v = 0; v < count; v++) {
    if (node[v] < 0) continue;
    for (let i = n.from[v]; i < n.from[v + 1]; i++) {
      const w = n.beside[i];
      const k = Math.max(concavity[v], concavity[w]) / SHARP;
      const cost = lengths[i] * (T("MODE", 2) ? (1 + k * k) ** -T("MODE", 2) : LEAST_COST + (1 - LEAST_COST) * Math.exp(-k * k));
      if (node[w] >= 0) {
        head.push(node[w]);
        costs.push(cost);
      } else pull[node[v]] = pull[node[v]] + (label[w] === GUM ? -cost : cost);
    }
    from[node[v] + 1] = head.length;
  }
  const back = new Uint32Array(head.length);
  for (let v = 0; v < nodes; v++)
    for (let a = from[v]; a < from[v + 1]; a++) {
      const w = head[a];
      let b = from[w];
      while (head[b] !== v) b++;
      back[a] = b;
    }
  const side = cutInTwo({ from, head: Uint32Array.from(head), back, cost: Float32Array.from(costs), pull });
  const out = new Uint8Array(count);
  for (let v = 0; v < count; v++) if (node[v] >= 0) out[v] = side[node[v]];
  return out;
}

/** Of each pair of vertices beside each other: how long a border between them is, mm. */
function borderLengths(m: Mesh, n: Neighbourhood): Float32Array {
  const p = m.positions;
  const out = new Float32Array(n.beside.length);
  const one = (v: number, w: number, mm: number) => {
    let i = n.from[v];
    while (n.beside[i] !== w) i++;
    out[i] = out[i] + mm;
  };
  for (let t = 0; t < m.triangles.length; t += 3) {
    const area = triangleArea(m, t);
    for (let c = 0; c < 3; c++) {
      const [v, w] = [m.triangles[t + c], m.triangles[t + ((c + 1) % 3)]];
      const long = Math.hypot(p[3 * w] - p[3 * v], p[3 * w + 1] - p[3 * v + 1], p[3 * w + 2] - p[3 * v + 2]);
      if (long === 0) continue;
      const mm = ((2 / 3) * area) / long;
      one(v, w, mm);
      one(w, v, mm);
    }
  }
  return out;
}

const away = (s: ToothSeed, along: number): number => Math.max(0, s.place.from - along, along - s.place.to);

/** On the inner side of the row a crown may be shorter. */
const crownShare = (out: number): number => (out < -1.5 ? 0.7 : 1);

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
      const length = Math.hypot(p[3 * w] - p[3 * v], p[3 * w + 1] - p[3 * v + 1], p[3 * w + 2] - p[3 * v + 2]);
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

/** The tooth of each triangle: that of most of its corners. */
export function ofTriangles(m: Mesh, label: Uint8Array): Uint8Array {
  const out = new Uint8Array(m.triangles.length / 3);
  for (let t = 0; t < out.length; t++) {
    const [a, b, c] = [label[m.triangles[3 * t]], label[m.triangles[3 * t + 1]], label[m.triangles[3 * t + 2]]] as [
      number,
      number,
      number,
    ];
    out[t] = b === c ? b : a;
  }
  return out;
}
