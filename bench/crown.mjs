import { crown } from '@radiant/core';
import { figure, medianMs } from './figure.mjs';

const SIZES = { 11: [8.6, 10.8], 12: [6.6, 9.2], 13: [7.6, 10.3], 14: [7, 8.5] };
for (const [tooth, [widthMm, lengthMm]] of Object.entries(SIZES)) {
  let facialVolumeMm = 0;
  const once = () => {
    facialVolumeMm += 0.001;
    crown(Number(tooth), { widthMm, lengthMm, facialVolumeMm, wearMm: 0 });
  };
  const ms = medianMs(once, { warm: 5, runs: 21 });
  figure(`crown-${tooth}`, ms, 'ms', 'limit:5ms', 5 / ms);
}
