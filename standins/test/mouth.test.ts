import { bounds, inspectMesh, LOWER_TEN, type Mesh, type Vec3, volume } from '@radiant/core';
import {
  AVOCET,
  type CameraSetting,
  CURLEW,
  DUNLIN,
  handHeld,
  inState,
  makeFace,
  makePatient,
  makeScene,
  type Patient,
  project,
  RECIPES,
  REDSHANK,
  RETRACTED,
  TURNSTONE,
  truePoints,
  USUAL_FACE,
  VIEWS,
  type ViewName,
} from '@radiant/standins';

const tooth = (teeth: Patient['teeth'], n: number) => {
  const own = teeth.find((t) => t.tooth === n);
  if (!own) throw new Error(`${n} is missing.`);
  return own;
};

describe('the lower jaw', () => {
  const patient = makePatient({ seed: 9, traits: {}, overbiteMm: 3, overjetMm: 2 });

  it('stands under the upper one, the patient’s right on the right, every tooth closed', () => {
    expect(patient.lower.map((t) => t.tooth)).toEqual(LOWER_TEN);
    for (const t of patient.lower) {
      expect(inspectMesh(t.mesh).ok).toBe(true);
      expect(Math.sign(t.frame.origin[0])).toBe(t.tooth >= 40 ? -1 : 1);
      // Root downward.
      expect(t.frame.z[2]).toBeLessThan(-0.8);
    }
  });

  it('bites as deep and as far behind as was asked, within 0.3 mm', () => {
    const top = Math.max(...[31, 41].map((n) => bounds(tooth(patient.lower, n).mesh).max[2]));
    const edge = truePoints(tooth(patient.teeth, 11)).edge;
    expect(Math.abs(top - edge[2] - 3)).toBeLessThan(0.3);
    const deeper = makePatient({ seed: 9, traits: {}, overbiteMm: 3, overjetMm: 5 });
    expect(tooth(deeper.lower, 41).frame.origin[1] - tooth(patient.lower, 41).frame.origin[1]).toBeCloseTo(3, 9);
  });

  it('drops when the mouth opens', () => {
    const face = { ...RETRACTED, openMm: 6 };
    const [closed, open] = [makeScene(patient, RETRACTED), makeScene(patient, face)];
    expect(bounds(closed.mesh).min[2] - bounds(open.mesh).min[2]).toBeCloseTo(6, 6);
  });
});

describe('the face', () => {
  it.each([0, 0.5, 1])(
    'at smile %d: the lower border of the upper lip lies over the upper border of the lower one, all the way between the corners',
    (smile) => {
      const face = makeFace(USUAL_FACE, smile);
      const z = (border: readonly Vec3[], x: number) =>
        (border.reduce((a, b) => (Math.abs(b[0] - x) < Math.abs(a[0] - x) ? b : a)) as Vec3)[2];
      for (let x = -20; x <= 20; x += 4) expect(z(face.upperLip, x)).toBeGreaterThan(z(face.lowerLip, x));
      expect(face.upperLip[0]).toEqual(face.points.cornerRight);
      expect(face.points.cornerLeft[0] - face.points.cornerRight[0]).toBeCloseTo(
        USUAL_FACE.restWidthMm + (USUAL_FACE.smileWidthMm - USUAL_FACE.restWidthMm) * smile,
        1,
      );
    },
  );

  it('shows at rest what was asked of the centrals, and lifts the lip in a smile', () => {
    const middle = (smile: number) =>
      (makeFace(USUAL_FACE, smile).upperLip.reduce((a, b) => (Math.abs(b[0]) < Math.abs(a[0]) ? b : a)) as Vec3)[2];
    expect(Math.abs(middle(0) - USUAL_FACE.restDisplayMm)).toBeLessThan(0.6);
    expect(Math.abs(middle(1) - USUAL_FACE.smileLipUpMm)).toBeLessThan(0.6);
  });

  it('has its pupils apart and its midline where the patient has them', () => {
    const { points } = makeFace({ ...USUAL_FACE, pupilsMm: 66, midlineMm: 2.5 }, 1);
    expect(points.pupilLeft[0] - points.pupilRight[0]).toBeCloseTo(66, 9);
    for (const p of [points.glabella, points.noseBase, points.chin]) expect(p[0]).toBeCloseTo(2.5, 9);
    expect(points.glabella[2]).toBeGreaterThan(points.noseBase[2]);
    expect(points.noseBase[2]).toBeGreaterThan(points.chin[2]);
  });

  it('a cant lifts the patient’s left corner', () => {
    const { points } = makeFace({ ...USUAL_FACE, cantDeg: 3 }, 1);
    const slope =
      (Math.atan2(points.cornerLeft[2] - points.cornerRight[2], points.cornerLeft[0] - points.cornerRight[0]) * 180) /
      Math.PI;
    expect(slope).toBeCloseTo(3, 6);
  });

  it('its surface is one sheet that faces the observer: no lip through the teeth in front', () => {
    const scene = makeScene(makePatient(CURLEW), VIEWS['close-rest'].expression);
    const face = scene.face;
    const centrals = makePatient(CURLEW).teeth.filter((t) => t.tooth % 10 === 1);
    const front = Math.min(...centrals.map((t) => bounds(t.mesh).min[1]));
    for (const p of [...(face?.upperLip ?? []), ...(face?.lowerLip ?? [])].filter((q) => Math.abs(q[0]) < 6))
      expect(p[1]).toBeLessThan(front + 0.6);
  });
});

