import { lazy } from 'react';
import { plannedTeeth, type StageDefinition } from '../../shell/stage.js';

export const match: StageDefinition = {
  name: 'match',
  question: 'will the stump show, which ceramic, which cement',
  section: 'match',
  teeth: plannedTeeth,
  onContour: true,
  element: lazy(() => import('./Match.js')),
};
