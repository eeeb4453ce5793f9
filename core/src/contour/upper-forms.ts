import type { ToothKind } from '../teeth/notation.js';
import { type CrownForm, knots } from './form.js';

const central: CrownForm = {
  kind: 'central',
  usualWidthMm: 8.5,
  usualDepthMm: 7,
  mesial: knots([0, 0.965, 0.1, 0.993, 0.2, 1, 0.42, 0.99, 0.55, 0.962, 0.66, 0.885, 0.75, 0.815, 0.87, 0.74, 1, 0.67]),
  distal: knots([0, 0.93, 0.18, 0.98, 0.32, 1, 0.5, 0.975, 0.62, 0.92, 0.74, 0.835, 0.87, 0.745, 1, 0.66]),
  facial: knots([
    0, 0.4, 0.012, 0.53, 0.03, 0.66, 0.12, 1.12, 0.35, 2.08, 0.6, 2.9, 0.82, 3.32, 0.93, 3.26, 1.06, 2.86,
  ]),
  palatal: knots([
    0, -0.3, 0.012, -0.39, 0.03, -0.44, 0.095, -0.51, 0.19, -0.55, 0.286, -0.6, 0.38, -0.72, 0.48, -1.1, 0.58, -1.78,
    0.68, -2.68, 0.77, -3.36, 0.86, -3.7, 0.93, -3.52, 1, -2.97, 1.06, -2.6,
  ]),
  contact: knots([0, -0.05, 0.15, 0.15, 0.5, 0.35, 1, 0.1]),
  facialPower: knots([0, 4.2, 0.25, 3.5, 0.6, 2.7, 1, 2.15]),
  palatalPower: knots([0, 4, 0.12, 3, 0.3, 2.3, 0.6, 1.75, 1, 1.75]),
  marginalMm: 0.75,
  palatalRidgeMm: 0,
  mesialCorner: { drop: 0.075, from: 0.8 },
  distalCorner: { drop: 0.2, from: 0.5 },
  cusps: [],
  neckMesialMm: 3.5,
  neckDistalMm: 2.6,
  zenithDistalMm: 1,
  lobesMm: 0.15,
  ridgeMm: 0,
};

const lateral: CrownForm = {
  ...central,
  kind: 'lateral',
  usualWidthMm: 6.5,
  usualDepthMm: 6,
  mesial: knots([0, 0.9, 0.18, 0.975, 0.32, 1, 0.5, 0.965, 0.67, 0.83, 0.86, 0.71, 1, 0.6]),
  distal: knots([0, 0.84, 0.28, 0.965, 0.42, 1, 0.57, 0.965, 0.76, 0.78, 0.88, 0.69, 1, 0.58]),
  facial: knots([
    0, 0.38, 0.012, 0.48, 0.033, 0.6, 0.12, 1.04, 0.35, 1.9, 0.6, 2.58, 0.82, 2.92, 0.93, 2.86, 1.06, 2.45,
  ]),
  palatal: knots([
    0, -0.28, 0.012, -0.36, 0.033, -0.4, 0.111, -0.47, 0.222, -0.52, 0.333, -0.58, 0.44, -0.92, 0.54, -1.55, 0.64,
    -2.22, 0.74, -2.78, 0.84, -3.08, 0.92, -2.9, 1, -2.42, 1.06, -2.1,
  ]),
  facialPower: knots([0, 3.2, 0.25, 2.8, 0.6, 2.35, 1, 2.05]),
  marginalMm: 0.7,
  mesialCorner: { drop: 0.2, from: 0.48 },
  distalCorner: { drop: 0.32, from: 0.25 },
  neckMesialMm: 3,
  neckDistalMm: 2.1,
  zenithDistalMm: 0.4,
  lobesMm: 0.1,
};

