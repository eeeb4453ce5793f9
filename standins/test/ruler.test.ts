import { findRuler, type Patch, type Px } from '@radiant/core';
import { type CameraSetting, handHeld, scalePoints, type ViewName } from '@radiant/standins';
import sharp from 'sharp';
import { patientOf, rendered } from './render.js';

const SIZE = { widthPx: 1000, heightPx: 667 };

function greyOf(rgba: Uint8ClampedArray | Buffer, width: number, height: number): Patch {
  const light = new Float32Array(width * height);
  for (let i = 0; i < light.length; i++)
    light[i] = 0.3 * (rgba[4 * i] as number) + 0.59 * (rgba[4 * i + 1] as number) + 0.11 * (rgba[4 * i + 2] as number);
  return { width, height, light };
}
const apart = (a: Px, b: Px) => Math.hypot(a[0] - b[0], a[1] - b[1]);

describe('a ruler in a photograph', () => {
  it.each<Partial<CameraSetting>>([{}, { rollDeg: -7.3, yawDeg: 6 }])(
    '%j is found end to end, its length within 0.3 %%',
    (turned) => {
      const name = 'Avocet';
      const { camera } = handHeld(patientOf(name).recipe, 'retracted-front');
      const setting = { ...camera, ...SIZE, ...turned };
      const { rgba } = rendered(name, 'retracted-front', setting);
      const found = findRuler(greyOf(rgba, SIZE.widthPx, SIZE.heightPx));
      const truth = scalePoints(setting);
      expect(found?.spaces).toBe(40);
      const length = apart(found?.from as Px, found?.to as Px) / apart(truth.from, truth.to);
      expect(Math.abs(length - 1)).toBeLessThan(0.003);
      // Where along the ticks they are set makes no difference; from the first to the last it does.
      expect(Math.abs((found?.from[0] ?? 0) - truth.from[0])).toBeLessThan(6);
    },
  );

  it.each<ViewName>(['close-smile', 'upper-occlusal'])('none is made up where none is: %s', (view) => {
    const { rgba, camera } = rendered('Avocet', view, { widthPx: 720, heightPx: 480 });
    expect(findRuler(greyOf(rgba, camera.widthPx, camera.heightPx))).toBeUndefined();
  });

  it('that another program has drawn, with half millimetres, on cloth, is found by its spaces', async () => {
    // 62 spaces of 9.4 px, every second tick longer, turned by 5°.
    const ticks = Array.from({ length: 63 }, (_, i) => `M${60.2 + 9.4 * i} 30v${i % 2 ? 22 : 34}`).join('');
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1000" height="700"><rect width="1000" height="700" fill="#557"/>
      <g transform="translate(120 300) rotate(5)"><rect width="710" height="90" fill="#e8e4d8"/>
      <path d="${ticks}" stroke="#222" stroke-width="1.8"/></g></svg>`;
    const { data } = await sharp(Buffer.from(svg)).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    const found = findRuler(greyOf(data, 1000, 700));
    expect(found?.spaces).toBe(62);
    expect(Math.abs(apart(found?.from as Px, found?.to as Px) / (62 * 9.4) - 1)).toBeLessThan(0.002);
  });
});
