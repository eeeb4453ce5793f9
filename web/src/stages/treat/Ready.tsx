import { laidOut, VISITS } from '@radiant/core';
import { Choices } from './Choices.js';
import { MustNot } from './MustNot.js';
import { PieceTable } from './PieceTable.js';
import { StepList } from './StepList.js';
import type { Chair } from './use-chair.js';

/** What stands on the bench before a visit begins: which one, from what its steps follow, and all of them. */
export function Ready({ chair, mayWrite }: { chair: Chair; mayWrite: boolean }) {
  const { steps } = chair.protocol;
  const fixes = chair.visit === 'seating' || chair.visit === 'try-in';
  return (
    <div className="h-full overflow-y-auto px-6 pt-4 pb-6">
      <fieldset className="mb-4 flex flex-wrap gap-1.5">
        <legend className="sr-only">Which visit</legend>
        {chair.kinds.map((k) => (
          <button
            key={k}
            type="button"
            className="chip chip-flat min-h-12"
            aria-pressed={k === chair.visit}
            onClick={() => chair.choose(k)}
          >
            {VISITS[k]}
          </button>
        ))}
      </fieldset>
      <div className="mb-4 flex items-center gap-4">
        <div className="flex-1">
          <h2 className="title text-head">{VISITS[chair.visit]}</h2>
          <p className="text-note text-ink-2">
            {steps.length} steps from what is decided
            {chair.before > 0 && `; held ${chair.before === 1 ? 'once' : `${chair.before} times`} before`}.
          </p>
        </div>
        {mayWrite && (
          <button type="button" className="btn min-h-16 px-8 text-figure" onClick={chair.begin}>
            {chair.before > 0 ? 'begin it again' : 'begin the visit'}
          </button>
        )}
      </div>
      <MustNot all={chair.protocol.mustNot} />
      <Choices visit={chair.visit} at={chair.at} mayWrite={mayWrite} />
      {fixes && <PieceTable pieces={chair.at.pieces} mayWrite={mayWrite} />}
      <h3 className="subtitle mt-5 mb-1">Lay out</h3>
      <p className="text-note">{laidOut(chair.protocol).join(' · ')}</p>
      <h3 className="subtitle mt-5">Steps</h3>
      <StepList chair={chair} />
    </div>
  );
}
