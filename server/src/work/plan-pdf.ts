import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import {
  burName,
  crown,
  type Design,
  enamelWords,
  facialOutline,
  isUpper,
  label,
  NOTATION_NAMES,
  SCAN_PM_MM,
  type SectionLine,
  strategyOf,
  type ToothPlan,
  ZONES,
  type Zone,
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
  archStrip(doc, page, 33 * MM);
  sections(doc, page, 76 * MM);
  const below = table(doc, page, 136 * MM);
  sentences(doc, page, below + 5 * MM);
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
  const lines = doc.font('sans').fontSize(9).heightOfString(s.contourStanding, { width: right.width }) > 14 ? 2 : 1;
  text(doc, s.contourStanding, x, 13 * MM, { size: 9, ...right, height: 13 * lines });
  const below = (13 + 4.3 * lines) * MM;
  text(doc, `${date(s.contourAt)}${s.contourBy ? `, ${s.contourBy}` : ''}`, x, below, { colour: INK_2, ...right });
  text(doc, s.practice, x, below + 3.4 * MM, { colour: INK_2, ...right, height: 12 });
  rule(doc, 29 * MM);
}

function archStrip(doc: Doc, s: Page, top: number): void {
  const k = 2.35 * MM;
  const row = s.teeth.map((t) => t.reduction.tooth);
  const widths = row.map((t) => s.plan[t]?.widthMm ?? 0);
  let x = -widths.reduce((a, b) => a + b, 0) / 2;
  const middle = (LEFT + RIGHT) / 2;
  const edgeY = top + 11.4 * k;
  row.forEach((tooth, i) => {
    const own = s.plan[tooth] as ToothPlan;
    const w = widths[i] as number;
    const cx = middle + (x + w / 2) * k;
    x += w;
    // Lower crowns hang from their edges.
    const upper = isUpper(tooth);
    const lift = upper && tooth % 10 === 2 ? 0.5 : 0;
    outline(doc, facialOutline(crown(tooth, own)), cx, upper ? edgeY - lift * k : top + 1.2 * k, upper ? k : -k);
    text(doc, label(tooth, s.notation), cx - 20, edgeY + 3, {
      font: 'bold',
      size: 8.5,
      width: 40,
      align: 'center',
      colour: INK_2,
    });
    text(doc, `${own.widthMm.toFixed(1)} × ${own.lengthMm.toFixed(1)}`, cx - 24, edgeY + 13, {
      size: 7.5,
      width: 48,
      align: 'center',
      colour: INK_2,
    });
  });
  text(doc, 'Planned contour, width × length, mm', LEFT, top - 2, { colour: INK_2, size: 8.5 });
  text(doc, `Tooth numbers: ${NOTATION_NAMES[s.notation].long}`, LEFT, top - 2, {
    font: 'bold',
    size: 8.5,
    width: WIDTH,
    align: 'right',
  });
}

/** @param k points a millimetre; negative where roots go down in the picture */
function outline(doc: Doc, p: Float64Array, cx: number, edgeY: number, k: number): void {
  for (let i = 0; i < p.length; i += 2) {
    const x = cx + (p[i] as number) * Math.abs(k);
    const y = edgeY - (p[i + 1] as number) * k;
    if (i === 0) doc.moveTo(x, y);
    else doc.lineTo(x, y);
  }
  doc.closePath().lineWidth(0.9).fillAndStroke('#fffefb', PLUM);
}

