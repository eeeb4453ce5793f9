import type { ToothFacts } from '@radiant/core';

/** A sound tooth of an adult of whom nothing else is known. */
export const SOUND: ToothFacts = {
  tooth: 11,
  ageYears: 35,
  grinding: false,
  acid: false,
  bleeding: false,
  dark: false,
  broken: false,
  crowned: false,
  lighter: false,
  formWished: false,
  bleachLater: false,
  gaps: false,
  cameOff: false,
  neighbours: [],
};
