import type { SectionName } from '@radiant/contract';
import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { useSection } from '../data/case-context.js';
import { labelOf, valueWords } from '../data/clash-words.js';
import { moment } from '../ui/format.js';
import { FigureTable } from './FigureTable.js';

type Side = 'mine' | 'theirs';

/**
 * Asks where two people have changed the same, and nothing else: what only one of them has touched is put together
 * already. Nothing is chosen beforehand.
 */
export function ConflictDialog({ section }: { section: SectionName }) {
  const { conflict, store } = useSection(section);
  const [picked, setPicked] = useState<Record<number, Side>>({});
  const clashes = conflict?.clashes ?? [];
  // Another list of clashes is another question.
  const question = JSON.stringify(clashes);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the question's text stands for it
  useEffect(() => setPicked({}), [question]);
  if (!conflict) return null;
  const { theirs } = conflict;
  const open = clashes.filter((_, i) => !picked[i]).length;
  const other = theirs.by ?? 'Somebody';
  const all = (side: Side) => setPicked(Object.fromEntries(clashes.map((_, i) => [i, side])));
  return (
    <Dialog.Root open>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/40" />
        <Dialog.Content
          onEscapeKeyDown={(e) => e.preventDefault()}
          className="fixed left-1/2 top-1/2 z-40 flex max-h-[86vh] w-[760px] max-w-[96vw] -translate-x-1/2 -translate-y-1/2 flex-col rounded-xl bg-leaf p-7 shadow-xl"
        >
          <Dialog.Title className="title text-figure">
            {other} changed “{section}” meanwhile
          </Dialog.Title>
          <Dialog.Description className="mb-4 mt-1 text-ink-2">
            {theirs.at ? `${moment(theirs.at)}. ` : ''}Nothing was overwritten. What only one of you has changed stands
            as they made it; choose where both have changed the same.
          </Dialog.Description>
          <div className="min-h-0 flex-1 overflow-auto pt-5">
            <FigureTable aria-label="What both have changed">
              <thead>
                <tr>
                  <th scope="col">both changed</th>
                  <th scope="col">before</th>
                  <th scope="col">yours</th>
                  <th scope="col">{other}’s</th>
                </tr>
              </thead>
              <tbody>
                {clashes.map((c, i) => (
                  <tr key={c.path.join('/')}>
                    <td>{labelOf(c)}</td>
                    <td className="text-ink-2">{valueWords(c.base)}</td>
                    {(['mine', 'theirs'] as const).map((side) => (
                      <td key={side}>
                        <button
                          type="button"
                          aria-pressed={picked[i] === side}
                          onClick={() => setPicked({ ...picked, [i]: side })}
                          className={`rounded-md border px-2 py-1 ${picked[i] === side ? 'border-plum bg-plum text-white' : 'border-hair hover:bg-plum-soft'}`}
                        >
                          {valueWords(c[side])}
                        </button>
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </FigureTable>
          </div>
          <div className="mt-5 flex flex-wrap items-center gap-3">
            <button
              type="button"
              className="btn"
              disabled={open > 0}
              onClick={() => store.resolve((i) => picked[i] ?? 'theirs')}
            >
              {open > 0 ? `${open} still to choose` : 'Keep what is marked'}
            </button>
            <button type="button" className="btn btn-ghost" onClick={() => all('mine')}>
              Mark all of mine
            </button>
            <button type="button" className="btn btn-ghost" onClick={() => all('theirs')}>
              Mark all of theirs
            </button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
