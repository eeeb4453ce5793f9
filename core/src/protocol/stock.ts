import { Refusal } from '../errors.js';
import { dayOf } from '../schedule/day.js';
import type { Lot } from './lot.js';

/** A pack in the cupboard. */
export interface StockRow extends Lot {
  readonly name: string;
  readonly lot: string;
}

const COLUMNS = {
  name: ['name', 'material'],
  item: ['item', 'gtin'],
  lot: ['lot', 'batch'],
  expiry: ['expiry', 'expires'],
};

/**
 * A stock list from the rows of a table: name, item number, lot, expiry, found by their heads in any order.
 * @throws Refusal `stock-columns` where name or lot is no column, `stock-row` for a row that can't be read
 */
export function stockFromRows(rows: readonly (readonly string[])[]): StockRow[] {
  const head = (rows[0] ?? []).map((h) => h.trim().toLowerCase());
  const at = (names: readonly string[]) => head.findIndex((h) => names.includes(h));
  const [name, item, lot, expiry] = [at(COLUMNS.name), at(COLUMNS.item), at(COLUMNS.lot), at(COLUMNS.expiry)];
  if (name < 0 || lot < 0)
    throw new Refusal(
      'stock-columns',
      'A stock list has the columns name, item, lot and expiry; name and lot are missing.',
    );
  const out = rows.slice(1).map((r, i): StockRow => {
    const cell = (c: number) => (c < 0 ? '' : (r[c] ?? '').trim());
    const says = (what: string) => new Refusal('stock-row', `Row ${i + 2}: ${what}`);
    if (!cell(name)) throw says('a material has a name.');
    if (cell(item) && !/^\d{8,14}$/.test(cell(item)))
      throw says(`“${cell(item)}” is no item number of 8 to 14 digits.`);
    if (cell(expiry)) {
      try {
        dayOf(cell(expiry));
      } catch {
        throw says(`“${cell(expiry)}” is no day; a day is written as 2026-12-18.`);
      }
    }
    return {
      name: cell(name),
      lot: cell(lot),
      ...(cell(item) && { item: cell(item) }),
      ...(cell(expiry) && { expiry: cell(expiry) }),
    };
  });
  const seen = new Set<string>();
  for (const [i, r] of out.entries()) {
    const key = `${r.name} ${r.lot}`;
    if (seen.has(key)) throw new Refusal('stock-row', `Row ${i + 2}: ${r.name}, lot ${r.lot || 'none'}, stands twice.`);
    seen.add(key);
  }
  return out;
}
