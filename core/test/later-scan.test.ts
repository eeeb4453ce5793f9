import {
  asSegmented,
  closestPoints,
  type FirstScan,
  type Frame,
  groundOf,
  type Jaw,
  type Mesh,
  mergeMeshes,
  placeMesh,
  RawJaw,
  vertexNormals,
  writePly,
} from '@radiant/core';
import { type FieldJaw, type FieldJawRecipe, fieldJaw } from '@radiant/standins';
import { truthOn } from './trials/jaws.js';
import { rotating, share } from './trials/rotating.js';

const ELSEWHERE: Frame = { origin: [31, -48, 12], x: [0, 0.8, 0.6], y: [1, 0, 0], z: [0, 0.6, -0.8] };
const STEP_MM = 0.42;

const picked = (x: number) => (x % 10 > 5 ? 0 : x);

/** A case's first scan, its teeth told apart as they truly are. */
function firstOf(made: FieldJaw, jaw: Jaw): FirstScan {
  const scan = asSegmented(made.mesh, made.truth.map(picked), jaw);
  const teeth = [...scan.teeth.values()];
  const toothTriangles = teeth.reduce((n, m) => n + m.triangles.length / 3, 0);
  return { scan, ground: groundOf(mergeMeshes([...teeth, scan.rest]), toothTriangles) };
}

const opened = (mesh: Mesh) => new RawJaw(new Uint8Array(writePly(placeMesh(mesh, ELSEWHERE))), () => undefined);

const MOUTHS = rotating(
  [3, 4, 5, 6].flatMap((seed) => (['upper', 'lower'] as const).map((jaw) => ({ seed, jaw }))),
  2,
);

describe.each(MOUTHS)(`a later scan of a jaw of the second making, ${share} ($seed, $jaw)`, ({ seed, jaw }) => {
  const recipe: FieldJawRecipe = { seed, jaw, stepMm: STEP_MM };
  const sides = jaw === 'upper' ? [10, 20] : [40, 30];
  let first: FirstScan;
  let before: FieldJaw;
  beforeAll(() => {
    before = fieldJaw(recipe);
    first = firstOf(before, jaw);
  });

  it('six teeth cut for crowns keep the numbers that they had', () => {
    const stumps = [1, 2, 3].flatMap((p) => sides.map((q) => q + p));
    const after = fieldJaw({ ...recipe, stumps, noiseMm: 0.03 });
    const raw = opened(after.mesh);
    const { on, mesh } = raw.layOn(jaw, first);
    expect(on?.doubt).toBeUndefined();
    const truth = truthOn(mesh, after).map(picked);
    const wrong = () => {
      const own = raw.picking.picked.triangles;
      return after.teeth
        .map((t) => t.tooth)
        .filter((tooth) => {
          let [both, either] = [0, 0];
          truth.forEach((x, t) => {
            if (x === tooth || own[t] === tooth) either++;
            if (x === tooth && own[t] === tooth) both++;
          });
          return tooth % 10 <= 5 && both < 0.7 * either;
        });
    };
    expect(wrong()).toEqual([]);
    // What the first scan has told is kept when a hand tells more.
    const tooth = sides[0]! + 2;
    const places = [...truth.keys()].filter((t) => truth[t] === tooth).map((t) => mesh.triangles[3 * t]!);
    const high = (v: number) => (jaw === 'upper' ? 1 : -1) * mesh.positions[3 * v + 2]!;
    raw.picking.renumber(tooth, undefined);
    raw.picking.add(
      places.reduce((a, b) => (high(b) < high(a) ? b : a)),
      tooth,
    );
    expect(wrong()).toEqual([]);
  });

  it('where gum and palate have all moved 0.6 mm it lies by its teeth, and both are told', () => {
    const normals = vertexNormals(before.mesh);
    const onTooth = new Uint8Array(before.mesh.positions.length / 3);
    before.truth.forEach((x, t) => {
      if (x) for (let c = 0; c < 3; c++) onTooth[before.mesh.triangles[3 * t + c]!] = 1;
    });
    const swollen: Mesh = {
      triangles: before.mesh.triangles,
      positions: before.mesh.positions.map((v, i) => (onTooth[Math.floor(i / 3)] ? v : v + 0.6 * normals[i]!)),
    };
    const raw = opened(swollen);
    const { on, mesh } = raw.layOn(jaw, first);
    // Places on teeth are where they were.
    const places = [...onTooth.keys()].filter((v) => onTooth[v] && v % 20 === 0);
    const some = Float64Array.from(places.flatMap((v) => [...before.mesh.positions.subarray(3 * v, 3 * v + 3)]));
    const off = [...closestPoints(groundOf(mesh).tree, some).distances].sort((a, b) => a - b);
    expect(off[Math.floor(0.9 * off.length)]).toBeLessThan(0.03);
    expect(on?.doubt).toBeUndefined();
    expect(on?.teethShare).toBeGreaterThan(0.8);
    expect(on?.gumShare).toBeLessThan(0.5);
  });
});
