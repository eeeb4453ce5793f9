import type { PickedView } from '@radiant/core';
import { type Fdi, kindName } from '@radiant/core';
import { X } from 'lucide-react';
import { useSentence, useToothLabel } from '../../../data/case-context.js';
import { FigureTable } from '../../../shell/FigureTable.js';
import { number } from '../../../ui/format.js';

/** The picked teeth with their numbers; a number that another has is changed over with it. */
export function PickedTeeth({
  picked,
  chosen,
  setChosen,
  row,
  renumber,
  disabled,
}: {
  picked: PickedView;
  chosen: Fdi | undefined;
  setChosen: (t: Fdi | undefined) => void;
  row: readonly Fdi[];
  renumber: (from: Fdi, to: Fdi | undefined) => Promise<void>;
  disabled: boolean;
}) {
  const name = useToothLabel();
  const said = useSentence();
  const sorted = [...picked.teeth].sort((p, q) => row.indexOf(p.tooth) - row.indexOf(q.tooth));
  return (
    <FigureTable className="mb-4 text-note" aria-label="Picked teeth">
      <thead>
        <tr>
          <th>tooth</th>
          <th className="whitespace-nowrap">wide × long, mm</th>
          <th>
            <span className="sr-only">not a tooth</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {sorted.map(({ tooth, widthMm, lengthMm }) => {
          const doubts = picked.doubts.filter((d) => d.tooth === tooth);
          return (
            <tr key={tooth} className={tooth === chosen ? 'bg-porcelain' : ''}>
              <td className="whitespace-nowrap">
                <select
                  className="field mr-1.5 h-[26px] w-[58px] px-1"
                  aria-label={`Number of ${name(tooth)}`}
                  value={tooth}
                  disabled={disabled}
                  onFocus={() => setChosen(tooth)}
                  onChange={(e) => {
                    const to = Number(e.target.value);
                    void renumber(tooth, to).then(() => setChosen(to));
                  }}
                >
                  {row.map((t) => (
                    <option key={t} value={t}>
                      {name(t)}
                    </option>
                  ))}
                </select>
                {kindName(tooth)}
                {doubts.map((d) => (
                  <span key={d.sentence} className="block whitespace-normal text-tiny text-removed-ink">
                    {said(d.sentence)}
                  </span>
                ))}
              </td>
              <td className="whitespace-nowrap">
                {number(widthMm, 1)} × {number(lengthMm, 1)}
              </td>
              <td className="w-8">
                <button
                  type="button"
                  className="inline-grid size-6 place-items-center rounded text-ink-2 hover:text-plum"
                  title="not a tooth"
                  disabled={disabled}
                  aria-label={`Not a tooth: ${name(tooth)}`}
                  onClick={() => {
                    setChosen(undefined);
                    void renumber(tooth, undefined);
                  }}
                >
                  <X size={14} aria-hidden="true" />
                </button>
              </td>
            </tr>
          );
        })}
      </tbody>
    </FigureTable>
  );
}
