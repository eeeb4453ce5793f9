/** How far the central edges can be set down from where they stand, mm; up is negative. House limits. */
export const EDGE_LIMITS = { min: -3, max: 4 } as const;

/** How far the gum can be moved up, mm. House limits. */
export const GUM_LIMITS = { min: 0, max: 4 } as const;
