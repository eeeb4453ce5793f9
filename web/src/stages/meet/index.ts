import { UPPER_TEN } from '@radiant/core';
import { lazy } from 'react';
import type { StageDefinition } from '../../shell/stage.js';

export const meet: StageDefinition = {
  name: 'meet',
  question: 'who, what do they want, by when, what must we beware of',
  section: 'meet',
  teeth: () => UPPER_TEN,
  element: lazy(() => import('./Meet.js')),
};
