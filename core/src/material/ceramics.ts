import type { Lab } from '../colour/lab.js';
import { type Optics, underSurface } from '../colour/layer.js';
import { smoothestSpectrum } from '../colour/recover.js';
import { NM } from '../colour/wavelengths.js';
import { Refusal } from '../errors.js';
import type { Made } from './appearance.js';
import type { CeramicId } from './ids.js';

/**
 * How much a class of ceramic scatters: at 550 nm, for each mm, and how steeply it falls towards red. Illustrative: they
 * put the classes in their order and near published translucency; a house or laboratory enters its own from readings
 * over black and white (`opticsFrom`).
 */
export interface CeramicClass {
  readonly id: string;
  readonly name: string;
  readonly scatter: number;
  readonly falls: number;
  /** What lies under it in one restoration, and how much of the thickness is the outer layer. */
  readonly over?: { readonly scatter: number; readonly falls: number; readonly share: number };
}

/** Generic classes, from clear to opaque. All values illustrative. */
export const CERAMIC_CLASSES = [
  { id: 'enamel-porcelain', name: 'layered feldspathic, enamel', scatter: 2, falls: 0.8 },
  { id: 'glass-high', name: 'glass-ceramic, high translucency', scatter: 2.3, falls: 0.7 },
  // Built up: the enamel over the dentin, two fifths of it. Common practice, no source.
  {
    id: 'layered',
    name: 'layered feldspathic, enamel over dentin',
    scatter: 2,
    falls: 0.8,
    over: { scatter: 3.3, falls: 0.5, share: 0.4 },
  },
  { id: 'glass-medium', name: 'glass-ceramic, medium translucency', scatter: 2.9, falls: 0.6 },
  { id: 'dentin-porcelain', name: 'layered feldspathic, dentin', scatter: 3.3, falls: 0.5 },
  { id: 'glass-low', name: 'glass-ceramic, low translucency', scatter: 3.9, falls: 0.5 },
  { id: 'zirconia-translucent', name: 'zirconia, translucent', scatter: 5, falls: 0.3 },
  { id: 'zirconia-strong', name: 'zirconia, high strength', scatter: 9, falls: 0.2 },
  { id: 'opaquer', name: 'opaque core or opaquer', scatter: 24, falls: 0.1 },
] as const satisfies readonly (CeramicClass & { readonly id: CeramicId })[];

/**
 * The tooth's own tissues, scattering so that a millimetre is about as translucent as was measured: enamel 18, dentin 16
 * (Yu, Ahn, Lee 2009, from memory, rough). Illustrative like the classes.
 */
export const TISSUES = {
  enamel: { id: 'enamel', name: 'enamel', scatter: 2.85, falls: 0.7 },
  dentin: { id: 'dentin', name: 'dentin', scatter: 3.1, falls: 0.5 },
} as const satisfies Readonly<Record<string, CeramicClass>>;

/** What a restoration is made of, in whatever shade it comes in. */
export interface Ceramic {
  readonly id: string;
  readonly name: string;
  /** Its own shade, as a plate of it was read: it follows no other. */
  readonly asRead: boolean;
  /** @throws Refusal `spectrum-wrong` where no body can have the colour */
  readonly madeIn: (wanted: Lab) => Made;
}

/** A class as something that is made in the shade that is wanted. */
export const ceramicOfClass = (c: CeramicClass): Ceramic => ({
  id: c.id,
  name: c.name,
  asRead: false,
  madeIn: (wanted) =>
    c.over
      ? [
          { optics: ceramicIn(c, wanted), share: c.over.share },
          { optics: ceramicIn(c.over, wanted), share: 1 - c.over.share },
        ]
      : ceramicIn(c, wanted),
});

/** A class by its id; ids come checked. */
export const ceramicOf = (id: CeramicId): CeramicClass => CERAMIC_CLASSES.find((c) => c.id === id) as CeramicClass;

/**
 * A ceramic of a class in a shade: it scatters as its class does and absorbs so much that a thick block of it, seen
 * through its surface, has the shade.
 * @throws Refusal `spectrum-wrong` where no body can have the colour
 */
export function ceramicIn({ scatter, falls }: Pick<CeramicClass, 'scatter' | 'falls'>, shade: Lab): Optics {
  const seen = smoothestSpectrum(shade);
  if (!seen)
    throw new Refusal('spectrum-wrong', `No body has the colour ${shade.L} ${shade.a} ${shade.b}; read it again.`);
  const thick = underSurface(seen);
  const S = Float64Array.from({ length: NM.count }, (_, i) => scatter * (550 / (NM.from + i * NM.step)) ** falls);
  // What a thick block turns back says how much it absorbs for what it scatters (Kubelka and Munk 1931).
  const K = S.map((s, i) => {
    const r = thick[i] as number;
    return (s * (1 - r) ** 2) / (2 * r);
  });
  return { K, S };
}
