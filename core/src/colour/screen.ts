import type { Lab } from './lab.js';

/** Light that a value of a picture stands for, both 0 to 1, and back (sRGB, IEC 61966-2-1). */
export const lightOf = (v: number): number => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
export const shownLight = (light: number): number =>
  light <= 0.0031308 ? 12.92 * light : 1.055 * light ** (1 / 2.4) - 0.055;

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
  return linear.map((v) => shownLight(Math.min(1, Math.max(0, v)))) as unknown as readonly [number, number, number];
}

/** The same for a style sheet. */
export const screenColour = (lab: Lab): string =>
  `rgb(${screenRgb(lab)
    .map((v) => Math.round(255 * v))
    .join(' ')})`;

/** CIELAB D65 of the light of a screen's three colours, 0 to 1 each. */
export function labOfLight([r, g, b]: readonly [number, number, number]): Lab {
  const X = (0.4124564 * r + 0.3575761 * g + 0.1804375 * b) / 0.95047;
  const Y = 0.2126729 * r + 0.7151522 * g + 0.072175 * b;
  const Z = (0.0193339 * r + 0.119192 * g + 0.9503041 * b) / 1.08883;
  const f = (t: number) => (t > (6 / 29) ** 3 ? Math.cbrt(t) : t / (3 * (6 / 29) ** 2) + 4 / 29);
  return { L: 116 * f(Y) - 16, a: 500 * (f(X) - f(Y)), b: 200 * (f(Y) - f(Z)) };
}
