import { type CutGraph, cutInTwo } from '@radiant/core';
import { random } from '@radiant/standins';

interface Edge {
  readonly a: number;
  readonly b: number;
  readonly cost: number;
}

/** As the cut wants it: arcs both ways beside each node. */
function graphOf(nodes: number, edges: readonly Edge[], pull: readonly number[]): CutGraph {
  const beside = Array.from({ length: nodes }, (_, v) =>
    edges.flatMap((e, i) => (e.a === v ? [{ to: e.b, e: i }] : e.b === v ? [{ to: e.a, e: i }] : [])),
  );
  const from = new Uint32Array(nodes + 1);
  beside.forEach((l, v) => {
    from[v + 1] = from[v]! + l.length;
  });
  const arcs = beside.flatMap((l, v) => l.map((x) => ({ ...x, v })));
  return {
    from,
    head: Uint32Array.from(arcs, (x) => x.to),
    back: Uint32Array.from(arcs, (x) => arcs.findIndex((y) => y.e === x.e && y.v === x.to)),
    cost: Float32Array.from(arcs, (x) => edges[x.e]!.cost),
    pull: Float32Array.from(pull),
  };
}

/** What a division costs: cut edges, and the pulls that are gone against. */
const priceOf = (side: ArrayLike<number>, edges: readonly Edge[], pull: readonly number[]) =>
  edges.reduce((n, e) => n + (side[e.a] === side[e.b] ? 0 : e.cost), 0) +
  pull.reduce((n, p, v) => n + (p > 0 && !side[v] ? p : p < 0 && side[v] ? -p : 0), 0);

describe('the cheapest cut', () => {
  it('costs what the cheapest of all divisions costs, on 300 graphs of up to eleven nodes', () => {
    const r = random(11);
    const whole = (n: number) => Math.floor(r.next() * n);
    for (let trial = 0; trial < 300; trial++) {
      const nodes = 2 + whole(10);
      const edges: Edge[] = [];
      for (let a = 0; a < nodes; a++)
        for (let b = a + 1; b < nodes; b++) if (r.next() < 0.5) edges.push({ a, b, cost: whole(9) });
      const pull = Array.from({ length: nodes }, () => (r.next() < 0.5 ? whole(21) - 10 : 0));
      let least = Infinity;
      for (let all = 0; all < 2 ** nodes; all++)
        least = Math.min(
          least,
          priceOf(
            Array.from({ length: nodes }, (_, v) => (all >> v) & 1),
            edges,
            pull,
          ),
        );
      expect(priceOf(cutInTwo(graphOf(nodes, edges, pull)), edges, pull)).toBe(least);
    }
  });

  it('goes through a weak ring and not along a short way beside one weak spot', () => {
    // A tube of six around and nine along; between rows 5 and 6 all edges are weak but one, at row 2 one is.
    const at = (row: number, k: number) => 6 * row + (k % 6);
    const edges: Edge[] = [];
    for (let row = 0; row < 9; row++)
      for (let k = 0; k < 6; k++) {
        edges.push({ a: at(row, k), b: at(row, k + 1), cost: 1 });
        const weak = row === 5 ? k !== 0 : row === 2 && k === 3;
        if (row < 8) edges.push({ a: at(row, k), b: at(row + 1, k), cost: weak ? 0.1 : 1 });
      }
    const pull = Array.from({ length: 54 }, (_, v) => (v < 6 ? 100 : v >= 48 ? -100 : 0));
    const side = cutInTwo(graphOf(54, edges, pull));
    expect([...side]).toEqual(Array.from({ length: 54 }, (_, v) => (v < 36 ? 1 : 0)));
  });

  it('leaves on the second side what nothing pulls', () => {
    expect([...cutInTwo(graphOf(2, [], [0, 0]))]).toEqual([0, 0]);
  });
});
