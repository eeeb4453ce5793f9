import { Refusal } from '../../errors.js';
import { BUR_SHAPES, type Bur, type BurShape, burFault, GRITS, type Grit, hasTip } from './bur.js';
import { TRAY_LIMITS } from './tray.js';

/** The columns of a tray as a table, in order; lengths in mm. */
export const TRAY_COLUMNS = ['shape', 'largest mm', 'tip mm', 'length mm', 'shank mm', 'grit', 'note'] as const;
const REQUIRED = TRAY_COLUMNS.slice(0, 6);

/** A tray as the rows of a table, its head first. */
export const rowsOfTray = (burs: readonly Bur[]): string[][] => [
  [...TRAY_COLUMNS],
  ...burs.map((b) => [
    b.shape,
    ...[b.largestMm, b.tipMm, b.lengthMm, b.shankMm].map((mm) => String(Math.round(mm * 1000) / 1000)),
    b.grit,
    b.note ?? '',
  ]),
];

/**
 * The burs of a table's rows, its head first; columns in any order, others are left alone.
 * @throws Refusal `tray-columns` where a column is missing, `tray-row` with the line that can't be read, `tray-empty`
 */
export function bursOfRows(rows: readonly (readonly string[])[]): Bur[] {
  const [head = [], ...lines] = rows;
  const at = new Map(head.map((name, i) => [plain(name), i]));
  const missing = REQUIRED.filter((c) => !at.has(c));
  if (missing.length > 0)
    throw new Refusal(
      'tray-columns',
      `The table has no column ${missing.map((c) => `“${c}”`).join(', ')}. A tray has the columns ${TRAY_COLUMNS.join(', ')}.`,
    );
  const burs = lines.flatMap((line, i) => {
    if (line.every((cell) => cell.trim() === '')) return [];
    const cell = (c: (typeof TRAY_COLUMNS)[number]) => (line[at.get(c) ?? -1] ?? '').trim();
    return [burOf(cell, i + 2)];
  });
  if (burs.length === 0) throw new Refusal('tray-empty', 'The table has no bur in it.');
  if (burs.length > TRAY_LIMITS.burs)
    throw new Refusal('tray-row', `A tray holds ${TRAY_LIMITS.burs} burs; the table has ${burs.length}.`);
  return burs;
}

function burOf(cell: (c: (typeof TRAY_COLUMNS)[number]) => string, line: number): Bur {
  const wrong = (why: string) => new Refusal('tray-row', `Line ${line}: ${why}`, line);
  const shape = plain(cell('shape'));
  if (!(shape in BUR_SHAPES))
    throw wrong(`“${cell('shape')}” is no shape; known are ${Object.keys(BUR_SHAPES).join(', ')}.`);
  const grit = plain(cell('grit'));
  if (!(grit in GRITS)) throw wrong(`“${cell('grit')}” is no grit; known are ${Object.keys(GRITS).join(', ')}.`);
  const mm = (c: 'largest mm' | 'tip mm' | 'length mm' | 'shank mm', otherwise?: number): number => {
    const text = cell(c).replace(',', '.');
    if (text === '' && otherwise !== undefined) return otherwise;
    const value = text === '' ? Number.NaN : Number(text);
    if (!Number.isFinite(value)) throw wrong(`“${cell(c)}” in the column “${c}” is no number of millimetres.`);
    return value;
  };
  const largestMm = mm('largest mm');
  const own = hasTip(shape as BurShape);
  const bur: Bur = {
    shape: shape as BurShape,
    largestMm,
    tipMm: own ? mm('tip mm') : largestMm,
    lengthMm: mm('length mm', shape === 'ball' ? largestMm : undefined),
    shankMm: mm('shank mm'),
    grit: grit as Grit,
    ...(cell('note') && { note: cell('note').slice(0, 80) }),
  };
  const fault = burFault(bur);
  if (fault) throw wrong(fault);
  return bur;
}

const plain = (s: string) => s.trim().toLowerCase().replace(/\s+/g, ' ');
