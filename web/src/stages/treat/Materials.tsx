import { lotOf } from '@radiant/core';
import { useId, useState } from 'react';
import { useSection } from '../../data/case-context.js';
import { todayIn } from '../../data/today.js';
import { usePracticeSettings } from '../../data/use-practice-settings.js';
import { day } from '../../ui/format.js';
import type { Chair } from './use-chair.js';

/** What was used, with lot and expiry: typed, chosen from the stock, or read by a hand scanner that types. */
export function Materials({ chair, mayWrite }: { chair: Chair; mayWrite: boolean }) {
  const { data, set } = useSection('treat');
  const { shown } = usePracticeSettings();
  const id = useId();
  const [typed, setTyped] = useState('');
  const [lot, setLot] = useState('');
  const [expiry, setExpiry] = useState('');
  const today = todayIn(shown?.clinic.timeZone ?? 'UTC');
  const stock = shown?.stock ?? [];
  const used = data.used.filter((m) => m.visit === chair.visit && m.round === chair.round);
  const take = () => {
    const label = lotOf(typed, today);
    const known = stock.find((s) =>
      label
        ? s.item === label.item && (!label.lot || s.lot === label.lot)
        : s.name === typed.trim() && (!lot || s.lot === lot),
    );
    const kind = label && stock.find((s) => s.item === label.item);
    const name = label ? (known?.name ?? kind?.name ?? `item ${label.item ?? 'unknown'}`) : typed.trim();
    if (!name) return;
    const ends = label?.expiry ?? (expiry || known?.expiry);
    chair.put((t, e, at) => ({
      used: [
        ...t.used,
        {
          ...e,
          id: crypto.randomUUID(),
          name,
          lot: label?.lot ?? (lot.trim() || (known?.lot ?? '')),
          ...(ends && { expiry: ends }),
          at,
        },
      ],
    }));
    setTyped('');
    setLot('');
    setExpiry('');
  };
  return (
    <section aria-label="Materials" className="mt-5 border-t border-hair pt-3 first:mt-0 first:border-0 first:pt-0">
      <h2 className="title mb-2">Used</h2>
      {mayWrite && chair.held && (
        <form
          className="mb-2 space-y-1.5"
          onSubmit={(e) => {
            e.preventDefault();
            take();
          }}
        >
          <label htmlFor={id} className="text-tiny text-ink-2">
            Material, or scan its pack
          </label>
          <input
            id={id}
            className="field min-h-12 w-full px-2 text-note"
            list={`${id}l`}
            value={typed}
            maxLength={200}
            autoComplete="off"
            onChange={(e) => setTyped(e.target.value)}
          />
          <datalist id={`${id}l`}>
            {[...new Set(stock.map((s) => s.name))].map((n) => (
              <option key={n} value={n} />
            ))}
          </datalist>
          <div className="grid grid-cols-2 gap-1.5">
            <input
              className="field min-h-12 min-w-0 px-2 text-note"
              aria-label="Lot"
              placeholder="lot"
              value={lot}
              maxLength={60}
              onChange={(e) => setLot(e.target.value)}
            />
            <input
              type="date"
              className="field min-h-12 min-w-0 px-2 text-note"
              aria-label="Use by"
              value={expiry}
              onChange={(e) => setExpiry(e.target.value)}
            />
          </div>
          <button type="submit" className="btn btn-ghost min-h-12 w-full" disabled={typed.trim() === ''}>
            add
          </button>
        </form>
      )}
      {used.length === 0 ? (
        <p className="text-note text-ink-2">Nothing yet.</p>
      ) : (
        <ul className="space-y-1 text-note">
          {used.map((m) => {
            const over = !!m.expiry && m.expiry < today;
            return (
              <li key={m.id} className="flex items-baseline gap-2">
                <span className="min-w-0 flex-1">
                  {m.name}
                  <span className="text-ink-2">
                    {m.lot && `, lot ${m.lot}`}
                    {m.expiry && `, use by ${day(m.expiry)}`}
                  </span>
                  {over && (
                    <b role="alert" className="block text-stop">
                      Out of date: take another pack.
                    </b>
                  )}
                  {!m.lot && <span className="block text-removed-ink">No lot: it can’t be traced.</span>}
                </span>
                {mayWrite && (
                  <button
                    type="button"
                    className="how min-h-12 min-w-12"
                    aria-label={`remove ${m.name}`}
                    onClick={() => set({ ...data, used: data.used.filter((x) => x.id !== m.id) })}
                  >
                    remove
                  </button>
                )}
              </li>
            );
          })}
        </ul>
      )}
    </section>
  );
}
