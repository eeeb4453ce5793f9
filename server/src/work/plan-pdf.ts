import { isUpper, label, type ToothPlan } from '@radiant/core';
import { drawSection } from './paper-section.js';
import { depths, steps } from './plan-depths.js';
import {
  type Doc,
  date,
  INK,
  INK_2,
  LEFT,
  MM,
  newPaper,
  type Page,
  PLUM,
  REMOVED,
  RIGHT,
  rule,
  STOP,
  text,
  WIDTH,
} from './plan-paper.js';
import type { PlanSheet } from './plan-sheet.js';

/** Draws the plan on A4, a page for six teeth of a jaw. */
export async function planPdf(sheet: PlanSheet): Promise<Buffer> {
  const { doc, done } = newPaper(`${sheet.name}: reduction plan`, 'A4');
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
    drawSection(doc, section, [cx, y0], k, up);
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

function sentences(doc: Doc, s: Page, top: number): void {
  const found = s.teeth.flatMap((t) =>
    t.reduction.zones.flatMap((z) => (z.sentence && z.sentence.weight !== 'good' ? [z.sentence] : [])),
  );
  const removed = s.teeth.reduce((n, t) => n + t.reduction.volumeMm3, 0);
  const bare = s.teeth.reduce((n, t) => n + t.reduction.unplannedMm3, 0);
  text(doc, 'Watch', LEFT, top, { font: 'bold', size: 10.5 });
  text(
    doc,
    `Tooth removed: about ${removed.toFixed(0)} mm³ with this plan; the same thickness cut from the bare teeth would take ${bare.toFixed(0)} mm³.`,
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
