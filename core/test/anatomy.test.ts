import { type Crown, crown, type Fdi, ringVertex, usualDepth } from '@radiant/core';
import { makePatient, RETRACTED, truePoints, trueViewPoints } from '@radiant/standins';
import { anatomyOf, sagittal, spanAt, TEXTBOOK, textbookCrown, topAt } from './trials/anatomy.js';

const NAMES = Object.keys(TEXTBOOK);
const FRONT = NAMES.filter((n) => !/premolar|molar/.test(n));

describe('library crowns of a textbook’s size (Wheeler, Dental Anatomy, from memory)', () => {
  it.each(NAMES)('%s: depth, necks and cement line are the textbook’s within 0.4 mm', (name) => {
    const [, , , neckWidth, depth, neckDepth, mesialRise, distalRise] = TEXTBOOK[name]!;
    const own = anatomyOf(textbookCrown(name));
    expect(Math.abs(own.depth - depth)).toBeLessThan(0.2);
    expect(Math.abs(own.neckDepth - neckDepth)).toBeLessThan(0.4);
    expect(Math.abs(own.neckWidth - neckWidth)).toBeLessThan(0.4);
    expect(Math.abs(own.mesialRise - mesialRise)).toBeLessThan(0.4);
    // Gum never lies quite flat: the distal line of premolars rises by half a millimetre where the textbook has none.
    expect(Math.abs(own.distalRise - distalRise)).toBeLessThan(0.5);
    expect(own.mesialRise).toBeGreaterThan(own.distalRise);
  });

  // Common practice, no source: about 1.0–1.2 mm a third of a millimetre over the edge, 1.5 at 1, 2.0 at 2, 2.4 at 3.
  it.each(['upper central', 'upper lateral'])('%s: as thick near its edge as teeth are', (name) => {
    const { thickness } = anatomyOf(textbookCrown(name));
    const own = [0.3, 1, 2, 3].map(thickness);
    [1.05, 1.5, 2, 2.4].forEach((mm, i) => {
      expect(Math.abs(own[i]! - mm)).toBeLessThan(0.15);
    });
  });

  it.each(FRONT)('%s: grows thicker all the way from its edge to the cingulum, without a hook', (name) => {
    const c = textbookCrown(name);
    const { thickness } = anatomyOf(c);
    for (let z = 0.3; z < 0.72 * c.size.lengthMm; z += 0.15) expect(thickness(z + 0.15)).toBeGreaterThan(thickness(z));
    // Nothing stands out behind the surface just above it: the back leads from the edge straight or inward to the fossa.
    for (let z = 0.5; z < 0.25 * c.size.lengthMm; z += 0.2)
      expect(spanAt(c, z)[1] - spanAt(c, z + 0.2)[1]).toBeLessThan(0.02);
  });

  it.each(NAMES)('%s: its neck is closed by a plane from face to back, not by a funnel', (name) => {
    const c = textbookCrown(name);
    const neck = (k: number) => [0, 1, 2].map((i) => c.mesh.positions[3 * ringVertex(c, 0, k) + i]!);
    const [face, back] = [neck(c.ringSize / 4), neck((3 * c.ringSize) / 4)] as [number[], number[]];
    for (const share of [0.15, 0.35, 0.5, 0.65, 0.85]) {
      const y = face[1]! + share * (back[1]! - face[1]!);
      expect(Math.abs(topAt(c, y) - (face[2]! + share * (back[2]! - face[2]!)))).toBeLessThan(0.05);
    }
  });
});

describe('what tells the kinds apart', () => {
  /** Heights along a line across the chewing surface, from the facial to the oral cusp, in steps. */
  const profile = (c: Crown, x: number) => {
    const points = sagittal(c, x).flatMap((l) =>
      Array.from({ length: l.points.length / 2 }, (_, i) => [l.points[2 * i]!, l.points[2 * i + 1]!] as const),
    );
    const lowest = (from: number, to: number) =>
      Math.min(...points.filter(([y, z]) => y >= from && y <= to && z < 0.6 * c.size.lengthMm).map(([, z]) => z));
    return { facial: lowest(-4.5, -1.2), groove: lowest(-0.35, 0.35), oral: lowest(1.2, 4.5) };
  };

  it('upper premolars have two cusps and a groove that marginal ridges close; the first’s oral cusp is the shorter', () => {
    for (const name of ['upper first premolar', 'upper second premolar']) {
      const c = textbookCrown(name);
      const middle = profile(c, 0);
      const side = profile(c, 0.38 * c.size.widthMm);
      expect(middle.groove - middle.facial).toBeGreaterThan(1.2);
      expect(middle.groove - middle.oral).toBeGreaterThan(0.7);
      // A bowl would be as deep beside as in its middle: the ridge stands between.
      expect(side.groove).toBeLessThan(middle.groove - 0.25);
      expect(side.groove - Math.min(side.facial, side.oral)).toBeLessThan(0.6);
    }
    const lack = (name: string) => {
      const { facial, oral } = profile(textbookCrown(name), 0);
      return oral - facial;
    };
    expect(lack('upper first premolar')).toBeGreaterThan(0.6);
    expect(lack('upper second premolar')).toBeLessThan(0.45);
    // A lower first premolar's lingual cusp does not work; a second one's does.
    expect(lack('lower first premolar')).toBeGreaterThan(lack('lower second premolar') + 0.5);
  });

  it('the first and the second upper premolar have outlines of their own', () => {
    const tip = (name: string) => {
      const c = textbookCrown(name);
      let at = 0;
      for (let k = 0; k <= c.ringSize / 2; k++) {
        const v = 3 * ringVertex(c, c.rings - 1, k);
        if (c.mesh.positions[v + 2]! < c.mesh.positions[3 * ringVertex(c, c.rings - 1, at) + 2]!) at = k;
      }
      return c.mesh.positions[3 * ringVertex(c, c.rings - 1, at)]!;
    };
    // On the patient's right mesial lies at +x: the first's facial tip lies distal, the second's mesial of the middle.
    expect(tip('upper first premolar')).toBeLessThan(-0.1);
    expect(tip('upper second premolar')).toBeGreaterThan(0.1);
  });

  it('molars have their cusps: two facial and two oral ones above, three facial ones on the lower first', () => {
    const dips = (tooth: Fdi, facial: boolean) => {
      const c = crown(tooth, { lengthMm: 7.5, widthMm: 10.5, facialVolumeMm: 0 });
      const half = c.ringSize / 2;
      const line = Array.from({ length: half + 1 }, (_, k) => {
        const v = 3 * ringVertex(c, c.rings - 1, facial ? k : (c.ringSize - k) % c.ringSize);
        return c.mesh.positions[v + 2]!;
      });
      return line.filter((z, k) => k > 0 && k < half && z < line[k - 1]! && z <= line[k + 1]!).length;
    };
    expect([16, 17, 36, 37].map((t) => [dips(t, true), dips(t, false)])).toEqual([
      [2, 2],
      [2, 2],
      [3, 2],
      [2, 2],
    ]);
  });
});

