import {
  type ColourReading,
  type Lab,
  labOf,
  labOfLight,
  lightOf,
  READING_ZONES,
  type ReadingOf,
  type Spectrum,
  screenRgb,
  smoothestSpectrum,
} from '@radiant/core';
import { random } from './random.js';
import { RECIPES, type RecipeName } from './recipes.js';
import { darkLeaves } from './shading.js';

type Three = readonly [L: number, a: number, b: number];
/** At the gum, in the body, at the edge. */
type Zones = readonly [gum: Three, body: Three, edge: Three];

/** What the teeth of the sample patients truly look like, wet, CIELAB D65, before a root has darkened them. Invented. */
const TEETH: Readonly<Partial<Record<RecipeName, Readonly<Record<number, Zones>>>>> = {
  Avocet: {
    11: [
      [72.5, 1.2, 20.5],
      [75.5, 0.2, 17.5],
      [74, -1, 13.5],
    ],
    21: [
      [72.4, 1.2, 20.6],
      [75.3, 0.3, 17.6],
      [73.8, -0.9, 13.6],
    ],
  },
  Curlew: {
    21: [
      [72.8, 1.4, 20.8],
      [76, 0, 16.9],
      [74.2, -1.1, 13],
    ],
    11: [
      [72.8, 1.4, 20.8],
      [76, 0, 16.9],
      [74.2, -1.1, 13],
    ],
  },
  Redshank: {
    21: [
      [75.4, 0.6, 17.2],
      [78.2, -0.4, 14.1],
      [76.4, -1.4, 10.6],
    ],
    11: [
      [75.5, 0.6, 17.1],
      [78.4, -0.4, 13.9],
      [76.6, -1.4, 10.4],
    ],
  },
  Sandpiper: {
    12: [
      [74, 0.8, 18.8],
      [68.2, 4.9, 24],
      [81, -0.7, 8.9],
    ],
    11: [
      [74, 0.8, 18.8],
      [67.5, 5.2, 24.5],
      [81.5, -0.8, 8.5],
    ],
    21: [
      [74.1, 0.8, 18.7],
      [67.8, 5.1, 24.4],
      [81.4, -0.8, 8.6],
    ],
    22: [
      [73.8, 0.9, 18.9],
      [68.4, 4.8, 23.8],
      [80.8, -0.7, 9],
    ],
  },
};

/** And the stumps that are left of some of them. Invented. */
const STUMPS: typeof TEETH = {
  Sandpiper: {
    12: [
      [70.5, 2.6, 22],
      [68, 3.4, 23.5],
      [72.5, 1.2, 17],
    ],
    11: [
      [70.2, 2.8, 22.4],
      [67.2, 3.8, 24.2],
      [72.8, 1.1, 16.6],
    ],
    21: [
      [70.3, 2.7, 22.3],
      [67.4, 3.7, 24],
      [72.7, 1.2, 16.8],
    ],
    22: [
      [70.4, 2.7, 22.1],
      [68.1, 3.4, 23.4],
      [72.4, 1.3, 17.1],
    ],
  },
};

/** How the meter errs, one standard deviation: of the whole reading, and at each wavelength. */
export const SHADE_METER = { whole: 0.006, each: 0.003 } as const;
/** A dry tooth scatters at its surface: so much of what it does not turn back wet comes back dry. */
const DRY = 0.055;

/** What a wet body looks like once it has dried: lighter and less full. */
export const dried = (wet: Spectrum): Spectrum => wet.map((r) => r + DRY * (1 - r));

/** A colour as the meter reads it, with its noise. */
export function metered(truth: Spectrum, seed: number): Spectrum {
  const { normal } = random(seed);
  const whole = 1 + normal(SHADE_METER.whole);
  return truth.map((r) => Math.round(1e4 * Math.min(1, Math.max(0, r * whole + normal(SHADE_METER.each)))) / 1e4);
}

/** The middle of each zone's third of the face. */
const HEIGHTS = [5 / 6, 1 / 2, 1 / 6] as const;

/** What a dark root leaves of a colour: the same that the camera sees. */
function darkened(lab: Three, dark: number, height: number): Three {
  const left = darkLeaves(dark, height);
  const [L, a, b] = lab;
  const light = screenRgb({ L, a, b }).map((v, i) => lightOf(v) * (left[i] as number));
  const own = labOfLight(light as unknown as Three);
  return [own.L, own.a, own.b];
}

/** A body of a colour that a tooth can have. */
const bodyOf = ([L, a, b]: Three): Spectrum => smoothestSpectrum({ L, a, b } satisfies Lab) as Spectrum;

/**
 * What the simulated shade meter has read of a sample patient: spectra with noise.
 * @param at when, ISO 8601 @param dry teeth that had dried before they were read
 */
export function shadeReadings(
  patient: RecipeName,
  of: ReadingOf,
  at: string,
  dry: readonly number[] = [],
): ColourReading[] {
  return Object.entries((of === 'tooth' ? TEETH : STUMPS)[patient] ?? {}).flatMap(([n, zones]) =>
    READING_ZONES.map((zone, i): ColourReading => {
      const tooth = Number(n);
      const dark = (of === 'tooth' && RECIPES[patient].traits?.[tooth]?.dark) || 0;
      const truth = bodyOf(darkened(zones[i] as Three, dark, HEIGHTS[i] as number));
      const wet = !dry.includes(tooth);
      const seed = 1000 * tooth + 10 * i + (of === 'stump' ? 1 : 0) + patient.length * 7919;
      const spectrum = metered(wet ? truth : dried(truth), seed);
      return {
        tooth,
        of,
        zone,
        wet,
        at,
        device: 'shade meter, simulated',
        light: 'own',
        ...labOf(spectrum),
        spectrum: [...spectrum],
      };
    }),
  );
}
