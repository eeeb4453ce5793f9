import { hypot } from '../geometry/vec.js';
import { isFrontKind, LENGTH_ASYMMETRY_NOTICED, ratioOff, WIDTH } from '../teeth/norms.js';
import { type Fdi, kindOf, opposite, UPPER_TEN } from '../teeth/notation.js';
import { COMMON_PRACTICE, DERIVED, derived, differs, type Figure, type Source } from '../working/working.js';
import type { ToothMeasure } from './measures.js';
import type { Notice } from './norms.js';

/** What deviates: what, how much, against which norm, would anyone notice, what it suggests. */
export interface Finding {
  readonly id: string;
  readonly teeth: readonly Fdi[];
  /** A sentence with {tooth} written as `{11}` where a number stands, so that the screen can write either notation. */
  readonly title: string;
  readonly detail: string;
  readonly notice: Notice;
  /** What was measured; none of what was seen and noted. */
  readonly figure?: Figure;
  readonly source: Source;
  /** For sorting: the deviation over what is noticed or over the norm's band. */
  readonly weight: number;
}

/**
 * Below this a difference of widths is called slight, mm. Common practice, no source: no published threshold is used
 * here.
 */
const WIDTH_DIFFERENCE_NOTICED_MM = 0.5;

/** All findings, the most visible first. Differences smaller than their error are not findings. */
export function findings(measures: readonly ToothMeasure[]): Finding[] {
  const by = new Map(measures.map((m) => [m.tooth, m]));
  const found = [
    ...pairFindings(by),
    ...levelFindings(by),
    ...ratioFindings(by),
    ...widthFindings(by),
    ...dominanceFindings(by),
    ...orderFindings(by),
  ];
  return found.sort(byNotice);
}

const RANK: Readonly<Record<Notice, number>> = { people: 0, dentists: 1, orthodontists: 2, nobody: 3 };

/** What most eyes see first, then what deviates most. */
export const byNotice = (a: Finding, b: Finding): number => RANK[a.notice] - RANK[b.notice] || b.weight - a.weight;

/** Right minus left with the error of both. */
export function difference(a: Figure, b: Figure): Figure {
  return derived(
    [a, b],
    a.unit,
    {
      formula: 'difference = one − other; errors that both have in common cancel',
      inputs: [
        { name: 'one', value: round(a.value), unit: a.unit, source: DERIVED },
        { name: 'other', value: round(b.value), unit: b.unit, source: DERIVED },
      ],
    },
    ([one, other]) => (one as number) - (other as number),
  );
}

function pairFindings(by: ReadonlyMap<Fdi, ToothMeasure>): Finding[] {
  const out: Finding[] = [];
  for (const right of UPPER_TEN.filter((t) => t < 20)) {
    const left = opposite(right);
    const r = by.get(right);
    const l = by.get(left);
    if (r?.length && l?.length && differs(r.length, l.length)) {
      const d = difference(r.length, l.length);
      const mm = Math.abs(d.value);
      const [shorter, longer] = d.value < 0 ? [right, left] : [left, right];
      const { laypeople, dentists, orthodontists } = LENGTH_ASYMMETRY_NOTICED;
      const notice: Notice =
        mm >= laypeople.value
          ? 'people'
          : mm >= dentists.value
            ? 'dentists'
            : mm >= orthodontists.value
              ? 'orthodontists'
              : 'nobody';
      out.push({
        id: `length-${right}`,
        teeth: [shorter, longer],
        title: `{${shorter}} is ${mm.toFixed(1)} ±${d.pm.toFixed(1)} mm shorter than {${longer}}`,
        detail: `Noticed from ${orthodontists.value} mm by orthodontists, ${dentists.value.toFixed(1)} by dentists, ${laypeople.value} by laypeople. ${causeOf(r, l, right, left)}`,
        notice,
        figure: d,
        source: laypeople.source,
        weight: mm / laypeople.value,
      });
    }
    if (r?.frontWidth && l?.frontWidth && differs(r.frontWidth, l.frontWidth)) {
      const d = difference(r.frontWidth, l.frontWidth);
      const mm = Math.abs(d.value);
      const [narrower, wider] = d.value < 0 ? [right, left] : [left, right];
      out.push({
        id: `width-${right}`,
        teeth: [narrower, wider],
        title: `{${narrower}} looks ${mm.toFixed(1)} ±${d.pm.toFixed(1)} mm narrower than {${wider}}`,
        detail: 'Seen from the front. The tooth is small or turned; widen it in the plan or turn it first.',
        notice: mm >= WIDTH_DIFFERENCE_NOTICED_MM ? 'dentists' : 'nobody',
        figure: d,
        source: COMMON_PRACTICE,
        weight: mm / WIDTH_DIFFERENCE_NOTICED_MM,
      });
    }
  }
  return out;
}

