import type { Showing } from '../../bench/ArchScene.js';
import type { ViewName } from '../../bench/arch-eye.js';

/** Which of the two arches is shown while the jaws are apart. */
export type ShownPlan = Exclude<Showing, 'bite'>;
export const SHOWING: readonly (readonly [ShownPlan, string])[] = [
  ['existing', 'as scanned'],
  ['planned', 'planned'],
  ['difference', 'added and removed'],
  ['both', 'both'],
];
export type Tool = 'brush' | 'cut' | 'bite' | 'light' | 'smile';
export const TOOLS: readonly (readonly [Tool, string, string])[] = [
  ['brush', 'brush', 'b'],
  ['cut', 'section', 'x'],
  ['bite', 'bite', 'o'],
  ['light', 'light', 'i'],
  ['smile', 'in the smile', 's'],
];
export const VIEW_WORDS: Readonly<Record<ViewName, string>> = {
  front: 'front',
  right: 'right',
  left: 'left',
  above: 'above',
  'edge-on': 'edge-on',
  twelve: 'twelve o’clock',
  behind: 'behind',
};
/** Of a lower arch these two are called otherwise. */
export const LOWER_WORDS: Partial<typeof VIEW_WORDS> = { twelve: 'six o’clock' };
/** First letters are the keys. */
export const VIEW_KEYS: Readonly<Record<string, ViewName>> = {
  f: 'front',
  r: 'right',
  l: 'left',
  a: 'above',
  e: 'edge-on',
  t: 'twelve',
  h: 'behind',
};
