import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import {
  burName,
  type Design,
  type Engagement,
  enamelWords,
  isUpper,
  label,
  NOTATION_NAMES,
  SCAN_PM_MM,
  type SectionLine,
  strategyOf,
  type ToothPlan,
  ZONES,
  type Zone,
  type ZoneTarget,
} from '@radiant/core';
import PDFDocument from 'pdfkit';
import type { PlanSheet, SheetTooth } from './plan-sheet.js';

const INK = '#1d2428';
const INK_2 = '#5b646a';
const HAIR = '#ddd8cf';
const PLUM = '#5d2a5a';
const REMOVED = '#b8640a';
const ADDED = '#2a6fb5';
const STOP = '#a8261d';

/** Points a millimetre. */
const MM = 72 / 25.4;
const LEFT = 16 * MM;
const RIGHT = 194 * MM;
const WIDTH = RIGHT - LEFT;

const require = createRequire(import.meta.url);
const fontFile = (pack: string, name: string) =>
  join(dirname(require.resolve(`@fontsource/${pack}/package.json`)), 'files', name);

type Doc = InstanceType<typeof PDFDocument>;

/** One page of the plan. */
interface Page extends PlanSheet {
  readonly teeth: readonly SheetTooth[];
  /** From 1. */
  readonly page: number;
}

/** Draws the plan on A4, a page for six teeth of a jaw. */
export async function planPdf(sheet: PlanSheet): Promise<Buffer> {
  const doc = new PDFDocument({
    size: 'A4',
    margin: 0,
    info: { Title: `${sheet.name}: reduction plan`, Creator: 'Radiant Arch', Producer: 'Radiant Arch' },
  });
  doc.registerFont('sans', fontFile('source-sans-3', 'source-sans-3-latin-400-normal.woff'));
  doc.registerFont('bold', fontFile('source-sans-3', 'source-sans-3-latin-600-normal.woff'));
  doc.registerFont('serif', fontFile('source-serif-4', 'source-serif-4-latin-600-normal.woff'));
  const parts: Buffer[] = [];
  const done = new Promise<Buffer>((resolve, reject) => {
    doc.on('data', (b: Buffer) => parts.push(b));
    doc.on('end', () => resolve(Buffer.concat(parts)));
    doc.on('error', reject);
  });
  sheet.pages.forEach((teeth, i) => {
    if (i > 0) doc.addPage();
    draw(doc, { ...sheet, teeth, page: i + 1 });
  });
  doc.end();
  return done;
}

function draw(doc: Doc, page: Page): void {
  head(doc, page);
  // What a hand reaches for at the chair comes first and large; how it was come by stands below.
  let y = beware(doc, page, 31 * MM);
  y = depths(doc, page, y + 2 * MM);
  y = steps(doc, page, y + 4 * MM);
  sections(doc, page, y + 3 * MM);
  sentences(doc, page, y + 50 * MM);
  foot(doc, page);
}

function text(
  doc: Doc,
  s: string,
  x: number,
  y: number,
  o: {
    font?: string;
    size?: number;
    colour?: string;
    width?: number;
    align?: 'left' | 'right' | 'center';
    height?: number;
  } = {},
): void {
  doc
    .font(o.font ?? 'sans')
    .fontSize(o.size ?? 9)
    .fillColor(o.colour ?? INK)
    .text(s, x, y, {
      lineBreak: o.height !== undefined,
      ...(o.width !== undefined && { width: o.width }),
      ...(o.height !== undefined && { height: o.height, ellipsis: true }),
      align: o.align ?? 'left',
    });
}

const rule = (doc: Doc, y: number) => doc.moveTo(LEFT, y).lineTo(RIGHT, y).lineWidth(0.5).strokeColor(HAIR).stroke();

const date = (iso: string | null) =>
  iso
    ? new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' }).format(
        new Date(iso),
      )
    : '';

