import {
  CHOSEN_DESIGNS,
  DESIGN_IDS,
  DESIGNS,
  type Design,
  type DesignId,
  designOf,
  designOn,
  type ExistingArch,
  existingArch,
  type Fdi,
  familyOf,
  firstContour,
  inspectMesh,
  levelOf,
  type Mesh,
  type PlannedTooth,
  plannedTooth,
  readScan,
  restorationOf,
  signedField,
  TARGET_PLACES,
  type TargetSurface,
  targetBetween,
  targetSurface,
  targetTold,
  toLocal,
  type Vec3,
  type WayOut,
  WORLD,
  waysOut,
  wayTold,
  wayWords,
  wishContact,
  wishOf,
  withThickness,
} from '@radiant/core';
import { INTRAORAL_SCANNER, makePatient, RECIPES, scan } from '@radiant/standins';
import { BufferAttribute, BufferGeometry, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';

const arch: ExistingArch = existingArch(readScan(scan(makePatient(RECIPES.Avocet), INTRAORAL_SCANNER)));
const row = [15, 14, 13, 12, 11, 21, 22, 23, 24, 25].filter((t) => arch.teeth.has(t));
const plan = firstContour(
  arch,
  new Map(
    row.map((t) => {
      const { lengthMm, widthMm } = arch.teeth.get(t) as NonNullable<ReturnType<typeof arch.teeth.get>>;
      return [t, { lengthMm, widthMm }] as const;
    }),
  ),
);
const target = (tooth: Fdi, id: DesignId) => targetSurface(arch, plan, tooth, designOn(id, tooth));
const at = (own: Mesh, v: number) => own.positions.subarray(3 * v, 3 * v + 3) as unknown as Vec3;
const bvhOf = (m: Mesh) => {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(Float32Array.from(m.positions), 3));
  geometry.setIndex(new BufferAttribute(Uint32Array.from(m.triangles), 1));
  return new MeshBVH(geometry);
};
const sorted = (values: number[]) => values.sort((a, b) => a - b);
const share = (values: readonly number[], q: number) => values[Math.floor(q * (values.length - 1))] as number;

describe('a family of designs', () => {
  it.each([
    ['ceramic-crown', 11, 'ceramic-crown'],
    ['ceramic-crown', 14, 'ceramic-crown-premolar'],
    ['ceramic-crown-premolar', 21, 'ceramic-crown'],
    ['zirconia-crown', 32, 'zirconia-crown-lower'],
    ['metal-ceramic-crown', 35, 'metal-ceramic-crown-premolar'],
    ['preformed-crown', 41, 'preformed-crown-lower'],
    ['graduated', 14, 'graduated'],
  ] as const)('%s on %d is %s, whichever of it was chosen', (chosen, tooth, own) => {
    expect(designOn(chosen, tooth).id).toBe(own);
    expect(restorationOf(tooth, { design: chosen }).design.id).toBe(own);
  });

  it('is chosen by the one that stands for all; each variant names one that is there', () => {
    expect(CHOSEN_DESIGNS.every((d) => !d.variant)).toBe(true);
    for (const id of DESIGN_IDS) expect(CHOSEN_DESIGNS.map((d) => d.id)).toContain(familyOf(id));
  });

  it('a lower front crown is nowhere thicker than the upper one, a premolar’s cusps are left 2.0 mm (common practice)', () => {
    for (const d of DESIGNS as readonly Design[]) {
      if (!d.variant) continue;
      const whole = designOf(d.variant.of as DesignId) as Design;
      for (const third of ['cervical', 'middle', 'incisal'] as const)
        expect(d.needs[third]).toBeLessThanOrEqual(whole.needs[third]);
    }
    expect(designOn('ceramic-crown', 14)).toMatchObject({ belowBulgeMm: 0.5, edge: { kind: 'thickness', mm: 2 } });
    expect(designOn('ceramic-crown', 14).needs).toEqual({ cervical: 1, middle: 1, incisal: 1 });
    // Uppers 1.0 to 1.5 at the edge, lowers about 1.0; 1.5 to 2.0 under the gum, and no taper.
    expect(designOn('preformed-crown', 41)).toMatchObject({ edge: { mm: 1 }, taperDeg: 0 });
    expect(designOn('preformed-crown', 11)).toMatchObject({ edge: { mm: 1.25 }, finish: { belowGumMm: 1.75 } });
  });
});

