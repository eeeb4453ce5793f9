import type { ColourReadingInput, MatchSection } from '@radiant/contract';
import type { RecipeName } from '@radiant/standins';

const AT = '2026-11-20T09:10:00.000Z';
type Three = readonly [L: number, a: number, b: number];

/** Readings of a tooth before it is cut: at the gum, in the body, at the edge. Invented. */
const read = (tooth: number, gum: Three, body: Three, edge: Three): ColourReadingInput[] =>
  (
    [
      ['gum', gum],
      ['body', body],
      ['edge', edge],
    ] as const
  ).map(([zone, [L, a, b]]) => ({
    tooth,
    of: 'tooth',
    zone,
    L,
    a,
    b,
    wet: true,
    at: AT,
    device: 'shade meter, simulated',
  }));

/** The colours of the sample cases in which they decide: a root-filled central, mottled enamel, and a usual front. */
export const DEMO_COLOURS: Readonly<Partial<Record<RecipeName, MatchSection>>> = {
  Avocet: {
    readings: [11, 21].flatMap((t) => read(t, [72.5, 1.2, 20.5], [75.5, 0.2, 17.5], [74, -1, 13.5])),
    wanted: 'A1',
    ceramic: 'glass-medium',
    cement: 'clear',
  },
  Curlew: {
    readings: [
      ...read(11, [72.8, 1.4, 20.8], [76, 0, 16.9], [74.2, -1.1, 13]),
      ...read(21, [56.5, 3.6, 17.5], [60.5, 2.6, 15.8], [63.5, 1.2, 12.4]),
    ],
    wanted: 'A2',
    ceramic: 'glass-medium',
    cement: 'clear',
  },
  Sandpiper: {
    readings: [12, 11, 21, 22].flatMap((t) => read(t, [74, 0.8, 18.8], [67.5, 5.2, 24.5], [81.5, -0.8, 8.5])),
    wanted: 'A1',
    ceramic: 'glass-low',
    cement: 'clear',
  },
};
