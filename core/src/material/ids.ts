/** The ceramic classes from clear to opaque, and the cements, by their ids alone: what a form is checked against. */
export const CERAMIC_IDS = [
  'enamel-porcelain',
  'glass-high',
  'layered',
  'glass-medium',
  'dentin-porcelain',
  'glass-low',
  'zirconia-translucent',
  'zirconia-strong',
  'opaquer',
] as const;
export type CeramicId = (typeof CERAMIC_IDS)[number];

export const CEMENT_IDS = ['clear', 'light', 'warm', 'opaque'] as const;
export type CementId = (typeof CEMENT_IDS)[number];

/** How much a house may hold, and which plates can be read. House limits. */
export const PLATE_LIMITS = { plates: 40, name: 60, mm: { min: 0.2, max: 3 } } as const;

/** The id of a measured ceramic; the name is the house's. */
export const plateId = (name: string): string => `plate:${name}`;
export const isPlateId = (id: string): boolean => id.startsWith('plate:');
