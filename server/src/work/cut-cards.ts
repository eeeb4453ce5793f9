import {
  BUR_SHAPES,
  type Bur,
  burName,
  type CutStep,
  enamelWords,
  finishes,
  isoDiameter,
  isUpper,
  label,
  SPEEDS,
  strategyOf,
  ZONES,
  type ZoneTarget,
} from '@radiant/core';
import { drawSection } from './paper-section.js';
import { cutOf } from './plan-depths.js';
import { ADDED, type Doc, date, HAIR, INK_2, MM, newPaper, STOP, text } from './plan-paper.js';
import type { PlanSheet, SheetTooth } from './plan-sheet.js';

// A card for each tooth, to lie beside the hand: what is set, with which bur, in which order.

const A5 = { width: 148 * MM, height: 210 * MM };
const A4 = { width: 210 * MM, height: 297 * MM };
/** Millimetres of paper for one of the tooth. */
const SECTION_SCALE = 4;

/** A card in A5 for each tooth, or six of them, shorter, on a page of A4. */
export async function cardsPdf(sheet: PlanSheet, form: 'cards' | 'six'): Promise<Buffer> {
  const teeth = sheet.pages.flat();
  const size = form === 'cards' ? A5 : A4;
  const { doc, done } = newPaper(`${sheet.name}: cards`, [size.width, size.height]);
  teeth.forEach((t, i) => {
    if (form === 'cards') {
      if (i > 0) doc.addPage();
      whole(doc, sheet, t);
      return;
    }
    const cell = i % 6;
    if (i > 0 && cell === 0) doc.addPage();
    short(doc, sheet, t, (cell % 2) * (A4.width / 2), Math.floor(cell / 2) * (A4.height / 3));
  });
  doc.end();
  return done;
}

const zoneOf = (t: SheetTooth, zone: ZoneTarget['zone']) => t.reduction.zones.find((z) => z.zone === zone);

/** What is set in a zone, and what it is set with. */
function setOf(z: ZoneTarget | undefined): {
  readonly large: string;
  readonly how: string;
  readonly grooves: string;
  readonly rest: string;
} {
  const cut = cutOf(z);
  if (cut) {
    const { bur, how, depthMm } = cut.engagement;
    return {
      large: depthMm.toFixed(1),
      how: `${burName(bur)}; ${how}`,
      grooves: cut.grooves,
      rest: cut.restMm > 0 ? `then ${cut.restMm.toFixed(2)} by the index` : '',
    };
  }
  if (!z?.removal) return { large: z?.zone === 'edge' && z.places > 0 ? 'flat' : '–', how: '', grooves: '', rest: '' };
  const { value } = z.removal.remove;
  return {
    large: value === 0 ? 'none' : '–',
    how: z.groove.kind === 'none' ? z.groove.why : '',
    grooves: '',
    rest: '',
  };
}

const shortName = (b: Bur) => `${BUR_SHAPES[b.shape]} ${isoDiameter(b)}${finishes(b) ? `, ${b.grit}` : ''}`;

const taken = (z: ZoneTarget | undefined): string =>
  z?.removal
    ? [
        `takes ${z.removal.remove.value.toFixed(2)}${z.deepest ? ` to ${z.deepest.value.toFixed(2)}` : ''}`,
        z.enamel ? `enamel left ${enamelWords(z.enamel)}` : '',
      ]
        .filter(Boolean)
        .join(' · ')
    : '';

