import { COMMON_PRACTICE } from '../../working/working.js';
import type { AtVisit } from '../at-visit.js';
import { ifSet, named, type Rule } from '../step.js';

const C = COMMON_PRACTICE;
const veneers = (f: AtVisit) => f.cuts.filter((c) => c.kind === 'veneer').map((c) => c.tooth);
const crowns = (f: AtVisit) => f.cuts.filter((c) => c.kind === 'crown').map((c) => c.tooth);
const all = (f: AtVisit) => f.cuts.map((c) => c.tooth);

export const PROVISIONAL: readonly Rule<AtVisit>[] = [
  {
    id: 'provisional-desensitised',
    does: (f) => `Desensitiser on ${named(all(f))}: two coats.`,
    times: [60, 60],
    hand: ['desensitiser, brush'],
    why: 'Weeks under a provisional are the time in which cut dentin hurts.',
    source: C,
    beware: ifSet('allergy', 'Allergy: ask about aldehydes before the desensitiser.'),
  },
  {
    id: 'shells-tried',
    when: ({ provisional }) => provisional === 'shells',
    does: 'Try the shells: home without pressing. Where one binds, mostly at the gum or between, the shell is ground.',
    hand: ['shells', 'thin paper', 'stone'],
    why: 'Pressed on it is high, and locks when it is relined.',
    source: C,
  },
  {
    id: 'shells-relined',
    when: ({ provisional }) => provisional === 'shells',
    does: 'Reline with acrylic: on, and pump up and down until it is like rubber.',
    times: [120],
    hand: ['acrylic', 'separator', 'water'],
    why: 'Left still it locks into every undercut.',
    source: C,
    beware: ifSet('allergy', 'Allergy: ask about acrylic.'),
  },
  {
    id: 'bis-acryl-made',
    when: ({ provisional }) => provisional === 'bis-acryl',
    does: 'Index with bis-acryl: seat, and wiggle while it sets.',
    times: [120],
    hand: ['index', 'bis-acryl'],
    why: 'Left still it locks into every undercut.',
    source: C,
  },
  {
    id: 'contacts-pencilled',
    does: 'Pencil the contacts before anything is trimmed; trim up to the marks, not over them.',
    hand: ['pencil', 'discs'],
    why: 'A contact that is trimmed away lets teeth move, and the work will not go home.',
    source: C,
  },
  {
    id: 'embrasures-open',
    does: 'Gum embrasures open, margins thin and polished.',
    hand: ['thin disc', 'polisher'],
    why: 'Gum that is pressed swells, and the impression, or the bond, is late.',
    source: C,
  },
  {
    id: 'spot-etched',
    when: (f) => veneers(f).length > 0,
    does: (f) => `Spot-etch ${named(veneers(f))}: 2 × 2 mm in the middle of the face; rinse.`,
    times: [15],
    hand: ['phosphoric acid', 'water spray'],
    why: 'Veneer shells hold on a spot, and only that is ground when they come off.',
    source: C,
  },
  {
    id: 'spot-bonded',
    when: (f) => veneers(f).length > 0,
    does: (f) => `Bond on the spots, flowable in the shells of ${named(veneers(f))}; seat, clean, cure.`,
    times: [20],
    hand: ['adhesive', 'flowable', 'lamp'],
    why: 'Bonded all over nobody gets them off.',
    source: C,
  },
  {
    id: 'provisional-cemented',
    when: (f) => crowns(f).length > 0,
    does: (f) =>
      `Temporary cement without eugenol in ${named(crowns(f))}; clean it from the sulcus, floss with a knot.`,
    times: [240],
    hand: ['temporary cement, no eugenol', 'floss'],
    why: 'Eugenol keeps resin from setting, and resin may follow.',
    source: C,
  },
  {
    id: 'provisional-bite',
    does: 'Bite and slides; no touch on an edge alone. Smile, photograph.',
    hand: ['contact paper', 'camera'],
    why: 'The provisional tries the edge for weeks.',
    source: C,
  },
];
