import { type ContourPlan, type CutChoice, type Fdi, SHELL_LIMITS, SHELL_WALL_MM, type ShellBind } from '@radiant/core';
import { useMemo, useState } from 'react';
import { useToothLabel } from '../../data/case-context.js';
import type { CaseClient } from '../../engine/case-client.js';
import { shownOf, useAsked } from '../../engine/use-asked.js';
import { number } from '../../ui/format.js';
import { NumberField } from '../../ui/NumberField.js';

/** A preformed provisional tried on the chosen tooth: where it binds before it is home, and what to grind. */
export function ShellField({
  client,
  plan,
  choice,
  tooth,
}: {
  client: CaseClient | undefined;
  plan: ContourPlan;
  choice: CutChoice;
  tooth: Fdi;
}) {
  const name = useToothLabel();
  const [wallMm, setWallMm] = useState<number>(SHELL_WALL_MM);
  const question = useMemo(() => [tooth, choice, wallMm] as const, [tooth, choice, wallMm]);
  const asked = useAsked(client, plan, 'shellTried', question);
  const own = shownOf(asked);
  return (
    <section aria-label="Shell tried on" className="mt-5">
      <h2 className="subtitle mb-1">A shell tried on</h2>
      <NumberField
        label="Its wall"
        unit="mm"
        value={wallMm}
        {...SHELL_LIMITS}
        step={0.1}
        digits={1}
        disabled={false}
        onChange={setWallMm}
        onDone={() => undefined}
      />
      {!own ? (
        <p className="text-note text-ink-2">Being tried …</p>
      ) : own.binds.length === 0 ? (
        <p className="text-note">The planned contour with this wall goes home on {name(tooth)}.</p>
      ) : (
        <>
          <p className="text-note">It stops about {number(own.offMm, 1)} mm before it is home. Where it binds, mm:</p>
          <Binding what="thin the shell, not the tooth" binds={own.binds.filter((b) => b.cut === 'shell')} />
          <Binding what="cut the tooth, as the plan asks anyway" binds={own.binds.filter((b) => b.cut === 'tooth')} />
        </>
      )}
    </section>
  );
}

function Binding({ what, binds }: { what: string; binds: readonly ShellBind[] }) {
  if (binds.length === 0) return null;
  return (
    <p className="mt-1 text-note">
      <b>{what}</b>: {binds.map((b) => `${b.zone} ${number(b.deepMm, 2)}`).join(', ')}
    </p>
  );
}
