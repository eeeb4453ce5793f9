import { contourPlan } from '@radiant/contract';
import { isUpper } from '@radiant/core';
import { Layers } from 'lucide-react';
import { useMemo } from 'react';
import { useSection, useToothLabel } from '../../data/case-context.js';
import { shownOf, useAsked } from '../../engine/use-asked.js';
import { clientOf, useContour } from '../../engine/use-contour.js';
import { number } from '../../ui/format.js';

const NOTHING = [] as const;
const stay = (n: number): string => (n > 1 ? 'stay' : 'stays');
/** An index needs untouched teeth to sit on: one on either side at least. Common practice, no source. */
const REST = 1;

/** What the index for a mock-up needs: where it sits, how it is trimmed, and on which teeth it will not seat. */
export function IndexNote() {
  const { teeth } = useSection('shape').data;
  const plan = useMemo(() => contourPlan(teeth), [teeth]);
  const contour = useContour();
  const name = useToothLabel();
  const client = clientOf(contour);
  const proud = shownOf(useAsked(client, plan, 'proudTeeth', NOTHING))?.filter((t) => isUpper(t.tooth)) ?? [];
  const there = shownOf(useAsked(client, undefined, 'existing', UPPER)) ?? [];
  const row = there.map((t) => t.tooth);
  const planned = row.filter((t) => plan[t]);
  const [from, to] = [row.indexOf(planned[0] ?? 0), row.indexOf(planned.at(-1) ?? 0)];
  if (planned.length === 0) return null;
  const [before, after] = [row.slice(Math.max(0, from - 2), from), row.slice(to + 1, to + 3)];
  const rests = [...before, ...after];
  const few = before.length < REST || after.length < REST;
  return (
    <section aria-label="Index for the mock-up" className="flex gap-5 rounded-xl border border-hair bg-leaf p-5">
      <span className="text-plum">
        <Layers size={26} aria-hidden="true" />
      </span>
      <div>
        <h2 className="title">An index for the mock-up</h2>
        <ul className="mt-1 list-disc space-y-1 pl-5 text-ink-2">
          <li>
            Silicone over the printed model, about 5 mm thick, from {name(before[0] ?? planned[0] ?? 0)} to{' '}
            {name(after.at(-1) ?? planned.at(-1) ?? 0)}
            {rests.length > 0 && `: it sits on ${rests.map(name).join(', ')}, which ${stay(rests.length)} as they are`}.
          </li>
          <li>
            Trim it along the gum line in scallops, tooth by tooth: what runs out then ends at the margin and comes off
            easily. Behind, cut it short of the palate.
          </li>
        </ul>
        {few && (
          <p className="finding mt-2 text-note" data-weight="watch">
            On one side no untouched tooth is scanned beyond the planned ones: the index can tip there.
          </p>
        )}
        {proud.length > 0 && (
          <p className="finding mt-2 text-note" data-weight="watch" data-testid="index-proud">
            An index of the planned contour alone will not seat:{' '}
            {proud.map((t) => `${name(t.tooth)} stands ${number(t.mm, 1)} mm`).join(', ')} proud of it. Cut there first,
            or relieve the index. The mock-up model is made over the teeth as they are: an index on it seats, and shows
            those teeth as they stand.
          </p>
        )}
      </div>
    </section>
  );
}

const UPPER = ['upper'] as const;
