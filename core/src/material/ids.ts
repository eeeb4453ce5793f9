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
