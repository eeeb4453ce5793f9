import { type CaseComment, SHORT_RANGE_MM, shortColour } from '@radiant/contract';
import { label, NOTATION_NAMES, type PrepState } from '@radiant/core';
import {
  ADDED,
  type Doc,
  date,
  HAIR,
  INK,
  INK_2,
  LEFT,
  MM,
  newPaper,
  PLUM,
  REMOVED,
  RIGHT,
  rule,
  STOP,
  text,
  WIDTH,
} from './plan-paper.js';
import type { PrepSheet, PrepToothSheet, SheetFinding } from './prep-sheet.js';

const FOOT = 280 * MM;
const STATE_WORDS: Readonly<Record<PrepState, string>> = {
  right: 'right',
  cut: 'cut more',
  over: 'cut too much',
  look: 'look at it',
  unknown: 'not told',
};
const STATE_INK: Readonly<Record<PrepState, string>> = {
  right: INK_2,
  cut: REMOVED,
  over: ADDED,
  look: PLUM,
  unknown: INK_2,
};
/** A tooth's pictures stand in this height and width, its findings beside them. */
const PICTURE = { height: 34 * MM, width: 29 * MM } as const;
const TEXT_LEFT = LEFT + 2 * PICTURE.width + 6 * MM;

/** Draws the verdict on the preparations on A4: each tooth with its maps and what was found, and what is to cut. */
export async function prepPdf(sheet: PrepSheet): Promise<Buffer> {
  const { doc, done } = newPaper(`${sheet.name}: preparations`, 'A4');
  let y = head(doc, sheet);
  const room = (need: number) => {
    if (y + need <= FOOT) return;
    foot(doc);
    doc.addPage();
    y = 14 * MM;
  };
  for (const t of sheet.teeth) {
    room(Math.max(PICTURE.height + 12 * MM, 9 * MM + listHeight(doc, t)));
    y = tooth(doc, sheet, t, y) + 3 * MM;
  }
  room(20 * MM + 5 * MM * Math.min(sheet.recuts.length, 8));
  y = recuts(doc, sheet, y, room);
  for (const c of sheet.comments) {
    room(10 * MM);
    y += comment(doc, sheet, c, LEFT, y, WIDTH) + 1.5 * MM;
  }
  foot(doc);
  doc.end();
  return done;

  function recuts(on: Doc, s: PrepSheet, top: number, need: (h: number) => void): number {
    text(on, 'Still to cut, in the order of the tray', LEFT, top, { font: 'bold', size: 11 });
    y = top + 6 * MM;
    if (s.recuts.length === 0) text(on, 'Nothing.', LEFT, y, { size: 9.5 });
    for (const r of s.recuts) {
      need(6 * MM);
      text(on, r.bur, LEFT, y, { size: 9, width: 88 * MM, height: 12 });
      text(on, r.tooth, LEFT + 92 * MM, y, { font: 'bold', size: 9.5 });
      text(on, r.place, LEFT + 104 * MM, y, { size: 9, width: 46 * MM, height: 12 });
      text(on, r.mm, RIGHT - 26 * MM, y, { font: 'bold', size: 9.5, width: 16 * MM, align: 'right' });
      text(on, 'mm', RIGHT - 9 * MM, y, { size: 9, colour: INK_2 });
      y += 5 * MM;
    }
    return y + 4 * MM;
  }
}

function head(doc: Doc, s: PrepSheet): number {
  text(doc, `${s.name}: preparations`, LEFT, 12 * MM, { font: 'serif', size: 20, width: 112 * MM, height: 24 });
  const right = { width: 62 * MM, align: 'right' } as const;
  text(doc, s.contour, RIGHT - right.width, 12 * MM, { font: 'bold', size: 9.5, ...right, height: 24 });
  text(doc, s.practice, RIGHT - right.width, 20.5 * MM, { colour: INK_2, ...right, height: 12 });
  let y = 22 * MM;
  for (const { told, laid } of s.scans) {
    const how = laid.doubtful
      ? 'lies doubtfully and is not judged by'
      : laid.teeth > 0
        ? `laid by ${laid.teeth} uncut teeth within ${laid.medianMm.toFixed(2)} mm; sure to ±${laid.pmMm.toFixed(2)} mm`
        : `no uncut tooth is in it; sure to ±${laid.pmMm.toFixed(2)} mm`;
    text(doc, `${told.jaw}, ${told.state}: ${told.name}, ${date(told.at)}; ${how}.`, LEFT, y, {
      size: 8.5,
      colour: laid.doubtful ? STOP : INK_2,
      width: 112 * MM,
      height: 26,
    });
    y += 8.5 * MM;
  }
  for (const line of s.notJudged) {
    text(doc, line, LEFT, y, { font: 'bold', size: 9.5, colour: STOP });
    y += 4.6 * MM;
  }
  y += 1.5 * MM;
  scale(doc, y);
  text(doc, `${NOTATION_NAMES[s.notation].long} numbers`, RIGHT - right.width, y, { size: 8, colour: INK_2, ...right });
  rule(doc, y + 6 * MM);
  return y + 9 * MM;
}

