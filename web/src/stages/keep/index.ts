import { UPPER_SIX } from '@radiant/core';
import { lazy } from 'react';
import type { StageDefinition } from '../../shell/stage.js';

export const keep: StageDefinition = {
  name: 'keep',
  question: 'what was decided; hand it over',
  teeth: () => UPPER_SIX,
  onContour: true,
  element: lazy(() => import('./Keep.js')),
};
