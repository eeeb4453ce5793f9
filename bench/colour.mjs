import {
  CERAMIC_CLASSES,
  ceramicIn,
  LETTER_SCALE,
  overThickness,
  shadeOf,
  smoothestSpectrum,
  stumpFrom,
} from '@radiant/core';
import { figure, medianMs } from './figure.mjs';

// Ten teeth in three zones, every class of ceramic, from 0.2 to 2.0 mm by 0.05: as one change of a case asks for it.
const stumps = Array.from({ length: 30 }, (_, i) => stumpFrom(smoothestSpectrum(LETTER_SCALE.shades[i % 16].lab)));
const wanted = shadeOf('A1').lab;
const ceramics = CERAMIC_CLASSES.map((c) => ceramicIn(c, wanted));
const all = medianMs(
  () => {
    for (const stump of stumps) for (const optics of ceramics) overThickness(optics, [], stump, wanted);
  },
  { warm: 3, runs: 7 },
);
figure('colours-ten-teeth', all, 'ms', 'limit:100ms', 100 / all);
