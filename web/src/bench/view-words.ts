import type { Jaw } from '@radiant/core';
import type { ViewName } from './arch-eye.js';

const WORDS: Readonly<Record<ViewName, string>> = {
  front: 'front',
  right: 'right',
  left: 'left',
  above: 'above',
  'edge-on': 'edge-on',
  twelve: 'twelve o’clock',
  behind: 'behind',
};
/** Of a lower arch it is called otherwise. */
const LOWER: Partial<typeof WORDS> = { twelve: 'six o’clock' };

/** What a view of an arch is called. */
export const viewWords = (name: ViewName, jaw: Jaw): string => (jaw === 'lower' && LOWER[name]) || WORDS[name];
