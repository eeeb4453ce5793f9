/** A graph whose nodes are cut into two sides: arcs in pairs, both ways, beside each node in turn. */
export interface CutGraph {
  /** The arcs of node v: `from[v]` to before `from[v + 1]`. */
  readonly from: Uint32Array;
  /** The node that each arc leads to. */
  readonly head: Uint32Array;
  /** The arc the other way. */
  readonly back: Uint32Array;
  /** What it costs to cut each arc, ≥ 0; used up by the cut. */
  readonly cost: Float32Array;
  /** What it costs each node to be on the other side: above 0 it would be of the first side, below 0 of the second. */
  readonly pull: Float32Array;
}

const NONE = -1;
const ROOT = -2;
const ORPHAN = -3;

/**
 * The cheapest way to cut a graph in two. Boykov and Kolmogorov's two trees that grow towards each other (2004, IEEE
 * TPAMI 26:1124, from memory), made for graphs like surfaces and pictures.
 * @returns 1 for the nodes of the first side, 0 for those of the second
 */
export function cutInTwo(g: CutGraph): Uint8Array {
  return new Cut(g).run();
}

class Cut {
  private readonly parent: Int32Array;
  /** 1 where a node is in the second tree. */
  private readonly second: Uint8Array;
  private readonly stamp: Int32Array;
  private readonly far: Int32Array;
  /** A ring of the nodes that may grow; `queued` says who is in it. */
  private readonly ring: Int32Array;
  private readonly queued: Uint8Array;
  private first = 0;
  private count = 0;
  private orphans: number[] = [];
  private time = 0;

  constructor(private readonly g: CutGraph) {
    const n = g.pull.length;
    this.parent = new Int32Array(n).fill(NONE);
    this.second = new Uint8Array(n);
    this.stamp = new Int32Array(n);
    this.far = new Int32Array(n);
    this.ring = new Int32Array(n + 1);
    this.queued = new Uint8Array(n);
    for (let v = 0; v < n; v++) {
      if (g.pull[v] === 0) continue;
      this.second[v] = g.pull[v] < 0 ? 1 : 0;
      this.parent[v] = ROOT;
      this.far[v] = 1;
      this.wake(v);
    }
  }

  run(): Uint8Array {
    for (let v = this.next(); v >= 0; v = this.next()) {
      if (this.parent[v] === NONE) continue;
      // As long as it meets the other tree it goes on growing.
      for (let met = this.grow(v); met >= 0; met = this.grow(v)) {
        this.time++;
        this.augment(met);
        this.adopt();
        if (this.parent[v] === NONE) break;
      }
    }
    return this.second.map((s, v) => (this.parent[v] !== NONE && s === 0 ? 1 : 0));
  }

  private wake(v: number): void {
    if (this.queued[v]) return;
    this.queued[v] = 1;
    this.ring[(this.first + this.count) % this.ring.length] = v;
    this.count++;
  }

  private next(): number {
    if (this.count === 0) return -1;
    const v = this.ring[this.first];
    this.first = (this.first + 1) % this.ring.length;
    this.count--;
    this.queued[v] = 0;
    return v;
  }

  /** @returns an arc from the first tree into the second, or −1 where none is found from here */
  private grow(v: number): number {
    const { from, head, back, cost } = this.g;
    const { parent, second, stamp, far } = this;
    const own = second[v];
    for (let a = from[v]; a < from[v + 1]; a++) {
      if (cost[own ? back[a] : a] <= 0) continue;
      const w = head[a];
      if (parent[w] === NONE) {
        second[w] = own;
        parent[w] = back[a];
        stamp[w] = stamp[v];
        far[w] = far[v] + 1;
        this.wake(w);
      } else if (second[w] !== own) {
        return own ? back[a] : a;
      } else if (stamp[w] <= stamp[v] && far[w] > far[v] + 1 && parent[w] !== ROOT) {
        parent[w] = back[a];
        stamp[w] = stamp[v];
        far[w] = far[v] + 1;
      }
    }
    return -1;
  }

  private augment(met: number): void {
    const { head, back, cost, pull } = this.g;
    const { parent } = this;
    const start = head[back[met]];
    const end = head[met];
    let most = cost[met];
    let v = start;
    for (; parent[v] !== ROOT; v = head[parent[v]]) most = Math.min(most, cost[back[parent[v]]]);
    most = Math.min(most, pull[v]);
    for (v = end; parent[v] !== ROOT; v = head[parent[v]]) most = Math.min(most, cost[parent[v]]);
    most = Math.min(most, -pull[v]);

    cost[back[met]] = cost[back[met]] + most;
    cost[met] = cost[met] - most;
    for (v = start; parent[v] !== ROOT; ) {
      const a = parent[v];
      cost[a] = cost[a] + most;
      cost[back[a]] = cost[back[a]] - most;
      const up = head[a];
      if (cost[back[a]] <= 0) this.orphaned(v);
      v = up;
    }
    pull[v] = pull[v] - most;
    if (pull[v] <= 0) this.orphaned(v);
    for (v = end; parent[v] !== ROOT; ) {
      const a = parent[v];
      cost[back[a]] = cost[back[a]] + most;
      cost[a] = cost[a] - most;
      const up = head[a];
      if (cost[a] <= 0) this.orphaned(v);
      v = up;
    }
    pull[v] = pull[v] + most;
    if (pull[v] >= 0) this.orphaned(v);
  }

  private orphaned(v: number): void {
    this.parent[v] = ORPHAN;
    this.orphans.push(v);
  }

  private adopt(): void {
    const { from, head, back, cost } = this.g;
    const { parent, second, stamp, far, time } = this;
    for (let i = 0; i < this.orphans.length; i++) {
      const v = this.orphans[i];
      const own = second[v];
      let [best, least] = [NONE, Infinity];
      for (let a = from[v]; a < from[v + 1]; a++) {
        // From the root to here there must be room.
        if (cost[own ? a : back[a]] <= 0) continue;
        const w = head[a];
        if (second[w] !== own || parent[w] === NONE || parent[w] === ORPHAN) continue;
        const d = this.toRoot(w);
        if (d >= least) continue;
        least = d;
        best = a;
      }
      if (best !== NONE) {
        parent[v] = best;
        stamp[v] = time;
        far[v] = least + 1;
        continue;
      }
      parent[v] = NONE;
      for (let a = from[v]; a < from[v + 1]; a++) {
        const w = head[a];
        if (second[w] !== own || parent[w] === NONE) continue;
        if (cost[own ? a : back[a]] > 0) this.wake(w);
        if (parent[w] >= 0 && head[parent[w]] === v) this.orphaned(w);
      }
    }
    this.orphans = [];
  }

  /** Steps from a node to its root, Infinity where an orphan lies between; what is learnt is kept. */
  private toRoot(w: number): number {
    const { head } = this.g;
    const { parent, stamp, far, time } = this;
    let d = 0;
    let v = w;
    for (;;) {
      if (stamp[v] === time) {
        d += far[v];
        break;
      }
      const a = parent[v];
      d++;
      if (a === ROOT) {
        stamp[v] = time;
        far[v] = 1;
        break;
      }
      if (a === ORPHAN || a === NONE) return Infinity;
      v = head[a];
    }
    const whole = d;
    for (v = w; stamp[v] !== time; v = head[parent[v]]) {
      stamp[v] = time;
      far[v] = d--;
    }
    return whole;
  }
}
