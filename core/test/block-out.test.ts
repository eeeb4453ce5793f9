import { blockOut, type Vec3, type Wall } from '@radiant/core';

const ANGLES = 64;
const DIRECTIONS = Array.from({ length: ANGLES }, (_, k): Vec3 => {
  const a = (2 * Math.PI * (k + 0.5)) / ANGLES;
  return [Math.cos(a), -Math.sin(a), 0];
});

/** A pillar around z, a row each half millimetre from the top down, closed to a tip below. */
function pillar(radii: readonly number[], side: (k: number, row: number) => number = () => 0): Wall {
  const at = new Float64Array(3 * (ANGLES * radii.length + 1));
  for (const [row, r] of radii.entries())
    for (const [k, u] of DIRECTIONS.entries()) {
      const own = r + side(k, row);
      at.set([own * u[0], own * u[1], 10 - 0.5 * row], 3 * (row * ANGLES + k));
    }
  at.set([0, 0, 10 - 0.5 * (radii.length - 1)], 3 * ANGLES * radii.length);
  return { angles: ANGLES, rows: radii.length, at, directions: DIRECTIONS };
}
const radius = ({ at }: Wall, i: number) => Math.hypot(at[3 * i] as number, at[3 * i + 1] as number);

describe('what is hidden on the way out', () => {
  it('is filled up to the wall that stands before it: a waist over a foot of 3 mm comes to 3 mm', () => {
    const wall = pillar([3, 3, 2.2, 2, 2.2, 3, 3]);
    const less = blockOut(wall, () => 4, [0, 0, -1]);
    for (let k = 0; k < ANGLES; k++) {
      // A chord of the foot lies a little within its circle.
      expect(radius(wall, 3 * ANGLES + k)).toBeGreaterThan(3 * Math.cos(Math.PI / ANGLES) - 1e-9);
      expect(radius(wall, 3 * ANGLES + k)).toBeLessThan(3.01);
      expect(less.get(3 * ANGLES + k)).toBeCloseTo(1, 1);
    }
  });

  it('is not filled beyond the tooth: what can’t come out is not cut at all there', () => {
    const wall = pillar([3, 3, 2.2, 2, 2.2, 3, 3]);
    blockOut(wall, (i) => (Math.floor(i / ANGLES) === 3 ? 2.5 : 4), [0, 0, -1]);
    expect(radius(wall, 3 * ANGLES)).toBeCloseTo(2.5, 9);
  });

  it('is nothing on a cone that narrows towards the way, nor where nothing is cut', () => {
    const cone = pillar([4, 3.6, 3.2, 2.8, 2.4, 2]);
    expect(blockOut(cone, () => 5, [0, 0, -1]).size).toBe(0);
    const waist = pillar([3, 2, 3]);
    expect(blockOut(waist, (i) => radius(waist, i), [0, 0, -1]).size).toBe(0);
  });

  it('is a groove in the side, behind the wing that stands before it; what remains is hidden no more', () => {
    const groove = (k: number) => (k >= 58 ? -0.8 : 0);
    const wall = pillar([3, 3, 3, 3], groove);
    // The back is not cut.
    const whole = (i: number) => (i % ANGLES >= 58 || i % ANGLES < 32 ? 4 : radius(wall, i));
    const hidden = blockOut(wall, whole, [0, -1, 0]);
    expect(hidden.size).toBeGreaterThan(8);
    expect([...hidden.keys()].every((i) => i % ANGLES >= 58)).toBe(true);
    for (const mm of blockOut(wall, whole, [0, -1, 0]).values()) expect(mm).toBeLessThan(0.02);
  });
});
