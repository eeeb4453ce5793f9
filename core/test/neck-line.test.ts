import {
  adjacencyOf,
  type Fdi,
  type Mesh,
  neckLines,
  neighbourhoodOf,
  PULL_SIDE_MM,
  pulledLine,
  pullShare,
  type Vec3,
  vertexNormals,
} from '@radiant/core';

const STEP = 0.1;
const HALF = 60;

/** A level piece of surface, 12 mm by 12, gum above z = 0 and tooth below; left of x = −4 it is another tooth's. */
function piece() {
  const side = 2 * HALF + 1;
  const positions = new Float64Array(3 * side * side);
  const triangles: number[] = [];
  for (let j = 0; j < side; j++)
    for (let i = 0; i < side; i++) {
      positions.set([(i - HALF) * STEP, 0, (j - HALF) * STEP], 3 * (j * side + i));
      if (i === 0 || j === 0) continue;
      const [a, b, c, d] = [(j - 1) * side + i - 1, (j - 1) * side + i, j * side + i, j * side + i - 1];
      triangles.push(a, b, c, a, c, d);
    }
  const mesh: Mesh = { positions, triangles: Uint32Array.from(triangles) };
  const labels = new Uint8Array(side * side);
  for (let v = 0; v < labels.length; v++)
    labels[v] = (positions[3 * v + 2] as number) > 0 ? 0 : (positions[3 * v] as number) < -4 ? 12 : 11;
  const look = { mesh, neighbourhood: neighbourhoodOf(mesh, adjacencyOf(mesh)) };
  return { look, labels, side };
}

const { look, labels, side } = piece();

function pulled(tooth: Fdi, from: Vec3, to: Vec3, before: Uint8Array = labels): Uint8Array {
  const out = before.slice();
  for (const [v, label] of pulledLine(look, before, tooth, from, to)) out[v] = label;
  return out;
}

/** How high a tooth reaches at a place across, mm. */
function reach(of: Uint8Array, tooth: Fdi, x: number): number {
  const i = Math.round(x / STEP) + HALF;
  let most = -Infinity;
  for (let j = 0; j < side; j++) if (of[j * side + i] === tooth) most = Math.max(most, (j - HALF) * STEP);
  return most;
}

it('the line between a tooth and the gum is told whole, and lifted off the surface', () => {
  const lines = neckLines(look.mesh, vertexNormals(look.mesh), labels, 0.08);
  expect([...lines.keys()].sort()).toEqual([11, 12]);
  for (const [tooth, long] of [
    [11, 10],
    [12, 2],
  ] as const) {
    const line = lines.get(tooth) as Float32Array;
    let sum = 0;
    for (let i = 0; i < line.length; i += 6)
      sum += Math.hypot(
        (line[i + 3] as number) - (line[i] as number),
        (line[i + 5] as number) - (line[i + 2] as number),
      );
    // It stops short where three meet; the zigzag of the grid's diagonals is gone.
    expect(sum).toBeGreaterThan(long - 0.3);
    expect(sum).toBeLessThan(1.05 * long);
    expect(Math.abs(line[1] as number)).toBeCloseTo(0.08, 6);
  }
});

it.each([1.5, -1.5])('pulled by %s mm the line goes along under the hand and stays beside it', (by) => {
  const after = pulled(11, [1, 0, 0], [1, 0, by]);
  expect(reach(after, 11, 1)).toBeCloseTo(by, 0);
  for (const x of [0, 1, 2])
    expect(Math.abs(reach(after, 11, x) - by * pullShare(Math.abs(x - 1)))).toBeLessThanOrEqual(1.5 * STEP);
  for (const x of [1 - PULL_SIDE_MM - 0.2, 1 + PULL_SIDE_MM + 0.2])
    expect(reach(after, 11, x)).toBe(reach(labels, 11, x));
  // Half as far where the share says half.
  expect(pullShare(0)).toBe(1);
  expect(pullShare(PULL_SIDE_MM)).toBe(0);
});

it('a pull leaves the neighbour alone, and back it is as it was', () => {
  const away = pulled(11, [-3.5, 0, 0], [-3.5, 0, 1]);
  for (let v = 0; v < labels.length; v++) if (labels[v] === 12) expect(away[v]).toBe(12);
  const back = pulled(11, [-3.5, 0, 1], [-3.5, 0, 0], away);
  let changed = 0;
  for (let v = 0; v < labels.length; v++) if (back[v] !== labels[v]) changed++;
  // The edge of what was carried twice may be off by a step of the grid.
  expect(changed * STEP * STEP).toBeLessThan(0.6);
  expect(pulledLine(look, labels, 11, [0, 0, 0], [0, 0, 0]).size).toBe(0);
});