function ratioFindings(by: ReadonlyMap<Fdi, ToothMeasure>): Finding[] {
  const out: Finding[] = [];
  for (const [tooth, m] of by) {
    const kind = kindOf(tooth);
    if (!m.ratio || !isFrontKind(kind)) continue;
    const { off: over, norm } = ratioOff(kind, m.ratio.value);
    if (Math.abs(over) <= Math.max(norm.band, m.ratio.pm)) continue;
    out.push({
      id: `ratio-${tooth}`,
      teeth: [tooth],
      title: `{${tooth}} is ${over > 0 ? 'short for its width' : 'narrow for its length'}: ${m.ratio.value.toFixed(0)} ±${m.ratio.pm.toFixed(0)} %`,
      detail:
        over > 0
          ? `Clinical crowns of living people have about ${norm.value.toFixed(0)} %. Length at the edge or at the gum brings it back.`
          : `Even whole unworn crowns, to the cement line, have ${norm.value.toFixed(0)} %. Look for gum that has gone back; more width brings it back, if there is space.`,
      notice: 'dentists',
      figure: m.ratio,
      source: norm.source,
      weight: Math.abs(over) / norm.band / 2,
    });
  }
  return out;
}

function widthFindings(by: ReadonlyMap<Fdi, ToothMeasure>): Finding[] {
  const out: Finding[] = [];
  for (const [tooth, m] of by) {
    const kind = kindOf(tooth);
    if (!m.width || !isFrontKind(kind)) continue;
    const norm = WIDTH[kind];
    const over = m.width.value - norm.value;
    if (Math.abs(over) <= hypot(norm.band, m.width.pm)) continue;
    out.push({
      id: `size-${tooth}`,
      teeth: [tooth],
      title: `{${tooth}} is ${over < 0 ? 'narrow' : 'wide'}: ${m.width.value.toFixed(1)} ±${m.width.pm.toFixed(1)} mm`,
      detail: `The norm is ${norm.value.toFixed(1)} ±${norm.band.toFixed(1)} mm.`,
      notice: 'dentists',
      figure: m.width,
      source: norm.source,
      weight: Math.abs(over) / norm.band / 2,
    });
  }
  return out;
}

