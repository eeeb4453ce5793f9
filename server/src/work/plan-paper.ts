import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import PDFDocument from 'pdfkit';
import type { PlanSheet, SheetTooth } from './plan-sheet.js';

// What every part of a page of the plan is drawn with: colours, measures of the paper, text.

export const INK = '#1d2428';
export const INK_2 = '#5b646a';
export const HAIR = '#ddd8cf';
export const PLUM = '#5d2a5a';
export const REMOVED = '#b8640a';
export const ADDED = '#2a6fb5';
export const STOP = '#a8261d';

/** Points a millimetre. */
export const MM = 72 / 25.4;
export const LEFT = 16 * MM;
export const RIGHT = 194 * MM;
export const WIDTH = RIGHT - LEFT;

export type Doc = InstanceType<typeof PDFDocument>;

const require = createRequire(import.meta.url);
const fontFile = (pack: string, name: string) =>
  join(dirname(require.resolve(`@fontsource/${pack}/package.json`)), 'files', name);

/** A PDF with the fonts that ship with the application; `done` has its bytes once it has ended. */
export function newPaper(title: string, size: 'A4' | [number, number]): { doc: Doc; done: Promise<Buffer> } {
  const doc = new PDFDocument({
    size,
    margin: 0,
    info: { Title: title, Creator: 'Radiant Arch', Producer: 'Radiant Arch' },
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
  return { doc, done };
}

/** One page of the plan. */
export interface Page extends PlanSheet {
  readonly teeth: readonly SheetTooth[];
  /** From 1. */
  readonly page: number;
}

export function text(
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

export const rule = (doc: Doc, y: number) =>
  doc.moveTo(LEFT, y).lineTo(RIGHT, y).lineWidth(0.5).strokeColor(HAIR).stroke();

/** The head of a page of text: title at the left, two lines at the right. @returns where the text begins */
export function letterHead(doc: Doc, title: string, right: readonly [string, string]): number {
  text(doc, title, LEFT, 13 * MM, { font: 'serif', size: 20, width: 115 * MM, height: 24 });
  right.forEach((line, i) => {
    text(doc, line, RIGHT - 60 * MM, (13 + 4.5 * i) * MM, {
      colour: INK_2,
      width: 60 * MM,
      align: 'right',
      height: 12,
    });
  });
  rule(doc, 26 * MM);
  return 31 * MM;
}

/** Where a page of text ends, and its next one begins. */
const TEXT = { end: 276 * MM, begin: 14 * MM } as const;

/** Where to go on with so much: here, or on a new page when it has no room. @param foot drawn on the page that is left */
export function roomFor(doc: Doc, y: number, need: number, foot: () => void): number {
  if (y + need <= TEXT.end) return y;
  foot();
  doc.addPage();
  return TEXT.begin;
}

export const date = (iso: string | null) =>
  iso
    ? new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' }).format(
        new Date(iso),
      )
    : '';
