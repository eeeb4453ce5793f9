import {
  CERAMIC_CLASSES,
  type ColourReading,
  ceramicIn,
  ceramicOf,
  ceramicOfPlate,
  deltaE00,
  evenSpectrum,
  LETTER_SCALE,
  labOf,
  type MeasuredCeramic,
  matched,
  measuredOptics,
  over,
  plateOfRows,
  readingsOfRows,
  roughColour,
  rowsOfPlate,
  rowsOfReadings,
  rowsOfScale,
  shadeOf,
  shadesOfRows,
  sheetOf,
  smoothestSpectrum,
  throughSurface,
  WAVELENGTHS,
} from '@radiant/core';
import { converter } from 'culori';

const SPECTRUM = [...(smoothestSpectrum(shadeOf('A2').lab) as Float64Array)];
const READING: ColourReading = {
  tooth: 11,
  of: 'tooth',
  zone: 'body',
  wet: true,
  at: '2026-11-20T09:10:00.000Z',
  device: 'a meter',
  ...labOf(Float64Array.from(SPECTRUM)),
  spectrum: SPECTRUM,
};
const rows = (change: Record<string, string> = {}) => {
  const [head, line] = rowsOfReadings([READING]) as [string[], string[]];
  return [head, line.map((cell, i) => change[head[i] as string] ?? cell)];
};
const without = (table: string[][], column: string) => {
  const at = (table[0] as string[]).indexOf(column);
  return table.map((row) => row.filter((_, i) => i !== at));
};

describe('a table of readings', () => {
  it('comes back as it went, and the colour is that of its spectrum', () => {
    const [back] = readingsOfRows(rowsOfReadings([READING]));
    expect(back).toMatchObject({ tooth: 11, of: 'tooth', zone: 'body', wet: true, at: READING.at, device: 'a meter' });
    expect(deltaE00(back as ColourReading, READING)).toBeLessThan(0.01);
    expect(readingsOfRows(rows({ L: '20', a: '0', b: '0' }))[0]?.L).toBeCloseTo(READING.L, 1);
  });

  it('without a spectrum its numbers count, with points or commas, and columns stand in any order', () => {
    const table = [
      ['b', 'zone', 'L', 'a', 'of', 'tooth', 'wet', 'at', 'remark'],
      ['16,7', 'gum', '76,0', '-0.1', 'Stump', '21', 'DRY', '2026-11-20', 'x'],
    ];
    expect(readingsOfRows(table)).toEqual([
      { tooth: 21, of: 'stump', zone: 'gum', wet: false, at: '2026-11-20T00:00:00.000Z', L: 76, a: -0.1, b: 16.7 },
    ]);
  });

  it('a device that writes “560 nm” and finer steps is read at the steps that count', () => {
    const [head, line] = rows();
    const finer = [
      [...head.map((c) => (/^\d+$/.test(c) ? `${c} nm` : c)), '405'],
      [...line, '0.9'],
    ];
    expect(readingsOfRows(finer)[0]?.spectrum).toHaveLength(31);
  });

  it.each([
    ['a gap', rows({ 540: '' }), 'Line 2: At 540 nm nothing is written: the spectrum has a gap.'],
    ['below nothing', rows({ 540: '-0.1' }), 'Line 2: At 540 nm the spectrum reads -0.1; it lies between 0 and 1.05.'],
    ['above 1.05', rows({ 700: '1.06' }), 'Line 2: At 700 nm the spectrum reads 1.06; it lies between 0 and 1.05.'],
    ['a wrong step', without(rows(), '410'), 'A spectrum goes from 400 to 700 nm by 10; the table has no column 410.'],
    ['no tooth', rows({ tooth: '19' }), 'Line 2: “19” is no tooth in FDI numbers.'],
    ['an unknown zone', rows({ zone: 'neck' }), 'Line 2: “neck” in the column “zone”; known are gum, body, edge.'],
    ['no moment', rows({ at: 'yesterday' }), 'Line 2: “yesterday” in the column “at” is no moment (ISO 8601).'],
    ['a missing column', without(rows(), 'wet'), 'The table has no column “wet”; a table of readings needs it.'],
    ['nothing below', [rows()[0] as string[]], 'The table has no line below its head.'],
    ['one zone twice', [...rows(), rows()[1] as string[]], 'Line 3: tooth 11, body was read in line 2 already.'],
    [
      'neither colour nor spectrum',
      [
        ['tooth', 'of', 'zone', 'wet', 'at'],
        ['11', 'tooth', 'gum', 'wet', '2026-11-20'],
      ],
      'The table has neither the columns L, a and b nor columns of wavelengths.',
    ],
    [
      'L out of range',
      [
        ['tooth', 'of', 'zone', 'wet', 'at', 'L', 'a', 'b'],
        ['11', 'tooth', 'gum', 'wet', '2026-11-20', '140', '0', '0'],
      ],
      'Line 2: L* is 140; it lies between 0 and 100.',
    ],
    [
      'percent',
      rows(Object.fromEntries(WAVELENGTHS.map((nm, i) => [nm, String(100 * (SPECTRUM[i] as number))]))),
      'Line 2: The reflectances are written in percent; write them from 0 to 1.',
    ],
  ])('refuses %s with a sentence', (_, table, sentence) => {
    expect(() => readingsOfRows(table)).toThrow(sentence);
  });
});

