import { type CaseFile, KEPT_DAYS } from '@radiant/contract';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { api, sentenceOf } from '../../data/api.js';
import { useCase } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { day } from '../../ui/format.js';

/** Files that were put away, each with the way back. Nothing is shown while there are none. */
export function PutAway() {
  const { detail, refresh } = useCase();
  const mayWrite = useMayWrite('meet');
  const [refusal, setRefusal] = useState<string>();
  if (detail.removed.length === 0) return null;
  const back = async (f: CaseFile) => {
    try {
      await api.post(`/cases/${detail.id}/files/${f.id}/bring-back`, {});
      await refresh();
    } catch (error) {
      setRefusal(sentenceOf(error));
    }
  };
  return (
    <Popover.Root>
      <Popover.Trigger className="chip chip-flat">put away: {detail.removed.length}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={8}
          className="z-20 w-[340px] rounded-xl border border-hair bg-leaf p-4 shadow-lg"
        >
          <p className="mb-2 text-note text-ink-2">
            Can be brought back for {KEPT_DAYS} days, then they are forgotten.
          </p>
          <ul>
            {detail.removed.map((f) => (
              <li key={f.id} className="flex items-baseline justify-between gap-3 border-t border-hair py-2">
                <span className="min-w-0">
                  <span className="block truncate">{f.name}</span>
                  <span className="block text-tiny text-ink-2">put away {f.removedAt ? day(f.removedAt) : ''}</span>
                </span>
                {mayWrite && (
                  <button type="button" className="how shrink-0" onClick={() => void back(f)}>
                    bring back
                  </button>
                )}
              </li>
            ))}
          </ul>
          {refusal && (
            <p role="alert" className="text-note text-stop">
              {refusal}
            </p>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
