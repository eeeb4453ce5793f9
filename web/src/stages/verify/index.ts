import { lazy } from 'react';
import { plannedTeeth, type StageDefinition } from '../../shell/stage.js';

export const verify: StageDefinition = {
  name: 'verify',
  question: 'is the prep right, where more, does it all seat',
  section: 'verify',
  teeth: plannedTeeth,
  onContour: true,
  element: lazy(() => import('./Verify.js')),
};
