import { adjacencyOf, type Mesh, type PickedCrown, pickedCrowns, type RowCurve, vertexNormals } from '@radiant/core';
import { neighbourhoodOf } from '../src/geometry/adjacency.js';
import { edgeDoubts } from '../src/scan/doubts.js';
import { ofTriangles } from '../src/scan/segment.js';

const STEP = 0.2;
const [ACROSS, UP] = [61, 71];
/** A row on a circle of 25 mm whose front lies at y = 0. */
const ROW: RowCurve = {
  middleY: 25,
  alongMm: Float64Array.from({ length: 301 }, (_, i) => (25 * (i - 150) * Math.PI) / 180),
  radiusMm: new Float64Array(301).fill(25),
};

/** What is known of a surface that folds nowhere. */
const lookAt = (mesh: Mesh) => ({
  mesh,
  smooth: { mesh, normals: vertexNormals(mesh) },
  row: ROW,
  neighbourhood: neighbourhoodOf(mesh, adjacencyOf(mesh)),
  concavity: new Float32Array(mesh.positions.length / 3),
});

/**
 * A level sheet in front, 12 mm wide and 14 mm high, that faces outward and leans back by so many degrees about its
 * lower edge; and the tooth of each of its places by where it lies on the sheet.
 */
function sheet(leanDeg: number, toothAt: (x: number, up: number) => number) {
  const [s, c] = [Math.sin((leanDeg * Math.PI) / 180), Math.cos((leanDeg * Math.PI) / 180)];
  const positions: number[] = [];
  const triangles: number[] = [];
  const labels: number[] = [];
  for (let j = 0; j < UP; j++)
    for (let i = 0; i < ACROSS; i++) {
      const [x, up] = [(i - (ACROSS - 1) / 2) * STEP, j * STEP];
      positions.push(x, up * s, up * c);
      labels.push(toothAt(x, up));
      if (i === 0 || j === 0) continue;
      const [p, q, r, t] = [(j - 1) * ACROSS + i - 1, (j - 1) * ACROSS + i, j * ACROSS + i, j * ACROSS + i - 1];
      triangles.push(p, q, r, p, r, t);
    }
  const mesh: Mesh = { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
  return { look: lookAt(mesh), labels: Uint8Array.from(labels) };
}

/** A face and, back from its lower edge, a facet; both 8 mm wide, with gum over the face. */
function bent(faceMm: number, facetMm: number) {
  const { look, labels } = sheet(0, (x, up) => (Math.abs(x) <= 4 && up <= faceMm + facetMm ? 13 : 0));
  const positions = look.mesh.positions.map((v, i, p) => {
    const up = (p[i - (i % 3) + 2] as number) - facetMm;
    return i % 3 === 0 ? v : i % 3 === 1 ? Math.max(0, -up) : Math.max(0, up);
  });
  return { look: lookAt({ positions, triangles: look.mesh.triangles }), labels };
}

/** The walls of boxes on the row, each at so many degrees of it: 6 mm along it, 9 mm across, 9 mm of them tooth. */
function boxes(teeth: readonly (readonly [tooth: number, deg: number])[]) {
  const positions: number[] = [];
  const triangles: number[] = [];
  const labels: number[] = [];
  const corners = [
    [-3, 4.5],
    [3, 4.5],
    [3, -4.5],
    [-3, -4.5],
  ] as const;
  // Round the box from its face on, along the row as x grows.
  const round = corners.flatMap(([x0, y0], i) => {
    const [x1, y1] = corners[(i + 1) % 4]!;
    const n = Math.round(Math.hypot(x1 - x0, y1 - y0) / 0.25);
    return Array.from({ length: n }, (_, k) => [x0 + ((x1 - x0) * k) / n, y0 + ((y1 - y0) * k) / n] as const);
  });
  for (const [tooth, deg] of teeth) {
    const [s, c] = [Math.sin((deg * Math.PI) / 180), Math.cos((deg * Math.PI) / 180)];
    const first = labels.length;
    for (let j = 0; j <= 48; j++)
      round.forEach(([a, out], i) => {
        positions.push((25 + out) * s + a * c, 25 - (25 + out) * c + a * s, j * 0.25);
        labels.push(j <= 36 ? tooth : 0);
        if (j === 0) return;
        const next = (i + 1) % round.length;
        const [p, q, r, t] = [
          (j - 1) * round.length + i,
          (j - 1) * round.length + next,
          j * round.length + next,
          j * round.length + i,
        ];
        triangles.push(first + p, first + q, first + r, first + p, first + r, first + t);
      });
  }
  return {
    mesh: { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) },
    labels: Uint8Array.from(labels),
  };
}

