import { lazy } from 'react';
import { plannedTeeth, type StageDefinition } from '../../shell/stage.js';

export const decide: StageDefinition = {
  name: 'decide',
  question: 'what on which tooth, bonded or cemented',
  section: 'decide',
  teeth: plannedTeeth,
  onContour: true,
  element: lazy(() => import('./Decide.js')),
};
