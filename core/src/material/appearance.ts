import { deltaE00, type Lab, VISIBLE } from '../colour/lab.js';
import { type Optics, over, type Sheet, sheetOf, throughSurface, underSurface } from '../colour/layer.js';
import type { LightId } from '../colour/observer.js';
import { evenSpectrum, labOf, type Spectrum } from '../colour/spectrum.js';
import { hypot } from '../geometry/vec.js';

/** A layer of a restoration, from the outside in. */
export interface Layer {
  readonly optics: Optics;
  readonly mm: number;
}

/** What a ceramic is made of: one material all through, or layers from the outside in, each a share of its thickness. */
export type Made = Optics | readonly { readonly optics: Optics; readonly share: number }[];

/** A ceramic of a thickness as layers. @param mm of all of it */
export const layersOf = (made: Made, mm: number): Layer[] =>
  'K' in made ? [{ optics: made, mm }] : made.map(({ optics, share }) => ({ optics, mm: share * mm }));

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
export function translucency(made: Made, mm: number): number {
  const layers = layersOf(made, mm);
  const [p, q] = [colourOver(layers, GROUNDS.white), colourOver(layers, GROUNDS.black)];
  return hypot(p.L - q.L, p.a - q.a, p.b - q.b);
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
  ceramic: Made,
  under: readonly Layer[],
  stump: Spectrum,
  wanted: Lab,
  light: LightId = 'D65',
): AtThickness[] => {
  const ground = groundOf(under, stump);
  return sheetsOf(ceramic).map((own, i) => {
    const lab = labOf(throughSurface(overAll(own, ground)), light);
    return { mm: THICKNESSES[i] as number, lab, dE: deltaE00(lab, wanted) };
  });
};

const sheets = new WeakMap<object, readonly (readonly Sheet[])[]>();

/** A ceramic in every thickness that is tried: whatever lies under it, worked out once. */
function sheetsOf(ceramic: Made): readonly (readonly Sheet[])[] {
  const known =
    sheets.get(ceramic) ??
    THICKNESSES.map((mm) => layersOf(ceramic, mm).map(({ optics, mm: own }) => sheetOf(optics, own)));
  sheets.set(ceramic, known);
  return known;
}

/** Sheets from the outside in over what lies behind them. */
const overAll = (own: readonly Sheet[], ground: Spectrum): Spectrum =>
  own.reduceRight((behind, sheet) => over(sheet, behind), ground);

/** A stump with what lies over it under the ceramic. */
const groundOf = (under: readonly Layer[], stump: Spectrum): Spectrum =>
  [...under].reverse().reduce((behind, { optics, mm }) => over(sheetOf(optics, mm), behind), stump);

/**
 * From which thickness on a stump can't be told from another through a ceramic, mm; nothing where it shows through all
 * that are tried.
 * @param dE00 how little of a difference is nobody's: what half of those who look would take, where left out
 */
export function hidesFrom(
  ceramic: Made,
  under: readonly Layer[],
  stump: Spectrum,
  usual: Spectrum,
  dE00: number = VISIBLE.notTaken,
): number | undefined {
  const [own, other] = [groundOf(under, stump), groundOf(under, usual)];
  const seen = (own: readonly Sheet[], ground: Spectrum) => labOf(throughSurface(overAll(own, ground)));
  // Thicker always hides more: the first of them from which none shows.
  const at = sheetsOf(ceramic).findIndex((sheets) => deltaE00(seen(sheets, own), seen(sheets, other)) <= dE00);
  return at < 0 ? undefined : THICKNESSES[at];
}