/** A crown 8 mm wide and 10 mm long at its middle, its neck an arch. */
const crownAt = (x: number, up: number): number => (Math.abs(x) <= 4 && up <= 10 - 0.1 * x * x ? 11 : 0);

it.each([0, 7, -15])('a crown that leans by %s degrees is 8 mm wide and 10 mm long', (lean) => {
  const { look, labels } = sheet(lean, crownAt);
  const own = pickedCrowns(look, labels).get(11);
  expect(own?.widthMm).toBeCloseTo(8, 5);
  // Across the edge no place is lower than another: the length ends somewhere on it.
  expect(Math.abs((own?.lengthMm ?? 0) - 10)).toBeLessThan(STEP);
});

it.each([-12, 0, 8])('a crown that leans in the row by %s degrees, or is turned in it, is as wide as it is', (deg) => {
  const lean = Math.tan((deg * Math.PI) / 180);
  const { look, labels } = sheet(0, (x, up) => (up <= 10 && Math.abs(x - lean * up) <= 3.5 ? 11 : 0));
  expect(pickedCrowns(look, labels).get(11)?.widthMm).toBeCloseTo(7, 0);
  // The same sheet turned about the upright by so much stands askew in the row.
  const [c, s] = [Math.cos((2 * deg * Math.PI) / 180), Math.sin((2 * deg * Math.PI) / 180)];
  const flat = sheet(0, crownAt);
  const p = flat.look.mesh.positions;
  const mesh = {
    triangles: flat.look.mesh.triangles,
    positions: p.map((v, i) => (i % 3 === 0 ? c * v - s * p[i + 1]! : i % 3 === 1 ? s * p[i - 1]! + c * v : v)),
  };
  expect(pickedCrowns(lookAt(mesh), flat.labels).get(11)?.widthMm).toBeCloseTo(8, 3);
});

it('the neck lies half way to the gum, and a place that stands out alone is not how wide a crown is', () => {
  const { look, labels } = sheet(0, (x, up) => (Math.abs(x) <= 4.05 && up < 9.9 ? 11 : 0));
  const alone = labels.findIndex(
    (_, v) =>
      Math.abs(look.mesh.positions[3 * v]! - 4.8) < 0.01 && Math.abs(look.mesh.positions[3 * v + 2]! - 5) < 0.01,
  );
  labels[alone] = 11;
  const own = pickedCrowns(look, labels).get(11);
  // With it the crown would be 8.8 mm wide.
  expect(Math.abs((own?.widthMm ?? 0) - 8)).toBeLessThan(0.05);
  expect(Math.abs((own?.lengthMm ?? 0) - (9.8 + STEP / 2))).toBeLessThan(0.01);
});

it('a worn edge is as long as its face, not as far as its back', () => {
  // A face that is 10 mm long, and a facet that runs 3 mm back from its edge, to whose back it were 10.4 mm.
  const { look, labels } = bent(10, 3);
  expect(Math.abs((pickedCrowns(look, labels).get(13)?.lengthMm ?? 0) - 10)).toBeLessThan(0.2);
});

it('at the end of a row the direction is that of the row before it', () => {
  // Beyond the last tooth the row turns inward; boxes 6 mm wide along it and 9 mm deep.
  const row: RowCurve = { ...ROW, radiusMm: ROW.radiusMm.map((r, i) => (i > 150 + 67 ? 10 : r)) };
  const { mesh, labels } = boxes([
    [24, 50],
    [25, 64.5],
  ]);
  const sizes = pickedCrowns({ ...lookAt(mesh), row }, labels);
  for (const tooth of [24, 25]) expect(Math.abs((sizes.get(tooth)?.widthMm ?? 0) - 6)).toBeLessThan(0.3);
});