describe('the sample patients', () => {
  it.each(Object.entries(RECIPES))('%s: every tooth is closed, before and after', (_, recipe) => {
    for (const state of ['before', 'final'] as const) {
      const patient = makePatient(inState(recipe, state));
      for (const t of patient.teeth) expect(inspectMesh(t.mesh).ok).toBe(true);
    }
  });

  it('Turnstone has no laterals and its canines stand beside the centrals', () => {
    const { teeth } = makePatient(TURNSTONE);
    expect(teeth.map((t) => t.tooth)).toEqual([15, 14, 13, 11, 21, 23, 24, 25]);
    expect(truePoints(tooth(teeth, 11)).distal[0] - truePoints(tooth(teeth, 13)).mesial[0]).toBeLessThan(1.2);
  });

  it('Redshank has lost the mesial corner of a central, up and in as far as the recipe says, and has it again at the end', () => {
    const of = (state: 'before' | 'final') => tooth(makePatient(inState(REDSHANK, state)).teeth, 21).mesh;
    const [broken, whole] = [of('before'), of('final')];
    const lost = volume(whole) - volume(broken);
    // A wedge of half of 3.6 by 4.8 mm, about 1.5 to 3 mm from front to back.
    expect(lost).toBeGreaterThan((3.6 * 4.8) / 2);
    expect(lost).toBeLessThan(3.2 * ((3.6 * 4.8) / 2));
    // The mesial side of a left tooth looks to the right: at its edge nothing stands there any more.
    const least = (m: Mesh, underMm: number) => {
      const { min } = bounds(m);
      let x = Infinity;
      for (let i = 0; i < m.positions.length; i += 3)
        if ((m.positions[i + 2] as number) < min[2] + underMm) x = Math.min(x, m.positions[i] as number);
      return x;
    };
    expect(least(broken, 0.5) - least(whole, 0.5)).toBeGreaterThan(3);
  });

  it('Dunlin’s lower edges are worn, and stand 0.7 mm higher at the end, of the same depth', () => {
    const of = (state: 'before' | 'final') => {
      const { lower } = makePatient(inState(DUNLIN, state));
      // In a closed bite of its own each: against a tooth that is left alone.
      const still = bounds(tooth(lower, 34).mesh).min[2];
      return [42, 41, 31, 32].map((t) => {
        const { min, max } = bounds(tooth(lower, t).mesh);
        return { edge: max[2] - still, deep: max[1] - min[1] };
      });
    };
    const [before, final] = [of('before'), of('final')];
    before.forEach((b, i) => {
      expect((final[i]?.edge as number) - b.edge).toBeGreaterThan(0.5);
      expect((final[i]?.edge as number) - b.edge).toBeLessThan(0.95);
      expect(Math.abs((final[i]?.deep as number) - b.deep)).toBeLessThan(0.4);
    });
  });

  it('Dunlin’s papillae stand higher than they would with healthy gum', () => {
    const between = (p: Patient) => {
      let low = Infinity;
      const { positions: g } = p.gum;
      for (let i = 0; i < g.length; i += 3)
        if (Math.abs(g[i] as number) < 0.6 && (g[i + 1] as number) < 2) low = Math.min(low, g[i + 2] as number);
      return low;
    };
    expect(between(makePatient(DUNLIN)) - between(makePatient({ ...DUNLIN, gum: {} }))).toBeGreaterThan(1);
  });

  it('what is restored later is longer, lighter, unworn and neither mottled nor dark', () => {
    const [before, after] = [makePatient(AVOCET), makePatient(inState(AVOCET, 'final'))];
    expect(tooth(after.teeth, 21).crown.size.lengthMm).toBeGreaterThan(tooth(before.teeth, 21).crown.size.lengthMm + 1);
    expect(tooth(after.teeth, 21).crown.size.wearMm).toBe(0);
    expect(tooth(makePatient(inState(CURLEW, 'final')).teeth, 21).trait).toMatchObject({ dark: 0, lighter: 1.2 });
    expect(tooth(after.teeth, 15).trait).toEqual(tooth(before.teeth, 15).trait);
    expect(inState(AVOCET, 'before')).toBe(AVOCET);
  });
});