const canine: CrownForm = {
  ...central,
  kind: 'canine',
  usualWidthMm: 7.5,
  usualDepthMm: 8,
  mesial: knots([0, 0.9, 0.22, 0.97, 0.36, 1, 0.52, 0.955, 0.68, 0.81, 0.78, 0.74, 1, 0.6]),
  distal: knots([0, 0.92, 0.3, 0.985, 0.42, 1, 0.58, 0.95, 0.75, 0.8, 0.86, 0.73, 1, 0.58]),
  facial: knots([0, 0.42, 0.025, 0.72, 0.12, 1.42, 0.35, 2.6, 0.6, 3.5, 0.8, 3.92, 0.93, 3.82, 1.06, 3.3]),
  palatal: knots([
    0, -0.35, 0.03, -0.55, 0.1, -0.68, 0.2, -0.88, 0.3, -1.15, 0.4, -1.65, 0.52, -2.5, 0.65, -3.42, 0.76, -3.95, 0.84,
    -4.08, 0.92, -3.85, 1, -3.35, 1.06, -3,
  ]),
  contact: knots([0, -0.1, 0.2, 0.2, 0.5, 0.3, 1, 0]),
  facialPower: knots([0, 1.9, 0.25, 2.05, 0.6, 2.1, 1, 2]),
  palatalPower: knots([0, 2.2, 0.2, 2.1, 0.6, 1.75, 1, 1.75]),
  marginalMm: 0.5,
  palatalRidgeMm: 0.35,
  mesialCorner: { drop: 0.15, from: 0.55 },
  distalCorner: { drop: 0.12, from: 0.55 },
  cusps: [{ at: 0.08, shorter: 0, mesialDrop: 0.16, distalDrop: 0.2, tipRadius: 0.16 }],
  neckMesialMm: 2.6,
  neckDistalMm: 1.6,
  zenithDistalMm: 0,
  lobesMm: 0.06,
  ridgeMm: 0.12,
};

const premolar1: CrownForm = {
  ...canine,
  kind: 'premolar1',
  usualWidthMm: 7,
  usualDepthMm: 9,
  mesial: knots([0, 0.88, 0.26, 0.985, 0.38, 1, 0.58, 0.95, 0.78, 0.81, 0.9, 0.72, 1, 0.64]),
  distal: knots([0, 0.88, 0.28, 0.985, 0.4, 1, 0.6, 0.95, 0.78, 0.82, 0.92, 0.71, 1, 0.64]),
  facial: knots([0, 2.45, 0.02, 2.72, 0.06, 3, 0.15, 3.4, 0.4, 4.15, 0.65, 4.55, 0.85, 4.45, 1, 4.1, 1.06, 3.95]),
  palatal: knots([
    0, -2.4, 0.02, -2.66, 0.06, -2.95, 0.15, -3.4, 0.35, -4.12, 0.58, -4.45, 0.85, -4.25, 1, -3.9, 1.06, -3.75,
  ]),
  contact: knots([0, 0.6, 0.3, 0.7, 0.6, 0.4, 1, 0]),
  facialPower: knots([0, 2.2, 0.3, 2.2, 1, 2.05]),
  palatalPower: knots([0, 2.1, 1, 2.1]),
  marginalMm: 0,
  palatalRidgeMm: 0,
  mesialCorner: { drop: 0.05, from: 0.7 },
  distalCorner: { drop: 0.05, from: 0.7 },
  // The first one's facial tip lies distal of the middle, its mesial arm is the longer; the oral tip lies mesial.
  cusps: [{ at: -0.08, shorter: 0, mesialDrop: 0.17, distalDrop: 0.15, tipRadius: 0.16 }],
  chewing: {
    cusps: [{ at: 0.1, shorter: 0.11, mesialDrop: 0.09, distalDrop: 0.09, tipRadius: 0.3 }],
    grooveMm: 1.9,
    marginalShare: 0.1,
    grooveAt: 0.52,
  },
  neckMesialMm: 1,
  neckDistalMm: 0.5,
  zenithDistalMm: 0,
  lobesMm: 0.03,
  ridgeMm: 0.1,
};

