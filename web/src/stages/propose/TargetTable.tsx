import { LIVING, type Proposal, type ToothMeasure } from '@radiant/core';
import { useSection, useToothLabel } from '../../data/case-context.js';
import { FigureTable } from '../../shell/FigureTable.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { number, signed } from '../../ui/format.js';
import { AskedValue, How } from '../../ui/How.js';
import { WidthLock } from './WidthLock.js';

/** Targets beside what is: of each size the one that is used, the scan's wherever there is one. */
export function TargetTable({ proposal, measures }: { proposal: Proposal; measures: readonly ToothMeasure[] }) {
  const name = useToothLabel();
  return (
    <FigureTable aria-label="Targets beside what is">
      <thead>
        <tr>
          <th scope="col">tooth</th>
          <th scope="col">length, mm</th>
          <th scope="col">target</th>
          <th scope="col">width, mm</th>
          <th scope="col">target</th>
          <td />
          <th scope="col">w / l</th>
          <th scope="col">target</th>
          <th scope="col" title={LIVING.words}>
            living
          </th>
        </tr>
      </thead>
      <tbody>
        {proposal.targets.map((t) => {
          const m = measures.find((q) => q.tooth === t.tooth);
          const tone = t.stays ? 'text-ink-2' : 'font-[650] text-plum';
          return (
            <tr key={t.tooth} data-testid={`target-${t.tooth}`}>
              <td className="font-[650]">
                <InPlan tooth={t.tooth} stays={t.stays} row={proposal.targets.map((o) => o.tooth)} />
              </td>
              <td>
                <AskedValue figure={m?.length} what={`length of ${name(t.tooth)}`} />
              </td>
              <td className={tone}>
                <Change by={t.length.value - (m?.length?.value ?? t.length.value)} />{' '}
                <How figure={t.length} what={`target length of ${name(t.tooth)}`}>
                  {number(t.length.value, 1)}
                </How>
              </td>
              <td>
                <AskedValue figure={m?.width} what={`crown width of ${name(t.tooth)}`} />
              </td>
              <td className={tone}>
                <Change by={t.width.value - (m?.width?.value ?? t.width.value)} />{' '}
                <How figure={t.width} what={`target width of ${name(t.tooth)}`}>
                  {number(t.width.value, 1)}
                </How>
              </td>
              <td className="pl-0 text-left">{!t.stays && <WidthLock tooth={t.tooth} widthMm={t.width.value} />}</td>
              <td>{m?.ratio ? `${number(m.ratio.value, 0)} %` : '–'}</td>
              <td className={tone}>{number(t.ratio.value, 0)} %</td>
              <td className="text-ink-2">{number(LIVING.of[t.role].value, 0)} %</td>
            </tr>
          );
        })}
      </tbody>
    </FigureTable>
  );
}

/** Takes a tooth into the plan or leaves it as it is. */
function InPlan({ tooth, stays, row }: { tooth: number; stays: boolean; row: readonly number[] }) {
  const { data, set } = useSection('propose');
  const mayWrite = useMayWrite('propose');
  const name = useToothLabel();
  const planned = row.filter((t) => !data.planned || data.planned.includes(t));
  const toggle = () => {
    const next = stays ? [...planned, tooth] : planned.filter((t) => t !== tooth);
    const all = row.every((t) => next.includes(t));
    const { planned: _, ...rest } = data;
    set(all ? rest : { ...data, planned: next.sort((a, b) => a - b) });
  };
  return (
    <label className="flex items-center gap-1.5">
      <input
        type="checkbox"
        className="accent-plum"
        aria-label={`${name(tooth)} in the plan`}
        // A plan has at least one tooth.
        disabled={!mayWrite || (!stays && planned.length === 1)}
        checked={!stays}
        onChange={toggle}
      />
      {name(tooth)}
    </label>
  );
}

function Change({ by }: { by: number }) {
  return <span className="pm mr-1.5">{Math.abs(by) < 0.05 ? 'as is' : signed(by, 1)}</span>;
}
