import { fromUniversal } from '@radiant/core';

/** The permanent teeth. */
export const ALL_TEETH = Array.from({ length: 32 }, (_, i) => fromUniversal(i + 1));
export const FINITE = { allowNaN: false, allowInfinity: false } as const;
export const words = (what: string) => ({ message: what });
