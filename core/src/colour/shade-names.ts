/** The sixteen shades of the letter scale by name alone: what a form is checked against. */
export const SHADE_NAMES = [
  'A1',
  'A2',
  'A3',
  'A3.5',
  'A4',
  'B1',
  'B2',
  'B3',
  'B4',
  'C1',
  'C2',
  'C3',
  'C4',
  'D2',
  'D3',
  'D4',
] as const;

/** How much a scale of a house's own may hold. House limits. */
export const SCALE_LIMITS = { scales: 10, shades: 60, name: 40, shade: 20 } as const;
