import {
  alignOnTwo,
  checkScale,
  type Figure,
  mirrored,
  moved,
  PUPILS_MM,
  type Px,
  printed,
  pupils,
  Refusal,
  scaleDoubts,
  scaleFrom,
  snapToEdge,
  toothWidth,
} from '@radiant/core';

describe('a place snapped to the strongest edge near it', () => {
  /** A step of light across a straight edge at `at` px, turned by `deg`, smoothed as a lens does. */
  const patch = (at: number, deg: number, contrast = 150) => {
    const size = 61;
    const t = (deg * Math.PI) / 180;
    const light = new Float32Array(size * size);
    for (let y = 0; y < size; y++) {
      for (let x = 0; x < size; x++) {
        const d = (x + 0.5 - 30) * Math.cos(t) + (y + 0.5 - 30) * Math.sin(t) - at;
        light[y * size + x] = 60 + contrast / (1 + Math.exp(-d / 0.8));
      }
    }
    return { width: size, height: size, light };
  };

  it.each([
    [0, 0],
    [2.3, 0],
    [-3.7, 30],
    [1.25, 75],
    [4.6, 200],
  ])('%d px off, turned %d°: found to a tenth of a pixel', (at, deg) => {
    const found = snapToEdge(patch(at, deg), [30, 30], 9) as Px;
    const t = (deg * Math.PI) / 180;
    expect(Math.abs((found[0] - 30) * Math.cos(t) + (found[1] - 30) * Math.sin(t) - at)).toBeLessThan(0.1);
    expect(Math.hypot(found[0] - 30, found[1] - 30)).toBeLessThan(10);
  });

  it('stays away where there is no edge, or none within reach', () => {
    expect(snapToEdge(patch(0, 0, 2), [30, 30], 9)).toBeUndefined();
    expect(snapToEdge(patch(20, 0), [30, 30], 9)).toBeUndefined();
  });
});

describe('a known length of another kind', () => {
  const ends = { from: [100, 200], to: [700, 200] } as { from: Px; to: Px };

  it('a printed scale is as sure as its ends, a tooth and the pupils also as their own millimetres', () => {
    const scale = scaleFrom(ends, printed(60));
    const mean = scaleFrom(ends, pupils());
    const measured = scaleFrom(ends, pupils(62));
    expect(scale.value).toBeCloseTo(0.1, 9);
    expect(mean.value).toBeCloseTo(PUPILS_MM.value / 600, 9);
    // The mean of all adults is off by up to 7.5 mm in 63.
    expect(mean.pm / mean.value).toBeCloseTo(Math.hypot(7.5 / 63.4, (1.96 * Math.SQRT2 * 0.4) / 63.4), 4);
    expect(measured.pm).toBeLessThan(mean.pm / 4);
    expect(mean.working.inputs[0]?.source.text).toMatch(/Dodgson 2004.*from memory/);
  });

  it('a tooth’s width is taken as the front shows it, and its share’s spread counts', () => {
    const lateral = toothWidth(12, 6.5, 0.1);
    const central = toothWidth(11, 8.5, 0.1);
    expect(lateral.mm).toBeLessThan(6.5 * 0.9);
    expect(central.mm).toBeGreaterThan(8.5 * 0.96);
    expect(lateral.pmMm / lateral.mm).toBeGreaterThan(central.pmMm / central.mm);
  });

  it('a second length that agrees within the errors is no doubt; one that does not is', () => {
    const scale = scaleFrom(ends, printed(60));
    const second = { from: [0, 0], to: [0, 85] } as { from: Px; to: Px };
    expect(checkScale(scale, second, printed(8.5)).agrees).toBe(true);
    const off = checkScale(scale, second, printed(7.5));
    expect(off.agrees).toBe(false);
    expect(scaleDoubts({ scale, ends, way: 'scale', check: off })).toEqual([
      expect.stringMatching(/measures 8\.5 mm and should be 7\.5/),
    ]);
  });

  it('a scale askew to the teeth, unlike sides and an unsure length are each told; a good one is not', () => {
    const scale = scaleFrom(ends, printed(60));
    expect(scaleDoubts({ scale, ends, way: 'scale', rollDeg: 1 })).toEqual([]);
    expect(scaleDoubts({ scale, ends, way: 'scale', rollDeg: 12 })).toEqual([expect.stringMatching(/askew/)]);
    // Set from the other end it is the same scale.
    expect(scaleDoubts({ scale, ends: { from: ends.to, to: ends.from }, way: 'scale', rollDeg: 1 })).toEqual([]);
    const sides = (right: number) =>
      ({
        13: { distal: [500 - right, 300] },
        11: { mesial: [500, 300] },
        21: { mesial: [500, 300] },
        23: { distal: [700, 300] },
      }) as Record<number, Record<string, Px>>;
    expect(scaleDoubts({ scale, ends, way: 'scale', landmarks: sides(200) })).toEqual([]);
    expect(scaleDoubts({ scale, ends, way: 'scale', landmarks: sides(225) })).toEqual([
      expect.stringMatching(/right side looks 12 % wider/),
    ]);
    expect(scaleDoubts({ scale, ends, way: 'pupils', halves: { right: 100, left: 108 } })).toEqual([]);
    expect(scaleDoubts({ scale, ends, way: 'pupils', halves: { right: 100, left: 120 } })).toEqual([
      expect.stringMatching(/left half of the face looks 18 % wider/),
    ]);
    const unsure: Figure = scaleFrom(ends, pupils());
    expect(scaleDoubts({ scale: unsure, ends, way: 'pupils' })).toEqual([expect.stringMatching(/±12 %/)]);
  });
});

describe('the mirrored place', () => {
  it('with no pair yet lies across the middle of the picture', () =>
    expect(mirrored([300, 200], [], 500)).toEqual([700, 200]));

  it('follows the pairs that are set: their middle, and square to their line', () => {
    const t = (10 * Math.PI) / 180;
    const turned = (x: number, y: number): Px => [
      600 + x * Math.cos(t) - y * Math.sin(t),
      400 + x * Math.sin(t) + y * Math.cos(t),
    ];
    const pairs = [[turned(-50, 0), turned(50, 0)] as const, [turned(-120, 30), turned(120, 30)] as const];
    const [x, y] = mirrored(turned(-80, -60), pairs, 0);
    expect(x).toBeCloseTo(turned(80, -60)[0], 6);
    expect(y).toBeCloseTo(turned(80, -60)[1], 6);
  });
});

describe('two photographs on two points', () => {
  it('turn, enlargement and shift are found again', () => {
    const s = { a: 0.9, b: 0.2, tx: 40, ty: -13 };
    const from: [Px, Px] = [
      [100, 200],
      [620, 260],
    ];
    const found = alignOnTwo(from, [moved(s, from[0]), moved(s, from[1])]);
    for (const k of ['a', 'b', 'tx', 'ty'] as const) expect(found[k]).toBeCloseTo(s[k], 9);
    expect(moved(found, [333, 444])[0]).toBeCloseTo(moved(s, [333, 444])[0], 9);
  });

  it('two points at one place lay nothing', () => {
    expect(() =>
      alignOnTwo(
        [
          [5, 5],
          [6, 6],
        ],
        [
          [0, 0],
          [90, 0],
        ],
      ),
    ).toThrow(Refusal);
    expect(() =>
      alignOnTwo(
        [
          [0, 0],
          [90, 0],
        ],
        [
          [5, 5],
          [5, 5],
        ],
      ),
    ).toThrow(Refusal);
  });
});