function whole(doc: Doc, s: PlanSheet, t: SheetTooth): void {
  const left = 10 * MM;
  const width = A5.width - 20 * MM;
  const right = { width: width - 34 * MM, align: 'right' } as const;
  text(doc, label(t.list.tooth, s.notation), left, 7 * MM, { font: 'bold', size: 50 });
  const x = left + 34 * MM;
  text(doc, s.name, x, 8.5 * MM, { font: 'serif', size: 15, ...right, height: 19 });
  text(doc, `${t.design.name}, ${strategyOf(s.from).name}`, x, 15.5 * MM, { font: 'bold', size: 10, ...right });
  text(doc, standing(s), x, 20 * MM, { size: 8.5, colour: INK_2, ...right, height: 22 });
  let y = 28 * MM;
  if (s.beware.length > 0) {
    const words = s.beware.join(' · ');
    const h =
      doc
        .font('bold')
        .fontSize(9.5)
        .heightOfString(words, { width: width - 12 }) + 8;
    doc.roundedRect(left, y, width, h, 3).fill('#fbeee0');
    text(doc, words, left + 6, y + 4, { font: 'bold', size: 9.5, colour: STOP, width: width - 12, height: h });
    y += h + 2 * MM;
  }
  const grid = 82 * MM;
  const top = y;
  text(doc, 'Set the depth, mm', left, y, { size: 8.5, colour: INK_2 });
  y += 4.5 * MM;
  for (const zone of ZONES) {
    line(doc, left, y, grid);
    const z = zoneOf(t, zone);
    const { large, how, grooves, rest } = setOf(z);
    text(doc, zone, left, y + 3, { font: 'bold', size: 9.5, width: 20 * MM });
    text(doc, large, left + 17 * MM, y + 1, {
      font: 'bold',
      size: large.length > 3 ? 17 : 27,
      width: 20 * MM,
      align: 'center',
      ...(large === 'none' && { colour: ADDED }),
    });
    text(doc, [how, grooves].filter(Boolean).join('; '), left + 38 * MM, y + 3, {
      size: 7.6,
      width: grid - 38 * MM,
      height: 37,
    });
    text(doc, [rest, taken(z)].filter(Boolean).join(' · '), left, y + 37, {
      size: 7.4,
      colour: INK_2,
      width: grid,
      height: 10,
    });
    y += 17 * MM;
  }
  line(doc, left, y, grid);
  section(doc, t, left + grid + 3 * MM, top, width - grid - 3 * MM);
  steps(doc, t.list.steps, left, y + 2.5 * MM, width, A5.height - 13 * MM);
  text(
    doc,
    `Cut at ${SPEEDS.cut}; finish at ${SPEEDS.fine}. Planning aid: the treating clinician decides and checks in the mouth; local rules come first.`,
    left,
    A5.height - 10.5 * MM,
    { size: 6.8, colour: INK_2, width, height: 20 },
  );
}

/** The section at 4 : 1 with its scale. */
function section(doc: Doc, t: SheetTooth, x: number, top: number, width: number): void {
  const up = isUpper(t.list.tooth) ? 1 : -1;
  const k = SECTION_SCALE * MM;
  text(doc, 'at the axis, facial left', x, top, { size: 7.4, colour: INK_2, width, align: 'center' });
  doc.save();
  doc.rect(x, top + 4 * MM, width, 58 * MM).clip();
  drawSection(doc, t.section, [x + width / 2 + 2 * MM, top + (up === 1 ? 52 : 10) * MM], k, up);
  doc.restore();
  const end = x + width / 2;
  const y = top + 61 * MM;
  doc
    .moveTo(end - k, y)
    .lineTo(end + k, y)
    .moveTo(end - k, y - 2)
    .lineTo(end - k, y + 2)
    .moveTo(end + k, y - 2)
    .lineTo(end + k, y + 2)
    .lineWidth(0.8)
    .strokeColor(INK_2)
    .stroke();
  text(doc, '2 mm', end - k, y + 2, { size: 7, colour: INK_2, width: 2 * k, align: 'center' });
}

/** Sizes of a step's title and its words, points: the largest that the card has room for. */
const SIZES = [
  [8, 7.2],
  [7.5, 6.8],
  [7, 6.4],
  [6.5, 6],
] as const;