/** Rounder than the first, both cusps of nearly one height, the groove short, the facial tip mesial of the middle. */
const premolar2: CrownForm = {
  ...premolar1,
  kind: 'premolar2',
  mesial: knots([0, 0.84, 0.22, 0.96, 0.36, 1, 0.55, 0.97, 0.78, 0.83, 0.9, 0.73, 1, 0.65]),
  distal: knots([0, 0.84, 0.24, 0.96, 0.38, 1, 0.58, 0.97, 0.78, 0.83, 0.92, 0.72, 1, 0.64]),
  facial: knots([0, 2.4, 0.02, 2.64, 0.06, 2.92, 0.15, 3.35, 0.4, 4.1, 0.65, 4.52, 0.85, 4.42, 1, 4.05, 1.06, 3.9]),
  facialPower: knots([0, 2, 0.3, 2.05, 1, 2]),
  palatalPower: knots([0, 2, 1, 2.05]),
  cusps: [{ at: 0.05, shorter: 0, mesialDrop: 0.13, distalDrop: 0.14, tipRadius: 0.26 }],
  chewing: {
    cusps: [{ at: 0.12, shorter: 0.03, mesialDrop: 0.1, distalDrop: 0.1, tipRadius: 0.34 }],
    grooveMm: 1.45,
    marginalShare: 0.14,
    grooveAt: 0.5,
  },
  ridgeMm: 0.06,
};

/** Four cusps; the oral mesial one is the largest. Shaped by its size alone. */
const molar1: CrownForm = {
  ...premolar1,
  kind: 'molar1',
  usualWidthMm: 10,
  usualDepthMm: 11,
  mesial: knots([0, 0.9, 0.2, 0.985, 0.32, 1, 0.55, 0.97, 0.75, 0.89, 0.9, 0.82, 1, 0.77]),
  distal: knots([0, 0.88, 0.22, 0.985, 0.36, 1, 0.58, 0.97, 0.78, 0.89, 0.92, 0.81, 1, 0.77]),
  facial: knots([0, 3.3, 0.03, 3.65, 0.1, 4.05, 0.25, 4.65, 0.5, 5.25, 0.72, 5.5, 0.88, 5.3, 1, 5, 1.06, 4.85]),
  palatal: knots([
    0, -3.3, 0.03, -3.65, 0.1, -4.05, 0.25, -4.75, 0.45, -5.4, 0.6, -5.5, 0.85, -5.3, 1, -5, 1.06, -4.85,
  ]),
  contact: knots([0, 0.7, 0.3, 0.8, 0.6, 0.5, 1, 0.2]),
  facialPower: knots([0, 3, 0.4, 2.8, 1, 2.5]),
  palatalPower: knots([0, 2.6, 1, 2.5]),
  cusps: [
    { at: 0.42, shorter: 0, mesialDrop: 0.13, distalDrop: 0.28, tipRadius: 0.18 },
    { at: -0.42, shorter: 0.03, mesialDrop: 0.28, distalDrop: 0.13, tipRadius: 0.18 },
  ],
  chewing: {
    cusps: [
      { at: 0.3, shorter: 0.02, mesialDrop: 0.13, distalDrop: 0.24, tipRadius: 0.22 },
      { at: -0.55, shorter: 0.08, mesialDrop: 0.26, distalDrop: 0.1, tipRadius: 0.2 },
    ],
    grooveMm: 2,
    marginalShare: 0.2,
    grooveAt: 0.5,
  },
  neckMesialMm: 1,
  neckDistalMm: 0.4,
  ridgeMm: 0,
};

const molar2: CrownForm = {
  ...molar1,
  kind: 'molar2',
  usualWidthMm: 9,
  distal: knots([0, 0.84, 0.22, 0.965, 0.36, 1, 0.58, 0.97, 0.78, 0.88, 0.92, 0.8, 1, 0.76]),
  facialPower: knots([0, 2.6, 0.4, 2.5, 1, 2.3]),
  palatalPower: knots([0, 2.2, 1, 2.2]),
  chewing: {
    cusps: [
      { at: 0.25, shorter: 0.03, mesialDrop: 0.14, distalDrop: 0.22, tipRadius: 0.24 },
      { at: -0.55, shorter: 0.1, mesialDrop: 0.24, distalDrop: 0.08, tipRadius: 0.2 },
    ],
    grooveMm: 1.8,
    marginalShare: 0.2,
    grooveAt: 0.5,
  },
};

/** Upper library forms by kind of tooth. */
export const CROWN_FORMS: Readonly<Partial<Record<ToothKind, CrownForm>>> = {
  central,
  lateral,
  canine,
  premolar1,
  premolar2,
  molar1,
  molar2,
};