function head(doc: Doc, s: Page): void {
  const left = 100 * MM;
  const right = { width: WIDTH - left - 4 * MM, align: 'right' } as const;
  const x = LEFT + left + 4 * MM;
  text(doc, s.name, LEFT, 13 * MM, { font: 'serif', size: 22, width: left, height: 26 });
  const facts = [s.ageYears === null ? '' : `${s.ageYears} y`, s.wish, s.finishBy ? `by ${date(s.finishBy)}` : '']
    .filter(Boolean)
    .join(' · ');
  text(doc, facts, LEFT, 22.5 * MM, { colour: INK_2, size: 10, width: left, height: 14 });
  const pages = s.pages.length > 1 ? ` · page ${s.page} of ${s.pages.length}` : '';
  text(doc, `Contour no. ${s.contourVersion}${pages}`, x, 9 * MM, { font: 'bold', size: 10, ...right });
  const lines =
    doc
      .font('sans')
      .fontSize(9)
      .heightOfString(`${s.contourStanding}, ${date(s.approvedAt)}`, { width: right.width }) > 14
      ? 2
      : 1;
  text(doc, s.approvedAt ? `${s.contourStanding}, ${date(s.approvedAt)}` : s.contourStanding, x, 13 * MM, {
    size: 9,
    ...right,
    height: 13 * lines,
  });
  const below = (13 + 4.3 * lines) * MM;
  text(doc, `${date(s.contourAt)}${s.contourBy ? `, ${s.contourBy}` : ''}`, x, below, { colour: INK_2, ...right });
  text(doc, s.practice, x, below + 3.4 * MM, { colour: INK_2, ...right, height: 12 });
  rule(doc, 29 * MM);
}

/** Cautions and the teeth's histories, before anything is taken in hand. Returns where it ends. */
function beware(doc: Doc, s: Page, top: number): number {
  if (s.beware.length === 0) return top;
  const width = WIDTH - 30 * MM;
  const heights = s.beware.map((line) => doc.font('bold').fontSize(11).heightOfString(line, { width }));
  const height = heights.reduce((a, b) => a + b + 1, 0) + 10;
  doc.roundedRect(LEFT, top, WIDTH, height, 4).fill('#fbeee0');
  text(doc, 'Beware', LEFT + 8, top + 4.5, { font: 'bold', size: 11, colour: STOP });
  let y = top + 4.5;
  s.beware.forEach((line, i) => {
    text(doc, line, LEFT + 26 * MM, y, { font: 'bold', size: 11, width, height: (heights[i] as number) + 2 });
    y += (heights[i] as number) + 1;
  });
  return top + height;
}

const SCALE_BAR_MM = 5;

function sections(doc: Doc, s: Page, top: number): void {
  text(doc, 'Sections at the axis, facial left; planned width × length, mm', LEFT, top, { font: 'bold', size: 9.5 });
  const cell = WIDTH / 6;
  const k = 2.75 * MM;
  s.teeth.forEach(({ section, reduction }, i) => {
    const cx = LEFT + cell * (i + 0.5) + 2 * MM;
    const up = isUpper(reduction.tooth) ? 1 : -1;
    const y0 = top + (up === 1 ? 37 : 9) * MM;
    doc.save();
    doc.rect(LEFT + cell * i, top + 5 * MM, cell, 38 * MM).clip();
    const at = (a: number, z: number) => [cx + a * k, y0 - up * z * k] as const;
    const line = (l: SectionLine) => {
      for (let j = 0; j < l.points.length; j += 2) {
        const [x, y] = at(l.points[j] as number, l.points[j + 1] as number);
        if (j === 0) doc.moveTo(x, y);
        else doc.lineTo(x, y);
      }
      if (l.closed) doc.closePath();
    };
    for (const l of section.existing) line(l);
    doc.lineWidth(0.7).fillAndStroke('#efe9dd', INK);
    for (const l of section.planned) line(l);
    doc.lineWidth(0.9).strokeColor(PLUM).stroke();
    section.target.forEach(([a, z], j) => {
      const [x, y] = at(a, z);
      if (j === 0) doc.moveTo(x, y);
      else doc.lineTo(x, y);
    });
    doc.dash(2.4, { space: 1.6 }).lineWidth(0.9).strokeColor(REMOVED).stroke().undash();
    doc.restore();
    const own = s.plan[reduction.tooth] as ToothPlan;
    text(
      doc,
      `${label(reduction.tooth, s.notation)}: ${own.widthMm.toFixed(1)} × ${own.lengthMm.toFixed(1)}`,
      LEFT + cell * i,
      top + 43 * MM - 8,
      { font: 'bold', size: 8.5, width: cell, align: 'center', colour: INK_2 },
    );
  });
  // The scale of the drawings.
  const bar = top + 7 * MM;
  const end = RIGHT - 2 * MM;
  for (const x of [end - SCALE_BAR_MM * k, end])
    doc
      .moveTo(x, bar - 3)
      .lineTo(x, bar + 3)
      .lineWidth(0.8)
      .strokeColor(INK)
      .stroke();
  doc
    .moveTo(end - SCALE_BAR_MM * k, bar)
    .lineTo(end, bar)
    .lineWidth(0.8)
    .strokeColor(INK)
    .stroke();
  text(doc, `${SCALE_BAR_MM} mm`, end - SCALE_BAR_MM * k, bar + 3, {
    size: 7.5,
    width: SCALE_BAR_MM * k,
    align: 'center',
    colour: INK_2,
  });
  const legend: [string, string][] = [
    [INK, 'tooth as scanned'],
    [PLUM, 'planned contour'],
    [REMOVED, 'target of the preparation'],
  ];
  let x = RIGHT - 92 * MM;
  for (const [colour, word] of legend) {
    doc
      .moveTo(x, top + 6)
      .lineTo(x + 14, top + 6)
      .lineWidth(1.2)
      .strokeColor(colour)
      .stroke();
    text(doc, word, x + 17, top + 1, { size: 8, colour: INK_2 });
    x += 18 + doc.font('sans').fontSize(8).widthOfString(word) + 10;
  }
}