describe('the camera', () => {
  const base: CameraSetting = { widthPx: 1000, heightPx: 800, distanceMm: 400, fieldMm: 100, centreZ: 0, centreY: 0 };

  it('turned to the patient’s left sees what is in front move to the right', () => {
    const [x] = project({ ...base, yawDeg: 20 }, [0, -10, 0]);
    expect(x).toBeLessThan(500);
    const [side] = project({ ...base, yawDeg: 90 }, [0, -10, 0]);
    expect(side).toBeCloseTo(500 - 100, 0);
  });

  it('from above and from below the front of the mouth lies at opposite borders', () => {
    const down = project({ ...base, pitchDeg: 90 }, [0, -10, 0]);
    const up = project({ ...base, pitchDeg: -90 }, [0, -10, 0]);
    expect(down[1]).toBeGreaterThan(400);
    expect(up[1]).toBeLessThan(400);
    // The patient's left is at the right in both.
    expect(project({ ...base, pitchDeg: -90 }, [10, 0, 0])[0]).toBeGreaterThan(500);
    expect(project({ ...base, pitchDeg: 90 }, [10, 0, 0])[0]).toBeGreaterThan(500);
  });

  it('a lens of −2 % draws the border of the field in by 2 % and leaves the middle', () => {
    const bent = { ...base, distortion: -0.02 };
    expect(project(bent, [50, 0, 0])[0] - 500).toBeCloseTo(500 * 0.98, 6);
    expect(project(bent, [25, 0, 0])[0] - 500).toBeCloseTo(250 * (1 - 0.02 / 4), 6);
    expect(project(bent, [0, 0, 0])).toEqual([500, 400]);
  });

  it('held by hand it is rolled a little, the same each time; the front view stands straight', () => {
    const views = Object.keys(VIEWS) as ViewName[];
    for (const v of views) {
      const [a, b] = [handHeld(AVOCET, v), handHeld(AVOCET, v)];
      expect(a).toEqual(b);
      expect(Math.abs((a.camera.rollDeg ?? 0) - (VIEWS[v].camera.rollDeg ?? 0))).toBeLessThan(5);
    }
    expect(handHeld(AVOCET, 'retracted-front')).toBe(VIEWS['retracted-front']);
    expect(handHeld(AVOCET, 'close-smile')).not.toEqual(handHeld(CURLEW, 'close-smile'));
  });
});

describe('what photographs show behind a short scan', () => {
  const patient = makePatient(AVOCET);
  const middle = (m: { readonly positions: Float64Array }, k: 0 | 1 | 2): number => {
    let sum = 0;
    for (let i = k; i < m.positions.length; i += 3) sum += m.positions[i] as number;
    return sum / (m.positions.length / 3);
  };

  it('are the first and second molars of both jaws, each behind the last tooth and beside none by more than a hair', () => {
    for (const [row, molars] of [
      [patient.teeth, patient.molars],
      [patient.lower, patient.lowerMolars],
    ] as const) {
      expect(molars.map((t) => t.tooth % 10).sort()).toEqual([6, 6, 7, 7]);
      for (const t of molars) {
        const before = [...row, ...molars].find((o) => o.tooth === t.tooth - 1) as (typeof row)[number];
        expect(middle(t.mesh, 1)).toBeGreaterThan(middle(before.mesh, 1) + 4);
        const apart = Math.hypot(...([0, 1] as const).map((k) => middle(t.mesh, k) - middle(before.mesh, k)));
        const wide = (t.crown.size.widthMm + before.crown.size.widthMm) / 2;
        expect(Math.abs(apart - wide)).toBeLessThan(1.2);
      }
    }
  });

  it('is the vault, above the necks and between them, and the tongue between the lower teeth', () => {
    const highest = Math.max(...patient.vault.positions.filter((_, i) => i % 3 === 2));
    const necks = patient.teeth.map((t) => Math.max(...t.mesh.positions.filter((_, i) => i % 3 === 2)));
    expect(highest).toBeGreaterThan(Math.max(...necks) + 3);
    const wide = (m: { readonly positions: Float64Array }) =>
      Math.max(...m.positions.filter((_, i) => i % 3 === 0).map(Math.abs));
    const row = Math.max(...patient.molars.map((t) => Math.abs(middle(t.mesh, 0))));
    for (const m of [patient.vault, patient.floor]) expect(wide(m)).toBeLessThan(row);
    // Its back comes near the edges, its sides lie on the floor.
    const edges = Math.max(...patient.lower.flatMap((t) => [...t.mesh.positions.filter((_, i) => i % 3 === 2)]));
    const back = Math.max(...patient.floor.positions.filter((_, i) => i % 3 === 2));
    expect(back).toBeLessThan(edges);
    expect(back).toBeGreaterThan(edges - 9);
  });
});
