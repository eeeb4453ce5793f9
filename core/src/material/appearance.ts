import { deltaE00, type Lab, VISIBLE } from '../colour/lab.js';
import { type Optics, over, type Sheet, sheetOf, throughSurface, underSurface } from '../colour/layer.js';
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
): AtThickness[] => {
  const ground = groundOf(under, stump);
  return sheetsOf(ceramic).map((sheet, i) => {
    const lab = labOf(throughSurface(over(sheet, ground)), light);
    return { mm: THICKNESSES[i] as number, lab, dE: deltaE00(lab, wanted) };
  });
};

const sheets = new WeakMap<Optics, readonly Sheet[]>();

/** A ceramic in every thickness that is tried: whatever lies under it, worked out once. */
function sheetsOf(ceramic: Optics): readonly Sheet[] {
  const known = sheets.get(ceramic) ?? THICKNESSES.map((mm) => sheetOf(ceramic, mm));
  sheets.set(ceramic, known);
  return known;
}

/** A stump with what lies over it under the ceramic. */
const groundOf = (under: readonly Layer[], stump: Spectrum): Spectrum =>
  [...under].reverse().reduce((behind, { optics, mm }) => over(sheetOf(optics, mm), behind), stump);

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
  const [own, other] = [groundOf(under, stump), groundOf(under, usual)];
  const seen = (sheet: Sheet, ground: Spectrum) => labOf(throughSurface(over(sheet, ground)));
  // Thicker always hides more: the first of them from which none shows.
  const at = sheetsOf(ceramic).findIndex((sheet) => deltaE00(seen(sheet, own), seen(sheet, other)) <= dE00);
  return at < 0 ? undefined : THICKNESSES[at];
}
