import type { FacialThird } from '../teeth/norms.js';

/** What is told and cut by itself: the thirds of the face, and the edge. */
export type Zone = FacialThird | 'edge';

export const ZONES: readonly Zone[] = ['cervical', 'middle', 'incisal', 'edge'];
