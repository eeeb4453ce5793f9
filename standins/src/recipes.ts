import type { PatientRecipe } from './patient.js';

/**
 * *Avocet*: a small upper right lateral, worn centrals, the left lateral turned. 34 years. Six veneers, mostly added.
 */
export const AVOCET: PatientRecipe = {
  seed: 2411,
  traits: {
    13: { wearMm: 0.12, gapMesialMm: 0.3 },
    12: { widthMm: 5.4, lengthMm: 8.3, gapMesialMm: 0.7, edgeUpMm: 1.1, forwardMm: -0.25 },
    11: { lengthMm: 9.9, widthMm: 8.55, wearMm: 0.8, edgeUpMm: 0.7 },
    21: { lengthMm: 9.2, widthMm: 8.5, wearMm: 1.4, edgeUpMm: 1.45 },
    22: { rotationDeg: 9, lengthMm: 8.9, edgeUpMm: 1.05 },
    23: { wearMm: 0.3, lengthMm: 9.8, edgeUpMm: 0.4 },
    14: { gapMesialMm: 0 },
  },
  face: { restDisplayMm: 1.9, smileLipUpMm: 9.4, skin: 0.24, hair: 0.42, midlineMm: 0.6 },
  planned: {
    traits: {
      13: { lengthMm: 10.2, edgeUpMm: 0.05, gapMesialMm: 0 },
      12: { widthMm: 6.55, lengthMm: 9, edgeUpMm: 0.6, gapMesialMm: 0, forwardMm: 0 },
      11: { lengthMm: 10.6, widthMm: 8.6, edgeUpMm: 0 },
      21: { lengthMm: 10.6, widthMm: 8.6, edgeUpMm: 0 },
      22: { rotationDeg: 0, lengthMm: 9, edgeUpMm: 0.6 },
      23: { lengthMm: 10.2, edgeUpMm: 0.05 },
    },
  },
};

/** *Turnstone*: both laterals missing, the canines standing in their place. 23 years. */
export const TURNSTONE: PatientRecipe = {
  seed: 2512,
  missing: [12, 22],
  traits: {
    13: { gapMesialMm: 0.4, edgeUpMm: 0.2, lengthMm: 10.4 },
    23: { gapMesialMm: 0.5, edgeUpMm: 0.25, lengthMm: 10.3 },
    11: { lengthMm: 10.3 },
    21: { lengthMm: 10.3 },
    14: { edgeUpMm: 0.5 },
    24: { edgeUpMm: 0.5 },
  },
  face: {
    restDisplayMm: 2.9,
    smileLipUpMm: 9.2,
    skin: 0.62,
    hair: 0.02,
    hairToMm: -58,
    smileWidthMm: 64,
    midlineMm: -0.4,
  },
  planned: {
    traits: {
      13: { widthMm: 6.9, lengthMm: 9.6, edgeUpMm: 0.6, gapMesialMm: 0 },
      23: { widthMm: 6.9, lengthMm: 9.6, edgeUpMm: 0.6, gapMesialMm: 0 },
      11: { lengthMm: 10.6, edgeUpMm: 0 },
      21: { lengthMm: 10.6, edgeUpMm: 0 },
      14: { lengthMm: 9.2, edgeUpMm: 0.2 },
      24: { lengthMm: 9.2, edgeUpMm: 0.2 },
    },
  },
};

/** *Sandpiper*: mottled white-brown enamel on the four incisors. 27 years. */
export const SANDPIPER: PatientRecipe = {
  seed: 2613,
  traits: {
    12: { mottled: 0.85 },
    11: { mottled: 1 },
    21: { mottled: 0.95 },
    22: { mottled: 0.8, lengthMm: 9.3 },
  },
  face: { restDisplayMm: 3, smileLipUpMm: 10, skin: 0.4, hair: 0.12, hairToMm: -24, restWidthMm: 52 },
  planned: { traits: { 12: {}, 11: {}, 21: {}, 22: { lengthMm: 9.1 } } },
};

