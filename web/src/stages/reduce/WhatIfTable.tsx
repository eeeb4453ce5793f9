import { type ContourPlan, type DesignChoice, type Mouth, restorationOf, type WhatIf } from '@radiant/core';
import { useMemo } from 'react';
import { useCase } from '../../data/case-context.js';
import type { CaseClient } from '../../engine/case-client.js';
import { shownOf, useAsked } from '../../engine/use-asked.js';
import { FigureTable } from '../../shell/FigureTable.js';
import { number } from '../../ui/format.js';

/** What is otherwise, in the order in which it is shown. */
const KINDS: readonly (readonly [WhatIf['kind'], string])[] = [
  ['design', 'instead'],
  ['material', 'the chosen design, in'],
  ['contour', 'under a contour'],
  ['place', 'the tooth first moved into line'],
];

/** What the chosen tooth would lose by another design, or were its contour otherwise. */
export function WhatIfTable({
  client,
  plan,
  choice,
  mouth,
}: {
  client: CaseClient | undefined;
  plan: ContourPlan;
  choice: DesignChoice;
  mouth: Mouth;
}) {
  const { tooth } = useCase();
  const input = useMemo(() => [tooth, choice, mouth] as const, [tooth, choice, mouth]);
  const all = shownOf(useAsked(plan[tooth] ? client : undefined, plan, 'whatIf', input));
  if (!all) return null;
  const chosen = restorationOf(tooth, choice).design.id;
  return (
    <>
      <h2 className="subtitle mt-5 mb-1">What if</h2>
      <FigureTable className="text-note [&_td]:pl-2" aria-label="What if">
        <thead>
          <tr>
            <th scope="col">instead</th>
            <th scope="col">mm³</th>
            <th scope="col">%</th>
            <th scope="col" title="cut face on which the enamel of most teeth would be through">
              dentin, mm²
            </th>
          </tr>
        </thead>
        {KINDS.map(([kind, heading], i) => (
          <tbody key={kind}>
            {i > 0 && (
              <tr>
                <th scope="rowgroup" colSpan={4} className="pt-3 text-left text-tiny text-ink-2">
                  {heading}
                </th>
              </tr>
            )}
            {all
              .filter((w) => w.kind === kind)
              .map(({ id, words, told }) => (
                <tr key={id} className={id === chosen ? 'font-semibold' : ''}>
                  <th scope="row" className={`text-left ${id === chosen ? 'font-semibold' : ''}`}>
                    {words}
                  </th>
                  <td>{number(told.removedMm3, 1)}</td>
                  <td>{number(100 * told.removedShare, 0)}</td>
                  <td>{number(told.dentinMm2.sure, 1)}</td>
                </tr>
              ))}
          </tbody>
        ))}
      </FigureTable>
    </>
  );
}
