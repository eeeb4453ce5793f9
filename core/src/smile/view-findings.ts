import { hypot } from '../geometry/vec.js';
import { CHU_ZENITH, isFrontKind, TARNOW_PAPILLA, ZENITH_DISTAL } from '../teeth/norms.js';
import { type Fdi, kindOf } from '../teeth/notation.js';
import { COMMON_PRACTICE, type Figure, published, type Source } from '../working/working.js';
import type { Finding } from './findings.js';
import {
  corridor,
  displayAtRest,
  displayWords,
  EDGE_CURVE_SHARE,
  type LengthWish,
  LIP_LINE_SHARE,
  leastNoticed,
  NOTICED_MM,
  type Notice,
  noticedBy,
  noticedWords,
  type Sex,
  TJAN_PEOPLE,
} from './norms.js';
import type { ViewFigure } from './reading.js';

const MORLEY = published('Morley & Eubank 2001, JADA 132:39');
const PRESTON = published('Preston 1993, J Prosthodont 2:247');
const TJAN = published('Tjan, Miller, The 1984, J Prosthet Dent 51:24');

/** From where on a departure is told where no threshold is published. Common practice, no source. */
const TOLD = {
  displayMm: 1,
  offsetMm: 0.5,
  turnDeg: 6,
  leanDeg: 2,
  lipMm: 1,
  edgeToEdgeMm: 0.5,
  overjetMm: { from: 1.5, to: 3.5 },
  overbiteMm: { from: 1, to: 4 },
  corridorUnlikePercent: 4,
  seriesPercent: 8,
} as const;

/** Length of the contacts as shares of a central's length, from the midline outward. */
export const CONTACT_SHARE_PERCENT: readonly number[] = [50, 40, 30];

export interface Who {
  readonly ageYears?: number | null;
  readonly sex?: Sex | null;
}

/** What is known beside the view's own figures. */
export interface FindingContext extends Who {
  /** Length of the upper centrals, mm: contact lengths are shares of it. */
  readonly centralLengthMm?: number;
  /** The upper lip's length at rest, mm. */
  readonly lipMm?: number;
  /** What is wished of the teeth's length. */
  readonly wish?: LengthWish | undefined;
}

interface Draft {
  readonly title: string;
  readonly detail: string;
  readonly notice: Notice;
  readonly source: Source;
  readonly weight: number;
}

/** The findings of figures from any view. Differences smaller than their error are not findings. */
export function viewFindings(figures: readonly ViewFigure[], context: FindingContext = {}): Finding[] {
  const by = new Map(figures.map((f) => [f.id, f]));
  return figures.flatMap((f): Finding[] => {
    const draft = judge(f, by, context);
    return draft ? [{ id: f.id, teeth: f.tooth ? [f.tooth] : [], figure: f.figure, ...draft }] : [];
  });
}

const said = (f: Figure, digits = 1): string =>
  `${Math.abs(f.value).toFixed(digits)} ±${f.pm.toFixed(digits)} ${f.unit}`;
const clear = (f: Figure, from = 0): boolean => Math.abs(f.value) - from > f.pm;

function judge(f: ViewFigure, by: ReadonlyMap<string, ViewFigure>, c: FindingContext): Draft | undefined {
  const { figure } = f;
  const [kind] = f.id.split('-');
  switch (kind) {
    case 'midline':
      return f.id === 'midline' ? midline(f) : undefined;
    case 'cant':
      return f.id.endsWith('-mm') ? cantFinding(f) : undefined;
    case 'display':
      return display(f, by, c);
    case 'gum':
      return f.id === 'gum' ? gum(figure) : undefined;
    case 'crowns':
      return lipLineFinding(f);
    case 'corridor':
      return f.id === 'corridor' ? corridorFinding(figure, by) : undefined;
    case 'edge':
      return f.id === 'edge-curve' ? edges(f) : undefined;
    case 'zenith':
      return f.tooth ? (f.id.startsWith('zenith-step') ? zenithStep(f, f.tooth) : zenithDistal(f, f.tooth)) : undefined;
    case 'connector':
      return connector(f, c);
    case 'triangle':
      return triangle(f);
    case 'embrasure':
      return embrasure(f, by);
    case 'gap':
      return gap(f);
    case 'series':
      return f.tooth ? series(figure, f.tooth) : undefined;
    case 'offset':
      return clear(figure, TOLD.offsetMm) || (clear(figure) && Math.abs(figure.value) > TOLD.offsetMm)
        ? offset(figure, f.tooth as Fdi)
        : undefined;
    case 'rotation':
      return Math.abs(figure.value) > TOLD.turnDeg && clear(figure) ? rotation(figure, f.tooth as Fdi) : undefined;
    case 'lean':
      return lean(f);
    case 'lip':
      return f.id.startsWith('lip-symmetry') ? lipSymmetry(f) : undefined;
    case 'overjet':
      return (
        crossed(figure) ??
        range(
          figure,
          'The overjet',
          TOLD.overjetMm,
          'Room in front decides how much facial volume the plan can add, and how the teeth guide.',
        )
      );
    case 'overbite':
      return range(
        figure,
        'The overbite',
        TOLD.overbiteMm,
        'A deep bite leaves little palatal room; an open one gives no guidance.',
      );
    default:
      return undefined;
  }
}

