import { frontRow, NATURAL_SERIES, roleOf, SCHOOLS } from '@radiant/core';
import { useId, useState } from 'react';
import { useSection, useToothLabel } from '../../data/case-context.js';
import { useReading } from '../../data/reading.js';
import { useProposal } from '../../engine/use-front.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { NumberField } from '../../ui/NumberField.js';
import { LikedDialog } from './LikedDialog.js';

const bounded = (v: number, most: number) => Math.round(Math.min(most, Math.max(0.3, v)) * 1000) / 1000;

/** What the chosen school rests on, what it costs, and what of it can be set. */
export function SchoolSettings({ row }: { row: readonly number[] }) {
  const { data, set, store } = useSection('propose');
  const { figures, roles } = useReading();
  const mayWrite = useMayWrite('propose');
  const proposal = useProposal();
  const name = useToothLabel();
  const refId = useId();
  const school = SCHOOLS.find((s) => s.id === data.school) ?? SCHOOLS[0];
  const liked = data.liked ?? NATURAL_SERIES;
  const share = (id: string) => figures['retracted-front']?.find((f) => f.id === id)?.figure.value;
  const own = share(`series-${frontRow(roles).find((t) => roleOf(roles, t) === 'lateral') ?? 12}`);
  const [measuring, setMeasuring] = useState(false);
  const fields = (which: 'lateral' | 'canine', label: string) => (
    <NumberField
      label={label}
      unit="%"
      value={Math.round(liked[which] * 100)}
      min={30}
      max={which === 'lateral' ? 120 : 150}
      step={1}
      digits={0}
      disabled={!mayWrite}
      onChange={(v) => set({ ...data, liked: { ...liked, [which]: v / 100 } }, `liked ${which}`)}
      onDone={() => store.endGroup()}
    />
  );
  return (
    <section aria-label="The chosen school" className="mb-5">
      <h2 className="title mb-1">{school.name.replace(/^./, (c) => c.toUpperCase())}</h2>
      <p className="text-note leading-snug text-ink-2">
        {school.reason} Cost: {school.cost.charAt(0).toLowerCase() + school.cost.slice(1)}
        {school.id === SCHOOLS[0].id && ' The default: it needs no tooth that is already right.'}
      </p>
      {data.school === 'reference' && (
        <div className="mt-3 flex items-center justify-between">
          <label htmlFor={refId}>Reference tooth</label>
          <select
            id={refId}
            className="field w-[90px]"
            disabled={!mayWrite}
            value={data.referenceTooth}
            onChange={(e) => set({ ...data, referenceTooth: Number(e.target.value) })}
          >
            {(row.includes(data.referenceTooth) ? row : [data.referenceTooth, ...row]).map((t) => (
              <option key={t} value={t}>
                {name(t)}
              </option>
            ))}
          </select>
        </div>
      )}
      {data.school === 'recurring' && (
        <div className="mt-3">
          <NumberField
            label="Each tooth of the one before"
            unit=""
            value={data.ratio ?? Math.round(100 * (proposal?.recurring ?? 0.7)) / 100}
            min={0.5}
            max={1}
            step={0.01}
            digits={2}
            disabled={!mayWrite}
            onChange={(v) => set({ ...data, ratio: v }, 'ratio')}
            onDone={() => store.endGroup()}
          />
          <p className="mt-1 text-fine text-ink-2">
            {data.ratio === undefined ? (
              'By the height of the centrals: they come to 78 % of it.'
            ) : (
              <>
                Set by hand.{' '}
                {mayWrite && (
                  <button
                    type="button"
                    className="how"
                    onClick={() => {
                      const { ratio: _, ...rest } = data;
                      set(rest);
                    }}
                  >
                    by the height of the centrals
                  </button>
                )}
              </>
            )}
          </p>
        </div>
      )}
      {data.school === 'liked' && (
        <div className="mt-3 space-y-2">
          {fields('lateral', 'Lateral of central, from the front')}
          {fields('canine', 'Canine of lateral, from the front')}
          {mayWrite && (
            <button type="button" className="how text-note" onClick={() => setMeasuring(true)}>
              measure them on a picture
            </button>
          )}
          {measuring && (
            <LikedDialog
              onClose={() => setMeasuring(false)}
              onTake={(s) =>
                set({ ...data, liked: { lateral: bounded(s.lateral, 1.2), canine: bounded(s.canine, 1.5) } })
              }
            />
          )}
          <p className="text-fine text-ink-2">
            {own !== undefined && ` Today ${name(12)} is ${own.toFixed(0)} % of ${name(11)}.`}
          </p>
        </div>
      )}
    </section>
  );
}
