import type { Lab } from './lab.js';

/**
 * A colour as a screen shows it, sRGB 0 to 1 (IEC 61966-2-1), white at D65; what no screen shows is cut to what it does.
 */
export function screenRgb({ L, a, b }: Lab): readonly [number, number, number] {
  const y = (L + 16) / 116;
  const [x, , z] = [y + a / 500, y, y - b / 200];
  const cubed = (t: number) => (t > 6 / 29 ? t ** 3 : 3 * (6 / 29) ** 2 * (t - 4 / 29));
  const [X, Y, Z] = [0.95047 * cubed(x), cubed(y), 1.08883 * cubed(z)];
  const linear = [
    3.2404542 * X - 1.5371385 * Y - 0.4985314 * Z,
    -0.969266 * X + 1.8760108 * Y + 0.041556 * Z,
    0.0556434 * X - 0.2040259 * Y + 1.0572252 * Z,
  ];
  return linear.map((v) => {
    const c = Math.min(1, Math.max(0, v));
    return c <= 0.0031308 ? 12.92 * c : 1.055 * c ** (1 / 2.4) - 0.055;
  }) as unknown as readonly [number, number, number];
}

/** The same for a style sheet. */
export const screenColour = (lab: Lab): string =>
  `rgb(${screenRgb(lab)
    .map((v) => Math.round(255 * v))
    .join(' ')})`;