describe('a crown on a premolar', () => {
  const t = target(14, 'ceramic-crown');
  const planned = plannedTooth(arch, plan, 14);
  const plane = bvhOf(planned.mesh);
  const under = (v: number) => {
    const [x, y, z] = at(t.mesh, v);
    return plane.closestPointToPoint(new Vector3(x, y, z))?.distance ?? 0;
  };
  const cusps = Array.from(t.place.keys()).filter((v) => TARGET_PLACES[t.place[v] as number] === 'edge');

  it('lies 2.0 mm under the planned cusps, measured by three-mesh-bvh, and is not flat', () => {
    // Beside the walls these are nearer: the inner half of it is judged.
    const inner = cusps.filter((v) => v >= 128 * 48);
    const depths = sorted(inner.map(under));
    expect(inner.length).toBeGreaterThan(400);
    expect(share(depths, 0.05)).toBeGreaterThan(1.9);
    expect(share(depths, 0.5)).toBeLessThan(2.15);
    const heights = cusps.map((v) => toLocal(t.frame, at(t.mesh, v))[2]);
    expect(Math.max(...heights) - Math.min(...heights)).toBeGreaterThan(0.6);
  });

  it('is closed, and takes less than three quarters of the crown', () => {
    expect(inspectMesh(t.mesh).ok).toBe(true);
    expect(t.removedMm3).toBeGreaterThan(100);
    expect(targetTold(t).removedShare).toBeLessThan(0.75);
  });

  it('keeps more of the neck under its bulge: 0.5 mm in the gum quarter, not 1.0', () => {
    const without: Design = { ...designOn('ceramic-crown', 14), belowBulgeMm: undefined as never };
    const { belowBulgeMm: _, ...all } = without;
    const more = targetSurface(arch, plan, 14, all);
    const inQuarter = (own: TargetSurface) =>
      sorted(
        Array.from(own.covered.keys())
          .filter((v) => own.covered[v] && (own.share[v] as number) > 0.8 && (own.share[v] as number) < 0.88)
          .map((v) => own.removedMm[v] as number),
      );
    expect(share(inQuarter(t), 0.5)).toBeLessThan(share(inQuarter(more), 0.5) - 0.2);
    expect(t.removedMm3).toBeLessThan(more.removedMm3);
  });
});

it('a veneer on a premolar leaves the inner cusp and what lies between as they are', () => {
  const t = target(14, 'graduated');
  const tip = { y: 0, z: Infinity };
  for (let v = 0; v < t.before.positions.length / 3; v++) {
    const [, y, z] = toLocal(t.frame, at(t.before, v));
    if (z < tip.z) Object.assign(tip, { y, z });
  }
  const behind = Array.from(t.place.keys()).filter((v) => toLocal(t.frame, at(t.before, v))[1] > tip.y + 2.5);
  expect(behind.length).toBeGreaterThan(300);
  expect(Math.max(...behind.map((v) => t.removedMm[v] as number))).toBeLessThan(0.02);
  // And the facial cusp is cut.
  expect(targetTold(t).zones.find((z) => z.zone === 'edge')?.most).toBeGreaterThan(1);
});

