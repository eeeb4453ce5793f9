import { lazy } from 'react';
import { plannedTeeth, type StageDefinition } from '../../shell/stage.js';

export const treat: StageDefinition = {
  name: 'treat',
  question: 'what now, how long, what next',
  section: 'treat',
  teeth: plannedTeeth,
  element: lazy(() => import('./Treat.js')),
};
