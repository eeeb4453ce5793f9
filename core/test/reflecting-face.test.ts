import { type Frame, LINE_ANGLE_DEG, type Mesh, reflectingFace } from '../src/index.js';

/** A closed upright elliptic cylinder, half as deep as `b` and half as wide as `a`, in the mouth's axes. */
function cylinder(a: number, b: number, heightMm = 10, around = 720): Mesh {
  const positions = new Float64Array(3 * 2 * around);
  const triangles: number[] = [];
  for (let i = 0; i < around; i++) {
    const t = (2 * Math.PI * i) / around;
    for (const k of [0, 1]) positions.set([a * Math.cos(t), b * Math.sin(t), k * heightMm], 3 * (2 * i + k));
    const j = (i + 1) % around;
    triangles.push(2 * i, 2 * j, 2 * i + 1, 2 * j, 2 * j + 1, 2 * i + 1);
  }
  return { positions, triangles: Uint32Array.from(triangles) };
}

const UPRIGHT: Frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };
const TAN = Math.tan((LINE_ANGLE_DEG * Math.PI) / 180);
/** Where an ellipse has the slope of a line angle: dy/dx = (b/a) · x / √(a² − x²). */
const half = (a: number, b: number) => a / Math.sqrt(1 + (b / (a * TAN)) ** 2);

describe('the reflecting face between the line angles', () => {
  it.each([
    [5, 5],
    [4.2, 3],
    [3.2, 4],
    [4.5, 1.6],
  ])('of an elliptic cylinder of %f by %f mm is that of its equation', (a, b) => {
    const face = reflectingFace(cylinder(a, b), UPRIGHT, 10);
    // The slope is taken over 0.8 mm of the surface, which rounds it a little.
    expect(face?.widthMm).toBeGreaterThan(2 * half(a, b) - 0.12);
    expect(face?.widthMm).toBeLessThan(2 * half(a, b) + 0.12);
    expect(face?.rightMm).toBeCloseTo(-(face?.leftMm ?? 0), 6);
  });

  it('of a round one is its radius: at 30° the sine is a half', () => {
    expect(reflectingFace(cylinder(5, 5), UPRIGHT, 10)?.widthMm).toBeCloseTo(5, 1);
  });

  it('is the same wherever the tooth stands and however it is turned', () => {
    const plain = reflectingFace(cylinder(4.2, 3), UPRIGHT, 10);
    const mesh = cylinder(4.2, 3);
    const [c, s] = [Math.cos(0.7), Math.sin(0.7)];
    for (let i = 0; i < mesh.positions.length; i += 3) {
      const [x, y] = [mesh.positions[i] as number, mesh.positions[i + 1] as number];
      mesh.positions.set([c * x - s * y + 8, s * x + c * y - 3], i);
      mesh.positions[i + 2] = (mesh.positions[i + 2] as number) + 2;
    }
    const turned: Frame = { origin: [8, -3, 2], x: [c, s, 0], y: [-s, c, 0], z: [0, 0, 1] };
    expect(reflectingFace(mesh, turned, 10)?.widthMm).toBeCloseTo(plain?.widthMm ?? 0, 2);
  });

  it('grows where the corners are moved outwards, and says how far it may be off', () => {
    const [narrow, wide] = [cylinder(4, 3.4), cylinder(4, 1.5)].map((m) => reflectingFace(m, UPRIGHT, 10));
    expect((wide?.widthMm ?? 0) - (narrow?.widthMm ?? 0)).toBeGreaterThan(1);
    expect(narrow?.pm).toBeGreaterThan(0.1);
    expect(wide?.pm).toBeLessThan(narrow?.pm ?? 0);
  });

  it('is not told where nothing turns away', () => {
    const sheet: Mesh = {
      positions: Float64Array.from([-4, 0, 0, 4, 0, 0, 4, 0, 10, -4, 0, 10]),
      triangles: Uint32Array.from([0, 1, 2, 0, 2, 3]),
    };
    expect(reflectingFace(sheet, UPRIGHT, 10)).toBeUndefined();
  });
});
