import type { BiteView, BiteWish } from '@radiant/core';
import { number } from '../../ui/format.js';

/** What the bite at this place means, in a sentence. */
export function verdict(
  view: Pick<BiteView, 'teeth' | 'touching' | 'othersMm' | 'lifts'>,
  wish: Pick<BiteWish, 'alongMm' | 'direction'>,
): { weight: 'good' | 'watch' | 'stop'; words: (name: (t: number) => string) => string } {
  const list = (name: (t: number) => string) => view.touching.map(name).join(', ');
  const through = view.teeth.filter((t) => t.spaceMm < -0.1);
  if (through.length > 0) {
    const most = through.reduce((p, q) => (q.spaceMm < p.spaceMm ? q : p));
    return {
      weight: 'stop',
      words: (name) => `${name(most.tooth)} is in the way of ${name(most.against)} by ${number(-most.spaceMm, 2)} mm`,
    };
  }
  if (view.touching.length === 0)
    return {
      weight: 'watch',
      words: () => `Nothing touches; the nearest tooth is ${number(view.othersMm ?? 0, 2)} mm away`,
    };
  if (wish.alongMm === 0)
    return {
      weight: 'good',
      words: (name) => `Closed, ${list(name)} ${view.touching.length > 1 ? 'touch' : 'touches'}`,
    };
  if (!view.lifts)
    return {
      weight: 'watch',
      words: (name) =>
        `${list(name)} ${view.touching.length > 1 ? 'touch' : 'touches'}: ${wish.direction === 'forward' ? 'the incisors do not lead alone' : 'the canine does not lift the rest'}`,
    };
  const clear = view.othersMm === undefined ? '' : `; all others are ${number(view.othersMm, 1)} mm clear`;
  return { weight: 'good', words: (name) => `${list(name)} ${view.touching.length > 1 ? 'lead' : 'leads'}${clear}` };
}
