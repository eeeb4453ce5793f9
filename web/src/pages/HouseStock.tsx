import { STOCK_LIMITS, type StockLot } from '@radiant/contract';
import { Refusal, stockFromRows } from '@radiant/core';
import { CsvIn } from '../ui/CsvIn.js';
import { saveCsv } from '../ui/csv.js';
import { day } from '../ui/format.js';

const HEAD = ['name', 'item', 'lot', 'expiry'];

/** What lies in the cupboards, lot by lot: from here the chair knows what a scanned pack is, and whether it is out of date. */
export function HouseStock({
  stock,
  today,
  set,
}: {
  stock: readonly StockLot[];
  /** A calendar date, where the house's clock hangs. */
  today: string;
  set: (next: StockLot[]) => void;
}) {
  const sorted = [...stock].sort(
    (a, b) => (a.expiry ?? '9').localeCompare(b.expiry ?? '9') || a.name.localeCompare(b.name),
  );
  return (
    <section aria-label="Stock" className="mb-10">
      <h2 className="title">Stock</h2>
      <p className="mb-3 max-w-[80ch] text-note text-ink-2">
        A table of name, item, lot and expiry. The list that is read takes the place of this one. In treat a hand
        scanner reads the pack; the item number tells its name.
      </p>
      {sorted.length > 0 && (
        <table className="figures mb-3 max-w-[760px] text-note" aria-label="Lots">
          <thead>
            <tr>
              <th scope="col">material</th>
              <th scope="col">item</th>
              <th scope="col">lot</th>
              <th scope="col">use by</th>
            </tr>
          </thead>
          <tbody>
            {sorted.map((s) => (
              <tr key={`${s.name} ${s.lot}`}>
                <th scope="row">{s.name}</th>
                <td>{s.item ?? '–'}</td>
                <td>{s.lot || '–'}</td>
                <td className={s.expiry && s.expiry < today ? 'font-semibold text-stop' : ''}>
                  {s.expiry ? `${day(s.expiry)}${s.expiry < today ? ', out of date' : ''}` : '–'}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <div className="flex flex-wrap items-center gap-2">
        <CsvIn
          label="Stock as CSV"
          read={(_, rows) => {
            const lots = stockFromRows(rows);
            if (lots.length > STOCK_LIMITS.lots)
              throw new Refusal(
                'stock-row',
                `The table has ${lots.length} lots; ${STOCK_LIMITS.lots} are kept at most.`,
              );
            set(lots.map((r) => ({ ...r })));
          }}
        />
        <button
          type="button"
          className="btn btn-ghost"
          onClick={() =>
            saveCsv([HEAD, ...sorted.map((s) => [s.name, s.item ?? '', s.lot, s.expiry ?? ''])], 'stock.csv')
          }
        >
          {stock.length > 0 ? 'Save the stock as CSV' : 'Save an empty table as CSV'}
        </button>
        {stock.length > 0 && (
          <button type="button" className="how" onClick={() => set([])}>
            take all out
          </button>
        )}
      </div>
    </section>
  );
}
