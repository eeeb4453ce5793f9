import { type Fdi, type Mesh, mouthBy, RawJaw, type Vec3, writePly } from '@radiant/core';
import { type FieldJaw, fieldJaw } from '@radiant/standins';
import { truthOn } from './trials/jaws.js';
import { rotating, share } from './trials/rotating.js';

const MOUTHS = rotating(
  [21, 22, 23, 24].flatMap((seed) => (['upper', 'lower'] as const).map((jaw) => ({ seed, jaw }))),
  2,
);

describe.each(MOUTHS)(`a row that a hand tells something of, ${share} ($seed, $jaw)`, ({ seed, jaw }) => {
  let made: FieldJaw;
  let raw: RawJaw;
  let truth: Uint8Array;
  const [right, left] = jaw === 'upper' ? [10, 20] : [40, 30];
  beforeAll(() => {
    made = fieldJaw({ seed, jaw, stepMm: 0.45 });
    raw = new RawJaw(new Uint8Array(writePly(made.mesh)), () => undefined);
  });

  /** Teeth of which less than seven tenths are what they truly are. */
  const wrong = (): Fdi[] => {
    const own = raw.picking.picked.triangles;
    return made.teeth
      .map((t) => t.tooth)
      .filter((t) => t % 10 <= 5)
      .filter((t) => {
        let [both, either] = [0, 0];
        truth.forEach((x, i) => {
          if (x === t || own[i] === t) either++;
          if (x === t && own[i] === t) both++;
        });
        return both < 0.7 * either;
      });
  };
  /** The place on a tooth that is nearest to its edge. */
  const tip = (tooth: Fdi, mesh = made.mesh): { vertex: number; at: Vec3 } => {
    const p = mesh.positions;
    let best = -1;
    truth.forEach((x, t) => {
      if (x !== tooth) return;
      const v = mesh.triangles[3 * t]!;
      const up = (w: number) => (jaw === 'upper' ? 1 : -1) * p[3 * w + 2]!;
      if (best < 0 || up(v) < up(best)) best = v;
    });
    return { vertex: best, at: [p[3 * best]!, p[3 * best + 1]!, p[3 * best + 2]!] };
  };

  it('a record that calls a tooth missing which is there shifts the numbers; one click on it brings all right', () => {
    raw.missing = new Set([right + 2]);
    const { mesh } = raw.lay(jaw, 1);
    truth = truthOn((raw as unknown as { mended: Mesh }).mended, made);
    expect(wrong()).toContain(right + 2);
    raw.picking.add(tip(right + 2, mesh).vertex, right + 2);
    expect(wrong()).toEqual([]);
    // What was taken back is as it was.
    raw.picking.undo();
    expect(wrong()).toContain(right + 2);
    raw.missing = new Set();
  });

  it('a tooth that was taken away stays away when another is told, and comes back by a click', () => {
    const { mesh } = raw.lay(jaw, 1);
    truth = truthOn((raw as unknown as { mended: Mesh }).mended, made);
    expect(wrong()).toEqual([]);
    raw.picking.renumber(left + 4, undefined);
    raw.picking.add(tip(right + 1, mesh).vertex, right + 1);
    expect(wrong()).toEqual([left + 4]);
    raw.picking.add(tip(left + 4, mesh).vertex, left + 4);
    expect(wrong()).toEqual([]);
  });

  it('three clicks a little off, on canines that do not stand level, neither tip it nor shift its numbers', () => {
    const { mesh } = raw.lay(jaw, 1);
    const before = raw.picking.picked.crowns.size;
    const slip = (p: Vec3, by: Vec3): Vec3 => [p[0] + by[0], p[1] + by[1], p[2] + by[2]];
    const [a, b] = [tip(right + 1, mesh).at, tip(left + 1, mesh).at];
    const middle: Vec3 = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2, (a[2] + b[2]) / 2];
    raw.layBy([
      slip(middle, [0.4, 0.3, 0.5]),
      slip(tip(right + 3, mesh).at, [0.3, 0.4, 1.6]),
      slip(tip(left + 3, mesh).at, [-0.4, 0.2, 1.4]),
    ]);
    expect(raw.picking.picked.crowns.size).toBe(before);
    expect(wrong()).toEqual([]);
    // The plane of the clicks would be off by eight degrees.
    const z = mouthBy(raw.finish().frame)?.z[2] ?? 0;
    expect(Math.acos(Math.min(1, Math.abs(z))) * (180 / Math.PI)).toBeLessThan(3);
  });
});
