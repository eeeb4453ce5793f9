import { isUpper, LOWER_TEN, UPPER_TEN } from '@radiant/core';
import { lazy } from 'react';
import type { StageDefinition } from '../../shell/stage.js';

export const shape: StageDefinition = {
  name: 'shape',
  question: 'what will it look like, what is added, what removed',
  section: 'shape',
  teeth: (chosen) => (isUpper(chosen) ? UPPER_TEN : LOWER_TEN),
  element: lazy(() => import('./Shape.js')),
};