function lean(f: ViewFigure): Draft | undefined {
  const { figure } = f;
  if (!clear(figure) || Math.abs(figure.value) < TOLD.leanDeg) return undefined;
  // At the edge of a central of 10 mm.
  const mm = 10 * Math.tan((figure.value * Math.PI) / 180);
  return {
    title: `The dental midline leans ${said(figure)} ${f.word} at the edges`,
    detail: `That is ${Math.abs(mm).toFixed(1)} mm over a central’s length. ${noticedWords('tip')} A midline that leans is seen sooner than one that stands aside.`,
    notice: noticedBy('tip', mm),
    source: NOTICED_MM.tip.source,
    weight: Math.abs(mm) / leastNoticed('tip'),
  };
}

function lipSymmetry(f: ViewFigure): Draft | undefined {
  const { figure } = f;
  if (!clear(figure) || Math.abs(figure.value) < TOLD.lipMm) return undefined;
  const smiling = f.id.endsWith('smile');
  return {
    title: `The upper lip hangs ${said(figure)} lower on the ${figure.value > 0 ? 'left' : 'right'} ${smiling ? 'in the smile' : 'at rest'}`,
    detail: smiling
      ? 'More tooth and gum show on the other side; no plan of teeth evens that out. Say it before the first visit.'
      : 'Compare the display of each side by itself.',
    notice: 'dentists',
    source: COMMON_PRACTICE,
    weight: Math.abs(figure.value) / 3,
  };
}

/** An upper edge behind the lower teeth, or on them. */
function crossed(figure: Figure): Draft | undefined {
  if (figure.value > Math.max(figure.pm, TOLD.edgeToEdgeMm)) return undefined;
  const behind = figure.value < -figure.pm;
  return {
    title: behind
      ? `Crossbite: the upper edge stands ${said(figure)} behind the lower teeth`
      : `Edge to edge: the overjet is ${figure.value.toFixed(1)} ±${figure.pm.toFixed(1)} mm`,
    detail: behind
      ? 'Volume on the face does not jump the bite; look at moving the teeth first.'
      : 'No room for thickness at the edge, and edges that chip. Look at the bite, and at moving the teeth first.',
    notice: 'dentists',
    source: COMMON_PRACTICE,
    weight: 1.2,
  };
}

function midline(f: ViewFigure): Draft | undefined {
  if (!clear(f.figure)) return undefined;
  const { source } = NOTICED_MM.midline;
  return {
    title: `The dental midline lies ${said(f.figure)} ${f.word}`,
    detail: `${noticedWords('midline')} A midline that leans is seen sooner than one that is shifted.`,
    notice: noticedBy('midline', f.figure.value),
    source,
    weight: Math.abs(f.figure.value) / leastNoticed('midline'),
  };
}