/** Whether a difference in length lies at the edge or at the gum, as far as the levels tell. */
function causeOf(r: ToothMeasure, l: ToothMeasure, right: Fdi, left: Fdi): string {
  const said = (what: 'edge' | 'gum', a: Figure | undefined, b: Figure | undefined): string[] => {
    if (!a || !b || !differs(a, b)) return [];
    const d = difference(a, b);
    const higher = d.value > 0 ? right : left;
    return [`the ${what} of {${higher}} stands ${Math.abs(d.value).toFixed(1)} ±${d.pm.toFixed(1)} mm higher`];
  };
  const causes = [...said('edge', r.edgeLevel, l.edgeLevel), ...said('gum', r.zenithLevel, l.zenithLevel)];
  if (causes.length === 0) return 'Look at the edge for wear and at the gum level.';
  const words = causes.join(', and ');
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}.`;
}

/** Below this a difference of levels is not told, mm. Common practice, no source. */
const LEVEL_MM = 0.5;

/** What is said of two fellows that do not stand at one height, by what of them is told: the gum before the edge. */
const LEVELS = [
  {
    id: 'gum-level',
    at: 'zenithLevel',
    words: 'gum',
    detail: 'The two are as long: one stands higher as a whole. Level the edges, or the gum, in the plan.',
  },
  {
    id: 'edge-level',
    at: 'edgeLevel',
    words: 'edge',
    detail: 'A step at the edges is seen before one at the gum. Level the edges in the plan.',
  },
] as const;

/** Gum lines or edges of the two sides that do not stand at one height, where the lengths do not tell it already. */
function levelFindings(by: ReadonlyMap<Fdi, ToothMeasure>): Finding[] {
  return UPPER_TEN.filter((t) => t < 20).flatMap((right): Finding[] => {
    const left = opposite(right);
    const [r, l] = [by.get(right), by.get(left)];
    if (!r || !l || (r.length && l.length && differs(r.length, l.length))) return [];
    for (const { id, at, words, detail } of LEVELS) {
      const [one, other] = [r[at], l[at]];
      if (!one || !other) continue;
      const d = difference(one, other);
      if (Math.abs(d.value) <= Math.max(d.pm, LEVEL_MM)) continue;
      const [higher, lower] = d.value > 0 ? [right, left] : [left, right];
      return [
        {
          id: `${id}-${right}`,
          teeth: [higher, lower],
          title: `The ${words} of {${higher}} stands ${Math.abs(d.value).toFixed(1)} ±${d.pm.toFixed(1)} mm higher than that of {${lower}}`,
          detail,
          notice: 'dentists',
          figure: d,
          source: COMMON_PRACTICE,
          weight: Math.abs(d.value) / 2,
        },
      ];
    }
    return [];
  });
}

/** A lateral that is longer than its central: the centrals do not lead. */
function dominanceFindings(by: ReadonlyMap<Fdi, ToothMeasure>): Finding[] {
  return [12, 22].flatMap((lateral): Finding[] => {
    const central = lateral - 1;
    const [l, c] = [by.get(lateral)?.length, by.get(central)?.length];
    if (!l || !c) return [];
    const d = difference(l, c);
    if (d.value <= d.pm) return [];
    return [
      {
        id: `dominance-${lateral}`,
        teeth: [lateral, central],
        title: `{${lateral}} is ${d.value.toFixed(1)} ±${d.pm.toFixed(1)} mm longer than {${central}}`,
        detail: 'The centrals lead a smile; a lateral is usually a millimetre or more shorter.',
        notice: 'dentists',
        figure: d,
        source: COMMON_PRACTICE,
        weight: d.value,
      },
    ];
  });
}

function orderFindings(by: ReadonlyMap<Fdi, ToothMeasure>): Finding[] {
  const out: Finding[] = [];
  for (const canine of [13, 23]) {
    const c = by.get(canine)?.length;
    const lateral = canine - 1;
    const l = by.get(lateral)?.length;
    if (!c || !l) continue;
    const d = difference(c, l);
    // Only what is shorter by more than the error is called so.
    if (d.value > -d.pm) continue;
    out.push({
      id: `canine-${canine}`,
      teeth: [canine, lateral],
      title: `{${canine}} is shorter than {${lateral}} by ${(-d.value).toFixed(1)} ±${d.pm.toFixed(1)} mm`,
      detail: 'A canine shorter than its lateral looks worn; look for lost canine guidance.',
      notice: 'dentists',
      figure: d,
      source: COMMON_PRACTICE,
      weight: 0.5,
    });
  }
  return out;
}

const round = (v: number) => Math.round(v * 100) / 100;
