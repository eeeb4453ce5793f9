import type PDFDocument from 'pdfkit';
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

export const date = (iso: string | null) =>
  iso
    ? new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' }).format(
        new Date(iso),
      )
    : '';
