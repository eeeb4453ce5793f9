import type { GuideFacts, PrinterSays } from '@radiant/contract';
import { LEAST_PRINTED_MM, type PrintCheck } from '@radiant/core';
import { Printer } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { api, sentenceOf } from '../../data/api.js';
import { useCase } from '../../data/case-context.js';
import { number } from '../../ui/format.js';

const BODIES = [
  ['index', 'facial index'],
  ['leaf-guide', 'leaf guide'],
  ['edge-strip', 'edge strip'],
  ['slices', 'sagittal slices'],
  ['mock-up-index', 'mock-up index'],
] as const;

interface Heard {
  readonly what: string;
  readonly says: PrinterSays;
  readonly facts: GuideFacts;
}

/** A guide is sent to the simulated printer, which says how it would print it. Nothing is printed. */
export function BeforePrinting() {
  const { detail } = useCase();
  const [what, setWhat] = useState<(typeof BODIES)[number][0]>('index');
  const [busy, setBusy] = useState(false);
  const [heard, setHeard] = useState<Heard>();
  const [refusal, setRefusal] = useState<string>();
  const under = useRef<AbortController>(undefined);
  useEffect(() => () => under.current?.abort(), []);
  const send = async () => {
    const own = new AbortController();
    under.current = own;
    setBusy(true);
    setHeard(undefined);
    setRefusal(undefined);
    try {
      const [says, facts] = await Promise.all([
        api.get<PrinterSays>(`/cases/${detail.id}/print?what=${what}`, own.signal),
        api.get<GuideFacts>(`/cases/${detail.id}/contour.json?what=${what}`, own.signal),
      ]);
      setHeard({ what: BODIES.find(([id]) => id === what)?.[1] ?? '', says, facts });
    } catch (error) {
      if (!own.signal.aborted) setRefusal(sentenceOf(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <section aria-label="Before it is printed" className="flex gap-5 rounded-xl border border-hair bg-leaf p-5">
      <span className="text-plum">
        <Printer size={26} aria-hidden="true" />
      </span>
      <div className="min-w-0 flex-1">
        <h2 className="title">Before it is printed</h2>
        <p className="mt-1 text-ink-2">
          The file goes to a simulated resin printer, which says what it would say of it: walls, pieces, what hangs
          over, and about how long it takes at layers of 0.1 mm. Nothing is printed; your printer’s own program has the
          last word.
        </p>
        <div className="mt-3 flex flex-wrap items-center gap-2">
          <select
            aria-label="What is sent"
            className="field h-9 w-[190px] px-2"
            value={what}
            onChange={(e) => setWhat(e.target.value as typeof what)}
          >
            {BODIES.map(([id, words]) => (
              <option key={id} value={id}>
                {words}
              </option>
            ))}
          </select>
          <button type="button" className="btn btn-ghost" disabled={busy} onClick={() => void send()}>
            {busy ? 'Being looked at …' : 'Send it to the simulated printer'}
          </button>
          {busy && (
            <button type="button" className="how" onClick={() => under.current?.abort()}>
              call off
            </button>
          )}
        </div>
        {refusal && (
          <p role="alert" className="mt-2 text-stop">
            {refusal}
          </p>
        )}
        {heard && (
          <div role="status" className="mt-3">
            {heard.says.check && <Said what={heard.what} check={heard.says.check} />}
            {heard.says.refused.map((why) => (
              <p key={why} className="finding mt-2 text-note" data-weight="stop">
                {heard.says.printer} would not begin: {why}
              </p>
            ))}
            <Seating {...heard.facts} />
          </div>
        )}
      </div>
    </section>
  );
}

/** More than this and it is pressed and not put on, mm. House value. */
const STIFF_MM = 0.3;

/** What a guide sits on, and how it goes on. */
function Seating({ seats, wayOn }: GuideFacts) {
  return (
    <>
      {seats !== undefined && (
        <p className="finding mt-2 text-note" data-weight={seats < 2 ? 'watch' : 'good'}>
          It sits on {seats === 1 ? 'one tooth that stays' : `${seats} teeth that stay`}
          {seats < 2 ? ': it can tip. Look at each side before it is read.' : '.'}
        </p>
      )}
      {wayOn && (
        <p className="finding mt-2 text-note" data-weight={wayOn.givesMm > STIFF_MM ? 'watch' : 'good'}>
          It goes on over the edges, {number(wayOn.tiltDeg, 0)}° from straight up to the back, and gives way by{' '}
          {number(wayOn.givesMm, 1)} mm where the teeth bulge
          {wayOn.givesMm > STIFF_MM ? ': print it in a flexible resin, or trim its rim at the gum.' : '.'}
        </p>
      )}
    </>
  );
}

/** More thin wall than this is no rim. House value. */
const MUCH_MM2 = 15;

function Said({ what, check: c }: { what: string; check: PrintCheck }) {
  const thin = c.thinMm2 > 0.5;
  return (
    <>
      <p>
        <b className="font-[650]">{what}</b>: {c.pieces === 1 ? 'one piece' : `${c.pieces} pieces`} of{' '}
        {number(c.volumeMm3 / 1000, 1)} cm³, thinnest wall {number(c.thinnestMm, 1)} mm; {c.lie} {number(c.heightMm, 0)}{' '}
        mm high, about {duration(c.minutes)}.
      </p>
      <p className={`finding mt-2 text-note`} data-weight={c.thinMm2 > MUCH_MM2 ? 'stop' : thin ? 'watch' : 'good'}>
        {thin
          ? `${number(c.thinMm2, 0)} mm² of it is thinner than ${number(LEAST_PRINTED_MM, 1)} mm and may break.`
          : `No wall is thinner than ${number(LEAST_PRINTED_MM, 1)} mm.`}
      </p>
      <p className="finding mt-2 text-note" data-weight={c.overhangMm2 > 1 || c.islands > 0 ? 'watch' : 'good'}>
        {c.overhangMm2 > 1
          ? `Laid ${c.lie}, ${number(c.overhangMm2, 0)} mm² looks down and needs supports`
          : `Laid ${c.lie}, nothing needs a support`}
        {c.islands > 0 ? `; ${c.islands === 1 ? 'one part begins' : `${c.islands} parts begin`} in the air.` : '.'}
      </p>
    </>
  );
}

const duration = (minutes: number): string =>
  minutes < 90 ? `${Math.round(minutes / 5) * 5 || 5} minutes` : `${number(minutes / 60, 1)} hours`;
