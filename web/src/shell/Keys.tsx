import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useCase } from '../data/case-context.js';
import { useHotkeys, useKeyList } from '../ui/hotkeys.js';
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
      run: (key) => {
        const next = teeth[teeth.indexOf(tooth) + (key === '[' ? -1 : 1)];
        if (next) selectTooth(next);
      },
    },
    {
      keys: `Alt 1 … ${Math.min(9, stages.length)}`,
      does: 'stage',
      on: stages.slice(0, 9).map((_, i) => `alt+${i + 1}`),
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
          className="fixed left-1/2 top-1/2 z-40 max-h-[90vh] w-[460px] -translate-x-1/2 -translate-y-1/2 overflow-y-auto rounded-xl bg-leaf p-7 shadow-xl"
        >
          <Dialog.Title className="title mb-4 text-figure">Keys</Dialog.Title>
          <KeyList />
          <Dialog.Close className="btn btn-ghost mt-6">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function KeyList() {
  const keys = useKeyList();
  return (
    <dl className="grid grid-cols-[150px_1fr] gap-y-2">
      {keys.map((k) => (
        <div key={`${k.keys} ${k.does}`} className="contents">
          <dt>
            <kbd className="key">{k.keys}</kbd>
          </dt>
          <dd className="text-ink-2">{k.does}</dd>
        </div>
      ))}
    </dl>
  );
}
