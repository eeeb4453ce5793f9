import { screenColour, type ThirdMatch, VISIBLE } from '@radiant/core';
import { FigureTable } from '../../shell/FigureTable.js';
import { number } from '../../ui/format.js';

/** The ceramics from clear to opaque: how near each comes as it is planned, and from where on it hides the stump. */
export function CeramicTable({
  match,
  chosen,
  choose,
}: {
  match: ThirdMatch;
  chosen: string;
  choose: ((ceramic: string) => void) | undefined;
}) {
  return (
    <FigureTable className="text-note [&_td]:py-1" aria-label="Ceramics">
      <thead>
        <tr>
          <th scope="col">ceramic, in the wanted shade</th>
          <th scope="col">looks</th>
          <th scope="col">ΔE00 as planned</th>
          <th scope="col">warm lamp</th>
          <th scope="col">hides from, mm</th>
          <th scope="col">translucency</th>
        </tr>
      </thead>
      <tbody>
        {match.candidates.map((c) => (
          <tr key={c.ceramic} className={c.ceramic === chosen ? 'bg-plum-soft' : ''}>
            <th scope="row" className="text-left font-normal">
              <label className="flex items-center gap-2">
                <input
                  type="radio"
                  className="accent-plum"
                  name="ceramic"
                  checked={c.ceramic === chosen}
                  disabled={!choose}
                  onChange={() => choose?.(c.ceramic)}
                />
                {c.name}
                {c.asRead && <span className="text-tiny text-ink-2">own, as its plate is</span>}
              </label>
            </th>
            <td>
              <span
                className="inline-block h-4 w-8 rounded-sm border border-hair align-middle"
                style={{ background: screenColour(c.planned.lab) }}
              />
            </td>
            <td className={c.planned.dE > VISIBLE.notTaken ? 'text-stop' : 'font-semibold'}>
              {number(c.planned.dE, 1)}{' '}
              <span className="text-tiny text-ink-2">
                {number(c.from, 1)}–{number(c.to, 1)}
              </span>
            </td>
            <td>{number(c.warmDE, 1)}</td>
            <td>{c.hidesFromMm === undefined ? 'never' : number(c.hidesFromMm, 2)}</td>
            <td>{number(c.translucency, 0)}</td>
          </tr>
        ))}
      </tbody>
    </FigureTable>
  );
}