/** What the colours of the maps say. */
function scale(doc: Doc, y: number): void {
  const [steps, step] = [21, 2.2 * MM];
  for (let i = 0; i < steps; i++) {
    const [r, g, b] = shortColour(SHORT_RANGE_MM * ((2 * i) / (steps - 1) - 1)).map((c) => Math.round(255 * c));
    doc.rect(LEFT + 38 * MM + i * step, y, step + 0.3, 2.6 * MM).fill([r as number, g as number, b as number]);
  }
  const end = LEFT + 38 * MM + steps * step;
  text(doc, 'more gone than asked', LEFT, y - 1, { size: 8, colour: ADDED });
  text(doc, `still to cut, full at ${SHORT_RANGE_MM} mm`, end + 2 * MM, y - 1, { size: 8, colour: REMOVED });
}

const item = ({ says, todo }: SheetFinding) => `${says}.${todo && ` ${todo[0]?.toUpperCase()}${todo.slice(1)}.`}`;
const ITEM_WIDTH = RIGHT - TEXT_LEFT - 7 * MM;

function notes(f: SheetFinding): string[] {
  return [
    ...(f.accepted ? [`taken as it is: “${f.accepted.reason}”, ${f.accepted.by}, ${date(f.accepted.at)}`] : []),
    ...f.answers.map((c) => `“${c.body}” ${c.by}, ${c.role}, ${date(c.at)}`),
  ];
}

function itemHeight(doc: Doc, f: SheetFinding): number {
  const high = (s: string, size: number) => doc.font('sans').fontSize(size).heightOfString(s, { width: ITEM_WIDTH });
  return high(item(f), 9) + notes(f).reduce((sum, n) => sum + high(n, 8), 0) + 1.4 * MM;
}

const listHeight = (doc: Doc, t: PrepToothSheet): number =>
  t.findings.reduce((sum, f) => sum + itemHeight(doc, f), 6 * MM);

function tooth(doc: Doc, s: PrepSheet, t: PrepToothSheet, top: number): number {
  text(doc, label(t.tooth, s.notation), LEFT, top - 1, { font: 'bold', size: 16 });
  text(doc, t.design, LEFT + 14 * MM, top + 1.2 * MM, { size: 9, colour: INK_2, width: 44 * MM, height: 11 });
  text(doc, STATE_WORDS[t.state], TEXT_LEFT, top, { font: 'bold', size: 11, colour: STATE_INK[t.state] });
  t.pictures.forEach(({ words, picture }, i) => {
    const [x, y] = [LEFT + i * (PICTURE.width + 2 * MM), top + 7 * MM];
    const k = Math.min(PICTURE.width / picture.width, PICTURE.height / picture.height);
    doc.image(picture.png, x, y, { width: picture.width * k, height: picture.height * k });
    text(doc, words, x, y + PICTURE.height, { size: 7.5, colour: INK_2 });
    for (const f of t.findings) {
      const place = f.at && picture.at(f.at);
      if (!place?.seen) continue;
      const [cx, cy] = [x + place.x * k, y + place.y * k];
      doc
        .circle(cx, cy, 2 * MM)
        .lineWidth(0.8)
        .fillAndStroke('#ffffff', INK);
      text(doc, String(f.number), cx - 2 * MM, cy - 4.6, { font: 'bold', size: 7.5, width: 4 * MM, align: 'center' });
    }
  });
  let y = top + 6 * MM;
  for (const f of t.findings) {
    text(doc, String(f.number), TEXT_LEFT, y, { font: 'bold', size: 9, colour: STATE_INK[f.finding.state] });
    y = lines(doc, item(f), y, 9, INK);
    for (const n of notes(f)) y = lines(doc, n, y, 8, PLUM);
    y += 1.4 * MM;
  }
  text(doc, `${t.right} checks are right`, TEXT_LEFT, y, { size: 8, colour: INK_2 });
  const end = Math.max(y + 4 * MM, top + 7 * MM + PICTURE.height + 4 * MM);
  doc.moveTo(LEFT, end).lineTo(RIGHT, end).lineWidth(0.5).strokeColor(HAIR).stroke();
  return end;
}

function lines(doc: Doc, s: string, y: number, size: number, colour: string): number {
  const height = doc.font('sans').fontSize(size).heightOfString(s, { width: ITEM_WIDTH });
  text(doc, s, TEXT_LEFT + 7 * MM, y, { size, colour, width: ITEM_WIDTH, height: height + 1 });
  return y + height;
}

function comment(doc: Doc, s: PrepSheet, c: CaseComment, x: number, y: number, width: number): number {
  const on = c.place ? `${label(c.place.tooth, s.notation)}, ${c.place.words}: ` : '';
  const words = `${on}“${c.body}” ${c.by}, ${c.role}, ${date(c.at)}`;
  const height = doc.font('sans').fontSize(9).heightOfString(words, { width });
  text(doc, words, x, y, { size: 9, width, height: height + 1 });
  return height;
}

const foot = (doc: Doc): void =>
  text(
    doc,
    'A scan shows surfaces, not the tooth: the treating clinician decides what is cut. Limits are the house’s where no source is named on the screen.',
    LEFT,
    287 * MM,
    { size: 7.5, colour: INK_2, width: WIDTH, height: 10 },
  );
