import type { PrepFinding } from '@radiant/core';
import { useId, useState } from 'react';
import { useCase, useSection, useSentence } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { moment } from '../../ui/format.js';
import { findingKey } from './words.js';

const LEAST = 3;

/** Takes a finding as it is, with a reason, or says who did. */
export function Accepting({ finding }: { finding: PrepFinding }) {
  const { data, set } = useSection('verify');
  const { who } = useCase();
  const sentence = useSentence();
  const mayWrite = useMayWrite('verify');
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState('');
  const id = useId();
  const key = findingKey(finding);
  const own = data.accepted.find((a) => findingKey(a) === key);
  const others = data.accepted.filter((a) => a !== own);
  if (own)
    return (
      <p className="basis-full">
        Taken as it is by {own.by}, {moment(own.at)}: “{own.reason}”{' '}
        {own.found !== sentence(finding.says) && `Then: ${own.found}. `}
        {mayWrite && (
          <button type="button" className="how" onClick={() => set({ ...data, accepted: others })}>
            no longer
          </button>
        )}
      </p>
    );
  if (!mayWrite) return null;
  if (!open)
    return (
      <button type="button" className="how" onClick={() => setOpen(true)}>
        take it as it is
      </button>
    );
  return (
    <form
      className="mt-1.5 basis-full"
      onSubmit={(e) => {
        e.preventDefault();
        if (reason.trim().length < LEAST) return;
        const { tooth, check, place } = finding;
        const accepted = {
          tooth,
          check,
          place,
          reason: reason.trim(),
          by: who.name,
          at: new Date().toISOString(),
          found: sentence(finding.says).slice(0, 300),
        };
        set({ ...data, accepted: [...others, accepted] });
        setOpen(false);
        setReason('');
      }}
    >
      <label htmlFor={id} className="text-tiny text-ink-2">
        Why it is taken as it is
      </label>
      <textarea
        id={id}
        className="field mt-0.5 w-full px-2 py-1 text-note"
        rows={2}
        maxLength={500}
        value={reason}
        onChange={(e) => setReason(e.target.value)}
      />
      <div className="mt-1 flex gap-2">
        <button type="submit" className="btn" disabled={reason.trim().length < LEAST}>
          Accept
        </button>
        <button type="button" className="btn btn-ghost" onClick={() => setOpen(false)}>
          Leave it open
        </button>
      </div>
    </form>
  );
}
