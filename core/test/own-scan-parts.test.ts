import { clickedTrial, joinedTrial, type Part, partTrial } from './trials/parts.js';
import { rotating, share } from './trials/rotating.js';

const TEN = [11, 12, 13, 14, 15, 21, 22, 23, 24, 25];
/** Each of these is laid wrongly; which of the reasons to doubt it is met first depends on the mouth. */
const WORDS: readonly (readonly [Part, RegExp])[] = [
  ['palate', /^No tooth is found in it\. Palate or gum alone is nothing to plan on/],
  ['gum', /^No tooth is found in it\. Palate or gum alone is nothing to plan on/],
  ['side', /a front is planned on both sides|orient it with three clicks/i],
  ['front', /orient it with three clicks/i],
];
/** How wide and high what joins two centrals is, and how far behind their faces, mm; and what is said of it. */
const JOINED = [
  ['in their contact', 3, 8, 1.2],
  ['over their faces', 5, 6, 0.3],
] as const;

describe('a scan that is no whole row', () => {
  it('is told from one that is: of that nothing is said', () => {
    expect(partTrial('whole')).toEqual({ teeth: TEN, doubt: '', contacts: [] });
  });

  it.each(rotating(WORDS, 1))(
    `is told so: %s (${share} of palate, gum, one side, a front that lies wrongly)`,
    (part, words) => {
      expect(partTrial(part).doubt).toMatch(words);
    },
  );

  it('a front alone is laid by three clicks, and then its six teeth are there', () => {
    expect(clickedTrial()).toEqual({ teeth: [11, 12, 13, 21, 22, 23], doubt: '', contacts: [] });
  });

  it.each(rotating(JOINED, 1))(`centrals joined %s (${share})`, (_, wide, high, behind) => {
    const splint = joinedTrial(wide, high, behind);
    expect(splint.teeth).toHaveLength(10);
    expect(splint.contacts.map((d) => `${d.tooth} ${d.sentence}`)).toEqual([
      '11 can hardly be told from {21} where they touch',
    ]);
  });
});
