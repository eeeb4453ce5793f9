import { type Lab, LETTER_SCALE, label, NOTATION_NAMES, screenRgb } from '@radiant/core';
import sharp from 'sharp';
import { type Doc, HAIR, INK_2, LEFT, MM, newPaper, RIGHT, rule, STOP, text, WIDTH } from './plan-paper.js';
import type { ShadeSheet, ShadeTooth, SheetZone, ToldColour } from './shade-sheet.js';

/** A photograph that goes with the sheet. */
export interface SheetPicture {
  readonly words: string;
  readonly bytes: Uint8Array;
}

const BOTTOM = 282 * MM;
const BLOCK = 44 * MM;
/** The columns of a tooth's table: where each begins, mm from its left. */
const AT = { zone: 0, tooth: 14, stump: 62, wanted: 110, thick: 140, dE: 156 } as const;

/** Draws the laboratory's sheet on A4: what was read and is wanted zone by zone, and the photographs. */
export async function shadesPdf(sheet: ShadeSheet, pictures: readonly SheetPicture[]): Promise<Buffer> {
  const { doc, done } = newPaper(`${sheet.name}: colour`, 'A4');
  head(doc, sheet);
  let y = 37 * MM;
  for (const t of sheet.teeth) {
    if (y + BLOCK > BOTTOM) {
      doc.addPage();
      y = 14 * MM;
    }
    y = tooth(doc, sheet, t, y);
  }
  await photographs(doc, pictures, y + 2 * MM);
  doc.end();
  return done;
}

function head(doc: Doc, s: ShadeSheet): void {
  text(doc, `${s.name}: colour`, LEFT, 12 * MM, { font: 'serif', size: 20, width: 110 * MM, height: 24 });
  const right = { width: 60 * MM, align: 'right' } as const;
  text(doc, s.practice, RIGHT - 60 * MM, 12 * MM, { colour: INK_2, ...right, height: 12 });
  text(doc, s.contour, RIGHT - 60 * MM, 16 * MM, { colour: INK_2, ...right, height: 24 });
  text(doc, `Wanted: ${s.wanted}. Cement: ${s.cement}.`, LEFT, 21 * MM, { font: 'bold', size: 11 });
  text(
    doc,
    `${NOTATION_NAMES[s.notation].long} numbers. CIELAB, D65, 2°. Nearest letter shades by ${LETTER_SCALE.source.text}; tabs differ. Predictions by generic or house optical constants. Printed colour is not exact.`,
    LEFT,
    26 * MM,
    { size: 7.5, colour: INK_2, width: WIDTH, height: 21 },
  );
  rule(doc, 34 * MM);
}

function tooth(doc: Doc, s: ShadeSheet, t: ShadeTooth, top: number): number {
  text(doc, label(t.tooth, s.notation), LEFT, top, { font: 'bold', size: 18 });
  text(doc, `${t.design}, ${t.ceramic}`, LEFT + AT.tooth * MM, top + 1 * MM, { font: 'bold', size: 10 });
  const facts = [
    t.translucency && `edge translucency ${t.translucency}`,
    t.texture && (t.texture === 'smooth' ? 'smooth surface' : `${t.texture} texture`),
    t.bleaching,
    t.note,
  ].filter(Boolean);
  text(doc, facts.join(' · ') || 'translucency and texture not told', LEFT + AT.tooth * MM, top + 5.5 * MM, {
    size: 8.5,
    colour: facts.length > 0 ? undefined : INK_2,
    width: WIDTH - AT.tooth * MM,
    height: 22,
  });
  let y = top + 13.5 * MM;
  for (const [c, words] of [
    ['tooth', 'tooth, before it is cut'],
    ['stump', 'stump'],
    ['wanted', 'wanted'],
    ['thick', 'mm'],
    ['dE', 'CIEDE2000, predicted'],
  ] as const)
    text(doc, words, LEFT + AT[c] * MM, y - 3.6 * MM, { size: 7, colour: INK_2 });
  for (const z of t.zones) {
    zone(doc, z, y);
    y += 8 * MM;
  }
  doc.moveTo(LEFT, y).lineTo(RIGHT, y).lineWidth(0.5).strokeColor(HAIR).stroke();
  return y + 4 * MM;
}

function zone(doc: Doc, z: SheetZone, y: number): void {
  text(doc, z.zone, LEFT, y + 1, { font: 'bold', size: 9 });
  reading(doc, z.tooth, LEFT + AT.tooth * MM, y);
  reading(doc, z.stump, LEFT + AT.stump * MM, y);
  if (z.wanted) {
    swatch(doc, z.wanted, LEFT + AT.wanted * MM, y);
    text(doc, numbers(z.wanted), LEFT + (AT.wanted + 8) * MM, y + 1, { size: 8 });
  } else text(doc, 'not chosen', LEFT + AT.wanted * MM, y + 1, { size: 8, colour: INK_2 });
  text(doc, z.ceramicMm === undefined ? '–' : z.ceramicMm.toFixed(2), LEFT + AT.thick * MM, y + 1, { size: 9 });
  text(
    doc,
    z.dE ? `${z.dE.value.toFixed(1)} (${z.dE.from.toFixed(1)} to ${z.dE.to.toFixed(1)})` : '–',
    LEFT + AT.dE * MM,
    y + 1,
    { size: 9 },
  );
}

const numbers = ({ L, a, b }: Lab) => [L, a, b].map((v) => v.toFixed(1)).join('  ');

function reading(doc: Doc, r: ToldColour | undefined, x: number, y: number): void {
  if (!r) {
    text(doc, 'not read', x, y + 1, { size: 8, colour: INK_2 });
    return;
  }
  swatch(doc, r.lab, x, y);
  text(doc, `${numbers(r.lab)}   ${r.near}`, x + 8 * MM, y, { size: 8 });
  text(doc, r.how, x + 8 * MM, y + 3.4 * MM, {
    size: 6.5,
    colour: r.doubtful ? STOP : INK_2,
    width: 39 * MM,
    height: 8,
  });
}

function swatch(doc: Doc, lab: Lab, x: number, y: number): void {
  const [r, g, b] = screenRgb(lab).map((v) => Math.round(255 * v)) as [number, number, number];
  doc.rect(x, y, 6.5 * MM, 6.5 * MM).fill([r, g, b]);
}

/** As many photographs as there are, two in a row on neutral grey. */
async function photographs(doc: Doc, pictures: readonly SheetPicture[], top: number): Promise<void> {
  if (pictures.length === 0)
    text(doc, 'No photograph lies in the case: send one with the shade tab beside the tooth.', LEFT, top, {
      size: 9,
      colour: INK_2,
    });
  const [w, h] = [(WIDTH - 4 * MM) / 2, 56 * MM];
  let y = top;
  for (const [i, p] of pictures.entries()) {
    if (i % 2 === 0 && y + h + 6 * MM > BOTTOM) {
      doc.addPage();
      y = 14 * MM;
    }
    const x = LEFT + (i % 2) * (w + 4 * MM);
    doc.rect(x, y, w, h).fill('#8b8b8b');
    const jpeg = await sharp(p.bytes).resize(1400, 1400, { fit: 'inside' }).jpeg({ quality: 86 }).toBuffer();
    doc.image(jpeg, x + 4, y + 4, { fit: [w - 8, h - 8], align: 'center', valign: 'center' });
    text(doc, p.words, x, y + h + 1 * MM, { size: 8, colour: INK_2 });
    if (i % 2 === 1) y += h + 8 * MM;
  }
}