function sections(doc: Doc, s: Page, top: number): void {
  text(doc, 'Facio-palatal sections at the axis, facial left, to one scale', LEFT, top, { font: 'bold', size: 9.5 });
  const cell = WIDTH / 6;
  const k = 2.75 * MM;
  s.teeth.forEach(({ section, reduction }, i) => {
    const cx = LEFT + cell * (i + 0.5) + 2 * MM;
    const up = isUpper(reduction.tooth) ? 1 : -1;
    const y0 = top + (up === 1 ? 44 : 9) * MM;
    doc.save();
    doc.rect(LEFT + cell * i, top + 5 * MM, cell, 46 * MM).clip();
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
    text(doc, label(reduction.tooth, s.notation), cx - 20, top + 51 * MM - 8, {
      font: 'bold',
      size: 8.5,
      width: 40,
      align: 'center',
      colour: INK_2,
    });
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

const ZONE_NAMES: Record<Zone, string> = { cervical: 'cervical', middle: 'middle', incisal: 'incisal', edge: 'edge' };

function table(doc: Doc, s: Page, top: number): number {
  const strategy = `grooves ${strategyOf(s.from).name}`;
  const designs = [...new Set(s.teeth.map((t) => t.design))];
  text(doc, `Tooth to remove, mm: ${designs.map((d) => d.name).join(', ')}; ${strategy}`, LEFT, top, {
    font: 'bold',
    size: 9.5,
    width: WIDTH,
    height: 13,
  });
  const asked = designs
    .map((d) => `${designs.length > 1 ? `${d.name} ` : ''}needs ${needsOf(d)}, ${d.palatal}`)
    .join(' · ');
  text(doc, `${asked} · removal = needed thickness − gap · ±${SCAN_PM_MM.toFixed(2)}`, LEFT, top + 12, {
    size: 8,
    colour: INK_2,
    width: WIDTH,
    height: 12,
  });
  let y = top + 26;
  const cell = (WIDTH - 20 * MM) / 6;
  for (const [i, t] of s.teeth.entries()) {
    const x = LEFT + 20 * MM + cell * i;
    text(doc, label(t.reduction.tooth, s.notation), x, y, { font: 'bold', size: 8.5, width: cell - 6, align: 'right' });
    if (designs.length > 1)
      text(doc, t.design.name, x - 6, y - 7, { size: 6.2, width: cell, align: 'right', colour: INK_2 });
  }
  y += 13;
  for (const zone of ZONES) {
    rule(doc, y - 2);
    text(doc, ZONE_NAMES[zone], LEFT, y + 1, { size: 9 });
    s.teeth.forEach(({ reduction }, i) => {
      const z = reduction.zones.find((q) => q.zone === zone);
      const x = LEFT + 20 * MM + cell * i;
      const remove = z?.removal?.remove.value;
      text(doc, remove === undefined ? '–' : remove === 0 ? 'none' : remove.toFixed(2), x, y, {
        font: 'bold',
        size: 10,
        width: cell - 6,
        align: 'right',
        colour: remove ? REMOVED : ADDED,
      });
      const cut = z?.groove.kind === 'cut' ? z.groove.engagement : undefined;
      const proud = z?.proud?.value ?? z?.removal?.alignFirst ?? 0;
      const detail = [
        z?.deepest ? `to ${z.deepest.value.toFixed(2)}` : z?.removal ? `gap ${z.removal.gap.toFixed(2)}` : '',
        cut ? `groove ${cut.depthMm.toFixed(1)}` : '',
        z?.enamel ? `enamel ${enamelWords(z.enamel)}` : '',
        proud > 0 ? `proud ${proud.toFixed(2)}` : '',
      ];
      text(doc, detail.filter(Boolean).slice(0, 2).join(' · '), x, y + 12, {
        size: 6.8,
        width: cell - 6,
        align: 'right',
        colour: INK_2,
      });
      text(doc, detail.slice(2).filter(Boolean).join(' · '), x, y + 20, {
        size: 6.8,
        width: cell - 6,
        align: 'right',
        colour: z?.enamel && z.enamel.state !== 'kept' ? STOP : INK_2,
      });
    });
    y += 31;
  }
  rule(doc, y - 2);
  const removed = s.teeth.reduce((n, t) => n + t.reduction.volumeMm3, 0);
  const bare = s.teeth.reduce((n, t) => n + t.reduction.unplannedMm3, 0);
  text(
    doc,
    `Facial tissue removed: about ${removed.toFixed(0)} mm³ with this plan; the same thickness cut from the bare teeth would take ${bare.toFixed(0)} mm³.`,
    LEFT,
    y + 2,
    { size: 8.5, colour: INK_2 },
  );
  text(
    doc,
    'Large: the middle of a zone. To: what 95 % of its face stays under, line angles among it. Enamel: where least is left, but for the worst 5 %. Proud: in front of the plan, no mock-up over it.',
    LEFT,
    y + 14,
    { size: 8.5, colour: INK_2 },
  );
  return y + 24;
}

function sentences(doc: Doc, s: Page, top: number): void {
  const found = s.teeth.flatMap((t) =>
    t.reduction.zones.flatMap((z) => (z.sentence && z.sentence.weight !== 'good' ? [z.sentence] : [])),
  );
  const burs = new Map<string, string>();
  for (const t of s.teeth)
    for (const z of t.reduction.zones)
      if (z.groove.kind === 'cut')
        burs.set(
          `${z.groove.engagement.depthMm.toFixed(1)} mm: ${burName(z.groove.engagement.bur)}, ${z.groove.engagement.how}`,
          z.groove.grooves,
        );
  const half = WIDTH / 2 - 4 * MM;
  text(doc, 'Burs', LEFT, top, { font: 'bold', size: 9.5 });
  let y = top + 13;
  for (const [name, grooves] of [...burs].sort().slice(0, 8)) {
    const words = `${name}; ${grooves}`;
    const h = doc.font('sans').fontSize(7.8).heightOfString(words, { width: half });
    text(doc, words, LEFT, y, { size: 7.8, width: half, height: h + 2, colour: INK });
    y += h + 2;
  }
  const x = LEFT + WIDTH / 2 + 4 * MM;
  text(doc, 'Watch', x, top, { font: 'bold', size: 9.5 });
  y = top + 13;
  const sorted = [...found].sort((a, b) => Number(b.weight === 'stop') - Number(a.weight === 'stop'));
  if (sorted.length === 0)
    text(doc, 'By the norms enamel is left in every zone, over 95 % of its face.', x, y, { size: 7.8, colour: INK_2 });
  for (const [i, f] of sorted.entries()) {
    const room = 276 * MM - y;
    const words = f.text.replaceAll(/\{(\d+)\}/g, (_, tooth: string) => label(Number(tooth), s.notation));
    const h = doc.font('sans').fontSize(7.8).heightOfString(words, { width: half });
    if (h > room) {
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
