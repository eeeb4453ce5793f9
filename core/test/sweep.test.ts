import {
  type Bur,
  type CutFrom,
  chooseGrooves,
  cutLists,
  designOf,
  distanceTo,
  engagementOf,
  existingArch,
  FIRST_TRAY,
  firstContour,
  frontRow,
  plannedTooth,
  readScan,
  STRATEGIES,
  sweepOver,
  TARGET_PLACES,
  type TargetSurface,
  THIRDS,
  targetSurface,
  targetTold,
  toLocal,
  toothReduction,
  type Vec3,
} from '@radiant/core';
import { INTRAORAL_SCANNER, makePatient, RECIPES, random, scan } from '@radiant/standins';
import { BufferAttribute, BufferGeometry, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { rotating } from './trials/rotating.js';

const arch = existingArch(readScan(scan(makePatient(RECIPES.Avocet), INTRAORAL_SCANNER)));
const plan = firstContour(arch, new Map(frontRow().map((t) => [t, { lengthMm: 10.2, widthMm: 8 }] as const)));
/** Teeth as wide as they are and half a millimetre longer, as one would plan them. */
const usual = firstContour(
  arch,
  new Map(
    frontRow().map((t) => {
      const { lengthMm, widthMm } = arch.teeth.get(t) as NonNullable<ReturnType<typeof arch.teeth.get>>;
      return [t, { lengthMm: lengthMm + 0.5, widthMm }] as const;
    }),
  ),
);
const [taper] = FIRST_TRAY.burs as [Bur];
const shoulder = FIRST_TRAY.burs.find((b) => b.shape === 'flat-end' && b.lengthMm > 4) as Bur;
const egg = FIRST_TRAY.burs.find((b) => b.shape === 'egg') as Bur;
/** Told by the house as the tolerance of a depth; the swept burs are held to it. */
const TOLERANCE_MM = 0.05;

const at = (sorted: readonly number[], share: number) =>
  sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] as number;

/** Places on the triangles of a target, not its corners, where something goes. */
function places(t: TargetSurface, count: number): Vec3[] {
  const { next } = random(5);
  const { positions: p, triangles } = t.mesh;
  const out: Vec3[] = [];
  while (out.length < count) {
    const i = 3 * Math.floor((next() * triangles.length) / 3);
    const [a, b, c] = [triangles[i], triangles[i + 1], triangles[i + 2]] as unknown as [number, number, number];
    if ([a, b, c].some((v) => (t.removedMm[v] as number) < 0.05)) continue;
    const [r, s] = [Math.sqrt(next()), next()];
    const w = [1 - r, r * (1 - s), r * s];
    out.push(
      [0, 1, 2].map((k) => [a, b, c].reduce((n, v, q) => n + (w[q] as number) * (p[3 * v + k] as number), 0)) as never,
    );
  }
  return out;
}

const LED = [
  [11, 'graduated', [taper]],
  [12, 'even', [taper]],
  [21, 'facial', [taper]],
  [11, 'palatal-wrap', [taper]],
  [23, 'graduated', [taper]],
  [13, 'facial', [taper]],
  [21, 'ceramic-crown', [shoulder, egg]],
  [13, 'ceramic-crown', [shoulder, egg]],
] as const;

describe('burs led over the tooth end at its target', () => {
  it.each(rotating(LED, 2))(
    '%d, %s: nothing is left over by more than the tolerance, and nothing is cut beyond it',
    (tooth, id, burs) => {
      const target = targetSurface(arch, usual, tooth, designOf(id));
      const swept = sweepOver(target, burs);
      // Judged between the grid's corners, at which the burs were placed.
      const all = swept.poses.flatMap(({ bur, poses }) => poses.map((pose) => ({ bur, pose })));
      const left: number[] = [];
      let beyond = 0;
      for (const p of places(target, 150)) {
        let nearest = Infinity;
        for (const { bur, pose } of all) {
          const d = distanceTo(bur, pose, p);
          beyond = Math.max(beyond, -d);
          nearest = Math.min(nearest, Math.abs(d));
        }
        left.push(nearest);
      }
      left.sort((a, b) => a - b);
      expect(at(left, 0.5)).toBeLessThan(0.01);
      expect(at(left, 0.95)).toBeLessThan(TOLERANCE_MM);
      expect(beyond).toBeLessThan(TOLERANCE_MM);
      // What is told of the corners is of the same order.
      const cut = Array.from(swept.leftMm).filter((_, v) => (target.removedMm[v] as number) > 0.02);
      expect(
        at(
          cut.sort((a, b) => a - b),
          0.95,
        ),
      ).toBeLessThan(TOLERANCE_MM);
    },
  );

  it('a bur that is thicker than the finish line is wide leaves it standing, and so it is told', () => {
    const target = targetSurface(arch, plan, 11, designOf('graduated'));
    const thick: Bur = { shape: 'round-end', largestMm: 3, tipMm: 2.4, lengthMm: 8, shankMm: 1.6, grit: 'medium' };
    const most = (b: Bur) => {
      const near = target.share.map((_, v) => (Math.floor(v / 128) < 12 ? (sweepOf(b)[v] as number) : 0));
      return Math.max(...near);
    };
    const known = new Map<Bur, Float64Array>();
    const sweepOf = (b: Bur) => known.get(b) ?? (known.set(b, sweepOver(target, [b], 2).leftMm).get(b) as Float64Array);
    expect(most(thick)).toBeGreaterThan(most(taper) + 0.05);
  });
});

