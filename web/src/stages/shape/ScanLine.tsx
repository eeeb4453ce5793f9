import { CASE_STATES, type CaseFile, type CaseState, keysOf } from '@radiant/contract';
import type { ReactNode } from 'react';
import { useState } from 'react';
import { api, sentenceOf } from '../../data/api.js';
import { useCase } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';

/** A scan's name and the state of the mouth that it shows: only one of the mouth as it was before is planned on. */
export function ScanLine({ file, what, children }: { file: CaseFile; what?: string; children?: ReactNode }) {
  const { detail, refresh } = useCase();
  const mayWrite = useMayWrite('meet');
  const [refusal, setRefusal] = useState<string>();
  const say = async (state: CaseState | null) => {
    setRefusal(undefined);
    try {
      await api.patch(`/cases/${detail.id}/files/${file.id}`, { state });
      await refresh();
    } catch (error) {
      setRefusal(sentenceOf(error));
    }
  };
  return (
    <div className="mb-2">
      <p className="break-words">
        {what && <b className="font-[650] text-ink">{what} </b>}
        {file.name}
      </p>
      <p className="flex items-center gap-3">
        <select
          className="field w-auto py-0.5 text-[13px]"
          aria-label={`State of the mouth in ${file.name}`}
          value={file.state ?? ''}
          disabled={!mayWrite}
          onChange={(e) => void say((e.target.value || null) as CaseState | null)}
        >
          <option value="">state not said</option>
          {keysOf(CASE_STATES).map((k) => (
            <option key={k} value={k}>
              {CASE_STATES[k]}
            </option>
          ))}
        </select>
        {children}
      </p>
      {refusal && (
        <p role="alert" className="text-stop">
          {refusal}
        </p>
      )}
    </div>
  );
}
