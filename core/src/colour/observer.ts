import { NM } from './wavelengths.js';

/** Colour-matching functions of the CIE 1931 2° observer, 400 to 700 nm by 10 (ISO/CIE 11664-1). */
export const OBSERVER = {
  x: [
    0.01431, 0.04351, 0.13438, 0.2839, 0.34828, 0.3362, 0.2908, 0.19536, 0.09564, 0.03201, 0.0049, 0.0093, 0.06327,
    0.1655, 0.2904, 0.43345, 0.5945, 0.7621, 0.9163, 1.0263, 1.0622, 1.0026, 0.85445, 0.6424, 0.4479, 0.2835, 0.1649,
    0.0874, 0.04677, 0.0227, 0.01136,
  ],
  y: [
    0.0004, 0.00121, 0.004, 0.0116, 0.023, 0.038, 0.06, 0.09098, 0.13902, 0.20802, 0.323, 0.503, 0.71, 0.862, 0.954,
    0.99495, 0.995, 0.952, 0.87, 0.757, 0.631, 0.503, 0.381, 0.265, 0.175, 0.107, 0.061, 0.032, 0.017, 0.00821, 0.0041,
  ],
  z: [
    0.06785, 0.2074, 0.6456, 1.3856, 1.74706, 1.77211, 1.6692, 1.28764, 0.81295, 0.46518, 0.272, 0.1582, 0.07825,
    0.04216, 0.0203, 0.00875, 0.0039, 0.0021, 0.00165, 0.0011, 0.0008, 0.00034, 0.00019, 0.00005, 0.00002, 0, 0, 0, 0,
    0, 0,
  ],
} as const;

/** Relative power of noon daylight, CIE D65, 400 to 700 nm by 10 (ISO/CIE 11664-2). */
const D65 = [
  82.75, 91.49, 93.43, 86.68, 104.86, 117.01, 117.81, 114.86, 115.92, 108.81, 109.35, 107.8, 104.79, 107.69, 104.41,
  104.05, 100, 96.33, 95.79, 88.69, 90.01, 89.6, 87.7, 83.29, 83.7, 80.03, 80.21, 82.28, 78.28, 69.72, 71.61,
] as const;

/** A lamp with a glowing wire, CIE A, by its definition: a black body at 2848 K on the scale on which it was defined. */
const A = Array.from({ length: NM.count }, (_, i) => {
  const nm = NM.from + i * NM.step;
  const glow = (at: number) => Math.exp(1.435e7 / (2848 * at)) - 1;
  return (100 * (560 / nm) ** 5 * glow(560)) / glow(nm);
});

/** Lights under which a colour is told. */
export const LIGHTS = {
  D65: { name: 'daylight (D65)', power: D65 as readonly number[] },
  A: { name: 'warm lamp (A)', power: A as readonly number[] },
} as const;
export type LightId = keyof typeof LIGHTS;