function cantFinding(f: ViewFigure): Draft | undefined {
  if (!clear(f.figure)) return undefined;
  const { source } = NOTICED_MM.cant;
  const line = f.id.includes('corner') ? 'The corners of the mouth' : 'The plane of the edges';
  return {
    title: `${line} cants ${said(f.figure)} (${f.word})`.replace(
      'corners of the mouth cants',
      'corners of the mouth cant',
    ),
    detail: f.id.includes('corner')
      ? 'Against the line of the pupils. The lips’ own cant can’t be planned away; say it before the first visit.'
      : `Against the line of the pupils. ${noticedWords('cant')} Level the edges in the plan.`,
    notice: f.id.includes('corner') ? 'nobody' : noticedBy('cant', f.figure.value),
    source,
    weight: Math.abs(f.figure.value) / 3,
  };
}

/** Age, sex and lip length each have a table; the one by age is taken where the age is known, as the widest apart. */
function display(f: ViewFigure, by: ReadonlyMap<string, ViewFigure>, c: FindingContext): Draft | undefined {
  if (f.tooth !== 11 && f.tooth !== 21) return undefined;
  // One sentence for both centrals: the longer one is the datum.
  const other = by.get(f.tooth === 11 ? 'display-21' : 'display-11')?.figure.value ?? -Infinity;
  if (other > f.figure.value || (other === f.figure.value && f.tooth === 21)) return undefined;
  const norms = displayAtRest({
    ageYears: c.ageYears ?? null,
    sex: c.sex ?? null,
    ...(c.lipMm !== undefined && { lipMm: c.lipMm }),
  });
  const norm = norms[0];
  if (!norm) return undefined;
  const off = f.figure.value - norm.value;
  if (Math.abs(off) <= Math.max(TOLD.displayMm, f.figure.pm)) return undefined;
  return {
    title: `{${f.tooth}} shows ${f.figure.value.toFixed(1)} ±${f.figure.pm.toFixed(1)} mm at rest: ${off < 0 ? 'little' : 'much'} for ${norm.row}`,
    detail: [
      displayWords(norms),
      c.wish === 'longer' && off >= 0
        ? 'Longer teeth are wished for: that shows still more; try it in the mock-up.'
        : c.wish === 'shorter' && off < 0
          ? 'Shorter teeth are wished for: that shows still less.'
          : off < 0
            ? `A longer edge brings it back${c.wish === 'longer' ? ', as is wished' : ''}; try it in the mock-up with speech.`
            : 'Leave the edge where it is, or look at the lip before lengthening.',
    ].join(' '),
    notice: 'dentists',
    source: norm.source,
    weight: Math.abs(off) / 2,
  };
}

function gum(figure: Figure): Draft | undefined {
  if (!clear(figure) || figure.value <= 0) return undefined;
  const { source } = NOTICED_MM.gum;
  if (figure.value < leastNoticed('gum')) return undefined;
  return {
    title: `${said(figure)} of gum shows in full smile`,
    detail: `${noticedWords('gum')} Longer crowns towards the gum, or the lip, are where it is changed; a longer edge alone makes teeth long and leaves the gum.`,
    notice: noticedBy('gum', figure.value),
    source,
    weight: figure.value / 4,
  };
}

function lipLineFinding(f: ViewFigure): Draft | undefined {
  const line = f.word?.split(' ')[0] as keyof typeof LIP_LINE_SHARE | undefined;
  if (!line || line === 'average') return undefined;
  return {
    title: `${line === 'high' ? 'High' : 'Low'} lip line`,
    detail:
      line === 'high'
        ? `${LIP_LINE_SHARE.high} % of ${TJAN_PEOPLE} had one. Margins and gum levels will be seen: place and shape them with care.`
        : `${LIP_LINE_SHARE.low} % of ${TJAN_PEOPLE} had one. Margins stay covered; the edge is what is seen.`,
    notice: line === 'high' ? 'dentists' : 'nobody',
    source: TJAN,
    weight: 0.8,
  };
}

function corridorFinding(figure: Figure, by: ReadonlyMap<string, ViewFigure>): Draft | undefined {
  const { kind, source } = corridor(figure.value);
  const right = by.get('corridor-right')?.figure;
  const left = by.get('corridor-left')?.figure;
  const unlike =
    right &&
    left &&
    Math.abs(right.value - left.value) > Math.max(TOLD.corridorUnlikePercent, hypot(right.pm, left.pm));
  if (kind !== 'narrow' && kind !== 'medium narrow' && !unlike) return undefined;
  return {
    title:
      unlike && kind !== 'narrow' && kind !== 'medium narrow'
        ? `The corridors are unlike: right ${right.value.toFixed(0)} %, left ${left.value.toFixed(0)} %`
        : `${figure.value.toFixed(0)} ±${figure.pm.toFixed(0)} % of the smile is dark at its corners: ${kind}`,
    detail:
      'Smaller corridors were judged more attractive. Fuller premolars bring the corners in; moving them outward first saves more tooth.',
    notice: kind === 'narrow' ? 'people' : 'dentists',
    source,
    weight: figure.value / 28,
  };
}

