import { CASE_STATES, type CaseFile, JAWS } from '@radiant/contract';
import { rowOf } from '@radiant/core';
import { Redo2, Undo2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { useSentence } from '../../../data/case-context.js';
import { useMayWrite, useScansToPut } from '../../../shell/ReadOnlyNote.js';
import { day, number } from '../../../ui/format.js';
import { HandBite } from './HandBite.js';
import { WAYS } from './hands.js';
import { PickedTeeth } from './PickedTeeth.js';
import type { LaidScan } from './shown-jaw.js';
import { isGround, useHandOver } from './use-hand-over.js';
import type { Hands } from './use-hands.js';
import type { OwnScanWork } from './use-own-scan.js';
import type { Ways } from './use-ways.js';

interface Parts {
  readonly file: CaseFile;
  readonly scan: OwnScanWork;
  readonly state: LaidScan;
  readonly hands: Hands;
  readonly ways: Ways;
}

/** How the scan lies, which teeth were picked, and what may become of it. */
export function LaidPanel({ back, ...parts }: Parts & { back: ReactNode }) {
  const { scan, state, hands } = parts;
  return (
    <>
      <Steps scan={scan} />
      <HowItLies {...parts} />
      <Doubts state={state} />
      <PickedTeeth
        picked={state.picked}
        chosen={hands.chosen}
        setChosen={hands.setChosen}
        row={rowOf(state.jaw)}
        renumber={scan.renumber}
        disabled={scan.busy}
      />
      <p className="mb-4 text-note">{back}</p>
      <HandOver {...parts} />
    </>
  );
}

/** What was done by hand: back, forth, and what was brought back from an earlier visit. */
function Steps({ scan }: { scan: OwnScanWork }) {
  const { done, undone, from } = scan.steps;
  const [back, forth] = [done.length > 1, undone.length > 0];
  if (!back && !forth) return null;
  return (
    <section aria-label="What was done by hand" className="mb-3">
      {from && (
        <p role="status" className="mb-1.5 text-note text-ink-2">
          As you left it {day(from)}, kept in this browser until the scan is used.
        </p>
      )}
      <div className="flex flex-wrap items-center gap-1">
        <button
          type="button"
          className="chip chip-flat"
          disabled={!back || scan.busy}
          title="Ctrl Z"
          onClick={() => void scan.undo()}
        >
          <Undo2 size={14} aria-hidden="true" /> take back
        </button>
        <button
          type="button"
          className="chip chip-flat"
          disabled={!forth || scan.busy}
          title="Ctrl Shift Z, Ctrl Y"
          onClick={() => void scan.redo()}
        >
          <Redo2 size={14} aria-hidden="true" /> do again
        </button>
        {from && (
          <button type="button" className="how ml-1 text-note" disabled={scan.busy} onClick={() => void scan.anew()}>
            begin anew
          </button>
        )}
      </div>
    </section>
  );
}

function HowItLies({ scan, state, hands, ways }: Parts) {
  const mayWrite = useMayWrite('shape');
  const { way, same, across } = ways;
  const { jaw } = state;
  const offered = WAYS.filter(
    ([w]) =>
      w === 'shape' ||
      w === 'clicks' ||
      (w === 'first' ? !!same : !!across && (w === 'bite' || (w === 'hand' && jaw === 'lower'))),
  );
  const other = (j: 'upper' | 'lower') => {
    if (j === jaw) return;
    void scan.layByShape(j);
  };
  return (
    <>
      <div className="mb-3 flex gap-1">
        {JAWS.map((j) => (
          <button
            key={j}
            type="button"
            className="chip chip-flat"
            aria-pressed={jaw === j}
            disabled={scan.busy}
            onClick={() => other(j)}
          >
            {j} jaw
          </button>
        ))}
      </div>
      <div className="mb-3 flex flex-wrap gap-1">
        {offered.map(([w, word]) => (
          <button
            key={w}
            type="button"
            className="chip chip-flat"
            aria-pressed={hands.hand === 'places' ? w === 'clicks' : way === w}
            disabled={scan.busy}
            onClick={() => void ways.lay(w)}
          >
            {word}
          </button>
        ))}
      </div>
      {way === 'hand' && state.laid.bite && (
        <HandBite hand={ways.byHand} bite={state.laid.bite} busy={scan.busy} put={ways.put} />
      )}
      {same && mayWrite && way !== 'hand' && (
        <p className="mb-3 text-note">
          <button
            type="button"
            className="how"
            disabled={scan.busy}
            onClick={() => hands.take(hands.hand === 'both' ? 'choose' : 'both')}
          >
            {hands.hand === 'both' ? 'leave it as it lies' : 'lay it by three places on both scans'}
          </button>
        </p>
      )}
    </>
  );
}

/** How well it lies on the case's scan, and what makes one doubt that it lies well. */
function Doubts({ state: { laid, picked } }: { state: LaidScan }) {
  const said = useSentence();
  return (
    <>
      {laid.on && (
        <div className="finding mb-3" data-weight={laid.on.doubt ? 'stop' : 'good'} role="status">
          <b className="font-[650]">
            {laid.on.doubt
              ? 'Doubtful'
              : `${Math.round(100 * laid.on.share)} % of it is the same; 95 % of that lies within ${number(laid.on.p95Mm, 2)} mm`}
          </b>
          {laid.on.doubt && <span className="block text-note text-ink-2">{laid.on.doubt}</span>}
          {laid.on.teethShare !== undefined && laid.on.gumShare !== undefined && (
            <span className="block text-note text-ink-2">
              the same: {Math.round(100 * laid.on.teethShare)} % of the teeth, {Math.round(100 * laid.on.gumShare)} % of
              gum, palate and back teeth
            </span>
          )}
        </div>
      )}
      {picked.doubt && (
        <div className="finding mb-3" data-weight="stop" role="status">
          <b className="font-[650]">Look at the row of teeth</b>
          <span className="block text-note text-ink-2">{said(picked.doubt)}</span>
        </div>
      )}
      {laid.symmetry < 0.7 && !picked.doubt && (
        <div className="finding mb-3" data-weight="watch">
          <b className="font-[650]">The two sides are unlike</b>
          <span className="block text-note text-ink-2">
            Look whether the front is in front; or orient it with three clicks (K).
          </span>
        </div>
      )}
    </>
  );
}

function HandOver({ file, scan, state, ways }: Parts) {
  const mayShape = useMayWrite('shape');
  const put = useScansToPut();
  const mayUse = put === 'any' || (put === 'wax-ups' && !isGround(file));
  const { saving, use, becomePlan } = useHandOver(file, scan, state.jaw, ways);
  const said = scan.refusal ?? saving;
  return (
    <div className="sticky -bottom-4 -mx-[18px] border-t border-hair bg-leaf px-[18px] py-3">
      {said && (
        <p role="alert" className="mb-2 text-note text-stop">
          {said}
        </p>
      )}
      {mayUse && (
        <>
          <button
            type="button"
            className="btn w-full"
            disabled={scan.busy || state.picked.teeth.length === 0}
            onClick={() => void use()}
          >
            {isGround(file)
              ? 'Use this scan'
              : `Keep it as the ${state.jaw} jaw, ${CASE_STATES[file.state ?? 'before']}`}
          </button>
          {mayShape && state.laid.on && (
            <button
              type="button"
              className="btn btn-ghost mt-2 w-full"
              disabled={scan.busy}
              onClick={() => void becomePlan()}
            >
              Make its front teeth the planned contour
            </button>
          )}
        </>
      )}
    </div>
  );
}
