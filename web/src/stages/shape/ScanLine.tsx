import { CASE_STATES, type CaseFile, type CaseState, keysOf } from '@radiant/contract';
import type { ReactNode } from 'react';
import { useState } from 'react';
import { api, sentenceOf } from '../../data/api.js';
import { useCase } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';

/** A scan's name and the state of the mouth that it shows: only one of the mouth as it was before is planned on. */
export function ScanLine({ file, planned, children }: { file: CaseFile; planned: boolean; children?: ReactNode }) {
  const { detail, refresh } = useCase();
  const mayWrite = useMayWrite('meet');
  const [refusal, setRefusal] = useState<string>();
  const later = (file.state ?? 'before') !== 'before';
  const path = `/cases/${detail.id}/files/${file.id}`;
  const act = async (work: () => Promise<unknown>) => {
    setRefusal(undefined);
    try {
      await work();
      await refresh();
    } catch (error) {
      setRefusal(sentenceOf(error));
    }
  };
  const say = (state: CaseState | null) => act(() => api.patch(path, { state }));
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-3 py-1.5">
      <div className="min-w-0">
        <p className="truncate" title={file.name}>
          {file.name}
        </p>
        <p>
          {planned && (
            <b className={`font-[650] ${later ? 'text-stop' : 'text-ink'}`}>
              the {file.jaw} jaw is planned on it{later && ', though it is not of the mouth before'}
            </b>
          )}
          {children}
          {mayWrite && !planned && (
            <>
              {children && ' · '}
              <button type="button" className="how" onClick={() => void act(() => api.remove(path))}>
                put away
              </button>
            </>
          )}
        </p>
      </div>
      <select
        className="h-7 rounded-md border border-hair bg-leaf px-1 text-note text-ink"
        aria-label={`State of the mouth in ${file.name}`}
        value={file.state ?? ''}
        disabled={!mayWrite}
        onChange={(e) => void say((e.target.value || null) as CaseState | null)}
      >
        <option value="">not said</option>
        {keysOf(CASE_STATES).map((k) => (
          <option key={k} value={k}>
            {CASE_STATES[k]}
          </option>
        ))}
      </select>
      {refusal && (
        <p role="alert" className="col-span-2 text-stop">
          {refusal}
        </p>
      )}
    </li>
  );
}
