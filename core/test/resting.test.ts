import {
  biteGrid,
  box,
  type Frame,
  heightField,
  type JawTooth,
  type Mesh,
  mergeMeshes,
  placeMesh,
  restingOn,
  sphere,
  turn,
  WORLD,
} from '@radiant/core';
import { AVOCET, makePatient } from '@radiant/standins';

const ball = (x: number, y: number, z: number, r = 2): Mesh =>
  placeMesh(sphere(r, 48), { ...WORLD, origin: [x, y, z] });
const tilted = (m: Mesh, xDeg: number, yDeg: number, up: number): Mesh =>
  placeMesh(m, { ...turn(turn(WORLD, 'x', xDeg), 'y', yDeg), origin: [0, 0, up] });

/** The least room between upper teeth and a lower jaw, mm, in fine columns. */
function leastRoom(upper: readonly JawTooth[], lower: Mesh): number {
  const grid = biteGrid([...upper, { tooth: 0, mesh: lower }], 0.1);
  const [over, under] = [heightField(upper, 'upper', grid), heightField([{ tooth: 0, mesh: lower }], 'lower', grid)];
  return over.z.reduce(
    (least, z, i) =>
      Number.isFinite(z - (under.z[i] as number)) ? Math.min(least, z - (under.z[i] as number)) : least,
    Infinity,
  );
}

describe('a lower jaw closed on an upper one', () => {
  // A plate with three feet under a level ceiling: it must come to stand on all three.
  const ceiling: JawTooth[] = [{ tooth: 16, mesh: placeMesh(box(60, 70, 2), { ...WORLD, origin: [0, 15, 11] }) }];
  const feet = mergeMeshes([ball(-15, 25, 0), ball(15, 25, 0), ball(0, 0, 0)]);

  it.each([
    [0, 0, -3],
    [1.2, 0, -2],
    [-0.8, 1.1, -4],
    [0.5, -1.4, 9],
  ])('tilted by %s° and %s° and %s mm off, a jaw of three cusps rests on all three', (xDeg, yDeg, up) => {
    const lower = tilted(feet, xDeg, yDeg, up);
    const { move, touching } = restingOn(ceiling, lower) as { move: Frame; touching: readonly number[] };
    const rests = placeMesh(lower, move);
    // Its tops, by hand: centre of each ball plus its radius.
    const n = feet.positions.length / 9;
    for (const foot of [0, 1, 2]) {
      let top = -Infinity;
      for (let v = foot * n; v < (foot + 1) * n; v++) top = Math.max(top, rests.positions[3 * v + 2] as number);
      expect(Math.abs(top - 10)).toBeLessThan(0.02);
    }
    expect(touching).toEqual([16]);
  });

  it('that would have to tilt further stops at two degrees and pierces nothing', () => {
    const lower = tilted(feet, 4, 0, 0);
    const { move } = restingOn(ceiling, lower) as { move: Frame };
    expect((Math.acos(move.z[2]) * 180) / Math.PI).toBeLessThan(2.01);
    expect(leastRoom(ceiling, placeMesh(lower, move))).toBeGreaterThan(-0.02);
  });

  it('beside the other there is nothing to rest on', () => {
    expect(restingOn(ceiling, placeMesh(feet, { ...WORLD, origin: [200, 0, 0] }))).toBeUndefined();
  });

  it('of the sample patient, opened and tilted by hand, touches teeth and goes back to within a few tenths', () => {
    const patient = makePatient(AVOCET);
    const upper = patient.teeth.map(({ tooth, mesh }) => ({ tooth, mesh }));
    const lower = mergeMeshes(patient.lower.map((t) => t.mesh));
    const opened = tilted(lower, 0.8, -0.6, -2.5);
    const { move, touching } = restingOn(upper, opened) as { move: Frame; touching: readonly number[] };
    const rests = placeMesh(opened, move);
    expect(touching.length).toBeGreaterThanOrEqual(2);
    expect(Math.abs(leastRoom(upper, rests))).toBeLessThan(0.06);
    // On both sides, or it would still rock.
    expect(touching.some((t) => t < 20) && touching.some((t) => t > 20)).toBe(true);
    let most = 0;
    for (let i = 2; i < rests.positions.length; i += 3)
      most = Math.max(most, Math.abs((rests.positions[i] as number) - (lower.positions[i] as number)));
    expect(most).toBeLessThan(1.2);
  });
});
