import type { ByHand } from '@radiant/core';
import { ARCH_VIEWS, type ViewName } from '../../../bench/arch-eye.js';

/** What a click or a drag on the scan does. */
export type Hand = 'choose' | 'add' | 'neck' | 'paint' | 'gum' | 'places' | 'both';
export const HANDS: readonly (readonly [Hand, string, string])[] = [
  ['choose', 'choose', 'c'],
  ['add', 'add a tooth', 'n'],
  ['neck', 'drag the neck line', 'd'],
  ['paint', 'paint tooth', 'p'],
  ['gum', 'paint gum', 'g'],
];
/** Begins three clicks that lay it anew. */
export const PLACES_KEY = 'k';

/** How the scan is laid into the mouth. */
export type Way = 'shape' | 'clicks' | 'first' | 'bite' | 'hand';
export const WAYS: readonly (readonly [Way, string])[] = [
  ['shape', 'by its own shape'],
  ['clicks', 'by three clicks'],
  ['first', 'on the case’s scan'],
  ['bite', 'by the scanned bite'],
  ['hand', 'by hand, closed'],
];

export const VIEWS = ARCH_VIEWS.filter((v) => v !== 'twelve');
export const VIEW_KEYS: Readonly<Record<string, ViewName>> = {
  f: 'front',
  r: 'right',
  l: 'left',
  a: 'above',
  e: 'edge-on',
  h: 'behind',
};

/** Where a lower jaw is put at first: a usual overjet, middle on middle. Common practice, no source. */
export const USUAL_BITE: ByHand = { overjetMm: 2.5, leftMm: 0, turnDeg: 0 };
export const PLACES = [
  'between the edges of the centrals',
  'the canine’s tip on the patient’s right',
  'the canine’s tip on the patient’s left',
];
/** Round a stroke of the brush, mm. */
export const BRUSH_MM = 0.6;
