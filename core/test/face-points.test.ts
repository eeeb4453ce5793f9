import { facePoints, pointsOf } from '../src/index.js';

/** A face as the model gives it: every point tells its own number. */
const mesh = Float32Array.from({ length: 2 * 478 }, (_, i) => (i % 2 === 0 ? i / 2 : 1000 + (i - 1) / 2));

describe('the points of a face on a portrait', () => {
  it('are places that a portrait has, each once', () => {
    const ids = facePoints(mesh).map((p) => p.id);
    const portrait = pointsOf('portrait-rest').map((p) => p.id);
    expect(new Set(ids).size).toBe(ids.length);
    for (const id of ids) expect(portrait).toContain(id);
  });

  // The numbers of the model's published map: irises 468 and 473, corners of the mouth 61 and 291, under the nose 2.
  it.each([
    ['pupil-right', 468],
    ['pupil-left', 473],
    ['corner-right', 61],
    ['corner-left', 291],
    ['nose-base', 2],
  ])('%s is the model’s point %i', (id, number) => {
    expect(facePoints(mesh).find((p) => p.id === id)?.px).toEqual([number, 1000 + number]);
  });

  it('are none where the model gave no whole face', () => {
    expect(facePoints(new Float32Array(2 * 468))).toEqual([]);
    expect(facePoints(new Float32Array())).toEqual([]);
  });
});
