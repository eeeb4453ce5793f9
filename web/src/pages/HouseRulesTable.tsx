import type { RuleLimit } from '@radiant/contract';
import { RULES, type RuleId, sourceWords } from '@radiant/core';
import { NumberOnceDone } from '../ui/NumberOnceDone.js';

/** The rules by which options are put in order: which speak in this house, and where they turn. */
export function HouseRulesTable({
  off,
  limits,
  set,
}: {
  off: readonly RuleId[];
  limits: readonly RuleLimit[];
  set: (change: { rulesOff?: RuleId[]; ruleLimits?: RuleLimit[] }) => void;
}) {
  return (
    <section aria-label="Rules of deciding" className="mb-10">
      <h2 className="title">Rules of deciding</h2>
      <p className="mb-3 max-w-[80ch] text-note text-ink-2">
        In <i>decide</i> each rule says one sentence on an option, or nothing. Here it is switched off for the whole
        house, or turns at another number; a case can switch off more.
      </p>
      <table className="w-full border-collapse text-note" aria-label="Rules of deciding">
        <thead className="text-left text-tiny text-ink-2">
          <tr>
            <th scope="col" className="font-normal">
              speaks
            </th>
            <th scope="col" className="font-normal">
              rule and its reason
            </th>
            <th scope="col" className="font-normal">
              turns at
            </th>
            <th scope="col" className="font-normal">
              usual
            </th>
          </tr>
        </thead>
        <tbody>
          {RULES.map(({ id, title, reason, source, limit }) => {
            const own = limits.find((l) => l.rule === id);
            const others = limits.filter((l) => l.rule !== id);
            return (
              <tr key={id} className="border-t border-hair align-top">
                <td className="py-1.5 pr-4">
                  <input
                    type="checkbox"
                    className="accent-plum"
                    aria-label={`${title} speaks`}
                    checked={!off.includes(id)}
                    onChange={(e) => set({ rulesOff: e.target.checked ? off.filter((r) => r !== id) : [...off, id] })}
                  />
                </td>
                <td className={`max-w-[60ch] py-1.5 pr-6 ${off.includes(id) ? 'text-ink-2' : ''}`}>
                  <b className="font-semibold">{title}</b>
                  <span className="block text-ink-2">
                    {reason} <span className="text-tiny">{sourceWords(source)}</span>
                  </span>
                </td>
                <td className="whitespace-nowrap py-1.5 pr-6">
                  {limit ? (
                    <>
                      <NumberOnceDone
                        label={`Where ${title} turns, ${limit.unit}`}
                        className="field w-[72px] text-right"
                        value={own?.value ?? limit.value}
                        min={limit.min}
                        max={limit.max}
                        step={limit.max > 10 ? 1 : 0.05}
                        digits={limit.max > 10 ? 0 : 2}
                        onTaken={(value) =>
                          set({ ruleLimits: value === limit.value ? others : [...others, { rule: id, value }] })
                        }
                      />{' '}
                      {limit.unit}
                    </>
                  ) : (
                    '–'
                  )}
                </td>
                <td className="whitespace-nowrap py-1.5">
                  {limit ? limit.value : ''}
                  {own && (
                    <button type="button" className="how ml-2" onClick={() => set({ ruleLimits: others })}>
                      take the usual
                    </button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
