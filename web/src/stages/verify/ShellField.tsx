import { type ContourPlan, type CutChoice, type Fdi, SHELL_LIMITS, SHELL_WALL_MM } from '@radiant/core';
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
          <p className="text-note">
            It stops about {number(own.offMm, 1)} mm before it is home and binds, deepest first:
          </p>
          <ul className="mt-1 space-y-0.5 text-note">
            {own.binds.map((b) => (
              <li key={b.zone}>
                {b.zone} {number(b.deepMm, 2)} mm:{' '}
                {b.cut === 'tooth'
                  ? 'cut the tooth there, the plan asks for it'
                  : 'thin the shell there, not the tooth'}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
