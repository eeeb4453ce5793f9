import type { Jaw } from '@radiant/core';
import { useId } from 'react';
import { useCase, useSection } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { moment } from '../../ui/format.js';

/** Which scan of the prepared teeth is judged, where there are several: after a recut the one before stays comparable. */
export function ScanField({ jaw, shown }: { jaw: Jaw; shown: string | undefined }) {
  const { detail } = useCase();
  const { data, set } = useSection('verify');
  const mayWrite = useMayWrite('verify');
  const id = useId();
  const own = detail.files.filter(
    (f) => f.role === 'working' && f.jaw === jaw && f.state === 'prepared' && !f.removedAt,
  );
  if (own.length < 2) return null;
  return (
    <div className="mb-2">
      <label htmlFor={id} className="text-tiny text-ink-2">
        Scan of the prepared teeth
      </label>
      <select
        id={id}
        className="field mt-0.5 w-full px-2 py-1 text-note"
        value={shown ?? ''}
        disabled={!mayWrite}
        onChange={(e) => set({ ...data, scanId: e.target.value })}
      >
        {[...own].reverse().map((f) => (
          <option key={f.id} value={f.id}>
            {f.name}, {moment(f.at)}
          </option>
        ))}
      </select>
    </div>
  );
}