describe('a scale of shades', () => {
  it('comes back as it went', () => {
    expect(shadesOfRows(rowsOfScale(LETTER_SCALE))).toEqual(LETTER_SCALE.shades);
  });

  it('of reflectances has the colours of these', () => {
    const table = [
      ['shade', ...WAVELENGTHS.map(String)],
      ['mine', ...SPECTRUM.map(String)],
    ];
    expect(deltaE00(shadesOfRows(table)[0]?.lab ?? { L: 0, a: 0, b: 0 }, shadeOf('A2').lab)).toBeLessThan(0.05);
  });

  it.each([
    [
      'a shade twice',
      [
        ['shade', 'L', 'a', 'b'],
        ['A', '70', '0', '10'],
        ['a', '71', '0', '10'],
      ],
      'Line 3: The shade a stands twice.',
    ],
    [
      'no name',
      [
        ['shade', 'L', 'a', 'b'],
        ['', '70', '0', '10'],
      ],
      'Line 2: The shade has no name.',
    ],
    [
      'no number',
      [
        ['shade', 'L', 'a', 'b'],
        ['A', 'light', '0', '10'],
      ],
      'Line 2: “light” in the column “L” is no number.',
    ],
  ])('refuses %s with a sentence', (_, table, sentence) => {
    expect(() => shadesOfRows(table)).toThrow(sentence);
  });
});