it('a veneer that goes over the edge ends a millimetre below the cut edge behind it, half a millimetre deep', () => {
  const t = target(11, 'palatal-wrap');
  const back = Array.from(t.place.keys()).filter(
    (v) => TARGET_PLACES[t.covered[v] as number] === 'palatal' && (t.removedMm[v] as number) > 0.05,
  );
  const heights = back.map((v) => toLocal(t.frame, at(t.before, v))[2]);
  // The edge is cut to 1.5 mm under the planned one.
  expect(Math.max(...heights)).toBeLessThan(2.55);
  expect(Math.min(...heights)).toBeGreaterThan(1.45);
  const deep = sorted(back.map((v) => t.removedMm[v] as number));
  expect(share(deep, 0.5)).toBeGreaterThan(0.25);
  expect(share(deep, 0.9)).toBeLessThan(0.85);
  // Its finish line goes all round: the gum in front, behind the edge at the back.
  const levels = t.finishLine.map((p) => toLocal(t.frame, p)[2]);
  expect(levels.length).toBeGreaterThan(128);
  expect(Math.min(...levels)).toBeLessThan(2.6);
  expect(target(11, 'graduated').finishLine.length).toBeLessThan(80);
});

describe('a finish line of several forms, on a pillar', () => {
  const ROUND = 720;
  const pillar = (radius: number, closed: boolean): Mesh => {
    const positions: number[] = [];
    const triangles: number[] = [];
    const next = (k: number) => (k + 1) % ROUND;
    for (const z of [12, 0.5])
      for (let k = 0; k < ROUND; k++) {
        const a = (2 * Math.PI * k) / ROUND;
        positions.push(radius * Math.cos(a), -radius * Math.sin(a), closed ? z : z - (z > 1 ? 2 : 0.5));
      }
    for (let k = 0; k < ROUND; k++) triangles.push(k, ROUND + next(k), ROUND + k, k, next(k), ROUND + next(k));
    if (closed) {
      positions.push(0, 0, 12, 0, 0, 0.5);
      for (let k = 0; k < ROUND; k++) triangles.push(k, 2 * ROUND, next(k), ROUND + k, ROUND + next(k), 2 * ROUND + 1);
    }
    return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
  };
  const mesh = pillar(4, false);
  const planned: PlannedTooth = {
    tooth: 11,
    frame: WORLD,
    mesh,
    crown: {
      tooth: 11,
      size: { lengthMm: 10, widthMm: 8 },
      mesh,
      ringSize: ROUND,
      rings: 2,
    } as unknown as PlannedTooth['crown'],
  };
  const { finish, ...rest } = designOf('metal-ceramic-crown') as Design;
  const even: Design = {
    ...rest,
    finish,
    needs: { cervical: 1, middle: 1, incisal: 1 },
    around: { proximalMm: 1, palatalMm: 1 },
    taperDeg: 0,
  };
  const t = targetBetween(signedField(pillar(4, true)), planned, { ...even, finish: { ...finish, belowGumMm: 0 } });
  /** What goes so far below the finish line, in a direction. */
  const depthAt = (below: number, to: (x: number, y: number) => boolean, within = 0.02): number => {
    const top = Math.max(...t.finishLine.map((p) => p[2]));
    const near = Array.from(t.removedMm.keys())
      .map((v) => ({ p: at(t.before, v), left: at(t.mesh, v) }))
      .filter(({ p }) => to(p[0], p[1]) && Math.abs(top - p[2] - below) < within);
    return share(sorted(near.map(({ p, left }) => Math.hypot(p[0], p[1]) - Math.hypot(left[0], left[1]))), 0.5);
  };
  const front = (_: number, y: number) => y < -3.7;
  const side = (x: number) => Math.abs(x) > 3.95;
  const behind = (_: number, y: number) => y > 3.7;

  it('in front a shoulder that is wide at once, at the sides a bevel before it, behind a chamfer: a quarter of a circle', () => {
    // A rounded shoulder of 1.0 mm: 0.6 at once and a quarter of a circle of 0.4 mm.
    expect(depthAt(0.1, front)).toBeCloseTo(0.6 + Math.sqrt(0.16 - 0.3 ** 2), 1);
    // A bevel of 45°: as deep as it is long.
    expect(depthAt(0.17, side)).toBeCloseTo(0.17, 1);
    expect(depthAt(0.5, side)).toBeGreaterThan(0.75);
    // A chamfer of radius 1.0.
    expect(depthAt(0.1, behind)).toBeCloseTo(Math.sqrt(1 - 0.9 ** 2), 1);
    for (const way of [front, side, behind]) expect(depthAt(1.5, way, 0.15)).toBeCloseTo(1, 1);
  });

  it('is said in words', () => {
    expect(levelOf(designOf('metal-ceramic-crown'))).toContain('rounded shoulder in front');
    expect(levelOf(designOf('metal-ceramic-crown'))).toContain('rounded chamfer behind');
  });
});

