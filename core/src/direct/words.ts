/** What composite is made of, in the order in which it is placed. */
export const LAYERS = {
  shell: 'palatal shell',
  'dentin-behind': 'dentin, behind the tooth',
  dentin: 'dentin and lobes',
  enamel: 'enamel',
} as const;
export type LayerName = keyof typeof LAYERS;
export const LAYER_ORDER = Object.keys(LAYERS) as readonly LayerName[];

/**
 * The usual values and within what a house may set its own. Depth of cure: S ISO 4049 asks for 1.5 mm and more and 1 mm
 * of opaque shades; 2 mm is usual. All others common practice, no source.
 */
export const DIRECT_LIMITS = {
  /** Of the shell behind, mm. */
  shellMm: { usual: 0.3, min: 0.2, max: 1 },
  /** Of the enamel under the planned surface, mm. */
  enamelMm: { usual: 0.5, min: 0.1, max: 1.5 },
  /** How much deeper enamel goes between the lobes, mm. */
  lobeMm: { usual: 0.2, min: 0, max: 0.6 },
  /** An increment is cured through so far, mm. */
  cureMm: { usual: 2, min: 0.5, max: 4 },
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
