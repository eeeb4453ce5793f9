/** Wavelengths of every spectrum here, nm. */
export const NM = { from: 400, to: 700, step: 10, count: 31 } as const;
