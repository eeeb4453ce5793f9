import { BLEACH_WAIT, type Bleaching, settledOn } from '@radiant/contract';
import { LETTER_SCALE } from '@radiant/core';
import { useCase, useSection, useToothLabel } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { day } from '../../ui/format.js';
import { NumberOnceDone } from '../../ui/NumberOnceDone.js';

/** Bleaching before anything is made: to which shade, and how long its colour settles before it is read again. */
export function BleachingField() {
  const { tooth } = useCase();
  const { data, set } = useSection('match');
  const mayWrite = useMayWrite('match');
  const name = useToothLabel();
  const own = data.bleaching?.find((b) => b.tooth === tooth);
  const others = (data.bleaching ?? []).filter((b) => b.tooth !== tooth);
  const put = (change: Partial<Bleaching>) =>
    set({
      ...data,
      bleaching: [
        ...others,
        { to: data.wantedColour ? 'A1' : (data.wanted ?? 'A1'), waitDays: BLEACH_WAIT.usual, ...own, ...change, tooth },
      ],
    });
  const from = own && settledOn(own);
  return (
    <fieldset className="mb-3 text-note" disabled={!mayWrite} aria-label="Bleaching first">
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="accent-plum"
          checked={own !== undefined}
          onChange={(e) => (e.target.checked ? put({}) : set({ ...data, bleaching: others }))}
        />
        bleach {name(tooth)} first
      </label>
      {own && (
        <div className="mt-1 flex flex-col gap-1.5 pl-6">
          <label className="flex items-center justify-between gap-2">
            to about
            <select
              aria-label="Shade after bleaching"
              className="field h-8 w-24 px-2"
              value={own.to}
              onChange={(e) => put({ to: e.target.value })}
            >
              {LETTER_SCALE.shades.map((s) => (
                <option key={s.name}>{s.name}</option>
              ))}
            </select>
          </label>
          <div className="flex items-center justify-between gap-2">
            then wait, days
            <NumberOnceDone
              label="Days to wait after bleaching"
              className="field h-8 w-24 px-2 text-right"
              value={own.waitDays}
              {...BLEACH_WAIT}
              step={1}
              digits={0}
              whole
              unit="days"
              onTaken={(waitDays) => put({ waitDays })}
            />
          </div>
          <label className="flex items-center justify-between gap-2">
            ended on
            <input
              type="date"
              aria-label="Bleaching ended on"
              className="field h-8 w-36 px-2"
              value={own.endedOn ?? ''}
              onChange={(e) => put({ endedOn: e.target.value || null })}
            />
          </label>
          <p className="text-tiny text-ink-2">
            {from
              ? `Its colour counts from ${day(from)} on; what was read before is not used.`
              : 'Until then the hoped-for shade stands for its reading: a hope, not a measure.'}{' '}
            Nothing is bonded before: the bond is weaker, and the shade rebounds (common practice: one to two weeks).
          </p>
        </div>
      )}
    </fieldset>
  );
}