it('of what lies about the border of two teeth half counts to each', () => {
  const { look, labels } = sheet(0, (x, up) => (up > 10 ? 0 : x < -0.1 ? 11 : 21));
  const sizes = pickedCrowns(look, labels);
  expect([...sizes.keys()].sort()).toEqual([11, 21]);
  // 6 mm to the middle of the sheet, less half of what lies within 0.3 mm of where they meet, to whole triangles.
  expect(sizes.get(21)?.widthMm).toBeCloseTo(6 - STEP, 5);
});

it('a triangle in the fold goes to the side of those corners that are not its bottom', () => {
  // The neck runs at 10 mm: the row of vertices there is the bottom, and may have been given to either side.
  for (const bottom of [0, 11]) {
    const { look, labels } = sheet(0, (_, up) => (up < 9.9 ? 11 : up < 10.1 ? bottom : 0));
    const concavity = Float32Array.from(labels, (_, v) => {
      const up = look.mesh.positions[3 * v + 2] as number;
      return up > 9.9 && up < 10.1 ? 2 : 0.3;
    });
    const teeth = ofTriangles(look.mesh, labels, look.neighbourhood, concavity);
    const heights = [0, 11].map((n) =>
      [...teeth.keys()]
        .filter((t) => teeth[t] === n)
        .flatMap((t) => [0, 1, 2].map((c) => look.mesh.positions[3 * look.mesh.triangles[3 * t + c]! + 2]!)),
    ) as [number[], number[]];
    expect(Math.min(...heights[0])).toBeCloseTo(10, 5);
    expect(Math.max(...heights[1])).toBeCloseTo(10, 5);
  }
});

it('what was hardly picked has a size too, and gum has none', () => {
  const { look, labels } = sheet(0, (x, up) => (Math.abs(x) < 0.1 && up === 2 ? 12 : 0));
  const sizes = [...pickedCrowns(look, labels).values()].map((c) => [c.tooth, c.widthMm, c.lengthMm]);
  // The gum begins half way to the next place.
  expect(sizes.map((c) => c.map((v) => Math.round(1e6 * v) / 1e6))).toEqual([[12, 0, STEP / 2]]);
});

describe('what is said of an edge', () => {
  /** A right central 8 mm wide and 10 mm long whose edge stands so high at each place across. */
  const central = (edge: (x: number) => number, stepMm = 0.2): PickedCrown => {
    const across = Float64Array.from({ length: Math.round(8 / stepMm) }, (_, i) => i * stepMm);
    return {
      tooth: 11,
      vertices: new Uint32Array(across.length),
      across,
      height: across.map(edge),
      outward: across.map(() => 1),
      widthMm: 8,
      lengthMm: 10,
    };
  };
  const said = (c: PickedCrown) => edgeDoubts(new Map([[c.tooth, c]])).map((d) => d.sentence);

  it('a corner that is gone is named by its side; a level edge and a leaning one are whole', () => {
    expect(said(central(() => 0))).toEqual([]);
    expect(said(central((x) => 0.2 * x))).toEqual([]);
    // On the patient's right mesial lies where x grows.
    expect(said(central((x) => Math.max(0, x - 4.8)))[0]).toMatch(/^its mesial corner ends 2\.\d mm short/);
    expect(said(central((x) => Math.max(0, 3.2 - x)))[0]).toMatch(/^its distal corner ends 1\.\d mm short/);
  });

  it('on a coarse scan a corner has to be gone by more, and a crown shorter by more, before it is said', () => {
    const broken = central((x) => Math.max(0, x - 4.8));
    const fellow = { ...central(() => 0), tooth: 21, lengthMm: 12.3 };
    const at = (edgeMm: number) =>
      edgeDoubts(
        new Map([
          [11, broken],
          [21, fellow],
        ]),
        () => edgeMm,
      ).map((d) => d.about);
    expect(at(0.3)).toEqual(['length', 'corner']);
    expect(at(0.9)).toEqual([]);
  });

  it('where a coarse scan has no point at a step, or hardly anything was picked, nothing is said', () => {
    expect(said(central((x) => Math.max(0, x - 4.8), 1.5))).toEqual([]);
    expect(said({ ...central(() => 0), widthMm: 0, lengthMm: 0 })).toEqual([]);
  });
});