/** *Plover*: short crowns and a high lip line. 31 years. */
export const PLOVER: PatientRecipe = {
  seed: 2714,
  traits: {
    13: { lengthMm: 7.9 },
    12: { lengthMm: 6.9, widthMm: 6.5 },
    11: { lengthMm: 7.9, widthMm: 8.6 },
    21: { lengthMm: 8, widthMm: 8.6 },
    22: { lengthMm: 6.8, widthMm: 6.6 },
    23: { lengthMm: 7.8 },
    14: { lengthMm: 7 },
    24: { lengthMm: 7 },
  },
  gum: { inflamed: 0.45 },
  face: { restDisplayMm: 3.6, smileLipUpMm: 12.2, skin: 0.12, hair: 0.5, smileWidthMm: 65 },
  planned: {
    gum: {},
    traits: {
      13: { lengthMm: 10 },
      12: { lengthMm: 8.9 },
      11: { lengthMm: 10.5 },
      21: { lengthMm: 10.5 },
      22: { lengthMm: 8.9 },
      23: { lengthMm: 10 },
      14: { lengthMm: 8.3 },
      24: { lengthMm: 8.3 },
    },
  },
};

/** *Dunlin*: open dark triangles between the incisors of both jaws, the lower edges worn. 52 years. */
export const DUNLIN: PatientRecipe = {
  seed: 2815,
  traits: {
    12: { lengthMm: 9.6 },
    11: { lengthMm: 11.2, wearMm: 0.3 },
    21: { lengthMm: 11.2, wearMm: 0.4 },
    22: { lengthMm: 9.6 },
    42: { lengthMm: 9.1, wearMm: 0.9 },
    41: { lengthMm: 9.1, wearMm: 1.1 },
    31: { lengthMm: 9.1, wearMm: 1.1 },
    32: { lengthMm: 9.1, wearMm: 0.9 },
  },
  gum: { papillaLossMm: 1.5 },
  overbiteMm: 2,
  face: { restDisplayMm: 1, smileLipUpMm: 8.8, skin: 0.3, hair: 0.9, hairToMm: -34, restWidthMm: 51 },
  planned: {
    gum: { papillaLossMm: 0.4 },
    traits: {
      12: {},
      11: {},
      21: {},
      22: {},
      // The worn lower edges have 0.7 mm again.
      ...Object.fromEntries([42, 41, 31, 32].map((t) => [t, { lengthMm: 9.8, edgeUpMm: -0.7, wearMm: 0.2 }])),
    },
  },
};

/** *Curlew*: one dark root-filled central beside a sound one. 45 years. */
export const CURLEW: PatientRecipe = {
  seed: 2916,
  traits: { 21: { dark: 1, lengthMm: 10.4, edgeUpMm: 0.25, wearMm: 0.3 }, 11: { wearMm: 0.2 } },
  face: { restDisplayMm: 1.6, smileLipUpMm: 9.4, skin: 0.86, hair: 0, hairToMm: -20, smileWidthMm: 66, cantDeg: 1.2 },
  planned: { traits: { 21: { lengthMm: 10.6, edgeUpMm: 0 } } },
};

/** *Redshank*: the mesial corner of the upper left central broken off at play. 16 years. */
export const REDSHANK: PatientRecipe = {
  seed: 3017,
  traits: { 21: { broken: { corner: 'mesial', upMm: 3.6, inMm: 4.8 } }, 11: { lengthMm: 10.4 } },
  face: {
    restDisplayMm: 3.2,
    smileLipUpMm: 9.8,
    skin: 0.52,
    hair: 0.18,
    hairToMm: -20,
    smileWidthMm: 63,
    restWidthMm: 48,
  },
  planned: { traits: { 21: {} } },
};

/** The seven cases of the demo by their names. */
export const RECIPES = {
  Avocet: AVOCET,
  Turnstone: TURNSTONE,
  Sandpiper: SANDPIPER,
  Plover: PLOVER,
  Dunlin: DUNLIN,
  Curlew: CURLEW,
  Redshank: REDSHANK,
} as const;
export type RecipeName = keyof typeof RECIPES;