function steps(doc: Doc, list: readonly CutStep[], left: number, top: number, width: number, bottom: number): void {
  const gap = 5 * MM;
  const own = { width: (width - gap) / 2 };
  const lines = list.map((step, i) => {
    const brief = step.brief ?? (step.how ? '' : step.detail);
    const tool = step.bur && !step.how ? shortName(step.bur) : '';
    return {
      title: `${i + 1}. ${step.title}${step.depthMm === undefined ? '' : `, ${step.depthMm.toFixed(1)} mm`}`,
      words: [brief && `${brief[0]?.toUpperCase()}${brief.slice(1)}`, tool, step.caution ?? '']
        .filter(Boolean)
        .map((w) => w.replace(/\.$/, ''))
        .join('. '),
    };
  });
  for (const [large, small] of SIZES) {
    let [x, y] = [left, top];
    const placed = lines.map(({ title, words }) => {
      const head = doc.font('bold').fontSize(large).heightOfString(title, own);
      const h = head + (words ? doc.font('sans').fontSize(small).heightOfString(words, own) : 0) + 3;
      if (y + h > bottom && x === left) [x, y] = [left + own.width + gap, top];
      const at = { x, y, head, h };
      y += h;
      return at;
    });
    if (y > bottom && small !== SIZES.at(-1)?.[1]) continue;
    lines.forEach(({ title, words }, i) => {
      const { x: px, y: py, head, h } = placed[i] as (typeof placed)[number];
      text(doc, title, px, py, { font: 'bold', size: large, width: own.width, height: head + 2 });
      if (words) text(doc, words, px, py + head, { size: small, width: own.width, height: h - head });
    });
    return;
  }
}

function short(doc: Doc, s: PlanSheet, t: SheetTooth, x0: number, y0: number): void {
  const left = x0 + 9 * MM;
  const width = A4.width / 2 - 18 * MM;
  doc
    .rect(x0 + 4 * MM, y0 + 4 * MM, A4.width / 2 - 8 * MM, A4.height / 3 - 8 * MM)
    .lineWidth(0.5)
    .strokeColor(HAIR)
    .stroke();
  text(doc, label(t.list.tooth, s.notation), left, y0 + 6 * MM, { font: 'bold', size: 30 });
  const right = { width: width - 24 * MM, align: 'right' } as const;
  text(doc, s.name, left + 24 * MM, y0 + 7 * MM, { font: 'serif', size: 11, ...right, height: 14 });
  text(doc, `${t.design.name}, ${strategyOf(s.from).name}`, left + 24 * MM, y0 + 12 * MM, { size: 8, ...right });
  text(doc, standing(s), left + 24 * MM, y0 + 15.5 * MM, { size: 7, colour: INK_2, ...right, height: 9 });
  let y = y0 + 20 * MM;
  for (const zone of ZONES) {
    line(doc, left, y, width);
    const z = zoneOf(t, zone);
    const { large, how, grooves, rest } = setOf(z);
    text(doc, zone, left, y + 5, { font: 'bold', size: 8.5 });
    text(doc, large, left + 16 * MM, y + 1.5, {
      font: 'bold',
      size: large.length > 3 ? 12 : 18,
      width: 16 * MM,
      align: 'center',
    });
    text(doc, [how, grooves, rest].filter(Boolean).join('; '), left + 33 * MM, y + 3, {
      size: 7,
      width: width - 33 * MM,
      height: 30,
    });
    y += 11.6 * MM;
  }
  line(doc, left, y, width);
  const order = t.list.steps.map((step, i) => `${i + 1} ${step.title}`).join(' · ');
  text(doc, order, left, y + 3, { size: 7, width, height: 40 });
  if (s.beware.length > 0)
    text(doc, s.beware.join(' · '), left, y0 + A4.height / 3 - 13 * MM, {
      font: 'bold',
      size: 7.5,
      colour: STOP,
      width,
      height: 18,
    });
}

const standing = (s: PlanSheet): string =>
  `Contour no. ${s.contourVersion}, ${s.approvedAt ? `${s.contourStanding}, ${date(s.approvedAt)}` : s.contourStanding}`;

const line = (doc: Doc, x: number, y: number, width: number) =>
  doc
    .moveTo(x, y)
    .lineTo(x + width, y)
    .lineWidth(0.5)
    .strokeColor(HAIR)
    .stroke();
