import { type Looked, nextLook, seatOrder } from '@radiant/core';
import { useState } from 'react';
import { useSection, useToothLabel } from '../../data/case-context.js';
import type { Chair } from './use-chair.js';

/** Why a piece does not go home: one thing to try or look at after the other, from what was noted so far. */
export function NotHome({ chair, mayWrite }: { chair: Chair; mayWrite: boolean }) {
  const { data } = useSection('treat');
  const name = useToothLabel();
  const [open, setOpen] = useState(false);
  const of = <T extends { visit: string; round: number; at: string }>(all: readonly T[]) =>
    all
      .filter((e) => e.visit === chair.visit && e.round === chair.round)
      .sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
  const trials = of(data.trials);
  const looked: Record<number, Looked> = {};
  for (const l of of(data.looks)) looked[l.tooth] = { ...looked[l.tooth], [l.look]: l.yes };
  const teeth = seatOrder(chair.at.pieces.map((p) => p.tooth)).flatMap((g) => g.teeth);
  if (teeth.length === 0) return null;
  const answer = nextLook(teeth, trials, looked);
  const names = (all: readonly number[]) => all.map(name).join(' and ');
  const ask = (yes: (now: boolean) => void, [a, b]: readonly [string, string]) => (
    <div className="mt-2 flex gap-2">
      <button type="button" className="btn min-h-12 flex-1" disabled={!mayWrite} onClick={() => yes(true)}>
        {a}
      </button>
      <button type="button" className="btn btn-ghost min-h-12 flex-1" disabled={!mayWrite} onClick={() => yes(false)}>
        {b}
      </button>
    </div>
  );
  const tryAgain = (set: readonly number[]) =>
    ask(
      (home) => chair.put((t, e, at) => ({ trials: [...t.trials, { ...e, teeth: [...set], home, at }] })),
      ['home', 'stands open'],
    );
  return (
    <section
      aria-label="Why it does not go home"
      className="mt-5 border-t border-hair pt-3 first:mt-0 first:border-0 first:pt-0"
    >
      <button
        type="button"
        className="title flex min-h-12 w-full items-center justify-between"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        Does it go home? <span className="how text-note">{open ? 'close' : 'search'}</span>
      </button>
      {open && (
        <div className="mt-2 text-note" aria-live="polite">
          {answer.kind === 'try' && (
            <>
              <p className="text-lead font-semibold">
                Try {names(answer.teeth)} {answer.teeth.length > 1 ? 'together' : 'alone'}.
              </p>
              <p className="text-ink-2">{answer.why}</p>
              {tryAgain(answer.teeth)}
            </>
          )}
          {answer.kind === 'look' && (
            <>
              <p className="text-lead font-semibold">
                {name(answer.tooth)}: {answer.ask}
              </p>
              {ask(
                (yes) =>
                  chair.put((t, e, at) => ({
                    looks: [...t.looks, { ...e, tooth: answer.tooth, look: answer.at, yes, at }],
                  })),
                ['yes', 'no'],
              )}
            </>
          )}
          {answer.kind === 'found' && (
            <div className="finding" data-weight="stop">
              <p className="text-lead font-semibold">
                {names(answer.teeth)}: {answer.why}.
              </p>
              <p>{answer.does}</p>
              <p className="mt-1 text-ink-2">Then again:</p>
              {tryAgain(answer.teeth)}
            </div>
          )}
          {answer.kind === 'home' && (
            <p className="finding" data-weight="good">
              All pieces go home, alone and together.
            </p>
          )}
          {trials.length > 0 && (
            <p className="mt-2 text-ink-2">
              Tried: {trials.map((t) => `${t.teeth.map(name).join('+')} ${t.home ? 'home' : 'open'}`).join(', ')}.
            </p>
          )}
        </div>
      )}
    </section>
  );
}
