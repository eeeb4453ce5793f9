import { Dialog } from 'radix-ui';
import { type KeyboardEvent, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useCase } from '../data/case-context.js';
import {
  actsOf,
  firstKeys,
  giveKey,
  isHotkey,
  type KeyAct,
  keyLabel,
  keyOf,
  refusedKey,
  setSingleOff,
  useHotkeys,
  useKeyList,
  useOwnKeys,
} from '../ui/hotkeys.js';
import { type StageDefinition, useStages } from './stage.js';
import { useStripTeeth } from './use-strip-teeth.js';

/** The keys that work on every stage, and the list of all keys on `?`. */
export function Keys({ stage }: { stage: StageDefinition }) {
  const [open, setOpen] = useState(false);
  const { tooth, selectTooth } = useCase();
  const { teeth } = useStripTeeth(stage);
  const stages = useStages();
  const navigate = useNavigate();
  const { id } = useParams();
  useHotkeys('everywhere', [
    {
      keys: '[ ]',
      does: 'tooth before, tooth after',
      on: ['[', ']'],
      each: ['tooth before', 'tooth after'],
      run: (key) => {
        const next = teeth[teeth.indexOf(tooth) + (key === '[' ? -1 : 1)];
        if (next) selectTooth(next);
      },
    },
    {
      keys: `Alt 1 … ${Math.min(9, stages.length)}`,
      does: 'stage',
      on: stages.slice(0, 9).map((_, i) => `alt+${i + 1}`),
      each: stages.slice(0, 9).map((s) => `go to ${s.name}`),
      run: (key) => navigate(`/cases/${id}/${stages[Number(key.at(-1)) - 1]?.name}`),
    },
    { keys: '?', does: 'this list', on: ['?'], run: () => setOpen(true) },
  ]);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-1/2 z-40 max-h-[90vh] w-[560px] max-w-[96vw] -translate-x-1/2 -translate-y-1/2 overflow-y-auto rounded-xl bg-leaf p-7 shadow-xl"
        >
          <Dialog.Title className="title mb-4 text-figure">Keys</Dialog.Title>
          <KeyList />
          <Dialog.Close className="btn btn-ghost mt-6 block">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** What can be pressed now, each key with a way to give it another. */
function KeyList() {
  const keys = useKeyList();
  const { singleOff, own } = useOwnKeys();
  const [asking, setAsking] = useState<string>();
  const [refusal, setRefusal] = useState<string>();
  const give = (act: KeyAct, e: KeyboardEvent) => {
    if (asking !== act.id) return;
    const key = keyOf(e.nativeEvent);
    if (['shift', 'control', 'alt', 'meta', 'tab', 'shift+tab'].includes(key)) return;
    e.preventDefault();
    e.stopPropagation();
    if (key === 'escape') return setAsking(undefined);
    const why = refusedKey(act, key);
    setRefusal(why);
    if (why) return;
    giveKey(act, key);
    setAsking(undefined);
  };
  return (
    <>
      <label className="mb-4 flex items-center gap-2.5">
        <input
          type="checkbox"
          className="size-4 accent-plum"
          checked={!singleOff}
          onChange={(e) => setSingleOff(!e.target.checked)}
        />
        keys without Ctrl or Alt work
      </label>
      <p className="mb-3 text-note text-ink-2">
        Press a key’s button, then the key that it is to be. Changes are for you, in this browser.
      </p>
      {refusal && (
        <p role="alert" className="mb-3 text-note text-stop">
          {refusal}
        </p>
      )}
      <dl className="grid grid-cols-[190px_1fr] gap-y-2 max-sm:grid-cols-1">
        {keys.map((k) => (
          <div key={`${k.keys} ${k.does}`} className="contents">
            <dt className="flex flex-wrap gap-1">
              {isHotkey(k) ? (
                actsOf(k).map((act) => (
                  <button
                    key={act.id}
                    type="button"
                    className="key min-h-6 min-w-6 aria-pressed:bg-plum aria-pressed:text-white"
                    aria-pressed={asking === act.id}
                    aria-label={`${keyLabel(act.now)}: ${act.name}, change`}
                    onClick={() => {
                      setRefusal(undefined);
                      setAsking(asking === act.id ? undefined : act.id);
                    }}
                    onKeyDown={(e) => give(act, e)}
                  >
                    {asking === act.id ? 'press a key' : keyLabel(act.now)}
                  </button>
                ))
              ) : (
                <kbd className="key">{k.keys}</kbd>
              )}
            </dt>
            <dd className="text-ink-2">{k.does}</dd>
          </div>
        ))}
      </dl>
      {Object.keys(own).length > 0 && (
        <button type="button" className="how mt-4" onClick={firstKeys}>
          all keys as they were
        </button>
      )}
    </>
  );
}
