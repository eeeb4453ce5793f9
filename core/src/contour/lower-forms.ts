import type { ToothKind } from '../teeth/notation.js';
import { type CrownForm, knots } from './form.js';
import { CROWN_FORMS } from './upper-forms.js';

const upper = (kind: ToothKind): CrownForm => CROWN_FORMS[kind] as CrownForm;

/**
 * Lower crowns, read like the upper ones: heights from the edge to the facial zenith, mesial at +1. Incisors are narrow
 * and nearly symmetrical with a smooth lingual surface, the canine slim with a blunt tip, premolars lean to the tongue
 * with small lingual cusps. House morphology with the dimensions of a textbook (Wheeler, Dental Anatomy, from memory).
 */
const central: CrownForm = {
  ...upper('lateral'),
  kind: 'central',
  usualWidthMm: 5,
  usualDepthMm: 6,
  mesial: knots([0, 0.97, 0.1, 1, 0.3, 0.985, 0.46, 0.945, 0.58, 0.87, 0.7, 0.745, 0.85, 0.67, 1, 0.62]),
  distal: knots([0, 0.96, 0.12, 1, 0.3, 0.985, 0.46, 0.945, 0.58, 0.87, 0.7, 0.755, 0.85, 0.67, 1, 0.62]),
  facial: knots([
    0, 0.34, 0.012, 0.44, 0.033, 0.55, 0.12, 0.93, 0.35, 1.68, 0.6, 2.36, 0.84, 2.78, 0.93, 2.73, 1.06, 2.36,
  ]),
  palatal: knots([
    0, -0.26, 0.012, -0.33, 0.033, -0.37, 0.111, -0.42, 0.222, -0.5, 0.333, -0.66, 0.45, -1.04, 0.6, -1.85, 0.72, -2.62,
    0.84, -3.22, 0.93, -3.15, 1, -2.83, 1.06, -2.55,
  ]),
  marginalMm: 0.2,
  mesialCorner: { drop: 0.04, from: 0.85 },
  distalCorner: { drop: 0.05, from: 0.82 },
  neckMesialMm: 2.8,
  neckDistalMm: 2.1,
  zenithDistalMm: 0.1,
  lobesMm: 0.04,
};

const deeper = (knots: CrownForm['facial'], share: number): CrownForm['facial'] =>
  knots.map(([h, mm]) => [h, mm * share] as const);

/** As thick near its edge as the central, and deeper towards the neck. */
const lateral: CrownForm = {
  ...central,
  kind: 'lateral',
  usualWidthMm: 5.5,
  usualDepthMm: 6.5,
  facial: deeper(central.facial, 1.083),
  palatal: deeper(central.palatal, 1.083),
  distalCorner: { drop: 0.08, from: 0.7 },
  zenithDistalMm: 0.15,
};

const canine: CrownForm = {
  ...upper('canine'),
  kind: 'canine',
  usualWidthMm: 7,
  usualDepthMm: 7.5,
  mesial: knots([0, 0.95, 0.14, 0.99, 0.24, 1, 0.5, 0.95, 0.76, 0.84, 0.88, 0.77, 1, 0.68]),
  distal: knots([0, 0.92, 0.28, 0.985, 0.4, 1, 0.58, 0.95, 0.78, 0.82, 0.9, 0.74, 1, 0.66]),
  facial: knots([0, 0.4, 0.025, 0.66, 0.12, 1.28, 0.35, 2.35, 0.6, 3.2, 0.82, 3.66, 0.93, 3.58, 1.06, 3.2]),
  palatal: knots([
    0, -0.33, 0.03, -0.52, 0.1, -0.66, 0.2, -0.86, 0.3, -1.1, 0.4, -1.5, 0.52, -2.25, 0.65, -3.1, 0.76, -3.62, 0.85,
    -3.84, 0.93, -3.75, 1, -3.5, 1.06, -3.3,
  ]),
  marginalMm: 0.25,
  palatalRidgeMm: 0.15,
  cusps: [{ at: 0.12, shorter: 0, mesialDrop: 0.1, distalDrop: 0.19, tipRadius: 0.2 }],
  neckDistalMm: 1.3,
};

/** The lingual cusp is small, no higher than its cingulum would be; the face leans to the tongue. */
const premolar1: CrownForm = {
  ...upper('premolar1'),
  kind: 'premolar1',
  usualDepthMm: 7.5,
  facial: knots([0, 1.5, 0.02, 1.78, 0.06, 2.1, 0.15, 2.6, 0.4, 3.35, 0.65, 3.8, 0.82, 3.78, 1, 3.35, 1.06, 3.2]),
  palatal: knots([
    0, -2.3, 0.02, -2.5, 0.06, -2.75, 0.15, -3.1, 0.35, -3.55, 0.55, -3.7, 0.8, -3.5, 1, -3.15, 1.06, -3,
  ]),
  cusps: [{ at: 0.05, shorter: 0, mesialDrop: 0.15, distalDrop: 0.17, tipRadius: 0.18 }],
  chewing: {
    cusps: [{ at: 0, shorter: 0.3, mesialDrop: 0.02, distalDrop: 0.02, tipRadius: 0.4 }],
    grooveMm: 0.85,
    marginalShare: 0.25,
    grooveAt: 0.62,
  },
  neckMesialMm: 1,
  neckDistalMm: 0.5,
};

