import { UPPER_SIX } from '@radiant/core';
import { lazy } from 'react';
import type { StageDefinition } from '../../shell/stage.js';

export const read: StageDefinition = {
  name: 'read',
  question: 'what is there, what deviates, would anyone notice',
  section: 'read',
  teeth: () => UPPER_SIX,
  element: lazy(() => import('./Read.js')),
};
