import { UPPER_TEN } from '@radiant/core';
import { lazy } from 'react';
import type { StageDefinition } from '../../shell/stage.js';

export const propose: StageDefinition = {
  name: 'propose',
  question: 'how long, how wide, where is the edge',
  section: 'propose',
  teeth: () => UPPER_TEN,
  element: lazy(() => import('./Propose.js')),
};
