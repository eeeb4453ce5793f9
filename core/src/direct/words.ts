import type { Vec3 } from '../geometry/vec.js';
import { KEY_LIMITS } from '../reduction/guides/palatal-key.js';

/** What composite is made of, in the order in which it is placed. */
export const LAYERS = {
  shell: 'palatal shell',
  wall: 'side wall',
  'dentin-behind': 'dentin, behind the tooth',
  dentin: 'dentin and lobes',
  enamel: 'enamel',
} as const;
export type LayerName = keyof typeof LAYERS;
/** The core that fills the trough of a worn edge lies within the tooth and is no layer of what is missing. */
export const CORE_WORDS = 'core in the trough';
/** What a part that is laid at once is called. */
export const layerWords = (layer: LayerName | 'core'): string => (layer === 'core' ? CORE_WORDS : LAYERS[layer]);
export const LAYER_ORDER = Object.keys(LAYERS) as readonly LayerName[];

/**
 * The usual values and within what a house may set its own. Depth of cure: S ISO 4049 asks for 1.5 mm and more and 1 mm
 * of opaque shades; 2 mm is usual. All others common practice, no source.
 */
export const DIRECT_LIMITS = {
  /** Of the shell behind, mm. */
  shellMm: { usual: 0.3, min: 0.2, max: 1 },
  /** Of the wall at a side that is built, against the matrix, mm. */
  sideMm: { usual: 0.4, min: 0, max: 1 },
  /** Of the enamel under the planned surface, mm. */
  enamelMm: { usual: 0.5, min: 0.1, max: 1.5 },
  /** How much deeper enamel goes between the lobes, mm. */
  lobeMm: { usual: 0.2, min: 0, max: 0.6 },
  /** An increment is cured through so far, mm. */
  cureMm: { usual: 2, min: 0.5, max: 4 },
  /** Facial bevel of a large break, mm; a small one gets half of it. */
  bevelMm: { usual: 2, min: 0, max: 4 },
  /** Behind it, mm; 0 for none. */
  bevelBehindMm: { usual: 0.5, min: 0, max: 2 },
  /** How deep worn dentin is troughed, mm. */
  troughMm: { usual: 1.2, min: 0.5, max: 2 },
  /** Enamel walls that are kept around it, mm. */
  wallMm: { usual: 0.8, min: 0.4, max: 1.5 },
  /** How far the back teeth are to part in side movement, at 1.5 mm to the side, mm. */
  partMm: { usual: 0.5, min: 0.2, max: 2 },
  /** How far the palatal key goes over the edges to the front, and up behind them, mm. */
  keyFrontMm: KEY_LIMITS.frontMm,
  keyUpMm: KEY_LIMITS.upMm,
  /** What the lamp gives, mW/cm². */
  lampMw: { usual: 1000, min: 200, max: 3500 },
  /** So long each increment is lit, s. */
  seconds: { usual: 20, min: 3, max: 60 },
  /** Of one portion, mm³. */
  portionMm3: { usual: 100, min: 10, max: 1000 },
} as const;
export type DirectSetting = keyof typeof DIRECT_LIMITS;
export type DirectSettings = Readonly<Record<DirectSetting, number>>;

export const USUAL_DIRECT: DirectSettings = Object.fromEntries(
  Object.entries(DIRECT_LIMITS).map(([k, v]) => [k, v.usual]),
) as unknown as DirectSettings;

/** So much light an increment wants, J/cm². Common practice, no source: composites differ. */
export const ENERGY_WANTED = 16;

/** What composite is asked to do on a tooth. */
export const DIRECT_KINDS = {
  corner: 'broken corner or edge',
  gap: 'gap or dark triangle',
  worn: 'worn edge',
  addition: 'addition of shape or length',
  neck: 'defect at the neck',
} as const;
export type DirectKind = keyof typeof DIRECT_KINDS;

/** A break that is drawn on the crown, where the scan was made before it, or shows it badly. */
export interface DrawnBreak {
  readonly corner: 'mesial' | 'distal';
  /** From the edge up, and from the side in, mm. */
  readonly heightMm: number;
  readonly widthMm: number;
}
export const BREAK_LIMITS = { heightMm: { min: 0.5, max: 8 }, widthMm: { min: 0.5, max: 9 } } as const;

/** What is asked of composite on one tooth. */
export interface DirectWork {
  readonly kind: DirectKind;
  readonly broken?: DrawnBreak | undefined;
  /** The dentin that lies open on a worn edge, marked round on the scan by somebody: in the mouth's frame, mm. */
  readonly island?: readonly Vec3[] | undefined;
}
/** So many places an island is marked with. */
export const ISLAND_POINTS = { min: 3, max: 40 } as const;
