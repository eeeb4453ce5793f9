import type { Jaw } from '../../teeth/notation.js';
import { jawOf } from '../../teeth/notation.js';
import { COMMON_PRACTICE } from '../../working/working.js';
import { type AtVisit, WHOLE_ARCH_FROM } from '../at-visit.js';
import { gate } from '../gates.js';
import { named, type Rule } from '../step.js';
import type { OldWork } from '../words.js';
import { NUMB } from './tissue.js';

const C = COMMON_PRACTICE;
const cutTeeth = (f: AtVisit) => f.cuts.map((c) => c.tooth);

/** How old work comes off by its material. Common practice, no source. */
const OFF: Readonly<Record<OldWork, { does: string; hand: readonly string[]; why: string }>> = {
  'metal-ceramic': {
    does: 'one cut through ceramic and metal from the gum over the edge, then a twist in it.',
    hand: ['transverse carbide', 'crown spreader', 'water'],
    why: 'Opened on one side it springs; prised from below the tooth breaks.',
  },
  zirconia: {
    does: 'grooves right through with much water, several burs, then a twist. It takes its time.',
    hand: ['three or more coarse diamonds for zirconia', 'water', 'crown spreader'],
    why: 'It blunts a diamond in a minute, and a blunt one heats the tooth.',
  },
  'glass-ceramic': {
    does: 'grooves to the cement, pieces off; what is bonded is ground away.',
    hand: ['coarse diamonds', 'water', 'loupes'],
    why: 'What is bonded does not come off whole: it breaks before it lets go.',
  },
  composite: {
    does: 'grooves down to tooth, then plane off between them; dry to see where it ends.',
    hand: ['diamond', 'air', 'light at a flat angle'],
    why: 'Composite looks like tooth: without grooves one goes on into enamel.',
  },
};

const oldWorks = (work: OldWork): Rule<AtVisit> => ({
  id: `off-${work}`,
  when: (f) => f.oldWorks.some((o) => o.work === work),
  does: (f) =>
    `Old work off ${named(f.oldWorks.filter((o) => o.work === work).map((o) => o.tooth))}: ${OFF[work].does}`,
  hand: OFF[work].hand,
  why: OFF[work].why,
  source: C,
});

const wholeJaws = (f: AtVisit): Jaw[] =>
  (['upper', 'lower'] as const).filter(
    (j) => f.cuts.filter((c) => c.kind === 'crown' && jawOf(c.tooth) === j).length >= WHOLE_ARCH_FROM,
  );

export const PREPARATION: readonly Rule<AtVisit>[] = [
  gate('contour'),
  gate('tissue'),
  {
    id: 'shade-before-cutting',
    does: 'Shade once more, wet, before anything dries.',
    hand: ['shade tabs or meter'],
    why: 'After this nobody can see it any more.',
    source: C,
  },
  gate('shade-wet'),
  NUMB,
  oldWorks('metal-ceramic'),
  oldWorks('zirconia'),
  oldWorks('glass-ceramic'),
  oldWorks('composite'),
  {
    id: 'post-in',
    when: (f) => f.posts.length > 0,
    does: (f) => `Post of ${named(f.posts)}: tried, cut to length, checked with the bite closed before it is cured.`,
    hand: ['post, its drill', 'dual-cured resin', 'contact paper', 'lamp'],
    why: 'A post that is met by the lower teeth after curing is cut through the core.',
    source: C,
  },
  {
    id: 'stops-left',
    when: (f) => wholeJaws(f).length > 0,
    does: (f) =>
      `Leave stops: cut one half of the ${wholeJaws(f).join(' and the ')} jaw, record the bite over it, then the other half.`,
    hand: ['bite material'],
    why: 'When all teeth that meet are cut nobody knows the height of the bite any more.',
    source: C,
  },
  {
    id: 'cut-by-list',
    when: (f) => f.cuts.length > 0,
    does: (f) => `Cut ${named(cutTeeth(f))} by the list of reduce, from the planned contour.`,
    hand: ['burs in the order of the list', 'indexes, leaf guide'],
    why: 'Depth is told from the contour, not from the tooth.',
    source: C,
  },
  {
    id: 'corners-rounded',
    when: (f) => f.cuts.length > 0,
    does: (f) => `Round every corner of ${named(cutTeeth(f))}; finish lines smooth.`,
    hand: ['fine diamond', 'discs'],
    why: 'Ceramic breaks from a sharp corner, and a mill’s tool does not reach into one.',
    source: C,
  },
  { ...gate('preparation'), when: (f) => f.cuts.length > 0 },
];
