import { lazy } from 'react';
import { plannedTeeth, type StageDefinition } from '../../shell/stage.js';

export const keep: StageDefinition = {
  name: 'keep',
  question: 'what was decided; hand it over',
  teeth: plannedTeeth,
  onContour: true,
  element: lazy(() => import('./Keep.js')),
};
