import { deltaE00, type Lab, VISIBLE } from '../colour/lab.js';
import { type Optics, over, sheetOf, throughSurface, underSurface } from '../colour/layer.js';
import type { LightId } from '../colour/observer.js';
import { evenSpectrum, labOf, type Spectrum } from '../colour/spectrum.js';

/** A layer of a restoration, from the outside in. */
export interface Layer {
  readonly optics: Optics;
  readonly mm: number;
}

/** Layers over a stump as they are seen under a light. @param stump reflectance under its surface: wet, without its mirror */
export function seenOver(layers: readonly Layer[], stump: Spectrum): Spectrum {
  let behind = stump;
  for (const { optics, mm } of [...layers].reverse()) behind = over(sheetOf(optics, mm), behind);
  return throughSurface(behind);
}

/** The same as a colour. */
export const colourOver = (layers: readonly Layer[], stump: Spectrum, light: LightId = 'D65'): Lab =>
  labOf(seenOver(layers, stump), light);

/** The grounds over which translucency is told: an ideal black and an ideal white. */
const GROUNDS = { black: evenSpectrum(0), white: evenSpectrum(1) } as const;

/** Translucency parameter of a layer: how far apart it looks over white and over black, in CIELAB. */
export function translucency(layer: Layer): number {
  const [p, q] = [colourOver([layer], GROUNDS.white), colourOver([layer], GROUNDS.black)];
  return Math.hypot(p.L - q.L, p.a - q.a, p.b - q.b);
}

/** A stump's reflectance under its surface from how it looks, wet. */
export const stumpFrom = (seen: Spectrum): Spectrum => underSurface(seen);

/** Thicknesses that are tried, mm. */
export const THICKNESSES = Array.from({ length: 37 }, (_, i) => Math.round((0.2 + 0.05 * i) * 100) / 100);

/** How a restoration looks at one thickness. */
export interface AtThickness {
  readonly mm: number;
  readonly lab: Lab;
  /** To the colour that is wanted. */
  readonly dE: number;
}

/** How a ceramic looks over a stump from thin to thick, against what is wanted. @param under what lies between, cement */
export const overThickness = (
  ceramic: Optics,
  under: readonly Layer[],
  stump: Spectrum,
  wanted: Lab,
  light: LightId = 'D65',
): AtThickness[] =>
  THICKNESSES.map((mm) => {
    const lab = colourOver([{ optics: ceramic, mm }, ...under], stump, light);
    return { mm, lab, dE: deltaE00(lab, wanted) };
  });

/**
 * From which thickness on a stump can't be told from another through a ceramic, mm; nothing where it shows through all
 * that are tried.
 * @param dE00 how little of a difference is nobody's: what half of those who look would take, where left out
 */
export function hidesFrom(
  ceramic: Optics,
  under: readonly Layer[],
  stump: Spectrum,
  usual: Spectrum,
  dE00: number = VISIBLE.notTaken,
): number | undefined {
  const shows = (mm: number) =>
    deltaE00(
      colourOver([{ optics: ceramic, mm }, ...under], stump),
      colourOver([{ optics: ceramic, mm }, ...under], usual),
    ) > dE00;
  // Thicker always hides more: the first of them from which none shows.
  const at = THICKNESSES.findIndex((mm) => !shows(mm));
  return at < 0 ? undefined : THICKNESSES[at];
}
