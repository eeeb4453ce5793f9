import { GATES, sourceWords, VISITS } from '@radiant/core';
import { ArrowLeft, ArrowRight, Maximize2, Minimize2, TriangleAlert } from 'lucide-react';
import { useEffect, useId, useRef, useState } from 'react';
import { useSentence } from '../../data/case-context.js';
import type { ChairClock } from '../../data/chair-clock.js';
import { useHotkeys } from '../../ui/hotkeys.js';
import { timerLabel } from './chair-acts.js';
import { GateAsk } from './GateAsk.js';
import { MustNot } from './MustNot.js';
import { Timers, spanWords as time } from './Timers.js';
import type { Chair } from './use-chair.js';

/** One step at a time, readable from where one stands. */
export function Screen({
  chair,
  clock,
  whole,
  setWhole,
  mayWrite,
}: {
  chair: Chair;
  clock: ChairClock;
  whole: boolean;
  setWhole: (on: boolean) => void;
  mayWrite: boolean;
}) {
  const sentence = useSentence();
  const { steps } = chair.protocol;
  const step = steps[chair.current];
  const next = steps[chair.current + 1];
  const [leaving, setLeaving] = useState(false);
  const [ending, setEnding] = useState(false);
  const [why, setWhy] = useState('');
  const [note, setNote] = useState('');
  const id = useId();
  const go = useRef<HTMLButtonElement>(null);
  // The next step begins with nothing typed, and with the key that goes on in reach.
  // biome-ignore lint/correctness/useExhaustiveDependencies: on every other step, that is what it is for
  useEffect(() => {
    setLeaving(false);
    setEnding(false);
    setWhy('');
    setNote('');
    if (document.activeElement === document.body || document.activeElement === null) go.current?.focus();
  }, [step?.id]);
  const finish = () => step && chair.finish(step, note.trim() ? { note: note.trim() } : {});
  useHotkeys('stage', [
    {
      keys: 'N',
      does: 'done, next; a gate is never passed by a key',
      on: ['n', 'pagedown'],
      off: !mayWrite || !step || !!step.gate || leaving || ending,
      run: finish,
    },
  ]);
  const undone = steps.length - chair.current;
  return (
    <section aria-label="The chair" className={`flex h-full flex-col ${whole ? 'px-10 py-6' : 'px-6 pt-4 pb-4'}`}>
      <div className="flex items-center gap-4 text-note text-ink-2">
        <b className="text-ink">{VISITS[chair.visit]}</b>
        <span className="tabular-nums">
          {Math.min(chair.current + 1, steps.length)} of {steps.length}
        </span>
        <div
          role="progressbar"
          aria-label="Steps done"
          aria-valuemin={0}
          aria-valuemax={steps.length}
          aria-valuenow={chair.current}
          className="h-1.5 flex-1 overflow-hidden rounded-full bg-hair"
        >
          <div className="h-full bg-plum" style={{ width: `${(100 * chair.current) / Math.max(1, steps.length)}%` }} />
        </div>
        {mayWrite && (
          <button
            type="button"
            className="chip chip-flat min-h-12"
            disabled={chair.done.size === 0}
            onClick={chair.back}
          >
            <ArrowLeft size={16} aria-hidden /> take the last back
          </button>
        )}
        {mayWrite && step && (
          <button type="button" className="chip chip-flat min-h-12" onClick={() => setEnding(true)}>
            end here
          </button>
        )}
        <button type="button" className="chip chip-flat min-h-12" onClick={() => setWhole(!whole)}>
          {whole ? <Minimize2 size={16} aria-hidden /> : <Maximize2 size={16} aria-hidden />}
          {whole ? 'smaller' : 'whole screen'}
        </button>
      </div>
      <div className="mt-2 mb-2 min-h-14">
        <Timers timers={chair.timers} clock={clock} stop={mayWrite ? chair.stop : undefined} />
        {clock.setBack && (
          <p role="status" className="text-note text-removed-ink">
            This device’s clock was set back. Times go on by the server’s.
          </p>
        )}
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto" aria-live="polite">
        {step ? (
          <>
            <p className="mt-1 text-lead font-semibold text-plum">
              {sentence(step.gate ? `gate: ${GATES[step.gate]}` : step.phase)}
            </p>
            <h2 className={`title leading-[1.14] ${whole ? 'text-chair' : 'text-hero'}`}>{sentence(step.does)}</h2>
            <MustNot all={chair.protocol.mustNot.filter((m) => step.teeth.includes(m.tooth))} />
            {step.beware && (
              <p className="mt-3 flex items-start gap-2 text-figure font-semibold text-stop">
                <TriangleAlert className="mt-0.5 shrink-0" aria-hidden />
                <span>{step.beware} The treating clinician decides.</span>
              </p>
            )}
            {step.times && (
              <div className="mt-4 flex flex-wrap gap-2">
                {step.times.map((s, i) => (
                  <button
                    key={i}
                    type="button"
                    className="btn btn-ghost min-h-14 text-figure tabular-nums"
                    disabled={!mayWrite}
                    onClick={() => chair.start(step, s, timerLabel(step.does))}
                  >
                    start {time(s)}
                    {(step.times?.length ?? 0) > 1 && ` · ${i + 1}`}
                  </button>
                ))}
                {step.within && (
                  <span className="self-center text-lead text-ink-2">
                    {time(step.within[0])} to {time(step.within[1])}
                  </span>
                )}
              </div>
            )}
            <p className="mt-4 text-lead text-ink-2">
              {step.why} <span className="text-tiny">({sourceWords(step.source)})</span>
            </p>
            <div className={`mt-4 grid grid-cols-2 gap-6 ${whole ? 'text-head' : 'text-figure'}`}>
              <div>
                <h3 className="text-note font-semibold text-ink-2">in hand</h3>
                <p>{step.hand.length > 0 ? step.hand.join(' · ') : 'nothing'}</p>
              </div>
              {next && (
                <div>
                  <h3 className="text-note font-semibold text-ink-2">next</h3>
                  <p>{sentence(next.gate ? `gate: ${GATES[next.gate]}` : next.does)}</p>
                  {next.hand.length > 0 && <p className="text-note text-ink-2">{next.hand.join(' · ')}</p>}
                </div>
              )}
            </div>
          </>
        ) : (
          <>
            <h2 className={`title ${whole ? 'text-chair' : 'text-hero'}`}>All steps are done</h2>
            <p className="mt-2 text-lead text-ink-2">
              End the visit when the patient is out of the chair: it says how long it truly took.
            </p>
          </>
        )}
      </div>
      {mayWrite && (
        <div className="mt-3 border-t border-hair pt-3">
          {step && ending ? (
            <div className="flex flex-wrap items-center gap-3">
              <p className="flex-1 text-lead">
                {undone} {undone === 1 ? 'step is' : 'steps are'} not done. A visit that ends here does not count for
                how long visits take.
              </p>
              <button type="button" className="btn btn-ghost min-h-16" onClick={() => setEnding(false)}>
                go on
              </button>
              <button type="button" className="btn min-h-16" onClick={chair.end}>
                end the visit here
              </button>
            </div>
          ) : step && leaving ? (
            <div className="flex items-end gap-3">
              <label className="flex-1 text-note text-ink-2" htmlFor={id}>
                Left out because
                <input
                  id={id}
                  className="field mt-0.5 min-h-12 w-full px-3 text-lead text-ink"
                  value={why}
                  maxLength={400}
                  onChange={(e) => setWhy(e.target.value)}
                />
              </label>
              <button type="button" className="btn btn-ghost min-h-14" onClick={() => setLeaving(false)}>
                do it after all
              </button>
              <button
                type="button"
                className="btn min-h-14"
                disabled={why.trim() === ''}
                onClick={() => chair.finish(step, { leftOut: why.trim() })}
              >
                leave it out
              </button>
            </div>
          ) : step?.gate ? (
            <GateAsk key={step.id} chair={chair} step={step} gate={step.gate} />
          ) : (
            <div className="flex gap-3">
              {step && (
                <button type="button" className="btn btn-ghost min-h-20" onClick={() => setLeaving(true)}>
                  leave out
                </button>
              )}
              <button
                ref={go}
                type="button"
                className="btn min-h-20 flex-1 text-head"
                onClick={() => (step ? finish() : chair.end())}
              >
                {step ? 'done, next' : 'end the visit'} <ArrowRight aria-hidden />
              </button>
            </div>
          )}
          {step && !leaving && !ending && !step.gate && (
            <input
              className="field mt-2 min-h-12 w-full px-3 text-note"
              aria-label="What was done otherwise, or seen"
              placeholder="done otherwise, or seen: a word for the record"
              value={note}
              maxLength={400}
              onChange={(e) => setNote(e.target.value)}
            />
          )}
        </div>
      )}
    </section>
  );
}