const needsOf = (d: Design): string =>
  [d.needs.cervical, d.needs.middle, d.needs.incisal, ...(d.edge.kind === 'thickness' ? [d.edge.mm] : [])]
    .map((v) => v.toFixed(1))
    .join(' / ');

const ZONE_NAMES: Record<Zone, string> = { cervical: 'neck', middle: 'middle', incisal: 'edge third', edge: 'edge' };

/** The burs of a page, each engagement with a letter, in the order in which the zones ask for them. */
interface Letters {
  readonly of: (e: Engagement) => string;
  readonly list: readonly { readonly letter: string; readonly engagement: Engagement; readonly grooves: string }[];
}

/**
 * What is cut in a zone with which bur: the groove, or where none gives the depth the nearest below it; `restMm` goes by
 * the index then.
 */
function cutOf(
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
function depths(doc: Doc, s: Page, top: number): number {
  const letters = lettersOf(s);
  const designs = [...new Set(s.teeth.map((t) => t.design))];
  text(doc, `Set the depth, mm: grooves ${strategyOf(s.from).name}`, LEFT, top, { font: 'serif', size: 13 });
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
    text(doc, ZONE_NAMES[zone], LEFT, y + 8, { font: 'bold', size: 11 });
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

/** What to do in which order, and with which bur each letter cuts. Returns where it ends. */
function steps(doc: Doc, s: Page, top: number): number {
  const letters = lettersOf(s);
  const half = WIDTH / 2 - 4 * MM;
  const column = (title: string, lines: readonly string[], x: number): number => {
    text(doc, title, x, top, { font: 'bold', size: 10.5 });
    let y = top + 15;
    for (const words of lines) {
      const h = doc.font('sans').fontSize(9).heightOfString(words, { width: half });
      text(doc, words, x, y, { size: 9, width: half, height: h + 2 });
      y += h + 2.5;
    }
    return y;
  };
  const order = orderOf(s).map((words, i) => `${i + 1}. ${words}`);
  const burs = letters.list.map(
    ({ letter, engagement: e, grooves }) =>
      `${letter}. ${e.depthMm.toFixed(1)} mm: ${burName(e.bur)}, ${e.how}; ${grooves}`,
  );
  return Math.max(
    column('In this order', order, LEFT),
    column('Burs', burs.length > 0 ? burs : ['No groove is cut on this page.'], LEFT + WIDTH / 2 + 4 * MM),
  );
}

/** The steps of a page, as its strategy, designs and teeth ask for them. */
function orderOf(s: Page): string[] {
  const designs = [...new Set(s.teeth.map((t) => t.design))];
  const several = designs.length > 1;
  const named = (d: Design, words: string) => (several ? `${d.name}: ${words}` : words);
  const proud = s.teeth.filter((t) => t.reduction.zones.some((z) => (z.removal?.alignFirst ?? 0) > 0));
  const edges = s.teeth.flatMap(({ reduction }) => {
    const mm = reduction.zones.find((z) => z.zone === 'edge')?.removal?.remove.value;
    return mm ? [`${label(reduction.tooth, s.notation)} ${mm.toFixed(1)}`] : [];
  });
  return [
    ...(proud.length > 0
      ? [
          `Bring into line first, where it stands in front of the plan: ${proud.map((t) => label(t.reduction.tooth, s.notation)).join(', ')}.`,
        ]
      : []),
    ...(s.from === 'mock-up' ? ['Mock-up in place; look that it is whole and seated.'] : []),
    'Grooves as above, neck to edge; pencil their floors; join them until the pencil is gone, in three planes.',
    edges.length > 0 ? `Edge, by so much of the tooth: ${edges.join(', ')} mm.` : 'The edge stays as it is.',
    ...designs.map((d) =>
      named(
        d,
        `${d.palatal[0]?.toUpperCase()}${d.palatal.slice(1)}; ${d.finish.form === 'none' ? 'no finish line' : `${d.finish.form} ${d.finish.belowGumMm > 0 ? `${d.finish.belowGumMm.toFixed(1)} mm below the gum` : 'at the gum'}`}.`,
      ),
    ),
    'Contacts as planned; neighbours guarded by a metal strip. Check every zone with the index, then round what is sharp.',
    `Needed thickness, neck / middle / edge third${designs.some((d) => d.edge.kind === 'thickness') ? ' / edge' : ''}: ${designs.map((d) => named(d, needsOf(d))).join('; ')} mm. Taken = needed − gap to the plan, ±${SCAN_PM_MM.toFixed(2)}.`,
  ];
}

function sentences(doc: Doc, s: Page, top: number): void {
  const found = s.teeth.flatMap((t) =>
    t.reduction.zones.flatMap((z) => (z.sentence && z.sentence.weight !== 'good' ? [z.sentence] : [])),
  );
  const removed = s.teeth.reduce((n, t) => n + t.reduction.volumeMm3, 0);
  const bare = s.teeth.reduce((n, t) => n + t.reduction.unplannedMm3, 0);
  text(doc, 'Watch', LEFT, top, { font: 'bold', size: 10.5 });
  text(
    doc,
    `Facial tissue removed: about ${removed.toFixed(0)} mm³ with this plan; the same thickness cut from the bare teeth would take ${bare.toFixed(0)} mm³.`,
    LEFT + 20 * MM,
    top + 1.5,
    { size: 8.5, colour: INK_2, width: WIDTH - 20 * MM, align: 'right' },
  );
  const half = WIDTH / 2 - 4 * MM;
  let x = LEFT;
  let y = top + 15;
  const sorted = [...found].sort((a, b) => Number(b.weight === 'stop') - Number(a.weight === 'stop'));
  if (sorted.length === 0)
    text(doc, 'By the norms enamel is left in every zone, over 95 % of its face.', x, y, { size: 7.8, colour: INK_2 });
  for (const [i, f] of sorted.entries()) {
    const words = f.text.replaceAll(/\{(\d+)\}/g, (_, tooth: string) => label(Number(tooth), s.notation));
    const h = doc.font('sans').fontSize(7.8).heightOfString(words, { width: half });
    if (h > 278 * MM - y && x === LEFT) {
      x = LEFT + WIDTH / 2 + 4 * MM;
      y = top + 15;
    }
    if (h > 278 * MM - y) {
      text(doc, `and ${sorted.length - i} more: see the case.`, x, y, { size: 7.8, colour: INK_2 });
      break;
    }
    text(doc, words, x, y, { size: 7.8, width: half, height: h + 2, colour: f.weight === 'stop' ? STOP : INK });
    y += h + 2;
  }
}

function foot(doc: Doc, s: Page): void {
  rule(doc, 281 * MM);
  text(
    doc,
    'Planning aid. The treating clinician decides and checks in the mouth; local rules come first. Enamel norms are those of upper incisors.',
    LEFT,
    283 * MM,
    { size: 7.5, colour: INK_2 },
  );
  text(
    doc,
    `Radiant Arch · norms: Ferrari, Patroni, Balleri 1992, from memory; thicknesses: common practice · contour no. ${s.contourVersion}`,
    LEFT,
    286.5 * MM,
    { size: 7.5, colour: INK_2 },
  );
}
