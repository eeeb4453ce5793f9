import { COMMON_PRACTICE, type Finding, type Notice } from '@radiant/core';
import type { ToothPast } from './base/records.js';
import type { MeetSection } from './sections/meet.js';

interface Telling {
  readonly past: ToothPast;
  /** After the teeth. */
  readonly words: string;
  readonly detail: string;
  readonly notice: Notice;
  readonly weight: number;
}

/** What stands in the record of a tooth and is seen in a smile, or speaks for how it will go. */
const TELLINGS: readonly Telling[] = [
  {
    past: 'chipped',
    words: 'chipped or indented edge',
    detail: 'Seen at talking distance. A longer or broader edge takes it up; look for the habit that did it.',
    notice: 'people',
    weight: 0.9,
  },
  {
    past: 'margin',
    words: 'an old margin that shows',
    detail: 'A new margin goes where it is not seen, or the old one is polished; look for decay under it.',
    notice: 'people',
    weight: 0.8,
  },
  {
    past: 'worn',
    words: 'worn edge',
    detail:
      'Look for what wore it: guidance, grinding, acid. Length that is put back lasts as long as the bite lets it.',
    notice: 'dentists',
    weight: 0.7,
  },
  {
    past: 'inflamed',
    words: 'inflamed gum',
    detail: 'Its level will change as it heals: levels, margins and impressions wait until it is healthy.',
    notice: 'dentists',
    weight: 0.7,
  },
];

/** Findings that nobody measures: they were seen and noted in the record. */
export function recordFindings({ teeth }: Pick<MeetSection, 'teeth'>): Finding[] {
  return TELLINGS.flatMap(({ past, words, ...rest }): Finding[] => {
    const own = teeth.filter((t) => t.past.includes(past)).map((t) => t.tooth);
    if (own.length === 0) return [];
    return [
      {
        id: `record-${past}`,
        teeth: own,
        title: `${own.map((t) => `{${t}}`).join(', ')}: ${words}`,
        source: COMMON_PRACTICE,
        ...rest,
      },
    ];
  });
}