/** Squarer than the first, with a lingual cusp that works. */
const premolar2: CrownForm = {
  ...premolar1,
  kind: 'premolar2',
  usualDepthMm: 8,
  facial: knots([0, 1.8, 0.02, 2.08, 0.06, 2.4, 0.15, 2.9, 0.4, 3.6, 0.65, 4, 0.82, 3.96, 1, 3.55, 1.06, 3.4]),
  palatal: knots([
    0, -2.4, 0.02, -2.62, 0.06, -2.9, 0.15, -3.3, 0.35, -3.85, 0.55, -4, 0.8, -3.8, 1, -3.45, 1.06, -3.3,
  ]),
  facialPower: knots([0, 2.5, 0.3, 2.5, 1, 2.2]),
  palatalPower: knots([0, 2.4, 1, 2.2]),
  cusps: [{ at: 0.05, shorter: 0, mesialDrop: 0.13, distalDrop: 0.15, tipRadius: 0.24 }],
  chewing: {
    cusps: [
      { at: 0.3, shorter: 0.16, mesialDrop: 0.06, distalDrop: 0.14, tipRadius: 0.26 },
      { at: -0.42, shorter: 0.2, mesialDrop: 0.12, distalDrop: 0.06, tipRadius: 0.26 },
    ],
    grooveMm: 1.15,
    marginalShare: 0.2,
    grooveAt: 0.52,
  },
};

/** Three facial cusps and two lingual ones. Shaped by its size alone. */
const molar1: CrownForm = {
  ...upper('molar1'),
  kind: 'molar1',
  usualWidthMm: 11,
  usualDepthMm: 10.5,
  facial: knots([0, 2.7, 0.03, 3.1, 0.1, 3.6, 0.25, 4.35, 0.5, 5.05, 0.72, 5.3, 0.88, 5.1, 1, 4.55, 1.06, 4.4]),
  palatal: knots([
    0, -3.4, 0.03, -3.7, 0.1, -4.05, 0.25, -4.6, 0.45, -5.1, 0.58, -5.2, 0.82, -4.9, 1, -4.45, 1.06, -4.3,
  ]),
  cusps: [
    { at: 0.55, shorter: 0, mesialDrop: 0.1, distalDrop: 0.26, tipRadius: 0.16 },
    { at: -0.1, shorter: 0.01, mesialDrop: 0.24, distalDrop: 0.24, tipRadius: 0.16 },
    { at: -0.68, shorter: 0.06, mesialDrop: 0.22, distalDrop: 0.08, tipRadius: 0.14 },
  ],
  chewing: {
    cusps: [
      { at: 0.42, shorter: 0, mesialDrop: 0.12, distalDrop: 0.26, tipRadius: 0.2 },
      { at: -0.45, shorter: 0.02, mesialDrop: 0.26, distalDrop: 0.12, tipRadius: 0.2 },
    ],
    grooveMm: 2,
    marginalShare: 0.2,
    grooveAt: 0.5,
  },
};

const molar2: CrownForm = {
  ...molar1,
  kind: 'molar2',
  usualWidthMm: 10.5,
  usualDepthMm: 10,
  // A neck narrower than the first's.
  mesial: knots([0, 0.9, 0.2, 0.985, 0.32, 1, 0.55, 0.96, 0.75, 0.87, 0.9, 0.79, 1, 0.725]),
  distal: knots([0, 0.88, 0.22, 0.985, 0.36, 1, 0.58, 0.96, 0.78, 0.87, 0.92, 0.78, 1, 0.725]),
  facial: deeper(molar1.facial, 10 / 10.5),
  palatal: deeper(molar1.palatal, 10 / 10.5),
  cusps: [
    { at: 0.44, shorter: 0, mesialDrop: 0.12, distalDrop: 0.26, tipRadius: 0.18 },
    { at: -0.44, shorter: 0.01, mesialDrop: 0.26, distalDrop: 0.12, tipRadius: 0.18 },
  ],
};

/** Lower library forms by kind of tooth. */
export const LOWER_CROWN_FORMS: Readonly<Partial<Record<ToothKind, CrownForm>>> = {
  central,
  lateral,
  canine,
  premolar1,
  premolar2,
  molar1,
  molar2,
};
