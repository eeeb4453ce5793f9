import type { RecordLine, RecordVisit } from '@radiant/contract/treat-record';
import { label, NOTATION_NAMES, type Notation } from '@radiant/core';
import { DateTime } from 'luxon';
import {
  type Doc,
  HAIR,
  INK_2,
  LEFT,
  letterHead,
  MM,
  newPaper,
  PLUM,
  RIGHT,
  roomFor,
  STOP,
  text,
  WIDTH,
} from './plan-paper.js';

const MARKS: Readonly<Record<RecordLine['kind'], string>> = {
  step: 'done',
  'left out': 'left out',
  gate: 'gate',
  'not met': 'not met',
  time: 'time',
  material: 'used',
  tried: 'tried',
};

/** The record of treatment on A4: what was done when and by whom, visit by visit. @param zone of the house's clock */
export async function treatmentPdf(
  name: string,
  practice: string,
  notation: Notation,
  visits: readonly RecordVisit[],
  zone: string,
): Promise<Buffer> {
  const { doc, done } = newPaper(`${name}: record of treatment`, 'A4');
  const at = (iso: string) => DateTime.fromISO(iso, { setZone: true }).setZone(zone);
  const teeth = (s: string) => s.replaceAll(/\{(\d\d)\}/g, (_, n: string) => label(Number(n), notation));
  let y = letterHead(doc, `${name}: record of treatment`, [
    practice,
    `${NOTATION_NAMES[notation].short} numbers, times of ${zone}`,
  ]);
  const room = (need: number) => {
    y = roomFor(doc, y, need, () => foot(doc));
  };
  for (const v of visits) {
    room(30 * MM);
    const begun = at(v.begunAt);
    text(doc, v.title, LEFT, y, { font: 'serif', size: 14, colour: PLUM, width: 90 * MM, height: 18 });
    const until = v.endedAt ? ` to ${at(v.endedAt).toFormat('HH:mm')}, ${v.minutes} min` : ', not ended';
    text(doc, `${begun.toFormat('d LLLL yyyy, HH:mm')}${until}`, RIGHT - 90 * MM, y + 1 * MM, {
      size: 10,
      width: 90 * MM,
      align: 'right',
    });
    y += 8 * MM;
    if (v.lines.length === 0) {
      text(doc, 'Nothing was noted.', LEFT, y, { colour: INK_2 });
      y += 6 * MM;
    }
    for (const l of v.lines) {
      const words = teeth(l.note ? `${l.words} – ${l.note}` : l.words);
      doc.font('sans').fontSize(9.5);
      const height = doc.heightOfString(words, { width: 116 * MM });
      room(height + 3 * MM);
      const bad = l.kind === 'not met' || l.kind === 'left out';
      text(doc, at(l.at).toFormat('HH:mm:ss'), LEFT, y, { size: 9, colour: INK_2 });
      text(doc, MARKS[l.kind], LEFT + 17 * MM, y, { font: 'bold', size: 9, ...(bad && { colour: STOP }) });
      text(doc, words, LEFT + 33 * MM, y, { size: 9.5, width: 116 * MM, height: height + 2 });
      text(doc, l.by, RIGHT - 27 * MM, y, { size: 8.5, colour: INK_2, width: 27 * MM, align: 'right', height: 11 });
      y += height + 2.2 * MM;
      doc
        .moveTo(LEFT, y - 1.2 * MM)
        .lineTo(RIGHT, y - 1.2 * MM)
        .lineWidth(0.3)
        .strokeColor(HAIR)
        .stroke();
    }
    y += 6 * MM;
  }
  foot(doc);
  doc.end();
  return done;
}

const foot = (doc: Doc): void =>
  text(
    doc,
    'As it was noted at the chair by those who are named. What local rules ask of a record goes before this.',
    LEFT,
    282 * MM,
    { size: 8, colour: INK_2, width: WIDTH, height: 12 },
  );
