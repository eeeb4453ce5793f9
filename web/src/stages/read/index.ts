import { isUpper, LOWER_TEN, UPPER_TEN } from '@radiant/core';
import { lazy } from 'react';
import type { StageDefinition } from '../../shell/stage.js';

export const read: StageDefinition = {
  name: 'read',
  question: 'what is there, what deviates, would anyone notice',
  section: 'read',
  teeth: (chosen) => (isUpper(chosen) ? UPPER_TEN : LOWER_TEN),
  element: lazy(() => import('./Read.js')),
};
