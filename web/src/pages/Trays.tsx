import { type TrayInput, trayInput, type Who } from '@radiant/contract';
import {
  bursOfRows,
  FIRST_TRAY,
  Refusal,
  rowsOfTray,
  TOLERANCE_LIMITS,
  TRAY_LIMITS,
  type Tray,
  trayFault,
} from '@radiant/core';
import { useRef, useState } from 'react';
import { usePracticeSettings } from '../data/use-practice-settings.js';
import { saveCsv } from '../ui/csv.js';
import { NumberOnceDone } from '../ui/NumberOnceDone.js';
import { rowsIn } from '../ui/read-csv.js';
import { Trouble, Waiting } from '../ui/Waiting.js';
import { PracticePage } from './PracticePage.js';
import { ThicknessPresets } from './ThicknessPresets.js';
import { TrayTable } from './TrayTable.js';

/** The burs of the house, tray by tray, and how thick its restorations are made. */
export function Trays({ who }: { who: Who }) {
  const { shown, trouble, retry, refusal, set } = usePracticeSettings();
  const mayWrite = who.role === 'dentist';
  return (
    <PracticePage who={who} title="Trays and thicknesses">
      {!shown ? (
        trouble ? (
          <Trouble sentence={trouble} retry={retry} />
        ) : (
          <Waiting what="the trays" />
        )
      ) : (
        <>
          {!mayWrite && <p className="mb-4 text-ink-2">A dentist of the practice changes these.</p>}
          {refusal && (
            <p role="alert" className="mb-4 text-stop">
              {refusal}
            </p>
          )}
          <fieldset disabled={!mayWrite} className="min-w-0">
            <TraysOf trays={shown.trays} set={(trays) => set({ trays })} />
            <p className="mt-6 mb-10 flex flex-wrap items-center gap-2">
              A bur serves a depth when it is off by at most
              <NumberOnceDone
                label="Tolerance of depths, mm"
                className="field w-[76px] text-right"
                value={shown.toleranceMm}
                min={TOLERANCE_LIMITS.min}
                max={TOLERANCE_LIMITS.max}
                step={0.01}
                digits={2}
                unit="mm"
                onTaken={(toleranceMm) => set({ toleranceMm })}
              />
              mm; near the gum only to the short side.
            </p>
            <ThicknessPresets thickness={shown.thickness} set={(thickness) => set({ thickness })} />
          </fieldset>
        </>
      )}
    </PracticePage>
  );
}

function TraysOf({ trays, set }: { trays: readonly Tray[]; set: (trays: TrayInput[]) => void }) {
  const [at, setAt] = useState(0);
  const chosen = Math.min(at, trays.length - 1);
  const [draft, setDraft] = useState<{ at: number; tray: Tray }>();
  const [said, setSaid] = useState<string>();
  const input = useRef<HTMLInputElement>(null);
  const tray = draft?.at === chosen ? draft.tray : (trays[chosen] as Tray);
  const fault = faultOf(tray, trays, chosen);
  const change = (next: Tray) => {
    setSaid(undefined);
    if (faultOf(next, trays, chosen)) setDraft({ at: chosen, tray: next });
    else {
      setDraft(undefined);
      set(trays.map((t, i) => trayInput(i === chosen ? next : t)));
    }
  };
  const add = (next: Tray) => {
    set([...trays, next].map(trayInput));
    setAt(trays.length);
    setDraft(undefined);
  };
  const free = (name: string) => {
    for (let n = 1; ; n++) {
      const own = n === 1 ? name : `${name} ${n}`;
      if (!trays.some((t) => t.name === own)) return own;
    }
  };
  const read = async (file: File | undefined) => {
    if (!file) return;
    setSaid(undefined);
    try {
      const next = {
        name: free(file.name.replace(/\.csv$/i, '').slice(0, TRAY_LIMITS.name - 4)),
        burs: bursOfRows(rowsIn(await file.text())),
      };
      const wrong = trayFault(next);
      if (wrong) setSaid(`${file.name}: ${wrong} Nothing was changed.`);
      else add(next);
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      setSaid(`${file.name}: ${error.message} Nothing was changed.`);
    }
  };
  const full = trays.length >= TRAY_LIMITS.trays;
  return (
    <section aria-label="Trays">
      <div className="mb-4 flex flex-wrap items-center gap-1.5">
        {trays.map((t, i) => (
          <button
            key={t.name}
            type="button"
            className="chip chip-flat"
            aria-pressed={i === chosen}
            onClick={() => setAt(i)}
          >
            {t.name}
            {i === 0 && <span className="text-tiny opacity-80"> · cases begin with it</span>}
          </button>
        ))}
        <span className="flex-1" />
        <button
          type="button"
          className="btn btn-ghost"
          disabled={full}
          onClick={() => add({ name: free('new tray'), burs: tray.burs.length > 0 ? tray.burs : FIRST_TRAY.burs })}
        >
          Copy as a new tray
        </button>
        <button type="button" className="btn btn-ghost" disabled={full} onClick={() => input.current?.click()}>
          Read CSV
        </button>
        <input
          ref={input}
          type="file"
          accept=".csv,text/csv"
          aria-label="Tray as CSV"
          className="sr-only"
          tabIndex={-1}
          onChange={(e) => {
            void read(e.target.files?.[0]);
            e.target.value = '';
          }}
        />
        <button
          type="button"
          className="btn btn-ghost"
          onClick={() => saveCsv(rowsOfTray(tray.burs), `${tray.name}.csv`)}
        >
          Save as CSV
        </button>
      </div>
      {said && (
        <p role="alert" className="finding mb-3" data-weight="stop">
          {said}
        </p>
      )}
      {fault && (
        <p role="alert" className="finding mb-3" data-weight="stop">
          {fault} Not saved until this is mended; the tray stays as it was.{' '}
          <button type="button" className="how" onClick={() => setDraft(undefined)}>
            take it back
          </button>
        </p>
      )}
      <TrayTable
        key={chosen}
        tray={tray}
        change={change}
        {...(trays.length > 1 && {
          remove: () => {
            set(trays.filter((_, i) => i !== chosen).map(trayInput));
            setDraft(undefined);
            setAt(0);
          },
        })}
        {...(chosen > 0 && {
          first: () => {
            set([tray, ...trays.filter((_, i) => i !== chosen)].map(trayInput));
            setAt(0);
          },
        })}
      />
    </section>
  );
}

const faultOf = (tray: Tray, trays: readonly Tray[], at: number): string | undefined =>
  trays.some((t, i) => i !== at && t.name.trim() === tray.name.trim())
    ? `There is another tray named “${tray.name}”.`
    : trayFault(tray);
