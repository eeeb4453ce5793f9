import { lazy } from 'react';
import { plannedTeeth, type StageDefinition } from '../../shell/stage.js';

export const book: StageDefinition = {
  name: 'book',
  question: 'which visits, when, can the date be kept',
  section: 'book',
  teeth: plannedTeeth,
  element: lazy(() => import('./Book.js')),
};