describe('each strategy’s grooves end at the same target, whatever their own depth', () => {
  const design = designOf('graduated');
  const teeth = frontRow().map((tooth) => {
    const planned = plannedTooth(arch, plan, tooth);
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(Float32Array.from(planned.mesh.positions), 3));
    geometry.setIndex(new BufferAttribute(Uint32Array.from(planned.mesh.triangles), 1));
    const bvh = new MeshBVH(geometry);
    const target = targetSurface(arch, plan, tooth, design);
    const under = (v: number) => {
      const [x, y, z] = target.mesh.positions.subarray(3 * v, 3 * v + 3);
      return bvh.closestPointToPoint(new Vector3(x, y, z))?.distance ?? 0;
    };
    return { tooth, target, under };
  });

  it.each(STRATEGIES.map((s) => s.id as CutFrom))('%s', (from) => {
    const beyond: number[] = [];
    const depths = new Set<number>();
    for (const { tooth, target, under } of teeth) {
      const { zones } = toothReduction(arch, plan, tooth, design, from);
      const half = Math.max(
        ...Array.from(target.covered, (c, v) =>
          TARGET_PLACES[c] === 'facial'
            ? Math.abs(toLocal(target.frame, target.before.positions.subarray(3 * v, 3 * v + 3) as unknown as Vec3)[0])
            : 0,
        ),
      );
      for (const { zone, groove, removal } of zones) {
        const e = engagementOf(groove);
        if (zone === 'edge' || !e || !removal) continue;
        depths.add(e.depthMm);
        for (let v = 0; v < target.covered.length; v++) {
          if (TARGET_PLACES[target.covered[v] as number] !== 'facial') continue;
          const [x] = toLocal(target.frame, target.before.positions.subarray(3 * v, 3 * v + 3) as unknown as Vec3);
          if (Math.abs(x) > 0.7 * half || Math.abs((target.share[v] as number) - THIRDS[zone].middle) > 1 / 20)
            continue;
          const gone = target.removedMm[v] as number;
          const inLine = gone - (target.alignMm[v] as number);
          const proud = (target.alignMm[v] as number) > 0;
          // From where the groove is cut down to the target: the worn mock-up, the tooth in line, or the tooth as it is.
          const own = 'first' in groove && groove.first ? gone : under(v);
          const way = from === 'mock-up' ? (proud ? Infinity : own) : from === 'align' ? inLine : gone;
          beyond.push(e.depthMm - way);
        }
      }
    }
    beyond.sort((a, b) => a - b);
    expect(beyond.length).toBeGreaterThan(200);
    // Never beyond the target by more than the tolerance and what the need changes within the groove's length.
    expect(at(beyond, 0.95)).toBeLessThan(2 * TOLERANCE_MM);
    expect(depths.size).toBeGreaterThan(1);
  });

  it('the depths differ from strategy to strategy, the cut lists end alike', () => {
    const lists = STRATEGIES.map((s) => {
      const reductions = frontRow().map((tooth) => toothReduction(arch, plan, tooth, design, s.id));
      const told = teeth.map(({ target }) => targetTold(target));
      const of = reductions.map((reduction, i) => ({ design, reduction, told: told[i] as (typeof told)[0] }));
      return cutLists(of, s.id, FIRST_TRAY.burs);
    });
    const depths = lists.map((l) => l.map((t) => t.steps.map((s) => s.depthMm ?? 0).join()).join());
    expect(new Set(depths).size).toBe(STRATEGIES.length);
    for (const [i] of frontRow().entries()) {
      const last = lists.map((l) => l[i]?.steps.at(-1));
      expect(new Set(last.map((s) => s?.title))).toEqual(new Set(['Check with the index']));
      // What is to be gone in the end is the same by every way.
      expect(new Set(last.map((s) => s?.detail)).size).toBe(1);
    }
  });

  it('every groove in a list is one that its bur gives', () => {
    for (const { depthMm, how, bur } of cutLists(
      teeth.map(({ tooth, target }) => ({
        design,
        reduction: toothReduction(arch, plan, tooth, design, 'mock-up'),
        told: targetTold(target),
      })),
      'mock-up',
      FIRST_TRAY.burs,
    ).flatMap((l) => l.steps)) {
      if (!how || !bur || depthMm === undefined) continue;
      const [g] = chooseGrooves([{ kind: 'cut', depthMm, where: 'edge' }], { burs: [bur], toleranceMm: 0.001 });
      if (bur.shape !== 'ball') expect(g?.kind === 'cut' && g.engagement.depthMm).toBeCloseTo(depthMm, 9);
      else expect(depthMm).toBeCloseTo((bur.largestMm - bur.shankMm) / 2, 9);
    }
  });
});
