import {
  type Fdi,
  HAND_LIMITS,
  HAND_PLACES,
  HAND_WAYS,
  type HandPlace,
  type HandWay,
  handFindings,
  handNeed,
  handPlaces,
  restorationOf,
} from '@radiant/core';
import { useState } from 'react';
import { useCase, useSection, useToothLabel } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { number } from '../../ui/format.js';
import { useHotkeys } from '../../ui/hotkeys.js';
import { NumberInput } from '../../ui/NumberInput.js';

const STEP_MM = 0.1;
const WAYS = Object.keys(HAND_WAYS) as readonly HandWay[];

/** Readings by hand, tooth by tooth in the order of the arch: typed, or stepped with large keys. */
export function ByHand({ teeth, way, setWay }: { teeth: readonly Fdi[]; way: HandWay; setWay: (w: HandWay) => void }) {
  const { tooth, selectTooth } = useCase();
  const name = useToothLabel();
  const { data: reduce } = useSection('reduce');
  const { data, set, store } = useSection('verify');
  const mayWrite = useMayWrite('verify', 'readings');
  const [at, setAt] = useState<HandPlace>('cervical');
  const designOf = (t: Fdi) => restorationOf(t, reduce).design;
  const order = teeth.flatMap((t) => handPlaces(designOf(t)).map((place) => ({ tooth: t, place })));
  const places = HAND_PLACES.filter((place) => order.some((o) => o.place === place));
  const here = order.findIndex((o) => o.tooth === tooth && o.place === at);
  const readAt = (t: Fdi, place: HandPlace) =>
    data.readings.find((r) => r.tooth === t && r.way === way && r.place === place)?.mm ?? null;
  const put = (t: Fdi, place: HandPlace, mm: number | null) => {
    const others = data.readings.filter((r) => !(r.tooth === t && r.way === way && r.place === place));
    set(
      { ...data, readings: mm === null ? others : [...others, { tooth: t, way, place, mm }] },
      `hand ${t} ${way} ${place}`,
    );
  };
  const go = (n: number) => {
    const next = order[n];
    if (!next) return;
    store.endGroup();
    selectTooth(next.tooth);
    setAt(next.place);
  };
  const need = handNeed(designOf(tooth), at);
  const step = (by: number) => {
    if (need === undefined) return;
    const from = readAt(tooth, at) ?? need;
    const mm = Math.round((from + by) * 10) / 10;
    put(tooth, at, Math.max(HAND_LIMITS.min, Math.min(HAND_LIMITS.max, mm)));
  };
  useHotkeys('stage', [
    {
      keys: '+ −',
      does: 'a tenth more, a tenth less',
      on: ['+', '-'],
      each: ['a tenth more', 'a tenth less'],
      off: !mayWrite,
      run: (key) => step(key === '+' ? STEP_MM : -STEP_MM),
    },
    { keys: 'Space', does: 'the next place', on: [' '], run: () => go(here + 1) },
  ]);
  return (
    <div className="flex h-full flex-col overflow-y-auto px-6 pt-14 pb-5">
      <div className="mb-3 flex flex-wrap items-center gap-1.5">
        {WAYS.map((w) => (
          <button key={w} type="button" className="chip chip-flat" aria-pressed={way === w} onClick={() => setWay(w)}>
            {HAND_WAYS[w].words}
          </button>
        ))}
      </div>
      <p className="mb-3 max-w-[70ch] text-note text-ink-2">
        {way === 'index'
          ? 'Hold the index at each third and read the room under it.'
          : 'Measure the provisional where it is thinnest; 0 is a hole. Where it is thinner than the material needs, not enough was cut.'}{' '}
        A reading is taken as sure to ±{number(HAND_WAYS[way].pmMm, 2)} mm.
      </p>
      <table className="figures w-full text-note" aria-label="Readings by hand">
        <thead>
          <tr>
            <th scope="col">mm</th>
            {places.map((place) => (
              <th key={place} scope="col" className="!text-center">
                {place}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {teeth.map((t) => (
            <tr key={t}>
              <th scope="row" className={`text-lead ${t === tooth ? 'font-bold text-plum' : ''}`}>
                {name(t)}
              </th>
              {places.map((place) => {
                const own = handNeed(designOf(t), place);
                if (own === undefined)
                  return (
                    <td key={place} className="!text-center text-ink-3">
                      –
                    </td>
                  );
                const chosen = t === tooth && place === at;
                const found = handFindings(t, designOf(t), data.readings, way).find((f) => f.place === place);
                return (
                  <td
                    key={place}
                    className={`!px-1 !py-1 !text-center ${chosen ? 'rounded-lg bg-plum-soft' : ''}`}
                    onFocus={() => {
                      selectTooth(t);
                      setAt(place);
                    }}
                  >
                    <NumberInput
                      label={`${name(t)} ${place}`}
                      className={`field h-12 w-16 px-1 text-center text-figure font-semibold ${found?.state === 'cut' ? 'text-stop' : ''}`}
                      value={readAt(t, place)}
                      {...HAND_LIMITS}
                      step={STEP_MM}
                      digits={1}
                      empty
                      disabled={!mayWrite}
                      onChange={(v) => put(t, place, v)}
                      onDone={() => store.endGroup()}
                    />
                    <span
                      className={`ml-1.5 inline-block w-16 text-left text-tiny ${found?.state === 'cut' ? 'text-stop' : 'text-ink-2'}`}
                    >
                      {found?.state === 'cut'
                        ? `${number(found.cutMm ?? 0, 1)} more`
                        : found?.state === 'right'
                          ? 'enough'
                          : `needs ${number(own, 1)}`}
                    </span>
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <fieldset className="mt-5 grid max-w-[560px] grid-cols-4 gap-2" aria-label={`${name(tooth)} ${at}`}>
        <Key words="− 0.1" does="a tenth less" off={!mayWrite} press={() => step(-STEP_MM)} />
        <Key words="+ 0.1" does="a tenth more" off={!mayWrite} press={() => step(STEP_MM)} />
        <Key words="back" does="one place" off={here <= 0} press={() => go(here - 1)} />
        <Key words="next" does="place" off={here < 0 || here + 1 >= order.length} press={() => go(here + 1)} />
      </fieldset>
      <p className="mt-2 text-note text-ink-2" role="status">
        {name(tooth)} {at}: {order.filter((o) => readAt(o.tooth, o.place) === null).length} of {order.length} places are
        not read.
      </p>
    </div>
  );
}

function Key({ words, does, off, press }: { words: string; does: string; off: boolean; press: () => void }) {
  return (
    <button type="button" className="btn btn-ghost h-16 text-figure" disabled={off} onClick={press}>
      {words}
      <span className="sr-only"> {does}</span>
    </button>
  );
}
