import {
  type Bur,
  burFault,
  burId,
  bursOfRows,
  chooseGrooves,
  distanceToBur,
  engagements,
  FIRST_TRAY,
  finishes,
  type GrooveWish,
  isoDiameter,
  leanDeg,
  outlineOf,
  Refusal,
  radiusAt,
  rowsOfTray,
  tiltedDepth,
  trayFault,
} from '@radiant/core';
import { random } from '@radiant/standins';
import { BufferAttribute, BufferGeometry, LatheGeometry, Vector2, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';

const round = (largestMm: number, tipMm: number, lengthMm = 8): Bur => ({
  shape: 'round-end',
  largestMm,
  tipMm,
  lengthMm,
  shankMm: 1.6,
  grit: 'medium',
});
const cut = (depthMm: number, where: 'cervical' | 'facial' | 'edge' = 'facial'): GrooveWish => ({
  kind: 'cut',
  depthMm,
  where,
});

describe('a bur’s shape', () => {
  it('trade numbers: 1.2 at the tip half in gives 0.6, 1.4 of body and 0.8 of tip buried their own (common practice)', () => {
    const of = (b: Bur) => new Map(engagements(b).map((e) => [e.how, e.depthMm]));
    expect(of(round(1.8, 1.2)).get('half the tip in')).toBeCloseTo(0.6, 12);
    expect(of(round(1.4, 0.8)).get('body buried')).toBeCloseTo(1.4, 12);
    expect(of(round(1.4, 0.8)).get('tip buried')).toBeCloseTo(0.8, 12);
    const fissure: Bur = { shape: 'flat-end', largestMm: 1.2, tipMm: 1.2, lengthMm: 2, shankMm: 1.2, grit: 'medium' };
    expect(of(fissure).get('sunk to its working length')).toBe(2);
    const rings: Bur = { shape: 'rings', largestMm: 2, tipMm: 2, lengthMm: 4, shankMm: 1.2, grit: 'coarse' };
    expect(of(rings).get('rings sunk to the shank')).toBeCloseTo(0.4, 12);
  });

  it('a taper’s side touches the ball of its tip and reaches its largest diameter at the end', () => {
    for (const b of [round(1.4, 0.8), round(1.8, 1.2), round(1.6, 1.6)]) {
      expect(radiusAt(b, b.lengthMm)).toBeCloseTo(b.largestMm / 2, 9);
      const a = (leanDeg(b) * Math.PI) / 180;
      const at = (b.tipMm / 2) * (1 - Math.sin(a));
      expect(radiusAt(b, at - 1e-9)).toBeCloseTo(radiusAt(b, at + 1e-9), 6);
      const slope = (radiusAt(b, at + 1e-4) - radiusAt(b, at - 1e-4)) / 2e-4;
      expect(slope).toBeCloseTo(Math.tan(a), 2);
    }
    expect(leanDeg(round(1.6, 1.6))).toBeCloseTo(0, 9);
  });

  it('how far a place lies outside is what three-mesh-bvh measures on the turned outline', () => {
    const { next } = random(7);
    for (const b of FIRST_TRAY.burs.filter((o) => o.shape === 'round-end' || o.shape === 'ball')) {
      const lathe = new LatheGeometry(
        outlineOf(b, 0.01).map(([t, r]) => new Vector2(r, t)),
        160,
      );
      const geometry = new BufferGeometry();
      geometry.setAttribute('position', new BufferAttribute(new Float32Array(lathe.attributes.position.array), 3));
      geometry.setIndex(lathe.index);
      const bvh = new MeshBVH(geometry);
      for (let n = 0; n < 200; n++) {
        const t = -0.4 + next() * Math.min(6, b.lengthMm - 0.6);
        const out = next() * 1.6;
        const own = distanceToBur(b, t, out);
        // The ball's shank is no part of what cuts.
        if (b.shape === 'ball' && t > b.largestMm * 0.6) continue;
        const hit = bvh.closestPointToPoint(new Vector3(out, t, 0));
        expect(Math.abs(Math.abs(own) - (hit?.distance ?? 9))).toBeLessThan(0.012);
      }
    }
  });

  it('a tilted taper cuts another depth along its length, and the ball of its tip keeps its own', () => {
    const b = round(1.4, 0.8);
    const laid = -leanDeg(b);
    for (const back of [0, 2, 4]) expect(tiltedDepth(b, 'tip buried', laid, back)).toBeCloseTo(0.8, 9);
    expect(tiltedDepth(b, 'half the tip in', laid + 5, 0)).toBeCloseTo(0.4, 9);
    // By hand: 4 mm back at 5° too steep is 4 · sin 5° = 0.349 deeper.
    expect(tiltedDepth(b, 'half the tip in', laid + 5, 4)).toBeCloseTo(0.4 + 0.3486, 3);
    expect(tiltedDepth(b, 'half the tip in', laid - 10, 4)).toBe(0);
  });
});

describe('what can’t be is told', () => {
  it.each([
    [round(0.4, 0.2), /largest diameter of a bur lies between 0\.5 and 6 mm; 0\.4 is none/],
    [round(1.2, 1.4), /The tip, 1\.4 mm, is wider/],
    [{ ...round(1.6, 1.6), shape: 'ball', shankMm: 1.6 } as Bur, /it cuts no depth/],
    [round(5.8, 0.2, 1), /is no taper/],
    [{ ...round(1.4, 0.8), lengthMm: Number.NaN }, /working length/],
  ])('%j', (b, words) => expect(burFault(b)).toMatch(words));

  it('of a tray: none, twice, nothing that cuts', () => {
    expect(trayFault(FIRST_TRAY)).toBeUndefined();
    expect(trayFault({ name: 'mine', burs: [] })).toMatch(/“mine” is empty/);
    expect(trayFault({ name: ' ', burs: FIRST_TRAY.burs })).toBe('A tray has a name.');
    expect(trayFault({ name: 'mine', burs: [round(1.4, 0.8), round(1.4, 0.8)] })).toMatch(/lies twice/);
    expect(trayFault({ name: 'mine', burs: [{ ...round(1.4, 0.8), grit: 'fine' }] })).toMatch(/cuts a groove/);
  });

  it('of a table: its columns, its lines', () => {
    const rows = rowsOfTray(FIRST_TRAY.burs);
    expect(bursOfRows(rows)).toEqual(FIRST_TRAY.burs);
    const turned = rows.map((r) => [...r].reverse());
    expect(bursOfRows(turned)).toEqual(FIRST_TRAY.burs);
    expect(() => bursOfRows(rows.map((r) => r.slice(0, 3)))).toThrow(/no column “length mm”, “shank mm”, “grit”/);
    expect(() => bursOfRows([...rows.slice(0, 2), ['cone', '1', '1', '8', '1', 'fine', '']])).toThrow(
      /Line 3: “cone” is no shape/,
    );
    expect(() => bursOfRows([rows[0] ?? [], ['ball', 'big', '', '', '1', 'fine', '']])).toThrow(
      /Line 2: “big” in the column “largest mm” is no number/,
    );
    expect(bursOfRows([rows[0] ?? [], ['Ball', '1,8', '', '', '1,0', 'Medium', 'cup 2']])).toEqual([
      { shape: 'ball', largestMm: 1.8, tipMm: 1.8, lengthMm: 1.8, shankMm: 1, grit: 'medium', note: 'cup 2' },
    ]);
    expect(() => bursOfRows([rows[0] ?? []])).toThrow(Refusal);
  });
});

describe('burs are chosen for the whole case', () => {
  const of = (wishes: GrooveWish[], burs: readonly Bur[] = FIRST_TRAY.burs) =>
    chooseGrooves(wishes, { burs, toleranceMm: 0.05 });
  const cutting = FIRST_TRAY.burs.filter((b) => !finishes(b));

  it('with the fewest burs that give every depth, found beside a search through all of them', () => {
    const { next } = random(11);
    for (let n = 0; n < 25; n++) {
      const wishes = Array.from({ length: 6 }, () => cut(Math.round((0.25 + next() * 1.4) * 50) / 50));
      const grooves = of(wishes);
      const used = new Set(grooves.flatMap((g) => (g.kind === 'cut' ? [burId(g.engagement.bur)] : [])));
      const reach = (subset: readonly Bur[]) =>
        wishes.filter((w) =>
          subset
            .flatMap(engagements)
            .some(
              (e) =>
                w.kind === 'cut' &&
                e.how !== 'sunk to its working length' &&
                Math.abs(e.depthMm - w.depthMm) <= 0.05 + 1e-9,
            ),
        ).length;
      const all = reach(cutting);
      expect(grooves.filter((g) => g.kind === 'cut')).toHaveLength(all);
      let fewest = cutting.length;
      for (let mask = 0; mask < 2 ** cutting.length; mask++) {
        const subset = cutting.filter((_, b) => (mask >> b) & 1);
        if (subset.length < fewest && reach(subset) === all) fewest = subset.length;
      }
      expect(used.size).toBe(fewest);
    }
  });

  it('one depth alone has its nearest bur; beside others the one that serves them too', () => {
    const alone = of([cut(0.72)])[0];
    expect(alone?.kind === 'cut' && alone.engagement.depthMm).toBeCloseTo(0.7, 9);
    const both = of([cut(0.75, 'facial'), cut(0.8)]);
    const names = both.map((g) => g.kind === 'cut' && burId(g.engagement.bur));
    expect(names[0]).toBe(names[1]);
  });

  it('never too deep near the gum, whatever else is cut', () => {
    for (const g of of([cut(0.38, 'cervical'), cut(0.4), cut(0.78, 'cervical'), cut(0.8)])) {
      const depth = g.kind === 'cut' ? g.engagement.depthMm : (g.nearest?.depthMm ?? 0);
      expect(depth).toBeLessThanOrEqual(g.depthMm + 0.05 + 1e-9);
    }
    const [gum] = of([cut(0.38, 'cervical')]);
    expect(gum?.kind === 'none' ? gum.nearest?.depthMm : 9).toBeLessThanOrEqual(0.38);
  });

  it('a choice by hand is kept and says what it does', () => {
    const ball = FIRST_TRAY.burs.find((b) => b.shape === 'ball' && isoDiameter(b) === '020') as Bur;
    const hand = { bur: burId(ball), how: 'ball sunk to its shank' as const };
    const by = (w: GrooveWish) => chooseGrooves([w], undefined, [hand])[0];
    expect(by(cut(0.4))).toMatchObject({
      kind: 'cut',
      byHand: expect.stringContaining('0.10 mm deeper than wanted; so'),
    });
    expect(by(cut(0.4, 'cervical'))).toMatchObject({ byHand: expect.stringContaining('near the gum') });
    expect(by(cut(0.7))).toMatchObject({ byHand: expect.stringContaining('0.20 mm shallower') });
    expect(by(cut(0.52))).toMatchObject({ byHand: 'Chosen by hand; within the tolerance.' });
    // A bur that is no longer in the tray is chosen anew.
    const gone = chooseGrooves([cut(0.4)], { burs: [round(1.4, 0.8)], toleranceMm: 0.05 }, [hand])[0];
    expect(gone?.kind === 'cut' && gone.engagement.how).toBe('half the tip in');
  });

  it('a tray of forty burs answers too', () => {
    const many = Array.from({ length: 40 }, (_, i) => round(1.2 + 0.03 * i, 0.6 + 0.02 * i));
    const wishes = Array.from({ length: 24 }, (_, i) => cut(0.3 + 0.05 * i));
    const grooves = of(wishes, many);
    expect(grooves.every((g) => g.kind === 'cut')).toBe(true);
    expect(new Set(grooves.map((g) => g.kind === 'cut' && burId(g.engagement.bur))).size).toBeLessThan(20);
  });
});
