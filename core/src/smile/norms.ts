import { published, type Source } from '../working/working.js';

/** Published tables on lips and smile, typed from memory. Classes are half-open: from (inclusive) to (exclusive). */

const VIG = published('Vig & Brundo 1978, J Prosthet Dent 39:502');
const TJAN = published('Tjan, Miller, The 1984, J Prosthet Dent 51:24');
const MOORE = published('Moore et al. 2005, Am J Orthod 127:208');
const KOKICH = published('Kokich, Kiyak, Shapiro 1999, J Esthet Dent 11:311; Kokich et al. 2006, Am J Orthod 130:141');

export type Sex = 'female' | 'male';

export interface ValueNorm {
  readonly value: number;
  readonly unit: 'mm' | '%';
  /** Which row of the table it is, in words. */
  readonly row: string;
  readonly source: Source;
}

interface Row {
  readonly from: number;
  readonly to: number;
  readonly upper: number;
  readonly lower: number;
}

/** Central incisor shown at rest by age in years, mm: upper and lower. */
export const DISPLAY_BY_AGE: readonly Row[] = [
  { from: 0, to: 30, upper: 3.37, lower: 0.51 },
  { from: 30, to: 40, upper: 1.58, lower: 0.8 },
  { from: 40, to: 50, upper: 0.95, lower: 1.96 },
  { from: 50, to: 60, upper: 0.46, lower: 2.44 },
  { from: 60, to: Infinity, upper: -0.04, lower: 2.95 },
];

/** Upper central shown at rest by sex, mm. */
export const DISPLAY_BY_SEX: Readonly<Record<Sex, number>> = { female: 3.4, male: 1.91 };

/** Upper central shown at rest by length of the upper lip, mm. */
export const DISPLAY_BY_LIP: readonly { readonly from: number; readonly to: number; readonly upper: number }[] = [
  { from: 10, to: 16, upper: 3.92 },
  { from: 16, to: 21, upper: 3.44 },
  { from: 21, to: 26, upper: 2.18 },
  { from: 26, to: 31, upper: 0.93 },
  { from: 31, to: 37, upper: 0.25 },
];

/**
 * How much of the upper centrals shows at rest, mm, by every table for which something is known: by age, by sex, by
 * length of the upper lip. They are not combined: the publication gives each by itself.
 */
export function displayAtRest(who: { ageYears?: number | null; sex?: Sex | null; lipMm?: number }): ValueNorm[] {
  const out: ValueNorm[] = [];
  const norm = (value: number, row: string): ValueNorm => ({ value, unit: 'mm', row, source: VIG });
  const age = who.ageYears;
  const byAge = typeof age === 'number' ? DISPLAY_BY_AGE.find((r) => age >= r.from && age < r.to) : undefined;
  if (byAge)
    out.push(
      norm(
        byAge.upper,
        byAge.from === 0
          ? 'up to 29 years'
          : byAge.to === Infinity
            ? '60 years and more'
            : `${byAge.from}–${byAge.to - 1} years`,
      ),
    );
  if (who.sex) out.push(norm(DISPLAY_BY_SEX[who.sex], who.sex === 'female' ? 'women' : 'men'));
  const lip = who.lipMm;
  const byLip = lip === undefined ? undefined : DISPLAY_BY_LIP.find((r) => lip >= r.from && lip < r.to);
  if (byLip) out.push(norm(byLip.upper, `upper lip ${byLip.from}–${byLip.to - 1} mm`));
  return out;
}

export type LipLine = 'high' | 'average' | 'low';

/** Share of adults with each lip line in full smile, %. */
export const LIP_LINE_SHARE: Readonly<Record<LipLine, number>> = { high: 10.6, average: 68.9, low: 20.5 };

/**
 * The lip line in full smile.
 * @param crownShare share of the upper front crowns that is seen, %, at most 100
 * @param band whether a continuous band of gum shows above them
 */
export function lipLine(crownShare: number, band: boolean): { readonly kind: LipLine; readonly source: Source } {
  const kind = band && crownShare >= 100 ? 'high' : crownShare >= 75 ? 'average' : 'low';
  return { kind, source: TJAN };
}

export type EdgeCurve = 'parallel' | 'straight' | 'reverse';

/** Share of adults with each course of the edges against the lower lip, %. */
export const EDGE_CURVE_SHARE: Readonly<Record<EdgeCurve, number>> = { parallel: 84.8, straight: 13.9, reverse: 1.3 };

export type Corridor = 'broad' | 'medium broad' | 'medium' | 'medium narrow' | 'narrow';

/** The dark share of smile width that was judged, %, for each class. */
export const CORRIDOR_JUDGED: readonly { readonly kind: Corridor; readonly share: number }[] = [
  { kind: 'broad', share: 2 },
  { kind: 'medium broad', share: 10 },
  { kind: 'medium', share: 15 },
  { kind: 'medium narrow', share: 22 },
  { kind: 'narrow', share: 28 },
];

/** The class of a dark corridor: the judged share that lies nearest; half way counts as the narrower. */
export function corridor(sharePercent: number): { readonly kind: Corridor; readonly source: Source } {
  let best = CORRIDOR_JUDGED[0] as (typeof CORRIDOR_JUDGED)[number];
  for (const c of CORRIDOR_JUDGED)
    if (Math.abs(sharePercent - c.share) <= Math.abs(sharePercent - best.share)) best = c;
  return { kind: best.kind, source: MOORE };
}

export type Deviation = 'midline' | 'cant' | 'tip' | 'gum';

/** From where on a deviation is noticed, mm, by laypeople and, where published, by dentists. */
export const NOTICED_MM: Readonly<
  Record<Deviation, { readonly laypeople: number; readonly dentists?: number; readonly source: Source }>
> = {
  midline: { laypeople: 4, source: KOKICH },
  cant: { laypeople: 3, dentists: 1, source: KOKICH },
  tip: { laypeople: 2, source: KOKICH },
  gum: { laypeople: 4, source: KOKICH },
};

/** Who notices a deviation of so many mm. */
export function noticedBy(what: Deviation, mm: number): 'people' | 'dentists' | 'nobody' {
  const { laypeople, dentists } = NOTICED_MM[what];
  const size = Math.abs(mm);
  return size >= laypeople ? 'people' : dentists !== undefined && size >= dentists ? 'dentists' : 'nobody';
}
