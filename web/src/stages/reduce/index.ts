import { type Fdi, isUpper, LOWER_TEN, UPPER_SIX, UPPER_TEN } from '@radiant/core';
import { lazy } from 'react';
import type { StageDefinition } from '../../shell/stage.js';

/** The planned teeth of the jaw; while none is planned the six that usually are. */
function plannedOf(chosen: Fdi, planned: readonly Fdi[]): readonly Fdi[] {
  const own = (isUpper(chosen) ? UPPER_TEN : LOWER_TEN).filter((t) => planned.includes(t));
  return own.length > 0 ? own : UPPER_SIX.filter((t) => planned.length === 0 || planned.includes(t));
}

export const reduce: StageDefinition = {
  name: 'reduce',
  question: 'how much where, with which bur, what enamel is left',
  section: 'reduce',
  teeth: plannedOf,
  onContour: true,
  element: lazy(() => import('./Reduce.js')),
};
