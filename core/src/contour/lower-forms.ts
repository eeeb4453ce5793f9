import type { ToothKind } from '../teeth/notation.js';
import { CROWN_FORMS, type CrownForm } from './form.js';

/** Profiles of an upper form drawn in to the depth of a lower tooth: every place nearer to the axis by a share. */
function shallower(knots: CrownForm['facial'], share: number): CrownForm['facial'] {
  return knots.map(([h, mm]) => [h, mm * share] as const);
}

const upper = (kind: ToothKind): CrownForm => CROWN_FORMS[kind] as CrownForm;

/**
 * Lower crowns, read like the upper ones: heights from the edge to the facial zenith, mesial at +1. Incisors are narrow
 * and nearly symmetrical with a smooth lingual surface, the canine slim with a blunt tip, premolars lean to the tongue
 * with small lingual cusps. House morphology, drawn to the textbook descriptions.
 */
const central: CrownForm = {
  ...upper('lateral'),
  kind: 'central',
  mesial: [
    [0, 0.97],
    [0.1, 1],
    [0.3, 0.97],
    [0.6, 0.82],
    [0.85, 0.66],
    [1, 0.58],
  ],
  distal: [
    [0, 0.96],
    [0.12, 1],
    [0.3, 0.97],
    [0.6, 0.82],
    [0.85, 0.66],
    [1, 0.58],
  ],
  facial: shallower(upper('lateral').facial, 0.86),
  palatal: shallower(upper('lateral').palatal, 0.82),
  fossaMm: 0.2,
  mesialCorner: { drop: 0.04, from: 0.85 },
  distalCorner: { drop: 0.05, from: 0.82 },
  neckMesialMm: 2.2,
  neckDistalMm: 1.9,
  zenithDistalMm: 0.1,
  lobesMm: 0.04,
};

const lateral: CrownForm = {
  ...central,
  kind: 'lateral',
  distalCorner: { drop: 0.08, from: 0.7 },
  zenithDistalMm: 0.15,
};

const canine: CrownForm = {
  ...upper('canine'),
  kind: 'canine',
  facial: shallower(upper('canine').facial, 0.9),
  palatal: shallower(upper('canine').palatal, 0.85),
  fossaMm: 0.2,
  cusp: { at: 0.12, mesialDrop: 0.1, distalDrop: 0.19, tipRadius: 0.2 },
};

const premolar1: CrownForm = {
  ...upper('premolar1'),
  kind: 'premolar1',
  palatal: shallower(upper('premolar1').palatal, 0.82),
  palatalCusp: { shorter: 0.3, grooveMm: 0.9 },
};

const premolar2: CrownForm = {
  ...upper('premolar2'),
  kind: 'premolar2',
  palatal: shallower(upper('premolar2').palatal, 0.9),
  palatalCusp: { shorter: 0.16, grooveMm: 1.1 },
};

/** Lower library forms by kind of tooth. */
export const LOWER_CROWN_FORMS: Readonly<Partial<Record<ToothKind, CrownForm>>> = {
  central,
  lateral,
  canine,
  premolar1,
  premolar2,
};
