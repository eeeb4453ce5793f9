import { type CaseFile, type ColourReadingInput, contourPlan, LAB_LIMITS, readingAt } from '@radiant/contract';
import {
  type ColourReading,
  deltaE00,
  isPlannable,
  READING_ZONES,
  Refusal,
  readingsOfRows,
  rowsOfReadings,
  screenColour,
} from '@radiant/core';
import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { useCase, useSection, useToothLabel } from '../../data/case-context.js';
import { FigureTable } from '../../shell/FigureTable.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { CsvIn } from '../../ui/CsvIn.js';
import { saveCsv } from '../../ui/csv.js';
import { moment, number } from '../../ui/format.js';
import { rowsIn } from '../../ui/read-csv.js';

/** A table of readings that was opened: what it holds, and where it comes from. */
interface Opened {
  readonly name: string;
  readonly readings: readonly ColourReading[];
}

/** Less than this is the same reading, ΔE00: numbers are written with two places. */
const SAME = 0.02;

const isWithin = (r: ColourReading) =>
  (['L', 'a', 'b'] as const).every((c) => r[c] >= LAB_LIMITS[c].min && r[c] <= LAB_LIMITS[c].max);

const parse = (text: string): ColourReading[] => readingsOfRows(rowsIn(text));

/** Readings out of a file and into one: tables of a shade meter that have come, CSV by hand. Nothing is replaced unasked. */
export function ReadingsIn() {
  const { detail } = useCase();
  const { data, set } = useSection('match');
  const mayWrite = useMayWrite('match');
  const [opened, setOpened] = useState<Opened>();
  const came = detail.files.filter((f) => f.kind === 'colours');
  const take = (readings: readonly ColourReading[]) => {
    const key = (r: { tooth: number; of: string; zone: string }) => `${r.tooth} ${r.of} ${r.zone}`;
    const fresh = new Set(readings.map(key));
    set({
      ...data,
      readings: [
        ...data.readings.filter((r) => !fresh.has(key(r))),
        ...readings.map(
          ({ tooth, of, zone, L, a, b, wet, at, device, light, spectrum }): ColourReadingInput => ({
            tooth,
            of,
            zone,
            L,
            a,
            b,
            wet,
            at,
            device: device ?? null,
            light: light ?? null,
            spectrum: spectrum ? [...spectrum] : null,
          }),
        ),
      ],
    });
    setOpened(undefined);
  };
  return (
    <section aria-label="Readings as tables" className="mb-3 text-note">
      {came.map((f) => (
        <Came key={f.id} file={f} open={setOpened} disabled={!mayWrite} />
      ))}
      <div className="flex flex-wrap gap-2">
        <CsvIn
          label="Readings as CSV"
          words="read CSV"
          look="how"
          disabled={!mayWrite}
          read={(name, rows) => setOpened({ name: `${name}.csv`, readings: readingsOfRows(rows) })}
        />
        <button
          type="button"
          className="how"
          disabled={data.readings.length === 0}
          onClick={() =>
            saveCsv(
              rowsOfReadings(
                data.readings.map((r) => ({
                  ...r,
                  device: r.device ?? undefined,
                  light: r.light ?? undefined,
                  spectrum: r.spectrum ?? undefined,
                })),
              ),
              `${detail.name} readings.csv`,
            )
          }
        >
          save all as CSV
        </button>
      </div>
      {opened && <TakeOver opened={opened} close={() => setOpened(undefined)} take={take} />}
    </section>
  );
}

/** A table that a device has delivered, as long as it holds something that was not taken over. */
function Came({ file, open, disabled }: { file: CaseFile; open: (table: Opened) => void; disabled: boolean }) {
  const { detail } = useCase();
  const { data } = useSection('match');
  const [text, setText] = useState<string>();
  useEffect(() => {
    let gone = false;
    void fetch(`/api/cases/${detail.id}/files/${file.id}`)
      .then((r) => (r.ok ? r.text() : undefined))
      .then((t) => !gone && setText(t))
      // Without it nothing is offered; keep has the file.
      .catch(() => undefined);
    return () => {
      gone = true;
    };
  }, [detail.id, file.id]);
  const readings = text === undefined ? [] : quietly(() => parse(text));
  const fresh = readings.filter((r) => {
    const own = readingAt(data, r.tooth, r.of, r.zone);
    return isPlannable(r.tooth) && (!own || deltaE00(own, r) > SAME);
  });
  if (text === undefined || fresh.length === 0) return null;
  return (
    <p className="finding mb-2" data-weight="watch">
      {file.origin}, {moment(file.at)}: {fresh.length} {fresh.length === 1 ? 'reading' : 'readings'} not taken over.{' '}
      <button type="button" className="how" disabled={disabled} onClick={() => open({ name: file.name, readings })}>
        look at them
      </button>
    </p>
  );
}

