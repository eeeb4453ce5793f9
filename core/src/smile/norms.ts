import { published, type Source } from '../working/working.js';

/** Published tables on lips and smile, typed from memory. Classes are half-open: from (inclusive) to (exclusive). */

const VIG = published('Vig & Brundo 1978, J Prosthet Dent 39:502');
const TJAN = published('Tjan, Miller, The 1984, J Prosthet Dent 51:24');
const MOORE = published('Moore et al. 2005, Am J Orthod 127:208');
const KOKICH = published('Kokich, Kiyak, Shapiro 1999, J Esthet Dent 11:311');

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

/** What is wished of the length of the teeth. */
export type LengthWish = 'longer' | 'shorter';

/** What each table gives, and which one speaks: the first, whose rows lie furthest apart. */
export function displayWords(norms: readonly ValueNorm[]): string {
  const [first, ...others] = norms;
  if (!first) return '';
  const said = (n: ValueNorm) => `${n.row} ${n.value.toFixed(1)} mm`;
  return others.length === 0
    ? `Usual for ${said(first)}.`
    : `Usual for ${said(first)}, which speaks here; beside it ${others.map(said).join(', ')}: the tables are of one study and are not put together.`;
}

export type LipLine = 'high' | 'average' | 'low';

/** The people of that study. */
export const TJAN_PEOPLE = 'students of 20 to 30 years';

/** Share of them with each lip line in full smile, %. */
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

/** Share of them with each course of the edges against the lower lip, %. */
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

/** Whose eyes: people of the studies, from those who see least to those who see most. */
export type Eyes = 'laypeople' | 'dentists' | 'orthodontists';

/** How a deviation weighs: everybody notices it, only the trained do, or nobody does. */
export type Notice = 'people' | 'dentists' | 'orthodontists' | 'nobody';

export type Deviation = 'midline' | 'cant' | 'tip' | 'narrow' | 'embrasure' | 'gum';

/**
 * From where on each rated a smile less attractive, mm; none where they did not even at the most that was shown.
 * `house` is taken for laypeople where other studies found less, and says so.
 */
export interface NoticedFrom {
  readonly laypeople?: number;
  readonly dentists?: number;
  readonly orthodontists?: number;
  readonly source: Source;
  /** A smaller limit than the study's, and where it comes from. */
  readonly house?: { readonly laypeople: number; readonly source: Source };
}

const MIDLINE_HOUSE: Source = {
  mark: 'house',
  text: 'house value: about 2 mm is found elsewhere (Johnston et al. 1999; Beyer & Lindauer 1998), from memory',
};

export const NOTICED_MM: Readonly<Record<Deviation, NoticedFrom>> = {
  midline: { orthodontists: 4, source: KOKICH, house: { laypeople: 2, source: MIDLINE_HOUSE } },
  cant: { orthodontists: 1, dentists: 1, laypeople: 3, source: KOKICH },
  tip: { orthodontists: 2, dentists: 2, laypeople: 2, source: KOKICH },
  narrow: { orthodontists: 3, dentists: 3, laypeople: 4, source: KOKICH },
  embrasure: { orthodontists: 2, dentists: 3, laypeople: 3, source: KOKICH },
  gum: { orthodontists: 2, dentists: 4, laypeople: 4, source: KOKICH },
};

/** Who notices a deviation of so many mm. */
export function noticedBy(what: Deviation, mm: number): Notice {
  const { laypeople, dentists, orthodontists, house } = NOTICED_MM[what];
  const size = Math.abs(mm);
  const reached = (from: number | undefined) => from !== undefined && size >= from;
  if (reached(house?.laypeople) || reached(laypeople)) return 'people';
  return reached(dentists) ? 'dentists' : reached(orthodontists) ? 'orthodontists' : 'nobody';
}

/** From where on whom, as a sentence. */
export function noticedWords(what: Deviation): string {
  const { laypeople, dentists, orthodontists, house } = NOTICED_MM[what];
  const by = new Map<number, string[]>();
  for (const [who, from] of [
    ['orthodontists', orthodontists],
    ['dentists', dentists],
    ['laypeople', laypeople],
  ] as const)
    if (from !== undefined) by.set(from, [...(by.get(from) ?? []), who]);
  const said = [...by].map(([mm, who]) => `${mm} mm by ${who.join(' and ')}`).join(', ');
  const not = [dentists === undefined && 'dentists', laypeople === undefined && 'laypeople'].filter(Boolean);
  return [
    `Noticed from ${said}`,
    ...(not.length > 0 ? [`, by ${not.join(' and ')} not even there`] : []),
    ...(house ? [`; elsewhere laypeople noticed about ${house.laypeople} mm`] : []),
    '.',
  ].join('');
}

/** The least deviation that anybody noticed, mm. */
export const leastNoticed = (what: Deviation): number => {
  const { laypeople, dentists, orthodontists, house } = NOTICED_MM[what];
  return Math.min(...[laypeople, dentists, orthodontists, house?.laypeople].filter((v) => v !== undefined));
};
