import { jawOf } from '../../teeth/notation.js';
import { COMMON_PRACTICE } from '../../working/working.js';
import type { AtVisit } from '../at-visit.js';
import { gate } from '../gates.js';
import { named, type Rule } from '../step.js';

const C = COMMON_PRACTICE;
const corded = (f: AtVisit) => f.cord !== 'none';
const bloodPressure = (f: AtVisit) =>
  f.mouth.beware.has('pressure')
    ? 'Blood pressure or heart: no epinephrine in the cord.'
    : f.mouth.beware.has('medicines')
      ? 'Takes medicines: no epinephrine in the cord before the record was looked at.'
      : undefined;

export const IMPRESSION: readonly Rule<AtVisit>[] = [
  gate('tissue'),
  {
    id: 'bleeding-controlled',
    when: corded,
    does: 'Where it bleeds: a hemostatic without iron first. Ferric only where that fails, and rinsed off at once.',
    hand: ['aluminium chloride'],
    why: 'Ferric agents work harder, and stain the front.',
    source: C,
  },
  {
    id: 'cord-first',
    when: corded,
    does: (f) =>
      f.cord === 'two' ? 'First cord: thin, all round, cut flush; it stays in.' : 'Cord all round, a tag left to grip.',
    hand: (f) => [f.mouth.beware.has('pressure') ? 'plain cord, no epinephrine' : 'plain cord', 'cord packer'],
    why: 'It opens the sulcus, and keeps it dry.',
    source: C,
    beware: bloodPressure,
  },
  {
    id: 'cord-second',
    when: ({ cord }) => cord === 'two',
    does: 'Second cord over it, thicker, a tag left to grip.',
    hand: ['thicker cord', 'cord packer'],
    why: 'The lower one keeps it dry when the upper one comes out.',
    source: C,
  },
  {
    id: 'cord-paste',
    when: ({ cord }) => cord === 'paste',
    does: 'Paste into the sulcus over the cord; cap on, bite.',
    hand: ['retraction paste', 'compression caps'],
    why: 'Paste pushes gum aside where a second cord would tear it.',
    source: C,
  },
  {
    id: 'cord-works',
    when: corded,
    does: 'Caps on, bite; let it work.',
    times: [480],
    within: [480, 600],
    hand: ['compression caps'],
    why: 'Gum stays open after 8 to 10 min with caps; 5 min is the least.',
    source: C,
  },
  {
    id: 'impression-made',
    does: (f) =>
      f.cord === 'two'
        ? 'Rinse, dry; the upper cord out wet; scan or impression at once, every margin seen.'
        : corded(f)
          ? 'Rinse, dry; the cord out wet; scan or impression at once, every margin seen.'
          : 'Dry; scan or impression, every margin seen.',
    hand: ['scanner, or light body that does not tear and tray'],
    why: 'A dry cord tears gum when it comes out, and gum closes within a minute.',
    source: C,
  },
  {
    id: 'opposite-made',
    does: (f) => `${f.teeth.some((t) => jawOf(t) === 'upper') ? 'Lower' : 'Upper'} jaw and the bite.`,
    hand: ['scanner or impression'],
    why: 'Without it nobody knows the room behind the edge.',
    source: C,
  },
  {
    id: 'bite-over-prepared',
    when: (f) => f.cuts.length > 0,
    does: (f) => `Bite record over ${named(f.cuts.map((c) => c.tooth))} only; trimmed until it touches no gum.`,
    hand: ['bite material', 'blade'],
    why: 'Material between teeth that meet, or on gum, opens the bite.',
    source: C,
  },
];

/** Taking a provisional off before something is taken of the teeth, and putting it back. */
export const PROVISIONAL_OFF: readonly Rule<AtVisit>[] = [
  {
    id: 'provisional-off',
    when: ({ mouth }) => mouth.provisional,
    does: 'Provisional off: cut until the stump shines through, then a twist in the cut.',
    hand: ['diamond', 'spreader'],
    why: 'Pulled off it takes a core, or a tooth, with it.',
    source: C,
    beware: ({ mouth }) =>
      mouth.beware.has('anxious') ? 'Anxious: say before what will be heard and felt.' : undefined,
  },
];
