import type { Fdi } from '../../teeth/notation.js';
import { burName, isoDiameter } from '../burs/bur.js';
import type { ToothCutList } from './cut-list.js';

/** The columns of a cut list as a table. */
export const CUT_COLUMNS = [
  'tooth',
  'design',
  'step',
  'what',
  'where',
  'bur',
  'diameter, 1/10 mm',
  'engagement',
  'depth, mm',
  'grooves',
  'speed',
  'caution',
  'how',
] as const;

/** Cut lists as rows of a table, a step each, in their order. @param name of a tooth, in the notation of the reader */
export const cutRows = (lists: readonly ToothCutList[], name: (tooth: Fdi) => string): string[][] =>
  lists.flatMap(({ tooth, design, steps }) =>
    steps.map((s, i) => [
      name(tooth),
      design.name,
      String(i + 1),
      s.title,
      s.places.join('; '),
      s.bur ? burName(s.bur) : '',
      s.bur ? isoDiameter(s.bur) : '',
      s.how ?? '',
      s.depthMm === undefined ? '' : s.depthMm.toFixed(2),
      s.grooves ?? '',
      s.speed ?? '',
      s.caution ?? '',
      s.detail,
    ]),
  );