describe('a ceramic read over black and white', () => {
  const truth = ceramicIn(ceramicOf('glass-medium'), shadeOf('A2').lab);
  const [black, white] = [evenSpectrum(0.03), evenSpectrum(0.85)];
  const seen = (inner: Float64Array) => [...throughSurface(inner)];
  const plate = (mm: number): MeasuredCeramic => ({
    name: 'own',
    mm,
    overBlack: seen(over(sheetOf(truth, mm), black)),
    overWhite: seen(over(sheetOf(truth, mm), white)),
    blackGround: seen(black),
    whiteGround: seen(white),
  });

  it('gives back the constants that it was made of, to 1e-9', () => {
    const { K, S } = measuredOptics(plate(1));
    for (let i = 0; i < S.length; i++) {
      expect(S[i]).toBeCloseTo(truth.S[i] as number, 9);
      expect(K[i]).toBeCloseTo(truth.K[i] as number, 9);
    }
  });

  it('its table comes back, and then it looks like the ceramic itself over any stump and at any thickness', () => {
    const back = ceramicOfPlate(plateOfRows('own', rowsOfPlate(plate(0.8))));
    const q = {
      stump: shadeOf('C3').lab,
      wanted: shadeOf('A2').lab,
      cement: 'clear',
      enamelMm: 0.5,
      cutMm: 0.5,
    } as const;
    for (const ceramicMm of [0.4, 0.9, 1.6]) {
      const [own] = matched({ ...q, ceramicMm }, [back]).candidates;
      const [made] = matched({ ...q, ceramicMm }, [
        { id: 'x', name: 'x', asRead: false, madeIn: () => truth },
      ]).candidates;
      // A table is written with five places.
      expect(deltaE00(own?.planned.lab ?? q.wanted, made?.planned.lab ?? q.stump)).toBeLessThan(0.05);
    }
    expect(back.asRead).toBe(true);
  });

  it('keeps its own shade whatever is wanted, where a class follows', () => {
    const own = ceramicOfPlate(plate(1));
    expect(own.madeIn(shadeOf('B1').lab)).toBe(own.madeIn(shadeOf('C4').lab));
    expect(CERAMIC_CLASSES.some((c) => c.id === own.id)).toBe(false);
  });

  const table = rowsOfPlate(plate(1));
  it.each([
    [
      'black brighter than white',
      { ...plate(1), overBlack: plate(1).overWhite, overWhite: plate(1).overBlack },
      /reads no brighter over white/,
    ],
    ['too thick a plate', { ...plate(1), mm: 5 }, /The plate is 5 mm thick; it is read from 0.2 to 3 mm/],
  ] as const)('refuses %s with a sentence', (_, own, sentence) => {
    expect(() => plateOfRows('own', rowsOfPlate(own))).toThrow(sentence);
  });
  it.each([
    [
      'a reading that is missing',
      table.slice(0, 4),
      'The reading “white ground” is missing: without data nothing is worked out.',
    ],
    ['one that stands twice', [...table, table[1] as string[]], 'Line 6: “over black” stands twice.'],
    [
      'two thicknesses',
      [...table.slice(0, 4), ['white ground', '2', ...(table[4] as string[]).slice(2)]],
      'Line 5: The plate was 1 mm thick before, here 2.',
    ],
    [
      'an unknown reading',
      [table[0] as string[], ['over grey', ...(table[1] as string[]).slice(1)]],
      '“over grey” is no reading of a plate',
    ],
  ])('refuses %s with a sentence', (_, rows, sentence) => {
    expect(() => plateOfRows('own', rows)).toThrow(sentence);
  });
});

describe('a rough colour by a grey card', () => {
  const toRgb = converter('rgb');
  const toLab = converter('lab65');
  /** A colour under a cast of light, as a camera writes it. */
  const pictured = (lab: { L: number; a: number; b: number }, cast: readonly [number, number, number]) => {
    const own = toRgb({ mode: 'lab65', l: lab.L, a: lab.a, b: lab.b });
    if (!own) throw new Error('No screen shows it.');
    const { r, g, b } = own;
    const linear = (v: number) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
    const back = (v: number) => 255 * (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055);
    return [r, g, b].map((v, i) => back(linear(v) * (cast[i] as number))) as unknown as readonly [
      number,
      number,
      number,
    ];
  };
  const GREY = { L: 49.5, a: 0, b: 0 };

  it.each([
    [1, 1, 1],
    [0.8, 0.62, 0.4],
    [0.5, 0.6, 0.75],
  ] as const)('finds the colour under a cast of %s %s %s, against culori', (...cast) => {
    const truth = shadeOf('A3').lab;
    const told = roughColour(pictured(GREY, cast), pictured(truth, cast));
    expect(deltaE00(told, truth)).toBeLessThan(0.3);
    const there = toRgb({ mode: 'lab65', l: truth.L, a: truth.a, b: truth.b });
    const back = there && toLab(there);
    expect(deltaE00(told, { L: back?.l ?? 0, a: back?.a ?? 0, b: back?.b ?? 0 })).toBeLessThan(0.3);
  });

  it.each([
    ['a burnt card', [252, 252, 252], [200, 190, 160], 'The grey card is burnt out there'],
    ['a burnt tooth', [120, 120, 120], [254, 240, 230], 'The tooth is burnt out there'],
    ['a card in the dark', [8, 8, 8], [100, 90, 80], 'The grey card is too dark there'],
    ['a card of another colour', [200, 90, 60], [100, 90, 80], 'This is no grey card'],
  ] as const)('refuses %s with a sentence', (_, card, spot, sentence) => {
    expect(() => roughColour(card, spot)).toThrow(sentence);
  });
});
