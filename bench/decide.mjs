import { OPTIONS, ranked } from '@radiant/core';
import { figure, medianMs } from './figure.mjs';

// A whole case put in order again after one choice: ten teeth, every option, every rule.
const facts = Array.from({ length: 10 }, (_, i) => ({
  tooth: 11 + i,
  ageYears: 40,
  grinding: true,
  acid: true,
  bleeding: true,
  dry: false,
  dark: i % 2 === 0,
  broken: false,
  crowned: false,
  lighter: true,
  bleachLater: true,
  gaps: true,
  cameOff: true,
  palatalRoomMm: 0.5,
  nowDE: 6,
  otherCentral: 'veneer',
  neighbours: ['glass-crown', 'veneer'],
}));
const figures = new Map(
  OPTIONS.map((o, i) => [o.id, { removedMm3: 12 * i, removedShare: 0.06 * i, enamelShare: 0.4, dE: 3, hiddenMm: 0.5 }]),
);
const all = medianMs(
  () => {
    for (const f of facts) ranked(f, figures);
  },
  { warm: 20, runs: 51 },
);
figure('rank-ten-teeth', all, 'ms', 'limit:50ms', 50 / all);
