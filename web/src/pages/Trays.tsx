import { type TrayInput, trayInput, type Who } from '@radiant/contract';
import {
  bursOfRows,
  CORNER_LIMITS,
  FIRST_TRAY,
  Refusal,
  rowsOfTray,
  TOLERANCE_LIMITS,
  TRAY_LIMITS,
  type Tray,
  trayFault,
} from '@radiant/core';
import { useState } from 'react';
import { CsvIn, freeName } from '../ui/CsvIn.js';
import { saveCsv } from '../ui/csv.js';
import { NumberOnceDone } from '../ui/NumberOnceDone.js';
import { HousePage } from './HousePage.js';
import { ThicknessPresets } from './ThicknessPresets.js';
import { TrayTable } from './TrayTable.js';

/** The burs of the house, tray by tray, and how thick its restorations are made. */
export function Trays({ who }: { who: Who }) {
  return (
    <HousePage who={who} title="Trays and thicknesses">
      {(shown, set) => (
        <>
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
          <p className="-mt-6 mb-10 flex flex-wrap items-center gap-2">
            The mill’s smallest tool goes round
            <NumberOnceDone
              label="Smallest radius of the mill, mm"
              className="field w-[76px] text-right"
              value={shown.cornerMm}
              min={CORNER_LIMITS.min}
              max={CORNER_LIMITS.max}
              step={0.05}
              digits={2}
              unit="mm"
              onTaken={(cornerMm) => set({ cornerMm })}
            />
            mm of radius: what is sharper is told when a preparation is checked.
          </p>
          <ThicknessPresets thickness={shown.thickness} set={(thickness) => set({ thickness })} />
        </>
      )}
    </HousePage>
  );
}

function TraysOf({ trays, set }: { trays: readonly Tray[]; set: (trays: TrayInput[]) => void }) {
  const [at, setAt] = useState(0);
  const chosen = Math.min(at, trays.length - 1);
  const [draft, setDraft] = useState<{ at: number; tray: Tray }>();
  const tray = draft?.at === chosen ? draft.tray : (trays[chosen] as Tray);
  const fault = faultOf(tray, trays, chosen);
  const change = (next: Tray) => {
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
          onClick={() =>
            add({
              name: freeName('new tray', trays, TRAY_LIMITS.name),
              burs: tray.burs.length > 0 ? tray.burs : FIRST_TRAY.burs,
            })
          }
        >
          Copy as a new tray
        </button>
        <CsvIn
          label="Tray as CSV"
          disabled={full}
          read={(name, rows) => {
            const next = { name: freeName(name, trays, TRAY_LIMITS.name), burs: bursOfRows(rows) };
            const wrong = trayFault(next);
            if (wrong) throw new Refusal('tray-row', wrong);
            add(next);
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
