import { measureTeeth, scaleOf } from '@radiant/core';
import {
  AVOCET,
  makePatient,
  project,
  RETRACTED_FRONT,
  SCALE_PLANE_Y,
  scalePoints,
  truePoints,
} from '@radiant/standins';
import { rendered } from './render.js';

/** The rendered picture is measured as an eye does: by where its brightness changes. */
describe('a rendered photograph, measured from its pixels', () => {
  const { rgba, camera } = rendered('Avocet', 'retracted-front', {}, { jaws: 'upper' });
  const { widthPx: w } = camera;
  const channel = (x: number, y: number, k: number) => rgba[4 * (Math.round(y) * w + Math.round(x)) + k] as number;
  const luminance = (x: number, y: number) =>
    0.3 * channel(x, y, 0) + 0.59 * channel(x, y, 1) + 0.11 * channel(x, y, 2);

  /** The place between two pixels where a profile crosses a level, by straight interpolation. */
  function crossing(from: number, to: number, at: (t: number) => number, level: number): number {
    const step = Math.sign(to - from);
    for (let t = from; t !== to; t += step) {
      const a = at(t) - level;
      const b = at(t + step) - level;
      if (a <= 0 !== b <= 0) return t + (step * a) / (a - b);
    }
    throw new Error('no edge there');
  }

  /**
   * Where a tooth ends along a row: at the first darkness, or, where it touches its neighbour, at the darkest place of
   * the contact.
   */
  function border(from: number, to: number, y: number): number {
    try {
      return crossing(from, to, (x) => luminance(x, y), 90);
    } catch {
      const step = Math.sign(to - from);
      let darkest = from;
      for (let x = from; x !== to; x += step) if (luminance(x, y) < luminance(darkest, y)) darkest = x;
      return darkest;
    }
  }

  /** Middle of the dark tick nearest to x on the scale's row. */
  function tick(x: number, y: number): number {
    let weight = 0;
    let sum = 0;
    for (let i = Math.round(x) - 8; i <= Math.round(x) + 8; i++) {
      const dark = Math.max(0, 200 - luminance(i, y));
      weight += dark;
      sum += dark * i;
    }
    return sum / weight;
  }

  const nominal = scalePoints(camera);
  const row = Math.round(nominal.from[1] + 20);
  const scale = scaleOf({
    from: [tick(nominal.from[0], row), row],
    to: [tick(nominal.to[0], row), row],
    mm: nominal.mm,
  });

  it('its scale reads the camera’s millimetres a pixel to one in a thousand', () => {
    expect(scale.value / (camera.fieldMm / camera.widthPx)).toBeCloseTo(1, 3);
  });

  it('the ticks of the scale stand a millimetre apart', () => {
    const perMm = 1 / scale.value;
    for (const mm of [5, 10, 20, 35])
      expect((tick(nominal.from[0] + mm * perMm, row) - tick(nominal.from[0], row)) * scale.value).toBeCloseTo(mm, 1);
  });

  it('the width of each central from dark to dark or to the contact, is the modelled one within 0.1 mm', () => {
    for (const own of makePatient(AVOCET).teeth.filter((t) => t.tooth % 10 === 1)) {
      const p = truePoints(own);
      const [ml] = project(camera, p.mesial);
      const [dl] = project(camera, p.distal);
      const y = Math.round(project(camera, p.edge)[1] - 24);
      const middle = Math.round((ml + dl) / 2);
      // Along this row the outline's own widest visible places of the mesh are the truth.
      let left = Infinity;
      let right = -Infinity;
      const pos = own.mesh.positions;
      for (let i = 0; i < pos.length; i += 3) {
        const [px, py] = project(camera, [pos[i] as number, pos[i + 1] as number, pos[i + 2] as number]);
        if (Math.abs(py - y) > 3) continue;
        left = Math.min(left, px);
        right = Math.max(right, px);
      }
      const seen = border(middle, middle + 125, y) - border(middle, middle - 125, y);
      expect(Math.abs(seen - (right - left)) * scale.value).toBeLessThan(0.1);
    }
  });

  it('the length of each central from gum to edge along its zenith, by colour, is the modelled one within 0.1 mm', () => {
    for (const own of makePatient(AVOCET).teeth.filter((t) => t.tooth % 10 === 1)) {
      const p = truePoints(own);
      const [x, top] = project(camera, p.zenith);
      const [ex, bottom] = project(camera, p.edge);
      const middle = Math.round((top + bottom) / 2);
      // Gum is red: its green falls far below its red; enamel's hardly does.
      const redness = (y: number) => channel(x, y, 0) - channel(x, y, 1);
      const gumLine = crossing(middle, Math.round(top) - 30, redness, 45);
      const edge = crossing(middle, Math.round(bottom) + 30, (y) => luminance(ex, y), 80);
      expect(Math.abs(edge - gumLine - (bottom - top)) * scale.value).toBeLessThan(0.1);
    }
  });

  it('looks like enamel, gum and darkness where they are', () => {
    const tooth = makePatient(AVOCET).teeth.find((t) => t.tooth === 11) as NonNullable<
      ReturnType<typeof makePatient>['teeth'][0]
    >;
    const p = truePoints(tooth);
    const [x, zy] = project(camera, p.zenith);
    expect(luminance(x, zy + 90)).toBeGreaterThan(150);
    expect(channel(x, zy - 60, 0) - channel(x, zy - 60, 1)).toBeGreaterThan(50);
    expect(luminance(x, zy + 330)).toBeLessThan(60);
  });
});

it('projection keeps millimetres in the plane of the scale, and things behind it look smaller', () => {
  const a = project(RETRACTED_FRONT, [0, SCALE_PLANE_Y, 0]);
  const b = project(RETRACTED_FRONT, [10, SCALE_PLANE_Y, 0]);
  expect(b[0] - a[0]).toBeCloseTo((10 * RETRACTED_FRONT.widthPx) / RETRACTED_FRONT.fieldMm, 9);
  const c = project(RETRACTED_FRONT, [10, SCALE_PLANE_Y + 42, 0]);
  expect((c[0] - a[0]) / (b[0] - a[0])).toBeCloseTo(420 / 462, 9);
});

it('the same seed makes the same patient, another seed another', () => {
  const one = makePatient(AVOCET);
  expect(makePatient(AVOCET).gum.positions).toEqual(one.gum.positions);
  const set = (t: (typeof one.teeth)[0]) =>
    Object.fromEntries(Object.entries(truePoints(t)).map(([k, p]) => [k, project(RETRACTED_FRONT, p)]));
  const m = measureTeeth(
    { 11: set(one.teeth.find((t) => t.tooth === 11) as (typeof one.teeth)[0]) },
    scaleOf(scalePoints(RETRACTED_FRONT)),
  );
  expect(m.find((q) => q.tooth === 11)?.length?.value).toBeCloseTo(9.9, 0);
});
