import { standingOf, standingWords } from '@radiant/contract';
import { GATES, type GateId, type Step } from '@radiant/core';
import { useId, useState } from 'react';
import { useCase, useSection } from '../../data/case-context.js';
import type { Chair } from './use-chair.js';

/** Whose word it is, beside whoever is signed in. */
const PATIENTS: readonly GateId[] = ['contour', 'word', 'colour'];

/** A gate: who says so; or not met, and why it goes on all the same. */
export function GateAsk({ chair, step, gate }: { chair: Chair; step: Step; gate: GateId }) {
  const { who } = useCase();
  const [asked, setAsked] = useState(false);
  const [because, setBecause] = useState('');
  const id = useId();
  const not = chair.refused(gate) || asked;
  const sayers = PATIENTS.includes(gate) ? [who.name, 'the patient'] : [who.name];
  if (!not)
    return (
      <div className="flex flex-wrap gap-3">
        {gate === 'contour' && <ContourKnown />}
        {sayers.map((s) => (
          <button
            key={s}
            type="button"
            className="btn min-h-16 flex-1 text-figure"
            onClick={() => chair.answer(step, gate, true, s)}
          >
            Yes, says {s}
          </button>
        ))}
        <button
          type="button"
          className="btn btn-ghost min-h-16 text-figure"
          onClick={() => {
            setAsked(true);
            chair.answer(step, gate, false, who.name);
          }}
        >
          Not met
        </button>
      </div>
    );
  return (
    <div>
      <p role="alert" className="mb-2 text-lead font-semibold text-stop">
        Not met: {GATES[gate]}. It stands in the record. Stop here, or say why it goes on.
      </p>
      <label htmlFor={id} className="text-note text-ink-2">
        It goes on because
      </label>
      <input
        id={id}
        className="field mb-3 min-h-12 w-full px-3 text-lead"
        value={because}
        maxLength={400}
        onChange={(e) => setBecause(e.target.value)}
      />
      <div className="flex flex-wrap gap-3">
        <button
          type="button"
          className="btn min-h-16 flex-1 text-figure"
          onClick={() => {
            setAsked(false);
            chair.answer(step, gate, true, who.name);
          }}
        >
          It is met now
        </button>
        <button
          type="button"
          className="btn btn-ghost min-h-16 flex-1 text-figure"
          disabled={because.trim() === ''}
          onClick={() => {
            setAsked(false);
            chair.answer(step, gate, false, who.name, because.trim());
          }}
        >
          Go on all the same
        </button>
      </div>
    </div>
  );
}

/** What the case itself knows of the contour's approval: whoever answers need not remember it. */
function ContourKnown() {
  const { detail } = useCase();
  const { data } = useSection('shape');
  const standing = standingOf(data.teeth, detail.contours);
  return (
    <p
      className={`basis-full text-lead ${standing.kind === 'approved' ? 'text-ink-2' : 'font-semibold text-removed-ink'}`}
    >
      In this case the contour is {standingWords(standing)}.
    </p>
  );
}
