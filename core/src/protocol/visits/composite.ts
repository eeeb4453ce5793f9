import { DIRECT_LIMITS } from '../../direct/words.js';
import { COMMON_PRACTICE } from '../../working/working.js';
import type { AtVisit } from '../at-visit.js';
import { gate } from '../gates.js';
import { ifSet, named, type Rule } from '../step.js';

const C = COMMON_PRACTICE;
const lamp = ({ lampSeconds }: AtVisit) => [lampSeconds ?? DIRECT_LIMITS.seconds.usual];
const teeth = (f: AtVisit) => f.works.filter((w) => w.work === 'composite').map((w) => w.tooth);

/** Direct composite: what is alike in all of it. Volumes and layers of each tooth stand in direct. */
export const COMPOSITE: readonly Rule<AtVisit>[] = [
  {
    id: 'composite-shade',
    does: (f) => `Shade of ${named(teeth(f))}, wet: a button of body and one of enamel on the tooth, cured, looked at.`,
    times: lamp,
    hand: ['composites of the map', 'lamp'],
    why: 'Composite changes when it is cured, and a tooth when it dries.',
    source: C,
  },
  gate('shade-wet'),
  {
    id: 'composite-isolated',
    does: (f) => `Isolate ${named(teeth(f))}; the index tried again over the dam.`,
    hand: ['dam, clamps', 'palatal index'],
    why: 'An index that is held up by a clamp makes an edge that is too long.',
    source: C,
    beware: ifSet('allergy', 'Allergy: a dam and gloves without latex, and ask about resins.'),
  },
  {
    id: 'composite-bevel',
    does: 'Bevel where enamel ends in sight: facial long and wavy, palatal short or none. Where only is added, roughen.',
    hand: ['fine diamond', 'air abrasion'],
    why: 'A long bevel hides where tooth ends; behind, a thin edge of composite chips.',
    source: C,
  },
  {
    id: 'composite-etch-enamel',
    does: (f) => `Etch the enamel of ${named(teeth(f))}.`,
    times: [15],
    within: [15, 20],
    hand: ['phosphoric acid', 'strips'],
    why: 'Enamel is etched for 15 to 20 s.',
    source: C,
  },
  {
    id: 'composite-etch-dentin',
    does: 'Onto the dentin where it shows; rinse, leave moist.',
    times: [10],
    hand: ['phosphoric acid', 'water spray'],
    why: 'Dentin is etched for 10 s.',
    source: C,
  },
  {
    id: 'composite-adhesive',
    does: 'Rub the adhesive in.',
    times: [20],
    hand: ['adhesive, brush'],
    why: 'Rubbed for 20 s it goes in.',
    source: C,
  },
  {
    id: 'composite-adhesive-cured',
    does: 'Thin it with air; cure.',
    times: [10],
    hand: ['air', 'lamp'],
    why: 'A pool of it shows as a grey line.',
    source: C,
  },
  {
    id: 'composite-shell',
    does: 'Palatal shell: thin in the index, seated, cured; the index off.',
    times: lamp,
    hand: ['palatal index', 'enamel composite', 'lamp'],
    why: 'The shell carries edge and length: all other layers lie on it.',
    source: C,
  },
  {
    id: 'composite-sides',
    does: 'Side walls against the matrix, wedge in; of two sides of a gap the first is finished and polished, then the second built against it.',
    times: lamp,
    hand: ['sectional or pulled matrix', 'wedge', 'lamp'],
    why: 'Two sides that are soft at once have no contact between them.',
    source: C,
  },
  {
    id: 'composite-layers',
    does: 'Dentin with its lobes, in the increments of direct; enamel last, in one.',
    times: lamp,
    hand: ['composites of the map', 'instruments', 'lamp'],
    why: 'Two millimetres are cured through, an opaque one through one.',
    source: C,
  },
  {
    id: 'composite-last-cure',
    does: 'Gel over all of it; cure once more from both sides.',
    times: (f) => [...lamp(f), ...lamp(f)],
    hand: ['glycerine gel', 'lamp'],
    why: 'Under air the surface stays soft, and stains.',
    source: C,
  },
  {
    id: 'composite-contour',
    does: 'Line angles marked with pencil, and moved until both sides are alike; then lobes, then texture.',
    hand: ['pencil', 'fine diamonds, discs'],
    why: 'Line angles make the width: texture on wrong ones is work for nothing.',
    source: C,
  },
  {
    id: 'composite-contacts',
    does: 'Contacts: floss snaps through. Thin paper marks on tooth, not on composite; slides to the sides free.',
    hand: ['floss', 'thin paper, 8 µm', 'strips'],
    why: 'A mark on composite is where it chips.',
    source: C,
  },
  {
    id: 'composite-polished',
    does: 'Discs from coarse to superfine, dry and light; rubber under water; strips between.',
    hand: ['discs', 'rubber, water', 'strips'],
    why: 'Rubber that runs dry heats the tooth and drags the surface.',
    source: C,
  },
];
