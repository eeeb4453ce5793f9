import {
  burName,
  type Design,
  type Engagement,
  enamelWords,
  label,
  NOTATION_NAMES,
  SCAN_PM_MM,
  strategyOf,
  ZONES,
  type ZoneTarget,
} from '@radiant/core';
import { ADDED, type Doc, INK, INK_2, LEFT, MM, type Page, PLUM, rule, STOP, text, WIDTH } from './plan-paper.js';

// What a hand reaches for at the chair: the depths to set with their burs, and the order of the steps.

const needsOf = (d: Design): string =>
  [d.needs.cervical, d.needs.middle, d.needs.incisal, ...(d.edge.kind === 'thickness' ? [d.edge.mm] : [])]
    .map((v) => v.toFixed(1))
    .join(' / ');

/** The burs of a page, each engagement with a letter, in the order in which the zones ask for them. */
interface Letters {
  readonly of: (e: Engagement) => string;
  readonly list: readonly { readonly letter: string; readonly engagement: Engagement; readonly grooves: string }[];
}

/**
 * What is cut in a zone with which bur: the groove, or where none gives the depth the nearest below it; `restMm` goes by
 * the index then.
 */
export function cutOf(
  z: ZoneTarget | undefined,
): { readonly engagement: Engagement; readonly grooves: string; readonly restMm: number } | undefined {
  if (z?.groove.kind === 'cut') return { engagement: z.groove.engagement, grooves: z.groove.grooves, restMm: 0 };
  const { nearest, grooves = '', depthMm = 0 } = z?.groove ?? {};
  return nearest && { engagement: nearest, grooves, restMm: depthMm - nearest.depthMm };
}

function lettersOf(s: Page): Letters {
  const known = new Map<string, { letter: string; engagement: Engagement; grooves: string }>();
  const key = (e: Engagement) => `${burName(e.bur)} ${e.how} ${e.depthMm}`;
  for (const zone of ZONES)
    for (const t of s.teeth) {
      const own = cutOf(t.reduction.zones.find((z) => z.zone === zone));
      if (!own || known.has(key(own.engagement))) continue;
      known.set(key(own.engagement), { letter: String.fromCharCode(65 + known.size), ...own });
    }
  return { of: (e) => known.get(key(e))?.letter ?? '', list: [...known.values()] };
}

/** What is set in a zone, as large as it is read: the groove's depth and its bur; else what is done instead. */
function setWords(z: ZoneTarget | undefined, letters: Letters): { readonly large: string; readonly letter: string } {
  if (!z?.removal) return { large: z?.zone === 'edge' && z.places > 0 ? 'flatten' : '–', letter: '' };
  const cut = cutOf(z);
  if (cut) return { large: cut.engagement.depthMm.toFixed(1), letter: letters.of(cut.engagement) };
  const { value } = z.removal.remove;
  return { large: value === 0 ? 'none' : `smooth ${value.toFixed(2)}`, letter: '' };
}

/** The depths to set, tooth by tooth, readable from where the hand works. Returns where it ends. */
export function depths(doc: Doc, s: Page, top: number): number {
  const letters = lettersOf(s);
  const designs = [...new Set(s.teeth.map((t) => t.design))];
  text(doc, `Set the depth, mm: ${strategyOf(s.from).name}`, LEFT, top, { font: 'serif', size: 13 });
  text(doc, `Tooth numbers: ${NOTATION_NAMES[s.notation].long}`, LEFT, top + 3, {
    font: 'bold',
    size: 8.5,
    width: WIDTH,
    align: 'right',
  });
  let y = top + 20;
  const cell = (WIDTH - 22 * MM) / 6;
  const at = (i: number) => LEFT + 22 * MM + cell * i;
  s.teeth.forEach((t, i) => {
    text(doc, label(t.reduction.tooth, s.notation), at(i), y, { font: 'bold', size: 15, width: cell, align: 'center' });
    if (designs.length > 1)
      text(doc, t.design.name, at(i), y + 17, { size: 7, width: cell, align: 'center', colour: INK_2, height: 9 });
  });
  y += designs.length > 1 ? 28 : 20;
  for (const zone of ZONES) {
    rule(doc, y);
    text(doc, zone, LEFT, y + 8, { font: 'bold', size: 11 });
    for (const [i, { reduction }] of s.teeth.entries()) {
      const own = reduction.zones.find((q) => q.zone === zone);
      depth(doc, own, letters, at(i), y, cell);
    }
    y += ROW;
  }
  rule(doc, y);
  text(
    doc,
    'Small: tooth taken in the middle of the zone, and what 95 % of its face stays under, line angles among it; enamel left where least is, but for the worst 5 %; proud: in front of the plan, no mock-up over it.',
    LEFT,
    y + 3,
    { size: 8, colour: INK_2, width: WIDTH, height: 28 },
  );
  return y + 26;
}

/** The height of one zone's row, points. */
const ROW = 49;