describe('depth', () => {
  it('follows the width where nothing is said, and what is said where it is', () => {
    for (const tooth of [11, 13, 25, 41, 44]) {
      const size = { lengthMm: 9.5, widthMm: 7, facialVolumeMm: 0 };
      const depth = (more: object) => anatomyOf(crown(tooth, { ...size, ...more })).depth;
      const usual = usualDepth(tooth, 7);
      const allowed = Math.min(1.3, Math.max(0.75, depth({}) / usual));
      expect(Math.abs(depth({}) - usual * allowed)).toBeLessThan(0.2);
      expect(Math.abs(depth({ depthMm: 7.2 }) - depth({ depthMm: 6.7 }) - 0.5)).toBeLessThan(0.1);
      expect(depth({ depthMm: 7, widthMm: 7.6 })).toBeCloseTo(depth({ depthMm: 7 }), 1);
    }
  });
});

describe('a healthy mouth of usual teeth, seen from the front', () => {
  const patient = makePatient({ seed: 9, traits: {} });
  const seen = trueViewPoints(patient, 'retracted-front', RETRACTED);
  const own = (tooth: Fdi) => {
    const t = patient.teeth.find((q) => q.tooth === tooth);
    if (!t) throw new Error(`${tooth} is missing.`);
    return { ...truePoints(t), t };
  };
  const central = own(11).zenith[2] - own(11).edge[2];

  // 50 : 40 : 30 of the central's length: Morley & Eubank 2001, JADA 132:39 (from memory).
  it.each([
    [11, 21, 50],
    [12, 11, 40],
    [13, 12, 30],
  ])(
    '{%i} and {%i} touch over about %i % of the central’s length, each contact higher up than the one before',
    (a, b, percent) => {
      const length = seen[`contact-${a}-${b}`]![2] - seen[`embrasure-${a}-${b}`]![2];
      expect(Math.abs((100 * length) / central - percent)).toBeLessThan(6);
      const low = (p: Fdi, q: Fdi) => seen[`embrasure-${p}-${q}`]![2];
      expect([low(11, 21), low(12, 11), low(13, 12)]).toEqual(
        [low(11, 21), low(12, 11), low(13, 12)].sort((p, q) => p - q),
      );
    },
  );

  // About two fifths of the crown: Chu et al. 2009, J Esthet Restor Dent 21:113 (from memory).
  it('papillae stand about two fifths of the crowns under the zeniths, and leave no dark triangle', () => {
    for (const [a, b] of [
      [11, 21],
      [12, 11],
      [13, 12],
    ] as const) {
      const zenith = (own(a).zenith[2] + own(b).zenith[2]) / 2;
      const length = (own(a).t.crown.size.lengthMm + own(b).t.crown.size.lengthMm) / 2;
      const tip = seen[`papilla-${a}-${b}`]!;
      expect(Math.abs((zenith - tip[2]) / length - 0.42)).toBeLessThan(0.04);
      expect(tip[2] - seen[`contact-${a}-${b}`]![2]).toBeLessThan(0.5);
    }
  });

  // Distal of the axis: central 1.0, lateral 0.4, canine 0 (same source); the lateral's lies below the line of its fellows.
  it('zeniths stand where they are published, against each tooth’s own axis', () => {
    for (const [tooth, mm] of [
      [11, 1],
      [12, 0.4],
      [13, 0],
    ] as const) {
      const { crown: c } = own(tooth).t;
      let at = 0;
      const z = (k: number) => c.mesh.positions[3 * ringVertex(c, 0, k) + 2]!;
      for (let k = 0; k <= c.ringSize / 2; k++) if (z(k) > z(at)) at = k;
      // On the patient's right distal lies at −x.
      expect(Math.abs(-c.mesh.positions[3 * ringVertex(c, 0, at)]! - mm)).toBeLessThan(0.2);
    }
    const line = (own(11).zenith[2] + own(13).zenith[2]) / 2;
    expect(Math.abs(line - own(12).zenith[2] - 1)).toBeLessThan(0.3);
  });
});
