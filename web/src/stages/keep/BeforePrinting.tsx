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
] as const;

/** What a printer would say of a guide before it is printed. No printer is asked: the figures are worked out here. */
export function BeforePrinting() {
  const { detail } = useCase();
  const [what, setWhat] = useState<(typeof BODIES)[number][0]>('index');
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState<{ what: string; check: PrintCheck }>();
  const [refusal, setRefusal] = useState<string>();
  const under = useRef<AbortController>(undefined);
  useEffect(() => () => under.current?.abort(), []);
  const look = async () => {
    const own = new AbortController();
    under.current = own;
    setBusy(true);
    setSaid(undefined);
    setRefusal(undefined);
    try {
      const check = await api.get<PrintCheck>(`/cases/${detail.id}/contour.json?what=${what}`, own.signal);
      setSaid({ what: BODIES.find(([id]) => id === what)?.[1] ?? '', check });
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
          Walls, pieces, what hangs over, and about how long it takes on a resin printer at layers of 0.1 mm. Worked out
          here, no printer is asked; your printer’s own program has the last word.
        </p>
        <div className="mt-3 flex flex-wrap items-center gap-2">
          <select
            aria-label="What is looked at"
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
          <button type="button" className="btn btn-ghost" disabled={busy} onClick={() => void look()}>
            {busy ? 'Being looked at …' : 'Look at it'}
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
        {said && <Said {...said} />}
      </div>
    </section>
  );
}

/** More thin wall than this is no rim. House value. */
const MUCH_MM2 = 15;

function Said({ what, check: c }: { what: string; check: PrintCheck }) {
  const thin = c.thinMm2 > 0.5;
  return (
    <div role="status" className="mt-3">
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
    </div>
  );
}

const duration = (minutes: number): string =>
  minutes < 90 ? `${Math.round(minutes / 5) * 5 || 5} minutes` : `${number(minutes / 60, 1)} hours`;