const quietly = (work: () => ColourReading[]): ColourReading[] => {
  try {
    return work();
  } catch (error) {
    if (error instanceof Refusal) return [];
    throw error;
  }
};

/** What a table would bring, beside what is there: taken over only when somebody says so. */
function TakeOver({
  opened,
  close,
  take,
}: {
  opened: Opened;
  close: () => void;
  take: (readings: readonly ColourReading[]) => void;
}) {
  const { data } = useSection('match');
  const { teeth } = useSection('shape').data;
  const name = useToothLabel();
  const plan = contourPlan(teeth);
  const readable = opened.readings.filter((r) => isPlannable(r.tooth) && isWithin(r));
  const strange = [...new Set(opened.readings.filter((r) => !isPlannable(r.tooth)).map((r) => r.tooth))];
  const outside = opened.readings.filter((r) => isPlannable(r.tooth) && !isWithin(r));
  const rows = readable
    .map((r) => ({ r, own: readingAt(data, r.tooth, r.of, r.zone) }))
    .sort((p, q) => p.r.tooth - q.r.tooth || READING_ZONES.indexOf(p.r.zone) - READING_ZONES.indexOf(q.r.zone));
  const replaced = rows.filter(({ r, own }) => own && deltaE00(own, r) > SAME).length;
  const unplanned = [...new Set(readable.filter((r) => !plan[r.tooth]).map((r) => r.tooth))];
  const dry = readable.some((r) => !r.wet);
  return (
    <Dialog.Root open onOpenChange={(next) => !next && close()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/40" />
        <Dialog.Content
          className="fixed top-1/2 left-1/2 z-40 flex max-h-[86vh] w-[680px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 flex-col rounded-xl bg-leaf p-6 shadow-xl"
          aria-describedby={undefined}
        >
          <Dialog.Title className="title mb-1 text-figure">{opened.name}</Dialog.Title>
          {strange.length > 0 && (
            <p className="finding mb-1 text-note" data-weight="watch">
              Left out: {strange.map(name).join(', ')}. Colours are read on front teeth and premolars.
            </p>
          )}
          {outside.length > 0 && (
            <p className="finding mb-1 text-note" data-weight="watch">
              Left out, for no tooth has such a colour: {outside.map((r) => `${name(r.tooth)} ${r.zone}`).join(', ')}.
            </p>
          )}
          {unplanned.length > 0 && (
            <p className="mb-1 text-note text-ink-2">
              Not planned in this case: {unplanned.map(name).join(', ')}. They can serve as what is wanted.
            </p>
          )}
          {dry && (
            <p className="finding mb-1 text-note" data-weight="watch">
              Some were read dry: they are taken over as dry, and are to be read again.
            </p>
          )}
          <div className="min-h-0 overflow-y-auto">
            <FigureTable className="text-note" aria-label="Readings of the table">
              <thead>
                <tr>
                  <th scope="col">tooth</th>
                  <th scope="col">where</th>
                  <th scope="col">read</th>
                  <th scope="col">L*</th>
                  <th scope="col">a*</th>
                  <th scope="col">b*</th>
                  <th scope="col">looks</th>
                  <th scope="col">instead of</th>
                </tr>
              </thead>
              <tbody>
                {rows.map(({ r, own }) => (
                  <tr key={`${r.tooth} ${r.of} ${r.zone}`}>
                    <th scope="row">{name(r.tooth)}</th>
                    <td>
                      {r.of}, {r.zone}
                    </td>
                    <td>
                      {r.wet ? 'wet' : <b className="text-stop">dry</b>}, {moment(r.at)}
                    </td>
                    <td>{number(r.L, 1)}</td>
                    <td>{number(r.a, 1)}</td>
                    <td>{number(r.b, 1)}</td>
                    <td>
                      <span
                        className="inline-block h-4 w-8 rounded-sm border border-hair align-middle"
                        style={{ background: screenColour(r) }}
                      />
                    </td>
                    <td>
                      {!own ? 'nothing' : deltaE00(own, r) <= SAME ? 'the same' : `ΔE00 ${number(deltaE00(own, r), 1)}`}
                    </td>
                  </tr>
                ))}
              </tbody>
            </FigureTable>
          </div>
          <div className="mt-4 flex justify-end gap-2">
            <Dialog.Close className="btn btn-ghost">Leave it</Dialog.Close>
            <button type="button" className="btn" disabled={readable.length === 0} onClick={() => take(readable)}>
              Take over {readable.length}
              {replaced > 0 ? `, replacing ${replaced}` : ''}
            </button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
