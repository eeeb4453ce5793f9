import { frontRow, LANDMARK_KINDS, type LandmarkKind, outlineInBox, type Px, sideOf } from '@radiant/core';
import { AVOCET, project, RETRACTED_FRONT, truePoints } from '@radiant/standins';
import { patientOf, rendered } from './render.js';

const SETTING = { widthPx: 1600, heightPx: 1067 };
const MM = RETRACTED_FRONT.fieldMm / SETTING.widthPx;

/** A hand that is off by up to so much of the tooth on a side, the same each time. */
const hand = (k: number) => 0.05 * Math.sin(k * 78.233 + AVOCET.seed);

describe('a box over a tooth of a rendered photograph', () => {
  const off: Record<LandmarkKind, number[]> = { zenith: [], edge: [], mesial: [], distal: [] };
  const raw: typeof off = { zenith: [], edge: [], mesial: [], distal: [] };
  beforeAll(() => {
    const { rgba, camera } = rendered('Avocet', 'retracted-front', SETTING);
    const light = new Float32Array(SETTING.widthPx * SETTING.heightPx);
    for (let i = 0; i < light.length; i++)
      light[i] = 0.1 * (rgba[4 * i] as number) + 0.8 * (rgba[4 * i + 1] as number) + 0.1 * (rgba[4 * i + 2] as number);
    const patch = { width: SETTING.widthPx, height: SETTING.heightPx, light };
    frontRow().forEach((tooth, i) => {
      const own = patientOf('Avocet').teeth.find((t) => t.tooth === tooth) as NonNullable<
        ReturnType<typeof patientOf>['teeth'][number]
      >;
      const truth = truePoints(own);
      const at = Object.fromEntries(LANDMARK_KINDS.map((k) => [k, project(camera, truth[k])])) as Record<
        LandmarkKind,
        Px
      >;
      const [xs, ys] = [LANDMARK_KINDS.map((k) => at[k][0]), LANDMARK_KINDS.map((k) => at[k][1])];
      const [l, r, t, b] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
      const box = {
        left: l + (r - l) * hand(4 * i),
        right: r + (r - l) * hand(4 * i + 1),
        top: t + (b - t) * hand(4 * i + 2),
        bottom: b + (b - t) * hand(4 * i + 3),
      };
      const seen = outlineInBox(patch, box);
      const right = sideOf(tooth) === 'right';
      off.zenith.push(Math.abs(seen.zenith[1] - at.zenith[1]) * MM);
      raw.zenith.push(Math.abs(box.top - at.zenith[1]) * MM);
      off.edge.push(Math.abs(seen.edge[1] - box.bottom));
      for (const kind of ['mesial', 'distal'] as const) {
        const onRight = (kind === 'mesial') === right;
        off[kind].push(Math.abs((onRight ? seen.right : seen.left)[0] - at[kind][0]) * MM);
        raw[kind].push(Math.abs((onRight ? box.right : box.left) - at[kind][0]) * MM);
      }
    });
  });
  const median = (list: readonly number[]) => [...list].sort((a, b) => a - b)[list.length >> 1] as number;

  it.each(['zenith', 'mesial', 'distal'] as const)(
    '%s: half of them lie within 0.12 mm of the true place, and nearer than the box',
    (kind) => {
      expect(median(off[kind])).toBeLessThan(0.12);
      expect(median(off[kind])).toBeLessThan(median(raw[kind]));
      expect(Math.max(...off[kind])).toBeLessThan(0.7);
    },
  );

  it('the edge stays where the hand put it', () => {
    expect(Math.max(...off.edge)).toBe(0);
  });
});

describe('a box where nothing is seen', () => {
  it('keeps its own sides', () => {
    const patch = { width: 200, height: 200, light: new Float32Array(40_000).fill(120) };
    const box = { left: 60, right: 120, top: 50, bottom: 150 };
    const seen = outlineInBox(patch, box);
    expect([seen.zenith, seen.edge]).toEqual([
      [90, 50],
      [90, 150],
    ]);
    expect([seen.left[0], seen.right[0]]).toEqual([60, 120]);
  });
});