it('the way on which a restoration comes off is said in words, mesial and distal by the tooth’s side', () => {
  expect(wayWords(wayTold([0, 0, -1], 1))).toBe('along the axis');
  expect(wayWords(wayTold([0, -1, 0], 1))).toBe('straight to the front');
  const [front, edge] = [waysOut(designOf('facial'), 128), waysOut(designOf('graduated'), 128)];
  expect(wayWords(wayTold(front[0].way, 1))).toBe('straight to the front');
  expect(wayWords(wayTold(edge[0].way, -1))).toBe('30° from the front down to the edge');
  expect(wayWords(wayTold((edge[1] as WayOut).way, 1))).toBe(
    '30° from the front down to the edge, turned 17° to the distal side',
  );
  expect(wayWords(wayTold((edge[1] as WayOut).way, -1))).toContain('17° to the mesial side');
  for (const { way } of [...front, ...edge]) expect(Math.hypot(...way)).toBeCloseTo(1, 12);
});

describe('a design with wishes of its own', () => {
  const crown = designOf('ceramic-crown') as Design;

  it('keeps what is not wished otherwise, and is the same object for the same wish', () => {
    const wish = wishOf(crown, 'palatal', 1.5);
    expect(wish).toEqual({ design: 'ceramic-crown', ...crown.needs, edgeMm: 2, palatalMm: 1.5 });
    const own = withThickness(crown, wish);
    expect(own.around).toEqual({ proximalMm: 1, palatalMm: 1.5 });
    expect(own.taperDeg).toBe(crown.taperDeg);
    expect(withThickness(crown, { ...wish })).toBe(own);
    // A further wish keeps the one before; the usual again is the design itself.
    const leaning = withThickness(crown, wishOf(own, 'taper', 6));
    expect([leaning.around?.palatalMm, leaning.taperDeg]).toEqual([1.5, 6]);
    expect(withThickness(crown, wishOf(withThickness(crown, wishOf(leaning, 'taper', 4)), 'palatal', 1))).toBe(crown);
  });

  it('a veneer ends at its contacts as is wished; a crown has none, and what is only added none either', () => {
    const veneer = designOf('graduated') as Design;
    const broken = withThickness(veneer, wishContact(veneer, 'broken'));
    expect(broken.contact).toBe('broken');
    expect(withThickness(crown, { ...crown.needs, contact: 'broken' })).toBe(crown);
    const added = designOf('no-prep') as Design;
    expect(withThickness(added, { ...added.needs, contact: 'broken' })).toBe(added);
    const sides = (d: Design) =>
      targetTold(targetSurface(arch, plan, 21, d)).zones.find((z) => z.zone === 'mesial side')?.areaMm2 ?? 0;
    expect(sides(broken)).toBeGreaterThan(sides(veneer) + 2);
  });

  it('walls that lean more take more', () => {
    const wall = (deg: number) => targetSurface(arch, plan, 21, withThickness(crown, wishOf(crown, 'taper', deg)));
    expect(wall(10).removedMm3).toBeGreaterThan(wall(4).removedMm3 + 2);
  });
});