/** Only what can't be parallel as well is told. */
const EDGE_TITLES: Readonly<Record<string, string>> = {
  reverse: 'The edges run against the curve of the lower lip',
  straight: 'The edges run straight over the lower lip',
  'reverse or straight': 'The edges run straight over the lower lip, or against its curve',
};

function edges(f: ViewFigure): Draft | undefined {
  const title = f.word && EDGE_TITLES[f.word];
  if (!title) return undefined;
  return {
    title,
    detail: `${EDGE_CURVE_SHARE.parallel} % of ${TJAN_PEOPLE} had edges parallel to the lip, ${EDGE_CURVE_SHARE.straight} % straight, ${EDGE_CURVE_SHARE.reverse} % reverse. Longer centrals bring the curve back.`,
    notice: f.word === 'reverse' ? 'people' : 'dentists',
    source: TJAN,
    weight: 0.9,
  };
}

function zenithStep(f: ViewFigure, tooth: Fdi): Draft | undefined {
  const off = f.figure.value - 1;
  if (Math.abs(off) <= Math.max(0.8, f.figure.pm)) return undefined;
  return {
    title: `The gum of {${tooth}} lies ${said(f.figure)} ${f.figure.value < 0 ? 'above' : 'below'} its neighbours’ line`,
    detail: 'About 1 mm below the line from central to canine is usual.',
    notice: 'dentists',
    source: CHU_ZENITH,
    weight: Math.abs(off) / 2,
  };
}

function zenithDistal(f: ViewFigure, tooth: Fdi): Draft | undefined {
  const kind = kindOf(tooth);
  if (!isFrontKind(kind)) return undefined;
  const norm = ZENITH_DISTAL[kind];
  const off = f.figure.value - norm.value;
  if (Math.abs(off) <= Math.max(norm.band * 2, f.figure.pm)) return undefined;
  return {
    title: `The zenith of {${tooth}} lies ${said(f.figure)} ${f.figure.value < 0 ? 'mesial' : 'distal'} of its axis`,
    detail: `Usual is ${norm.value.toFixed(1)} mm distal.`,
    notice: 'nobody',
    source: norm.source,
    weight: Math.abs(off) / 3,
  };
}

/** Place of a contact from the midline outward: 0 between the centrals. */
function rankOf(id: string): number {
  const [, a, b] = id.split('-').map(Number);
  return Math.min((a as number) % 10, (b as number) % 10) - ((a as number) % 10 === (b as number) % 10 ? 1 : 0);
}

function connector(f: ViewFigure, c: FindingContext): Draft | undefined {
  const share = CONTACT_SHARE_PERCENT[rankOf(f.id)];
  if (!c.centralLengthMm || share === undefined) return undefined;
  const usual = (c.centralLengthMm * share) / 100;
  const off = f.figure.value - usual;
  if (off >= -Math.max(1, f.figure.pm)) return undefined;
  const [, a, b] = f.id.split('-');
  return {
    title: `The contact of {${a}} and {${b}} is short: ${said(f.figure)}`,
    detail: `${share} % of the central’s length, ${usual.toFixed(1)} mm, is usual. Bring it towards the gum in the plan.`,
    notice: 'dentists',
    source: MORLEY,
    weight: -off / 3,
  };
}

function triangle(f: ViewFigure): Draft | undefined {
  if (!clear(f.figure) || f.figure.value < 0.8) return undefined;
  const [, a, b] = f.id.split('-');
  return {
    title: `A dark triangle of ${said(f.figure)} between {${a}} and {${b}}`,
    detail:
      'A papilla fills about always where contact to bone is 5 mm or less, at 6 mm in 56 %, from 7 mm in 27 % or less. A longer contact closes it; probe to the bone before promising that the gum will. ' +
      noticedWords('embrasure'),
    notice: noticedBy('embrasure', f.figure.value),
    source: TARNOW_PAPILLA,
    weight: f.figure.value / 2,
  };
}

