import type { DecideSection, MatchSection } from '@radiant/contract';
import { type RecipeName, shadeReadings } from '@radiant/standins';

/** When the simulated shade meter read the teeth of the sample cases. */
const AT = '2026-11-20T09:10:00.000Z';

const read = (patient: RecipeName): MatchSection['readings'] =>
  shadeReadings(patient, 'tooth', AT).map(({ device, light, spectrum, ...r }) => ({
    ...r,
    light: light ?? null,
    device: device ?? null,
    spectrum: spectrum ? [...spectrum] : null,
  }));

/** The colours of the sample cases in which they decide: a root-filled central, mottled enamel, and a usual front. */
export const DEMO_COLOURS: Readonly<Partial<Record<RecipeName, MatchSection>>> = {
  Avocet: { readings: read('Avocet'), wanted: 'A1', ceramic: 'glass-medium', cement: 'clear' },
  // The corner is to look like the whole central beside it.
  Redshank: { readings: read('Redshank'), wanted: 'A1', like: 11, ceramic: 'glass-medium', cement: 'clear' },
  // The crown is to look like the sound central beside it.
  Curlew: {
    readings: read('Curlew'),
    wanted: 'A2',
    like: 11,
    ceramic: 'glass-low',
    cement: 'clear',
    character: [{ tooth: 21, translucency: 'medium', texture: 'light', note: 'no halo; as worn as 11' }],
  },
  Sandpiper: { readings: read('Sandpiper'), wanted: 'A1', ceramic: 'glass-low', cement: 'clear' },
};

/** What was decided in them: the designs are those of their plans. */
export const DEMO_CHOICES: Readonly<Partial<Record<RecipeName, DecideSection>>> = {
  Curlew: { choices: [{ tooth: 21, option: 'glass-crown', ceramic: 'glass-low' }], dry: true },
  Sandpiper: {
    choices: [12, 11, 21, 22].map((tooth) => ({
      tooth,
      option: 'veneer',
      ceramic: 'glass-low',
      reason: 'The brown shows less through low translucency; first the try-in, then the decision on more depth.',
    })),
    dry: true,
  },
};
