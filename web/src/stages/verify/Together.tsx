import type { ContourPlan, CutChoice, Fdi } from '@radiant/core';
import { useMemo, useState } from 'react';
import { useToothLabel } from '../../data/case-context.js';
import type { CaseClient } from '../../engine/case-client.js';
import { shownOf, useAsked } from '../../engine/use-asked.js';
import { number } from '../../ui/format.js';

/** What hangs on one tooth by less than this is nothing, mm². */
const NOTHING_MM2 = 0.05;

/** Whether all prepared teeth come off on one way, as a splinted provisional and a bridge must. */
export function Together({
  client,
  plan,
  choice,
  teeth,
}: {
  client: CaseClient | undefined;
  plan: ContourPlan;
  choice: CutChoice;
  teeth: readonly Fdi[];
}) {
  const name = useToothLabel();
  const [asking, setAsking] = useState(false);
  const question = useMemo(() => [teeth, choice] as const, [teeth, choice]);
  const asked = useAsked(asking && teeth.length > 1 ? client : undefined, plan, 'commonWay', question);
  const own = shownOf(asked);
  if (teeth.length < 2) return null;
  const hanging = own?.hanging.filter(([, mm2]) => mm2 > NOTHING_MM2) ?? [];
  return (
    <section aria-label="Together" className="mt-5">
      <h2 className="subtitle mb-1">Together</h2>
      <p className="text-note text-ink-2">
        Single units come off one by one and need no common way; a splinted provisional and a bridge do.
      </p>
      {!asking ? (
        <button type="button" className="how mt-1 text-note" onClick={() => setAsking(true)}>
          look for a way for all {teeth.length}
        </button>
      ) : !own ? (
        <p className="mt-1 text-note">Being looked for …</p>
      ) : (
        <p className="mt-1 text-note">
          {hanging.length === 0
            ? `All ${teeth.length} come off on one way.`
            : `On the best way ${number(own.best.undercutMm2, 1)} mm² hang over: ${hanging
                .map(([t, mm2]) => `${name(t)} ${number(mm2, 1)}`)
                .join(', ')}.`}{' '}
          It lies {own.fromOwnDeg.map(([t, deg]) => `${number(deg, 0)}° from ${name(t)}’s own`).join(', ')}.
        </p>
      )}
    </section>
  );
}
