import {
  type ContourPlan,
  type DesignChoice,
  designOf,
  type Mouth,
  restorationOf,
  WHAT_IF_WORDS,
  type WhatIf,
} from '@radiant/core';
import { useMemo } from 'react';
import { useCase } from '../../data/case-context.js';
import type { CaseClient } from '../../engine/case-client.js';
import { shownOf, useAsked } from '../../engine/use-asked.js';
import { FigureTable } from '../../shell/FigureTable.js';
import { number } from '../../ui/format.js';

const isContour = (what: WhatIf['what']): what is keyof typeof WHAT_IF_WORDS => what in WHAT_IF_WORDS;

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
        <tbody>
          {all.map(({ what, told }) => (
            <tr key={what} className={what === chosen ? 'font-semibold' : ''}>
              <th scope="row" className={`text-left ${what === chosen ? 'font-semibold' : ''}`}>
                {isContour(what) ? WHAT_IF_WORDS[what] : designOf(what).name}
              </th>
              <td>{number(told.removedMm3, 1)}</td>
              <td>{number(100 * told.removedShare, 0)}</td>
              <td>{number(told.dentinMm2.sure, 1)}</td>
            </tr>
          ))}
        </tbody>
      </FigureTable>
    </>
  );
}
