/** A ledge of a preparation folds before the gum does: where the border goes on a face that folds twice, and once. */
import { adjacencyOf, type RowCurve } from '@radiant/core';
import { neighbourhoodOf } from '../src/geometry/adjacency.js';
import { segmented } from '../src/scan/segment.js';

const [STEP, ACROSS, UP] = [0.25, 57, 57];
const ROW: RowCurve = {
  middleY: 25,
  alongMm: Float64Array.from({ length: 301 }, (_, i) => (25 * (i - 150) * Math.PI) / 180),
  radiusMm: new Float64Array(301).fill(25),
};

/** How high the border of a central stands in its middle, mm, on a face that folds so much at some heights. */
function neckOn(folds: readonly (readonly [atMm: number, perMm: number])[]): number {
  const positions: number[] = [];
  const triangles: number[] = [];
  const concavity: number[] = [];
  for (let j = 0; j < UP; j++)
    for (let i = 0; i < ACROSS; i++) {
      const [x, up] = [(i - (ACROSS - 1) / 2) * STEP, j * STEP];
      // A little before the row, as faces are.
      positions.push(x, -1, up);
      const own = Math.abs(Math.abs(x) - 4.25) < 0.2 ? 2 : (folds.find(([at]) => Math.abs(up - at) < 0.2)?.[1] ?? 0);
      concavity.push(own);
      if (i === 0 || j === 0) continue;
      const [p, q, r, t] = [(j - 1) * ACROSS + i - 1, (j - 1) * ACROSS + i, j * ACROSS + i, j * ACROSS + i - 1];
      triangles.push(p, q, r, p, r, t);
    }
  const mesh = { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
  const a = adjacencyOf(mesh);
  const seeds = [{ tooth: 11, place: { from: -4.25, to: 4.25, edgeMm: 0 } }];
  const tooth = segmented(mesh, a, neighbourhoodOf(mesh, a), Float32Array.from(concavity), ROW, seeds);
  let top = 0;
  tooth.forEach((label, v) => {
    if (label === 11 && Math.abs(mesh.positions[3 * v]!) < 0.5) top = Math.max(top, mesh.positions[3 * v + 2]!);
  });
  return top;
}

it('goes past a deeper fold well short of the usual length to the one behind it', () => {
  expect(
    Math.abs(
      neckOn([
        [6.5, 2],
        [9, 1.3],
      ]) - 9,
    ),
  ).toBeLessThan(0.5);
});

it('stays at the fold where nothing folds further up: a short crown is short', () => {
  expect(Math.abs(neckOn([[6.5, 2]]) - 6.5)).toBeLessThan(0.5);
});

it('does not go on to a fold beyond the usual length', () => {
  expect(
    Math.abs(
      neckOn([
        [9, 2],
        [12, 1.3],
      ]) - 9,
    ),
  ).toBeLessThan(0.5);
});
