import type { SectionData, SectionName } from '@radiant/contract';
import { Dialog } from 'radix-ui';
import { useMemo, useState } from 'react';
import { useSection } from '../data/case-context.js';
import { assemble, differences } from '../data/differences.js';
import { FigureTable } from './FigureTable.js';
import { moment } from './format.js';

/** Shows both versions side by side when another has changed the section meanwhile; the person chooses, row by row or all. */
export function ConflictDialog({ section }: { section: SectionName }) {
  const view = useSection(section);
  const { conflict, store } = view;
  const rows = useMemo(() => (conflict ? differences(view.data, conflict.data) : []), [conflict, view.data]);
  const [chosen, setChosen] = useState<Record<string, 'mine' | 'theirs'>>({});
  if (!conflict) return null;
  const pick = (key: string): 'mine' | 'theirs' => chosen[key] ?? 'mine';
  const keepChoice = () => {
    const merged = assemble(view.data, conflict.data, (key) => pick(key)) as SectionData[SectionName];
    setChosen({});
    store.resolve({ merged });
  };
  return (
    <Dialog.Root open>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/40" />
        <Dialog.Content
          onEscapeKeyDown={(e) => e.preventDefault()}
          className="fixed left-1/2 top-1/2 z-40 flex max-h-[86vh] w-[760px] max-w-[96vw] -translate-x-1/2 -translate-y-1/2 flex-col rounded-xl bg-leaf p-7 shadow-xl"
        >
          <Dialog.Title className="title text-[21px]">
            {conflict.by ?? 'Somebody'} changed “{section}” meanwhile
          </Dialog.Title>
          <Dialog.Description className="mb-4 mt-1 text-ink-2">
            {conflict.at ? `${moment(conflict.at)}. ` : ''}Nothing was overwritten. Choose for each line; your edit stays in this browser until you do.
          </Dialog.Description>
          <div className="min-h-0 flex-1 overflow-auto pt-5">
            <FigureTable aria-label="What differs">
              <thead>
                <tr>
                  <th scope="col">differs</th>
                  <th scope="col">yours</th>
                  <th scope="col">{conflict.by ?? 'theirs'}</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((r) => (
                  <tr key={r.key}>
                    <td>{r.label}</td>
                    {(['mine', 'theirs'] as const).map((side) => (
                      <td key={side}>
                        <button
                          type="button"
                          aria-pressed={pick(r.key) === side}
                          onClick={() => setChosen({ ...chosen, [r.key]: side })}
                          className={`rounded-md px-2 py-1 ${pick(r.key) === side ? 'bg-plum text-white' : 'hover:bg-plum-soft'}`}
                        >
                          {r[side]}
                        </button>
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </FigureTable>
          </div>
          <div className="mt-5 flex flex-wrap gap-3">
            <button type="button" className="btn" onClick={keepChoice}>
              Keep what is marked
            </button>
            <button type="button" className="btn btn-ghost" onClick={() => store.resolve('mine')}>
              All of mine
            </button>
            <button type="button" className="btn btn-ghost" onClick={() => store.resolve('theirs')}>
              All of theirs
            </button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
