import type { PrepFinding, PrepState } from '@radiant/core';

/** How a state is called. */
export const STATE_WORDS: Readonly<Record<PrepState, string>> = {
  right: 'right',
  cut: 'cut more',
  over: 'cut too much',
  look: 'look at it',
  unknown: 'not told',
};

/** How strongly it is said. */
export const STATE_WEIGHT: Readonly<Record<PrepState, 'stop' | 'watch' | 'good'>> = {
  right: 'good',
  cut: 'stop',
  over: 'watch',
  look: 'watch',
  unknown: 'watch',
};

/** What tells a finding from all others of a case. */
export const findingKey = ({ tooth, check, place }: Pick<PrepFinding, 'tooth' | 'check' | 'place'>): string =>
  `${tooth} ${check} ${place}`;
