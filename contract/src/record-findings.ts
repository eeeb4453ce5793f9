import { COMMON_PRACTICE, type Finding, type Notice } from '@radiant/core';
import type { ToothPast } from './base/records.js';
import type { MeetSection, ToothHistory } from './sections/meet.js';

interface Telling {
  readonly id: string;
  readonly of: (tooth: ToothHistory) => boolean;
  /** After the teeth. */
  readonly words: string;
  readonly detail: string;
  readonly notice: Notice;
  readonly weight: number;
}

const noted = (past: ToothPast): Pick<Telling, 'id' | 'of'> => ({ id: past, of: (t) => t.past.includes(past) });

/** What stands in the record of a tooth and is seen in a smile, or speaks for how it will go. */
const TELLINGS: readonly Telling[] = [
  {
    ...noted('chipped'),
    words: 'chipped or indented edge',
    detail: 'Seen at talking distance. A longer or broader edge takes it up; look for the habit that did it.',
    notice: 'people',
    weight: 0.9,
  },
  {
    ...noted('margin'),
    words: 'an old margin that shows',
    detail: 'A new margin goes where it is not seen, or the old one is polished; look for decay under it.',
    notice: 'people',
    weight: 0.8,
  },
  {
    ...noted('worn'),
    words: 'worn edge',
    detail:
      'Look for what wore it: guidance, grinding, acid. Length that is put back lasts as long as the bite lets it.',
    notice: 'dentists',
    weight: 0.7,
  },
  {
    ...noted('inflamed'),
    words: 'inflamed gum',
    detail: 'Its level will change as it heals: levels, margins and impressions wait until it is healthy.',
    notice: 'dentists',
    weight: 0.7,
  },
  {
    id: 'dry-shade',
    of: (t) => t.shade?.wet === false,
    words: 'shade taken on a dry tooth',
    detail:
      'A tooth that dries looks lighter within minutes, and for hours after. Take the shade again on a wet tooth, ' +
      'before anything isolates it.',
    notice: 'dentists',
    weight: 0.7,
  },
];

/** Findings that nobody measures: they were seen and noted in the record. */
export function recordFindings({ teeth }: Pick<MeetSection, 'teeth'>): Finding[] {
  return TELLINGS.flatMap(({ id, of, words, ...rest }): Finding[] => {
    const own = teeth.filter(of).map((t) => t.tooth);
    if (own.length === 0) return [];
    return [
      {
        id: `record-${id}`,
        teeth: own,
        title: `${own.map((t) => `{${t}}`).join(', ')}: ${words}`,
        source: COMMON_PRACTICE,
        ...rest,
      },
    ];
  });
}
