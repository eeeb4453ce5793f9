/** Where on a tooth a colour is read, and of what: the tooth before anything is cut, or the stump after. */
export const READING_ZONES = ['gum', 'body', 'edge'] as const;
export type ReadingZone = (typeof READING_ZONES)[number];
export const READING_OF = ['tooth', 'stump'] as const;
export type ReadingOf = (typeof READING_OF)[number];

/** The light of a reading: the device's own, daylight, a lamp that stands for it, or the surgery's. */
export const READING_LIGHTS = ['own', 'daylight', 'daylight lamp', 'surgery lamp'] as const;
export type ReadingLight = (typeof READING_LIGHTS)[number];
