import {
  CHOSEN_DESIGNS,
  type ContourPlan,
  cutLists,
  type Design,
  designKey,
  designOf,
  type ExistingArch,
  type ExistingTooth,
  existingArch,
  type Fdi,
  FIRST_TRAY,
  firstContour,
  inspectMesh,
  type Mesh,
  neededAt,
  type PlannedTooth,
  plannedTooth,
  rayCaster,
  readScan,
  reductionBetween,
  restorationOf,
  signedDistances,
  signedField,
  TARGET_PLACES,
  type TargetSurface,
  targetBetween,
  targetSurface,
  targetTold,
  toLocal,
  toothReduction,
  toothSection,
  type Vec3,
  vertexNormals,
  volume,
  WORLD,
  wayTold,
  withThickness,
} from '@radiant/core';
import { INTRAORAL_SCANNER, makePatient, RECIPES, scan, scatteredRecipe } from '@radiant/standins';
import Manifold from 'manifold-3d';
import { BufferAttribute, BufferGeometry, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { rotating, share } from './trials/rotating.js';

/** A round pillar: rings from the top down, and, where it is a tooth, closed. */
function pillar(radius: number, top: number, bottom: number, ringSize: number, rings: number, closed: boolean): Mesh {
  const positions: number[] = [];
  for (let r = 0; r < rings; r++)
    for (let k = 0; k < ringSize; k++) {
      const a = (2 * Math.PI * k) / ringSize;
      positions.push(radius * Math.cos(a), -radius * Math.sin(a), top + ((bottom - top) * r) / (rings - 1));
    }
  const triangles: number[] = [];
  const next = (k: number) => (k + 1) % ringSize;
  for (let r = 0; r + 1 < rings; r++)
    for (let k = 0; k < ringSize; k++) {
      const [a, b] = [r * ringSize, (r + 1) * ringSize];
      triangles.push(a + k, b + next(k), b + k, a + k, a + next(k), b + next(k));
    }
  if (closed) {
    positions.push(0, 0, top, 0, 0, bottom);
    const [up, low, last] = [ringSize * rings, ringSize * rings + 1, (rings - 1) * ringSize];
    for (let k = 0; k < ringSize; k++) triangles.push(k, up, next(k), last + k, last + next(k), low);
  }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}

/** An integral by Simpson's rule. */
function simpson(f: (x: number) => number, from: number, to: number, n = 400): number {
  const h = (to - from) / n;
  let sum = f(from) + f(to);
  for (let i = 1; i < n; i++) sum += (i % 2 ? 4 : 2) * f(from + i * h);
  return (sum * h) / 3;
}

const ROUND = 6000;
/** A planned pillar of a radius from 0 to 10 mm. */
const roundPlan = (radius: number): PlannedTooth => {
  const mesh = pillar(radius, 10, 0, ROUND, 6, false);
  const size = { lengthMm: 10, widthMm: 2 * radius };
  return {
    tooth: 11,
    frame: WORLD,
    mesh,
    crown: { tooth: 11, size, mesh, ringSize: ROUND, rings: 6 } as unknown as PlannedTooth['crown'],
  };
};
const even = (mm: number, over: Partial<Design> = {}): Design => ({
  ...designOf('direct'),
  needs: { cervical: mm, middle: mm, incisal: mm },
  ...over,
});

describe('between concentric pillars', () => {
  const tooth = signedField(pillar(4, 12, 0.5, ROUND, 6, true));
  it.each([
    [4.2, 0.5],
    [4, 0.7],
    [3.9, 0.3],
    [4.6, 0.5],
  ])(
    'planned to %d mm and needed %d mm: what goes is need less gap, to a thousandth of a micrometre',
    (radius, need) => {
      const target = targetBetween(tooth, roundPlan(radius), even(need));
      const expected = Math.max(0, need - (radius - 4));
      let faces = 0;
      for (let i = 0; i < target.removedMm.length; i++) {
        const [x, y, z] = target.before.positions.subarray(3 * i, 3 * i + 3);
        // The face, between neck and edge; at the sides it runs out into what stays.
        if ((y as number) > -1 || (z as number) < 1.5 || (z as number) > 8.5 || Math.abs(x as number) > 3) continue;
        faces++;
        expect(Math.abs((target.removedMm[i] as number) - expected)).toBeLessThan(1e-5);
        expect(target.alignMm[i]).toBeCloseTo(Math.min(expected, Math.max(0, 4 - radius)), 5);
      }
      expect(faces).toBeGreaterThan(500);
    },
  );

  it.each([
    [
      4.15,
      'stop',
      /leaves 0\.1[45] mm where it is thinnest, and ceramic is made from 0\.3 mm\. 0\.1[56] mm more volume/,
    ],
    [4.4, 'watch', /room enough, 0\.40 mm and more\. At the gum its edge would be 0\.40 mm thick: a step that is felt/],
  ])(
    'a veneer for which nothing is cut, under a plan of %d mm, is told its room and its edge at the gum',
    (radius, weight, words) => {
      const mesh = pillar(radius, 10, 0, ROUND, 6, true);
      const r = reductionBetween(tooth, { ...roundPlan(radius), mesh }, designOf('no-prep'), 'mock-up');
      const cervical = r.zones.find((z) => z.zone === 'cervical');
      expect(cervical?.sentence).toMatchObject({ weight, text: expect.stringMatching(words) });
      expect(r.volumeMm3).toBeLessThan(0.01);
      expect(r.zones.every((z) => z.groove.kind === 'none')).toBe(true);
      const [list] = cutLists(
        [
          {
            design: designOf('no-prep'),
            reduction: r,
            told: targetTold(targetBetween(tooth, { ...roundPlan(radius), mesh }, designOf('no-prep'))),
          },
        ],
        'margin',
        FIRST_TRAY.burs,
      );
      expect(list?.steps.map((q) => q.title)).toEqual(['Make the surface ready', 'Check with the index']);
    },
  );

  it.each([
    [0, 0],
    [35, 0],
    [-60, 0],
    [0, 1.5],
    [25, -1.2],
  ])(
    'a section turned by %d° and %d mm beside tells what goes across the surface, and cuts where it says',
    (turnDeg, besideMm) => {
      const plan = roundPlan(4.2);
      const target = targetBetween(tooth, plan, even(0.6));
      const s = toothSection(tooth.mesh, plan, target, { turnDeg, besideMm });
      expect(s.dimensions).toHaveLength(3);
      for (const d of s.dimensions) {
        // Of a circle of 4 mm cut beside its middle the half chord, of the target's the same.
        const half = (radius: number) => Math.sqrt(radius ** 2 - besideMm ** 2);
        expect(-d.existing).toBeCloseTo(half(4), 3);
        expect(-d.planned).toBeCloseTo(half(4.2), 3);
        if (Math.abs(turnDeg) > 40) continue;
        expect(-d.target).toBeCloseTo(half(3.6), 2);
        expect(d.removedMm).toBeCloseTo(half(4) - half(3.6), 2);
        expect(d.gapMm).toBeCloseTo(half(4.2) - half(4), 2);
      }
    },
  );

  it.each([
    [40, 2.6 - 0.7],
    [15, 0.75 * 2.6 - 0.7],
    [70, 1.15 * 2.6 - 0.7],
    [undefined, 2.6 - 0.7],
  ])('what is left over the pulp at %p years is the estimate for the tooth less what goes', (ageYears, left) => {
    const target = targetBetween(tooth, roundPlan(4), even(0.7));
    const told = targetTold(target, { ageYears });
    expect(told.pulp.place).toBe('face');
    expect(told.pulp.leftMm).toBeCloseTo(left, 2);
  });

  it('all round with walls that lean by 6° leaves a cone, whose volume a ruler gives', () => {
    const crown = even(1, {
      covers: ['facial', 'edge', 'proximal', 'palatal'],
      around: { proximalMm: 1, palatalMm: 1 },
      edge: { kind: 'thickness', mm: 2 },
      taperDeg: 6,
      cornerMm: 0,
      finish: { form: 'rounded shoulder', belowGumMm: 0 },
    });
    const target = targetBetween(tooth, roundPlan(4), crown);
    // From 10 mm, the gum line, a rounded shoulder: 0.6 mm at once, and a quarter of a circle of 0.4 mm to a radius of
    // 3; then a cone down to 2 mm.
    const shoulder = Math.PI * simpson((s) => (3.4 - Math.sqrt(Math.max(0, 0.16 - (0.4 - s) ** 2))) ** 2, 0, 0.4);
    const [h, r] = [7.6, 3];
    const low = r - h * Math.tan((6 * Math.PI) / 180);
    const cone = shoulder + ((Math.PI * h) / 3) * (r * r + r * low + low * low);
    const before = Math.PI * 16 * (10 - 0.5);
    expect(Math.abs(target.removedMm3 - (before - cone)) / (before - cone)).toBeLessThan(0.015);
  });

  it('a cut edge that rises by 20° behind its facial corner takes a wedge more, whose volume a ruler gives', () => {
    const crown = (slopeDeg: number) =>
      even(1, {
        covers: ['facial', 'edge', 'proximal', 'palatal'],
        around: { proximalMm: 1, palatalMm: 1 },
        edge: { kind: 'thickness', mm: 2, slopeDeg },
        taperDeg: 0,
        cornerMm: 0,
        finish: { form: 'rounded shoulder', belowGumMm: 0 },
      });
    const gone = (slopeDeg: number) => targetBetween(tooth, roundPlan(4), crown(slopeDeg)).removedMm3;
    // Over a disk of 3 mm the height over the corner is 3 mm in the mean, times the tangent.
    const wedge = Math.tan((20 * Math.PI) / 180) * 3 * Math.PI * 9;
    expect(Math.abs(gone(20) - gone(0) - wedge) / wedge).toBeLessThan(0.03);
  });
});

/** A mouth whose teeth are made 0.7 mm longer. */
function mouthOf(recipe: Parameters<typeof makePatient>[0]): { arch: ExistingArch; plan: ContourPlan; teeth: Fdi[] } {
  const arch = existingArch(readScan(scan(makePatient(recipe), INTRAORAL_SCANNER)));
  const teeth = [13, 12, 11, 21, 22, 23].filter((t) => arch.teeth.has(t));
  const targets = teeth.map((t) => {
    const own = arch.teeth.get(t) as NonNullable<ReturnType<typeof arch.teeth.get>>;
    return [t, { lengthMm: own.lengthMm + 0.7, widthMm: own.widthMm }] as const;
  });
  return { arch, plan: firstContour(arch, new Map(targets)), teeth };
}

const direction = (t: TargetSurface, local: Vec3): Vec3 => {
  const { x, y, z } = t.frame;
  return [0, 1, 2].map((c) => x[c as 0] * local[0] + y[c as 0] * local[1] + z[c as 0] * local[2]) as unknown as Vec3;
};

/** At the finish line itself nothing is cut yet, mm. */
const CUT_MM = 0.05;

/** What hangs over by less lies within the scan's own error, mm. */
const OFF_MM = 0.02;

/** Places of the cut wall from which the way out along a direction meets the preparation again. */
function undercut(t: TargetSurface, way: Vec3): { met: number; all: number } {
  const field = signedField(t.mesh);
  const cast = rayCaster(field.tree);
  const normals = vertexNormals(t.mesh);
  let [met, all] = [0, 0];
  for (let i = 0; i < t.place.length; i++) {
    const [x, y] = toLocal(t.frame, t.mesh.positions.subarray(3 * i, 3 * i + 3) as unknown as Vec3);
    // Where nothing is left a needle is drawn, and it is told.
    if ((t.removedMm[i] as number) < CUT_MM || Math.hypot(x, y) < 0.2) continue;
    if (!['facial', 'proximal', 'palatal'].includes(TARGET_PLACES[t.place[i] as number] as string)) continue;
    const p = t.mesh.positions.subarray(3 * i, 3 * i + 3);
    all++;
    // So little off the surface that no scan tells it; nearer are the facets about the place itself.
    const out = [0, 1, 2].map(
      (c) => (p[c] as number) + OFF_MM * (normals[i * 3 + c] as number) + OFF_MM * (way[c as 0] as number),
    ) as unknown as Vec3;
    if ((cast.first(out, way)?.distance ?? 0) <= 0.05) continue;
    // Beside a needle a place that is led off the surface lies within it, and says nothing of the way out.
    if ((signedDistances(field, Float64Array.from(out))[0] as number) > 0) met++;
  }
  return { met, all };
}

const MOUTHS = [
  ...Object.entries(RECIPES),
  ...[60, 61, 62, 63].map((seed) => [`odd teeth ${seed}`, { ...scatteredRecipe(seed), oddMm: 0.35 }] as const),
];

describe(`on scanned teeth (${share})`, () => {
  describe.each(rotating(MOUTHS, 1))('of %s', (_, recipe) => {
    const { arch, plan, teeth } = mouthOf(recipe);
    // Three teeth of each design, other ones of each, so that all six and all designs are tried.
    const made = CHOSEN_DESIGNS.flatMap((design, n) =>
      teeth
        .filter((_, i) => (i + n) % 2 === 0)
        .map((tooth) => ({ design: design as Design, tooth, target: targetSurface(arch, plan, tooth, design) })),
    );

    it('each target is a closed surface within the tooth, and what goes is their difference by manifold-3d', async () => {
      const wasm = await Manifold();
      wasm.setup();
      const solid = (m: Mesh) =>
        new wasm.Manifold(
          new wasm.Mesh({ numProp: 3, vertProperties: Float32Array.from(m.positions), triVerts: m.triangles }),
        );
      for (const { target } of made) {
        expect(inspectMesh(target.mesh).ok && inspectMesh(target.before).ok).toBe(true);
        expect(volume(target.mesh)).toBeGreaterThan(0);
        const gone = wasm.Manifold.difference(solid(target.before), solid(target.mesh)).volume();
        expect(Math.abs(gone - target.removedMm3)).toBeLessThan(0.3);
      }
    });

    it('where nothing goes the target is the tooth, between the grid’s corners too', () => {
      for (const { tooth, target } of made) {
        const { field } = arch.teeth.get(tooth) as ExistingTooth;
        const places: number[] = [];
        for (let i = 0; i < target.mesh.triangles.length; i += 3) {
          const corners = [0, 1, 2].map((c) => target.mesh.triangles[i + c] as number);
          if (corners.some((v) => (target.removedMm[v] as number) > 0.02 || v < 128 * 5 || v > 128 * 40)) continue;
          for (let c = 0; c < 3; c++)
            places.push(corners.reduce((n, v) => n + (target.mesh.positions[3 * v + c] as number) / 3, 0));
        }
        const off = Array.from(signedDistances(field, Float64Array.from(places)), Math.abs).sort((a, b) => a - b);
        if (off.length > 100) expect(off[Math.floor(0.95 * off.length)]).toBeLessThan(0.03);
      }
    });

    it('outside its ends the face lies as deep under the plan as is needed, measured by three-mesh-bvh', () => {
      for (const { design, tooth, target } of made) {
        if (design.kind !== 'veneer') continue;
        const planned = plannedTooth(arch, plan, tooth);
        const geometry = new BufferGeometry();
        geometry.setAttribute('position', new BufferAttribute(Float32Array.from(planned.mesh.positions), 3));
        geometry.setIndex(new BufferAttribute(Uint32Array.from(planned.mesh.triangles), 1));
        const bvh = new MeshBVH(geometry);
        const off: number[] = [];
        for (let i = 0; i < target.place.length; i++) {
          const p = target.mesh.positions.subarray(3 * i, 3 * i + 3);
          const [x, , z] = toLocal(target.frame, p as unknown as Vec3);
          const zenith = z / ((target.share[i] as number) || 1);
          // What goes behind the contacts has to come out to the front, which narrows the face towards neck and edge.
          const [wide, low, high] = design.contact === 'broken' ? [0.7, 0.4, 0.6] : [1.2, 0, 0.78];
          if (target.place[i] !== 1 || Math.abs(x) > wide || z < Math.max(2.6, low * zenith) || z > high * zenith)
            continue;
          const own = target.before.positions.subarray(3 * i, 3 * i + 3);
          const above = bvh.closestPointToPoint(new Vector3(own[0], own[1], own[2]))?.distance ?? 0;
          // Where the plan leaves room enough, only what would hang over goes.
          if (above >= neededAt(design, z / zenith)) continue;
          const hit = bvh.closestPointToPoint(new Vector3(p[0], p[1], p[2]));
          const over = hit && toLocal(target.frame, [hit.point.x, hit.point.y, hit.point.z])[2];
          off.push(Math.abs((hit?.distance ?? 9) - neededAt(design, (over ?? z) / zenith)));
        }
        off.sort((a, b) => a - b);
        if (off.length > 30) expect(off[Math.floor(0.95 * off.length)]).toBeLessThan(0.02);
      }
    });

    it('what is left standing for the way out is told', () => {
      for (const { design, target } of made) {
        const told = target.notes.some((n) => /mm less is cut than the design asks/.test(n));
        expect([design.id, told]).toEqual([design.id, target.hidden.mm > 0.1]);
      }
    });

    it('the middle of each third is told as the zone table tells it', () => {
      for (const { design, tooth, target } of made) {
        if (design.kind !== 'veneer') continue;
        const told = targetTold(target);
        const middle = toothReduction(arch, plan, tooth, design, 'margin').zones.find((z) => z.zone === 'middle');
        const own = told.zones.find((z) => z.zone === 'middle middle')?.median ?? 0;
        if (middle?.removal && middle.places > 40)
          expect(Math.abs(own - middle.removal.remove.value)).toBeLessThan(0.06);
      }
    });

    it('a veneer takes less than 30 % of the crown, a crown of glass-ceramic or on metal 55 to 80 %', () => {
      // Published: Edelhoff and Sorensen 2002, anterior teeth: veneers 3 to 30 %, full crowns 63 to 72 % of the crown's
      // substance by weight (from memory); their teeth were sound and stood in line.
      for (const { design, target } of made) {
        const gone = targetTold(target).removedShare;
        if (design.kind === 'veneer') expect(gone).toBeLessThan(0.3);
        if (design.id === 'ceramic-crown' || design.id === 'metal-ceramic-crown') {
          expect(gone).toBeGreaterThan(0.55);
          expect(gone).toBeLessThan(0.8);
        }
      }
    });
  });
});

/** The odd teeth of a hundred mouths, and those of the demonstration. */
const HUNDRED = [
  ...Object.entries(RECIPES),
  ...Array.from(
    { length: 100 },
    (_, n) => [`odd teeth ${60 + n}`, { ...scatteredRecipe(60 + n), oddMm: 0.35 }] as const,
  ),
];

describe.each(rotating(HUNDRED, 1))(`of %s (${share})`, (_, recipe) => {
  it('no ray along the way out meets an undercut, each design on three teeth', () => {
    const { arch, plan, teeth } = mouthOf(recipe);
    // Each design on three teeth, the others on the next one's.
    for (const [n, design] of (CHOSEN_DESIGNS as readonly Design[]).entries())
      for (const tooth of teeth.filter((_, i) => (i + n) % 2 === 0)) {
        if (design.finish.form === 'none') continue;
        const target = targetSurface(arch, plan, tooth, design);
        const { met, all } = undercut(target, direction(target, target.way));
        expect([tooth, design.id, met]).toEqual([tooth, design.id, 0]);
        expect(all).toBeGreaterThan(300);
      }
  });
});

describe('a way out that is set by hand', () => {
  const { arch, plan } = mouthOf(RECIPES.Avocet);
  const on = (tooth: Fdi, downDeg: number, turnDeg: number, design: 'facial' | 'graduated' = 'graduated') =>
    targetSurface(arch, plan, tooth, restorationOf(tooth, { design, ways: [{ tooth, downDeg, turnDeg }] }).design);

  it('is the one that is taken, to the distal side of either side’s tooth, and leaves no undercut', () => {
    for (const tooth of [11, 21] as const) {
      const target = on(tooth, 40, 10);
      const told = wayTold(target.way, tooth === 21 ? 1 : -1);
      expect(told.downDeg).toBeCloseTo(40, 6);
      expect(told.turnDeg).toBeCloseTo(10, 6);
      // x of the frame is the patient's left.
      expect(Math.sign(target.way[0])).toBe(tooth === 21 ? 1 : -1);
      expect(undercut(target, direction(target, target.way)).met).toBe(0);
    }
  });

  it('near the one that is found takes as much, and one that can’t be says so and leaves the tooth standing', () => {
    const found = targetSurface(arch, plan, 11, designOf('graduated'));
    const { downDeg, turnDeg } = wayTold(found.way, -1);
    expect(on(11, downDeg, turnDeg).removedMm3).toBeCloseTo(found.removedMm3, 1);
    const cannot = on(11, 85, 0);
    expect(cannot.notes.join()).toMatch(
      /\{11\}: nothing comes off on this way: \d+ % of what the design cuts is hidden/,
    );
    expect(cannot.removedMm3).toBeLessThan(found.removedMm3);
    expect(undercut(cannot, direction(cannot, cannot.way)).met).toBe(0);
  });

  it('is not asked of a crown, which comes off along its axis', () => {
    const crown = restorationOf(11, { design: 'ceramic-crown', ways: [{ tooth: 11, downDeg: 30, turnDeg: 0 }] });
    expect(crown.design).toBe(designOf('ceramic-crown'));
  });
});

it('a thickness of one’s own makes another target, and the same wish is the same design', () => {
  const { arch, plan } = mouthOf(RECIPES.Avocet);
  const own = { cervical: 0.5, middle: 0.7, incisal: 0.9, edgeMm: 2 };
  const thick = withThickness(designOf('graduated'), own);
  expect(withThickness(designOf('graduated'), { ...own })).toBe(thick);
  expect(designKey(thick)).not.toBe(designKey(designOf('graduated')));
  const { needs, edge } = designOf('graduated') as Design;
  expect(withThickness(designOf('graduated'), { ...needs, edgeMm: edge.kind === 'thickness' ? edge.mm : null })).toBe(
    designOf('graduated'),
  );
  const [usual, more] = [designOf('graduated'), thick].map((d) => targetTold(targetSurface(arch, plan, 11, d)));
  const middle = (t: typeof usual) => t?.zones.find((z) => z.zone === 'middle middle')?.median ?? 0;
  expect(middle(more) - middle(usual)).toBeCloseTo(0.2, 1);
  expect(more?.removedMm3).toBeGreaterThan((usual?.removedMm3 ?? 0) + 8);
  const chosen = restorationOf(11, { design: 'graduated', thickness: [{ design: 'graduated', ...own }] });
  expect(chosen.design).toBe(thick);
});

it('a finish line that is wished under the gum is told, since no scan shows the tooth there', () => {
  const { arch, plan } = mouthOf(RECIPES.Avocet);
  const { notes, finishLine } = targetSurface(arch, plan, 11, designOf('ceramic-crown'));
  expect(notes.join()).toMatch(/wished 0\.\d mm beyond where the scan ends at the gum/);
  expect(finishLine).toHaveLength(128);
  expect(targetSurface(arch, plan, 11, designOf('graduated')).finishLine.length).toBeLessThan(80);
});
