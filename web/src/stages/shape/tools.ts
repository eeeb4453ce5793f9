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
