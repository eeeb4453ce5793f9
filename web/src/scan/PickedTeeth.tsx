import { type Fdi, kindName } from '@radiant/core';
import { useToothLabel } from '../data/case-context.js';
import { FigureTable } from '../shell/FigureTable.js';
import { number } from '../shell/format.js';

/** The picked teeth with their numbers; a number that another has is changed over with it. */
export function PickedTeeth({
  picked,
  chosen,
  setChosen,
  row,
  renumber,
  disabled,
}: {
  picked: { readonly teeth: readonly { tooth: Fdi; mm: number }[]; readonly doubts: readonly { tooth: Fdi; sentence: string }[] };
  chosen: Fdi | undefined;
  setChosen: (t: Fdi | undefined) => void;
  row: readonly Fdi[];
  renumber: (from: Fdi, to: Fdi | undefined) => Promise<void>;
  disabled: boolean;
}) {
  const name = useToothLabel();
  const sorted = [...picked.teeth].sort((p, q) => row.indexOf(p.tooth) - row.indexOf(q.tooth));
  return (
    <FigureTable className="mb-4 text-[13px]" aria-label="Picked teeth">
      <tbody>
        {sorted.map(({ tooth, mm }) => {
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
                  <span key={d.sentence} className="block whitespace-normal text-[12px] text-removed-ink">
                    {d.sentence}
                  </span>
                ))}
              </td>
              <td>{number(mm, 1)} mm</td>
              <td>
                <button
                  type="button"
                  className="how"
                  disabled={disabled}
                  aria-label={`Not a tooth: ${name(tooth)}`}
                  onClick={() => {
                    setChosen(undefined);
                    void renumber(tooth, undefined);
                  }}
                >
                  no tooth
                </button>
              </td>
            </tr>
          );
        })}
      </tbody>
    </FigureTable>
  );
}
