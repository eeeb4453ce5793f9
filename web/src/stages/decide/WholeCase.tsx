import type { DecideSection } from '@radiant/contract';
import { type Fdi, optionOf } from '@radiant/core';
import { useCase, useToothLabel } from '../../data/case-context.js';
import { FigureTable } from '../../shell/FigureTable.js';

/** What is chosen for each planned tooth, and how many visits the longest of it takes. */
export function WholeCase({ teeth, data }: { teeth: readonly Fdi[]; data: DecideSection }) {
  const { tooth, selectTooth } = useCase();
  const name = useToothLabel();
  const chosen = teeth.map((t) => ({ t, own: data.choices.find((c) => c.tooth === t) }));
  const visits = Math.max(0, ...chosen.map(({ own }) => (own ? optionOf(own.option).visits : 0)));
  const open = chosen.filter(({ own }) => !own).length;
  return (
    <>
      <h2 className="subtitle mt-5 mb-1">The whole case</h2>
      <FigureTable className="text-note" aria-label="The whole case">
        <tbody>
          {chosen.map(({ t, own }) => (
            <tr key={t} className={t === tooth ? 'bg-plum-soft' : ''}>
              <th scope="row">
                <button type="button" className="how" onClick={() => selectTooth(t)}>
                  {name(t)}
                </button>
              </th>
              <td className="text-left">{own ? optionOf(own.option).name : <i>not decided</i>}</td>
            </tr>
          ))}
        </tbody>
      </FigureTable>
      <p className="mt-1 text-note">
        {open > 0 ? `${open} of ${teeth.length} are not decided. ` : ''}
        {visits > 0 && `Together ${visits} ${visits === 1 ? 'visit' : 'visits'} at least.`}
      </p>
    </>
  );
}
