import { FEE_MOST, type Fee } from '@radiant/contract';
import { OPTIONS } from '@radiant/core';
import { NumberOnceDone } from '../ui/NumberOnceDone.js';

/** What the house asks for each option and tooth; where nothing is written no price is shown. */
export function Fees({
  fees,
  currency,
  set,
}: {
  fees: readonly Fee[];
  currency: string;
  set: (change: { fees?: Fee[]; currency?: string }) => void;
}) {
  return (
    <section aria-label="Fees" className="mb-10">
      <h2 className="title">Fees, for each tooth</h2>
      <p className="mb-3 max-w-[80ch] text-note text-ink-2">
        Shown in <i>decide</i> beside the options and for the whole case. Where nothing is written no price is shown;
        what the laboratory asks is added to it.
      </p>
      <label className="mb-3 flex items-center gap-2 text-note">
        written before an amount
        <input
          key={currency}
          aria-label="Currency"
          className="field w-[90px]"
          maxLength={8}
          defaultValue={currency}
          placeholder="nothing"
          onBlur={(e) => e.target.value !== currency && set({ currency: e.target.value })}
        />
      </label>
      <div className="grid max-w-[760px] grid-cols-[1fr_auto_auto_auto] items-center gap-x-4 gap-y-1.5 text-note">
        <span />
        <b className="text-right text-tiny text-ink-2">house</b>
        <b className="text-right text-tiny text-ink-2">laboratory</b>
        <span />
        {OPTIONS.map((o) => {
          const own = fees.find((f) => f.option === o.id);
          const others = fees.filter((f) => f.option !== o.id);
          return (
            <div key={o.id} className="contents">
              <span>{o.name}</span>
              <NumberOnceDone
                label={`Fee for ${o.name}`}
                className="field w-[110px] text-right"
                value={own?.fee ?? null}
                min={0}
                max={FEE_MOST}
                step={10}
                digits={0}
                onTaken={(fee) => set({ fees: [...others, { ...own, option: o.id, fee }] })}
              />
              {own && o.made !== 'nothing' ? (
                <NumberOnceDone
                  label={`Laboratory for ${o.name}`}
                  className="field w-[110px] text-right"
                  value={own.laboratory ?? null}
                  min={0}
                  max={FEE_MOST}
                  step={10}
                  digits={0}
                  onTaken={(laboratory) => set({ fees: [...others, { ...own, laboratory }] })}
                />
              ) : (
                <span />
              )}
              {own ? (
                <button type="button" className="how" onClick={() => set({ fees: others })}>
                  no fee
                </button>
              ) : (
                <span />
              )}
            </div>
          );
        })}
      </div>
    </section>
  );
}
