import { type DirectKind, type DirectSettings, USUAL_DIRECT } from '../../direct/words.js';
import type { Fdi } from '../../teeth/notation.js';
import { COMMON_PRACTICE } from '../../working/working.js';
import type { AtVisit } from '../at-visit.js';
import { gate } from '../gates.js';
import { ifSet, named, type Rule } from '../step.js';

const C = COMMON_PRACTICE;
const settings = ({ composite }: AtVisit): DirectSettings => composite?.settings ?? USUAL_DIRECT;
const lamp = (f: AtVisit) => [settings(f).seconds];
const teeth = (f: AtVisit) => f.works.filter((w) => w.work === 'composite').map((w) => w.tooth);

/** Teeth on which composite does a kind of work at this visit. */
const doing = (f: AtVisit, kind: DirectKind): readonly Fdi[] => {
  const here = teeth(f);
  return (f.composite?.kinds ?? []).filter((k) => k.kind === kind && here.includes(k.tooth)).map((k) => k.tooth);
};
/** Teeth on which something is built that a palatal shell carries: all but those with a dent beside the gum. */
const built = (f: AtVisit): readonly Fdi[] => teeth(f).filter((t) => !doing(f, 'neck').includes(t));
const builds = (f: AtVisit): boolean => f.composite === undefined || built(f).length > 0;
const unbevelled = (f: AtVisit): readonly Fdi[] => built(f).filter((t) => !doing(f, 'corner').includes(t));
const mm = (v: number) => `${v.toFixed(1)} mm`;

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
    when: builds,
    does: (f) => `Isolate ${named(built(f))}; the index tried again over the dam.`,
    hand: ['dam, clamps', 'palatal index'],
    why: 'An index that is held up by a clamp makes an edge that is too long.',
    source: C,
    beware: ifSet('allergy', 'Allergy: a dam and gloves without latex, and ask about resins.'),
  },
  {
    id: 'composite-neck',
    when: (f) => doing(f, 'neck').length > 0,
    does: (f) =>
      `Ask what has dented ${named(doing(f, 'neck'))}: brush, grinding or acid. Cord or a clamp, until its side at the gum is seen and dry; bevel the side at the edge ${mm(settings(f).bevelMm / 2)}, none at the gum.`,
    hand: ['cord or clamp', 'fine diamond'],
    why: 'What has made the dent makes it again; a side that is wet or unseen leaks.',
    source: C,
  },
  {
    id: 'composite-ground',
    when: (f) => doing(f, 'addition').length > 0,
    does: (f) =>
      `Grind on ${named(doing(f, 'addition'))} what stands out of the plan, against the key; polish where nothing comes on.`,
    hand: ['palatal index', 'fine diamond, water'],
    why: 'Composite only adds: what stands out of the plan would make it too thick.',
    source: C,
  },
  {
    id: 'composite-trough',
    when: (f) => doing(f, 'worn').length > 0,
    does: (f) =>
      `Trough the worn dentin of ${named(doing(f, 'worn'))} ${mm(settings(f).troughMm)} deep; enamel walls of ${mm(settings(f).wallMm)} stay.`,
    hand: ['round bur 1.0 mm, water', 'probe'],
    why: 'Dentin wears first: a cap on it alone comes off, a core within the walls holds.',
    source: C,
  },
  {
    id: 'composite-bevel',
    when: (f) => doing(f, 'corner').length > 0,
    does: (f) =>
      `Bevel ${named(doing(f, 'corner'))} where it broke: facial ${mm(settings(f).bevelMm)} and wavy, half of it on a small break; palatal ${settings(f).bevelBehindMm > 0 ? mm(settings(f).bevelBehindMm) : 'none'}.`,
    hand: ['fine diamond'],
    why: 'A long bevel hides where tooth ends; behind, a thin edge of composite chips.',
    source: C,
  },
  {
    id: 'composite-roughen',
    when: (f) => unbevelled(f).length > 0,
    does: (f) => `Roughen the enamel of ${named(unbevelled(f))} where composite comes; no bevel is cut.`,
    hand: ['air abrasion', 'fine diamond'],
    why: 'Polished and uncut enamel etches badly; only added, nothing of it is cut.',
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
    id: 'composite-core',
    when: (f) => doing(f, 'worn').length > 0,
    does: (f) =>
      `Fill the trough of ${named(doing(f, 'worn'))} with a strong composite, no part over ${mm(settings(f).cureMm)}.`,
    times: lamp,
    hand: ['strong composite', 'lamp'],
    why: 'The core carries the bite, the cap over it the polish.',
    source: C,
  },
  {
    id: 'composite-shell',
    when: builds,
    does: 'Palatal shell: thin in the index, seated, cured; the index off.',
    times: lamp,
    hand: ['palatal index', 'enamel composite', 'lamp'],
    why: 'The shell carries edge and length: all other layers lie on it.',
    source: C,
  },
  {
    id: 'composite-sides',
    when: (f) => f.composite === undefined || built(f).length > doing(f, 'worn').length,
    does: 'Side walls against the matrix, wedge in; of two sides of a gap the first is finished and polished, then the second built against it.',
    times: lamp,
    hand: ['sectional or pulled matrix', 'wedge', 'lamp'],
    why: 'Two sides that are soft at once have no contact between them.',
    source: C,
  },
  {
    id: 'composite-dent',
    when: (f) => doing(f, 'neck').length > 0,
    does: (f) =>
      `Fill the dent of ${named(doing(f, 'neck'))} aslant: first the side at the edge, the side at the gum last and thin; no part over ${mm(settings(f).cureMm)}.`,
    times: lamp,
    hand: ['body composite', 'lamp'],
    why: 'What shrinks between both sides at once pulls off the gum’s, where it holds less.',
    source: C,
  },
  {
    id: 'composite-layers',
    when: builds,
    does: (f) =>
      `Dentin with its lobes, no part over ${mm(settings(f).cureMm)}; the probe stands ${mm(settings(f).enamelMm)} deep before enamel, which comes last, in one.`,
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
