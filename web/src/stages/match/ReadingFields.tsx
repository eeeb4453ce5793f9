import { type ColourReadingInput, isSettled, LAB_LIMITS, readingAt } from '@radiant/contract';
import {
  differenceWords,
  nearestShades,
  READING_LIGHTS,
  type ReadingLight,
  type ReadingOf,
  type ReadingZone,
  screenColour,
} from '@radiant/core';
import { useState } from 'react';
import { useCase, useSection, useToothLabel } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { moment, number } from '../../ui/format.js';
import { NumberInput } from '../../ui/NumberInput.js';
import { RoughColour } from './RoughColour.js';

/** The middle of what teeth have: where a hand begins to type. */
const START = {
  tooth: { L: 75, a: 1, b: 18 },
  stump: { L: 70, a: 3, b: 22 },
} as const;

/** The colour of the chosen tooth or its stump at one zone, as a device gave it. */
export function ReadingFields({ of, zone }: { of: ReadingOf; zone: ReadingZone }) {
  const { tooth } = useCase();
  const { data, set, store } = useSection('match');
  const mayWrite = useMayWrite('match');
  const name = useToothLabel();
  const own = readingAt(data, tooth, of, zone);
  const [rough, setRough] = useState(false);
  const others = data.readings.filter((r) => r !== own);
  const put = (change: Partial<ColourReadingInput>) =>
    set(
      {
        ...data,
        readings: [
          ...others,
          // What a device measured by wavelength is no longer that once a number of it is typed.
          {
            ...START[of],
            wet: true,
            ...own,
            spectrum: null,
            rough: null,
            device: null,
            ...change,
            tooth,
            of,
            zone,
            at: new Date().toISOString(),
          },
        ],
      },
      `reading ${tooth} ${of} ${zone}`,
    );
  const what = of === 'tooth' ? `${name(tooth)} before it is cut` : `its stump, cut`;
  const bleaching = data.bleaching?.find((b) => b.tooth === tooth);
  const near = own && nearestShades(own)[0];
  return (
    <fieldset className="mb-3" disabled={!mayWrite} aria-label={what}>
      <div className="mb-1 flex items-baseline justify-between text-note">
        <span>{what}</span>
        {own && mayWrite && (
          <button type="button" className="how" onClick={() => set({ ...data, readings: others })}>
            take it out
          </button>
        )}
      </div>
      {own ? (
        <>
          <div className="flex items-end gap-2">
            <span
              className="h-8 w-8 shrink-0 rounded border border-hair"
              style={{ background: screenColour(own) }}
              aria-hidden
            />
            {(['L', 'a', 'b'] as const).map((c) => (
              <span key={c} className="min-w-0 flex-1 text-tiny text-ink-2">
                {c}*
                <NumberInput
                  label={`${c}* of ${what}`}
                  className="field mt-0.5 h-8 w-full px-2 text-right text-note text-ink"
                  value={own[c]}
                  {...LAB_LIMITS[c]}
                  step={0.5}
                  digits={1}
                  disabled={!mayWrite}
                  onChange={(v) => v !== null && put({ [c]: v })}
                  onDone={() => store.endGroup()}
                />
              </span>
            ))}
            <label className="flex items-center gap-1 pb-1.5 text-tiny">
              <input
                type="checkbox"
                className="accent-plum"
                checked={own.wet}
                onChange={(e) => set({ ...data, readings: [...others, { ...own, wet: e.target.checked }] })}
              />{' '}
              wet
            </label>
          </div>
          <div className="mt-1 flex items-center justify-between gap-2 text-tiny text-ink-2">
            <span>
              {moment(own.at)}
              {own.device ? `, ${own.device}` : ''}
            </span>
            <select
              aria-label={`Light in which ${what} was read`}
              className="field h-6 px-1 text-tiny"
              value={own.light ?? ''}
              onChange={(e) =>
                set({
                  ...data,
                  readings: [...others, { ...own, light: (e.target.value || null) as ReadingLight | null }],
                })
              }
            >
              <option value="">light not told</option>
              {READING_LIGHTS.map((l) => (
                <option key={l} value={l}>
                  {l === 'own' ? 'the device’s own light' : l}
                </option>
              ))}
            </select>
          </div>
          {near && (
            <p className="mt-1 text-tiny text-ink-2">
              nearest {near.shade.name}, ΔE00 {number(near.dE, 1)}: {differenceWords(near.dE)}
            </p>
          )}
          {!own.wet && (
            <p className="finding mt-1 text-note" data-weight="watch">
              Read dry: a dry tooth looks lighter for hours to days. Read it again wet, before it is isolated.
            </p>
          )}
        </>
      ) : (
        <div className="flex gap-2">
          <button type="button" className="btn btn-ghost flex-1" disabled={!mayWrite} onClick={() => put({})}>
            enter its colour
          </button>
          <button type="button" className="how" disabled={!mayWrite} onClick={() => setRough(true)}>
            from a photograph
          </button>
        </div>
      )}
      {own?.rough && (
        <p className="finding mt-1 text-note" data-weight="watch">
          Rough, from a photograph: read it with a shade meter before anything is made.
        </p>
      )}
      {own && !isSettled(own, bleaching) && (
        <p className="finding mt-1 text-note" data-weight="watch">
          Read before its colour has settled after bleaching: not used.
        </p>
      )}
      {rough && (
        <RoughColour
          what={what}
          of={of}
          close={() => setRough(false)}
          take={({ L, a, b }) => {
            const inside = (c: keyof typeof LAB_LIMITS, v: number) =>
              Math.min(LAB_LIMITS[c].max, Math.max(LAB_LIMITS[c].min, Math.round(v)));
            put({ L: inside('L', L), a: inside('a', a), b: inside('b', b), rough: true, device: 'photograph' });
            setRough(false);
          }}
        />
      )}
    </fieldset>
  );
}
