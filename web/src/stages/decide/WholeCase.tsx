import type { DecideSection, Fee } from '@radiant/contract';
import { type Fdi, type OptionsTold, optionOf } from '@radiant/core';
import { useCase, useToothLabel } from '../../data/case-context.js';
import { useVisits } from '../../data/use-visits.js';
import { FigureTable } from '../../shell/FigureTable.js';
import { number } from '../../ui/format.js';
import { figuresOf, sumsOf, timeOf } from './plan-sums.js';

/** What is chosen for each planned tooth, and what it comes to for the whole case. */
export function WholeCase({
  teeth,
  data,
  told,
  fees,
  currency,
}: {
  teeth: readonly Fdi[];
  data: DecideSection;
  told: ReadonlyMap<Fdi, OptionsTold>;
  fees: readonly Fee[];
  currency: string;
}) {
  const { tooth, selectTooth } = useCase();
  const name = useToothLabel();
  const sums = sumsOf(teeth, data.choices, told, fees);
  const time = timeOf(useVisits()?.chosen(data.choices));
  const open = teeth.length - sums.decided;
  return (
    <>
      <h2 className="subtitle mt-5 mb-1">The whole case{data.other ? `, plan ${data.plan ?? 'A'}` : ''}</h2>
      <FigureTable className="text-note" aria-label="The whole case">
        <tbody>
          {teeth.map((t) => {
            const own = data.choices.find((c) => c.tooth === t);
            const x = figuresOf(told.get(t), own);
            return (
              <tr key={t} className={t === tooth ? 'bg-plum-soft' : ''}>
                <th scope="row">
                  <button type="button" className="how" onClick={() => selectTooth(t)}>
                    {name(t)}
                  </button>
                </th>
                <td className="text-left">{own ? optionOf(own.option).name : <i>not decided</i>}</td>
                <td>{x ? `${number(x.removedMm3, 0)} mm³` : ''}</td>
              </tr>
            );
          })}
        </tbody>
      </FigureTable>
      <p className="mt-1 text-note">
        {open > 0 ? `${open} of ${teeth.length} are not decided. ` : ''}
        {sums.decided > 0 &&
          `${number(sums.removedMm3, 0)} mm³ of tooth taken${sums.waiting > 0 ? ', more still being worked out' : ''}; `}
        {time && `${time.visits} ${time.visits === 1 ? 'visit' : 'visits'} still to come, ${number(time.hours, 1)} h`}
        {sums.price !== undefined && `; ${money(sums.price, currency)}`}
        {sums.decided > 0 && '.'}
      </p>
    </>
  );
}

/** An amount as the house writes it. */
export const money = (amount: number, currency: string): string =>
  `${currency ? `${currency} ` : ''}${amount.toLocaleString('en-GB', { maximumFractionDigits: 2 })}`;
