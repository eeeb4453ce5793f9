import { lazy } from 'react';
import { plannedTeeth, type StageDefinition } from '../../shell/stage.js';

export const reduce: StageDefinition = {
  name: 'reduce',
  question: 'how much where, with which bur, what enamel is left',
  section: 'reduce',
  teeth: plannedTeeth,
  onContour: true,
  element: lazy(() => import('./Reduce.js')),
};
