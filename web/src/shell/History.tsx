import { type SectionHistory, type SectionName, type SectionState, sectionOf } from '@radiant/contract';
import { History as Clock, X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import useSWRInfinite from 'swr/infinite';
import { api, sentenceOf } from '../data/api.js';
import { useCase, useSection } from '../data/case-context.js';
import { type Change, changes } from '../data/changes.js';
import { placeOf, valueWords } from '../data/clash-words.js';
import { moment } from '../ui/format.js';
import { Trouble, Waiting } from '../ui/Waiting.js';

/** So many changes of a step are named; the rest are counted. */
const NAMED = 2;

/** What a step changed, in a line. */
function stepWords(step: readonly Change[]): string {
  if (step.length === 0) return 'saved as it was';
  const words = step
    .slice(0, NAMED)
    .map(({ path, before, after }) =>
      before === undefined || before === null
        ? `${placeOf(path, after)}: ${valueWords(after)}`
        : `${placeOf(path, after ?? before)}: ${valueWords(before)} → ${valueWords(after)}`,
    );
  return `${words.join('; ')}${step.length > NAMED ? `; and ${step.length - NAMED} more` : ''}`;
}

/** The states in which a section was saved, each by what changed: to be looked at, and to go back to. */
export function History({ section }: { section: SectionName }) {
  const view = useSection(section);
  const [open, setOpen] = useState(false);
  if (view.version === 0) return null;
  return (
    <Dialog.Root open={open} onOpenChange={setOpen} modal={false}>
      <Dialog.Trigger asChild>
        <button
          type="button"
          aria-label={`History of ${section}`}
          title="History"
          className="rounded p-1 hover:bg-porcelain"
        >
          <Clock size={16} aria-hidden="true" />
        </button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-[108px] right-3 z-30 flex max-h-[calc(100dvh-160px)] w-[360px] max-w-[96vw] flex-col rounded-xl border border-hair bg-leaf shadow-xl"
          onInteractOutside={(e) => e.preventDefault()}
        >
          <div className="flex items-baseline justify-between gap-4 px-5 pt-4 pb-2">
            <Dialog.Title className="title">History of {section}</Dialog.Title>
            <Dialog.Close className="rounded p-1 hover:bg-porcelain" aria-label="Close the history">
              <X size={16} aria-hidden="true" />
            </Dialog.Close>
          </div>
          <States section={section} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function States({ section }: { section: SectionName }) {
  const { detail } = useCase();
  const { store, looked, version } = useSection(section);
  const { data, error, size, setSize, mutate } = useSWRInfinite(
    // With another newest state all of it is asked for again.
    (page, before: SectionHistory | null) =>
      page > 0 && !before?.more
        ? null
        : ([
            `/cases/${detail.id}/sections/${section}/history${page > 0 ? `?before=${before?.states.at(-1)?.version}` : ''}`,
            version,
          ] as const),
    ([path]: readonly [string, number]) => api.get<SectionHistory>(path),
    { revalidateFirstPage: false },
  );
  if (!data)
    return error ? (
      <Trouble sentence={sentenceOf(error)} retry={() => void mutate()} />
    ) : (
      <Waiting what="the history" />
    );
  const states = data.flatMap((p) => p.states);
  const { parts } = sectionOf(section);
  const words = (s: SectionState, older: SectionState | undefined): string =>
    s.version === 1 ? 'begun' : older ? stepWords(changes(parts, older.data, s.data)) : '…';
  const look = store.look as (at: SectionState | undefined) => void;
  return (
    <ol className="min-h-0 overflow-y-auto px-5 pb-4">
      {states.map((s, i) => {
        const shown = looked ? looked.version === s.version : i === 0;
        return (
          <li key={s.version} className="border-t border-hair py-2.5" aria-current={shown || undefined}>
            <span className="flex items-baseline justify-between gap-3 text-note text-ink-2">
              <span>
                no. {s.version}, {s.at ? moment(s.at) : ''}
              </span>
              <span>{s.by}</span>
            </span>
            <span className={`block break-words ${shown ? 'font-semibold' : ''}`}>{words(s, states[i + 1])}</span>
            {i === 0 ? (
              looked && (
                <button type="button" className="how text-note" onClick={() => look.call(store, undefined)}>
                  back to how it is now
                </button>
              )
            ) : (
              <button
                type="button"
                className="how text-note"
                disabled={shown}
                onClick={() => look.call(store, s)}
                aria-label={`Look at no. ${s.version}`}
              >
                {shown ? 'is shown' : 'look at it'}
              </button>
            )}
          </li>
        );
      })}
      {data.at(-1)?.more && (
        <li className="border-t border-hair py-2.5">
          <button type="button" className="how" onClick={() => void setSize(size + 1)}>
            older
          </button>
        </li>
      )}
    </ol>
  );
}

/** While an earlier state is looked at: what it is, and the two ways on. */
export function LookedAt({ section, mayGoBack }: { section: SectionName; mayGoBack: boolean }) {
  const { looked, store } = useSection(section);
  // What stands on this section elsewhere would be worked out on the earlier state, and not say so.
  useEffect(() => () => store.look(undefined), [store]);
  if (!looked) return null;
  return (
    <p
      role="status"
      className="col-span-2 flex flex-wrap items-center justify-center gap-x-4 gap-y-1 bg-plum px-4 py-1.5 text-white"
    >
      <span>
        You look at {section} no. {looked.version}, saved {looked.at ? moment(looked.at) : ''} by {looked.by}.
      </span>
      {mayGoBack && (
        <button type="button" className="font-semibold underline underline-offset-2" onClick={() => store.goBack()}>
          Go back to it
        </button>
      )}
      <button
        type="button"
        className="font-semibold underline underline-offset-2"
        onClick={() => store.look(undefined)}
      >
        Return to now
      </button>
    </p>
  );
}
