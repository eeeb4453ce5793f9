import { lazy } from 'react';
import { plannedTeeth, type StageDefinition } from '../../shell/stage.js';

export const direct: StageDefinition = {
  name: 'direct',
  question: 'what must composite fill, in which layers',
  section: 'direct',
  teeth: plannedTeeth,
  onContour: true,
  element: lazy(() => import('./Direct.js')),
};