/** Embrasures deepen from the midline outward. */
function embrasure(f: ViewFigure, by: ReadonlyMap<string, ViewFigure>): Draft | undefined {
  const rank = rankOf(f.id);
  if (rank === 0) return undefined;
  const [, a, b] = f.id.split('-').map(Number) as [number, number, number];
  const inner =
    a < 20 ? (rank === 1 ? 'embrasure-11-21' : 'embrasure-12-11') : rank === 1 ? 'embrasure-11-21' : 'embrasure-21-22';
  const before = by.get(inner)?.figure;
  if (!before || f.figure.value - before.value > -hypot(f.figure.pm, before.pm)) return undefined;
  return {
    title: `The embrasure of {${a}} and {${b}} is shallower than the one before it`,
    detail: 'Embrasures deepen from the midline outward; worn edges level them.',
    notice: 'dentists',
    source: COMMON_PRACTICE,
    weight: 0.35,
  };
}

function gap(f: ViewFigure): Draft | undefined {
  if (!clear(f.figure) || Math.abs(f.figure.value) < 0.3) return undefined;
  const [, a, b] = f.id.split('-');
  const open = f.figure.value > 0;
  return {
    title: open
      ? `A gap of ${said(f.figure)} between {${a}} and {${b}}`
      : `{${a}} and {${b}} overlap by ${said(f.figure)}`,
    detail: open
      ? 'Closed by width of the neighbours, by moving them, or left.'
      : 'Seen from the front. Turn or align before widths are shared out.',
    notice: Math.abs(f.figure.value) >= 0.5 ? 'people' : 'dentists',
    source: COMMON_PRACTICE,
    weight: Math.abs(f.figure.value) / 1.5,
  };
}

function series(figure: Figure, tooth: Fdi): Draft | undefined {
  const usual = tooth % 10 === 2 ? 66 : 84;
  const off = figure.value - usual;
  if (Math.abs(off) <= Math.max(TOLD.seriesPercent, figure.pm)) return undefined;
  return {
    title: `{${tooth}} is ${figure.value.toFixed(0)} ±${figure.pm.toFixed(0)} % as wide as {${tooth - 1}} from the front`,
    detail: `Natural teeth have about ${usual} %.`,
    notice: tooth % 10 === 2 ? 'dentists' : 'nobody',
    source: PRESTON,
    weight: Math.abs(off) / 60,
  };
}

function offset(figure: Figure, tooth: Fdi): Draft {
  return {
    title: `{${tooth}} stands ${said(figure)} ${figure.value > 0 ? 'in front of' : 'behind'} the arch`,
    detail:
      figure.value > 0
        ? 'It would be cut back into line first; moving it saves that enamel.'
        : 'The plan adds there; little or nothing is cut.',
    notice: 'dentists',
    source: COMMON_PRACTICE,
    weight: Math.abs(figure.value) / 2,
  };
}

function rotation(figure: Figure, tooth: Fdi): Draft {
  return {
    title: `{${tooth}} is turned ${said(figure, 0)}, ${figure.value > 0 ? 'mesial' : 'distal'} end forward`,
    detail: 'Turned teeth look narrow from the front. Align first, or cut the end that stands forward.',
    notice: 'dentists',
    source: COMMON_PRACTICE,
    weight: Math.abs(figure.value) / 20,
  };
}

function range(figure: Figure, what: string, usual: { from: number; to: number }, detail: string): Draft | undefined {
  const off = figure.value < usual.from ? usual.from - figure.value : figure.value - usual.to;
  if (off <= figure.pm) return undefined;
  return {
    title: `${what} is ${figure.value < usual.from ? 'small' : 'large'}: ${figure.value.toFixed(1)} ±${figure.pm.toFixed(1)} mm`,
    detail: `${usual.from}–${usual.to} mm is usual. ${detail}`,
    notice: 'dentists',
    source: COMMON_PRACTICE,
    weight: off / 2,
  };
}