function depth(doc: Doc, z: ZoneTarget | undefined, letters: Letters, x: number, y: number, cell: number): void {
  const { large, letter } = setWords(z, letters);
  const isDepth = letter !== '';
  const size = isDepth ? 19 : 11;
  const wide = doc.font('bold').fontSize(size).widthOfString(large);
  const letterWide = isDepth ? doc.font('bold').fontSize(12).widthOfString(letter) + 3 : 0;
  const from = x + (cell - wide - letterWide) / 2;
  text(doc, large, from, y + (isDepth ? 1.5 : 7), {
    font: 'bold',
    size,
    colour: large === 'none' ? ADDED : large === '–' ? INK_2 : INK,
  });
  if (isDepth) text(doc, letter, from + wide + 3, y + 7, { font: 'bold', size: 12, colour: PLUM });
  const remove = z?.removal?.remove.value;
  const proud = z?.proud?.value ?? z?.removal?.alignFirst ?? 0;
  const small = (words: string, line: number, colour: string) =>
    text(doc, words, x, y + 23 + 8.2 * line, { size: 7.4, width: cell, align: 'center', colour, height: 9 });
  if (remove === undefined) return;
  const rest = cutOf(z)?.restMm ?? 0;
  const lines: readonly (readonly [string, string])[] = [
    rest > 0 ? [`then ${rest.toFixed(2)} by the index`, INK] : ['', INK],
    [`takes ${remove.toFixed(2)}${z?.deepest ? ` to ${z.deepest.value.toFixed(2)}` : ''}`, INK_2],
    z?.enamel ? [`enamel ${enamelWords(z.enamel)}`, z.enamel.state === 'kept' ? INK_2 : STOP] : ['', INK_2],
    [proud > 0 ? `proud ${proud.toFixed(2)}` : '', INK_2],
  ];
  lines
    .filter(([words]) => words !== '')
    .forEach(([words, colour], i) => {
      small(words, i, colour);
    });
}

/** Points of the steps' and burs' type. */
const STEP_SIZE = 7.8;

/** What to do in which order, and with which bur each letter cuts. Returns where it ends. */
export function steps(doc: Doc, s: Page, top: number): number {
  const letters = lettersOf(s);
  const gap = 5 * MM;
  const width = (WIDTH - 2 * gap) / 3;
  const at = (i: number) => LEFT + i * (width + gap);
  const column = (title: string, lines: readonly string[], x: number): number => {
    text(doc, title, x, top, { font: 'bold', size: 10.5 });
    let y = top + 15;
    for (const words of lines) {
      const h = doc.font('sans').fontSize(STEP_SIZE).heightOfString(words, { width });
      text(doc, words, x, y, { size: STEP_SIZE, width, height: h + 2 });
      y += h + 1.5;
    }
    return y;
  };
  const order = orderOf(s).map((words, i) => `${i + 1}. ${words}`);
  const half = Math.ceil(order.length / 2);
  const burs = letters.list.map(
    ({ letter, engagement: e }) => `${letter}. ${e.depthMm.toFixed(1)} mm: ${burName(e.bur)}, ${e.how}`,
  );
  const grooves = [...new Set(letters.list.map((l) => l.grooves))].join('; ');
  const ends = [
    column('In this order', order.slice(0, half), at(0)),
    column('', order.slice(half), at(1)),
    column('Burs', burs.length > 0 ? [...burs, `Grooves: ${grooves}.`] : ['No groove is cut on this page.'], at(2)),
  ];
  const below = Math.max(...ends) + 2;
  text(doc, needsLine(s), LEFT, below, { size: STEP_SIZE, colour: INK_2, width: WIDTH, height: 12 });
  return below + 12;
}

/** The thicknesses that the page's designs need, and what is called taken. */
function needsLine(s: Page): string {
  const designs = [...new Set(s.teeth.map((t) => t.design))];
  const needs = designs.map((d) => (designs.length > 1 ? `${d.name}: ${needsOf(d)}` : needsOf(d))).join('; ');
  const edge = designs.some((d) => d.edge.kind === 'thickness') ? ' / edge' : '';
  return `Needed thickness, cervical / middle / incisal${edge}: ${needs} mm. Taken: from the tooth to the target, ±${SCAN_PM_MM.toFixed(2)}.`;
}

/**
 * The steps of a page in the order of its teeth's cut lists: each once, with the teeth it is for where it isn't for all,
 * and how it is done where that is the same for all of them.
 */
function orderOf(s: Page): string[] {
  const titles: string[] = [];
  for (const { list } of s.teeth) {
    let at = -1;
    for (const { title } of list.steps) {
      const known = titles.indexOf(title);
      if (known < 0) titles.splice(at + 1, 0, title);
      at = known < 0 ? at + 1 : known;
    }
  }
  return titles.map((title) => {
    const own = s.teeth.flatMap(({ list }) => {
      const step = list.steps.find((q) => q.title === title);
      return step ? [{ tooth: label(list.tooth, s.notation), step }] : [];
    });
    const whose = own.length < s.teeth.length ? ` (${own.map((o) => o.tooth).join(', ')})` : '';
    const ways = [...new Set(own.map((o) => o.step.brief ?? ''))];
    // What differs from tooth to tooth stands above, or on its card.
    return `${title}${whose}${ways.length === 1 && ways[0] ? `: ${ways[0]}` : ''}.`;
  });
}
