import { type Fdi, kindOf, type ToothKind } from '../teeth/notation.js';
import type { ToothMeasure } from './measures.js';

type Range = readonly [number, number];

/**
 * Between these every clinical crown of an adult may be expected, worn and peg-shaped ones too, mm. What lies outside
 * is asked about and never refused. House values, wide of any published mean (Sterrett et al. 1999, from memory).
 */
const WIDTHS_MM: Readonly<Partial<Record<ToothKind, Range>>> = {
  central: [6, 11.5],
  lateral: [3, 9.5],
  canine: [5.5, 10.5],
  premolar1: [5, 9.5],
  premolar2: [5, 9.5],
};
const LENGTH_MM: Range = [3, 16];
/** Width as a share of length, %. */
const RATIO: Range = [35, 200];
/** So many teeth of unlikely size speak against the scale, not against each tooth. */
const BY_SCALE = 2;

/** So many of them are named. */
const NAMED = 2;

/** Something that is more likely a slip than a tooth. `{11}` in the sentence stands for a tooth number. */
export interface Doubtful {
  readonly about: 'scale' | 'points';
  readonly teeth: readonly Fdi[];
  readonly sentence: string;
}

const outside = (v: number, pm: number, [least, most]: Range) => v + pm < least || v - pm > most;

/** What of the measures of a photograph can hardly be: looked for in the scale first, then in single points. */
export function doubtfulMeasures(measures: readonly ToothMeasure[]): Doubtful[] {
  const ratios = measures.filter((m) => m.ratio && outside(m.ratio.value, m.ratio.pm, RATIO));
  // A ratio knows no scale: where it can't be, a point lies wrongly.
  const points = ratios.map(
    ({ tooth, ratio }): Doubtful => ({
      about: 'points',
      teeth: [tooth],
      sentence: `{${tooth}} would be ${ratio?.value.toFixed(0)} % as wide as long: one of its points lies wrongly.`,
    }),
  );
  const sized = measures.flatMap(({ tooth, width, length }) => {
    if (ratios.some((r) => r.tooth === tooth)) return [];
    const range = WIDTHS_MM[kindOf(tooth)];
    if (width && range && outside(width.value, width.pm, range))
      return [{ tooth, words: `${width.value.toFixed(1)} mm wide` }];
    return length && outside(length.value, length.pm, LENGTH_MM)
      ? [{ tooth, words: `${length.value.toFixed(1)} mm long` }]
      : [];
  });
  if (sized.length >= BY_SCALE)
    return [
      {
        about: 'scale',
        teeth: sized.map((s) => s.tooth),
        sentence: `By this scale ${sized
          .slice(0, NAMED)
          .map((s) => `{${s.tooth}} is ${s.words}`)
          .join(
            ', ',
          )}${sized.length > NAMED ? `, and ${sized.length - NAMED} more can hardly be` : ''}: look at its ends and at its length.`,
      },
      ...points,
    ];
  return [
    ...sized.map(
      (s): Doubtful => ({
        about: 'points',
        teeth: [s.tooth],
        sentence: `{${s.tooth}} would be ${s.words}: look at its points, and at the scale.`,
      }),
    ),
    ...points,
  ];
}
