import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useCase } from '../data/case-context.js';
import { STAGES, teethOf } from './stages.js';

const EVERYWHERE: readonly (readonly [string, string])[] = [
  ['[ ]', 'tooth before, tooth after'],
  ['Alt 1 … 6', 'stage'],
  ['Ctrl Z', 'undo'],
  ['Ctrl Shift Z', 'redo'],
  ['?', 'this list'],
];

const BY_STAGE: Readonly<Record<string, readonly (readonly [string, string])[]>> = {
  read: [
    ['click', 'set the point that is next'],
    ['Tab', 'next landmark'],
    ['← ↑ → ↓', 'nudge the landmark 1 px'],
    ['Shift ← ↑ → ↓', 'nudge 0.1 px'],
    ['Delete', 'take the landmark away'],
    ['wheel, + −', 'zoom'],
    ['0', 'whole picture'],
    ['G', 'magnifier'],
    ['E', 'snap to the strongest edge near the click'],
    ['M', 'take the scan’s place, or the one that mirrors the other side'],
    ['B', 'the scan beside the photograph'],
    ['X', 'point not seen: go on to the next'],
    ['PageUp PageDown', 'view before, view after'],
    ['drag', 'pan; a landmark: move it'],
  ],
  shape: [
    ['F R L A', 'view from front, right, left, above'],
    ['E T H', 'view edge-on, from twelve o’clock, from behind'],
    ['J', 'the other jaw'],
    ['1 2 3 4', 'existing, planned, added and removed, both'],
    ['B X O S', 'brush, section, bite, in the smile'],
    [', .', 'brush smaller, larger'],
    ["; '", 'brush weaker, stronger'],
    ['M', 'brush on both sides'],
    ['Alt, Shift while drawing', 'the opposite of adding; smooth'],
    ['↑ ↓ in a field', 'one step; with Shift ten'],
    ['C N D P G K', 'own scan: choose, add, drag the neck line, paint tooth, paint gum, three clicks'],
  ],
  reduce: [
    ['1 … 4', 'zone: cervical, middle, incisal, edge'],
    ['M', 'through the mock-up or from the tooth'],
  ],
};

/** Whether a key press belongs to a field that is being written in. */
export function isTyping(e: KeyboardEvent): boolean {
  const t = e.target as HTMLElement | null;
  // A box to tick takes no letters, a slider only the keys that move it.
  const type = t?.tagName === 'INPUT' ? (t as HTMLInputElement).type : '';
  if (type === 'checkbox' || type === 'radio') return e.key === ' ';
  if (type === 'range') return /^(Arrow|Page|Home|End)/.test(e.key);
  return !!t && (t.tagName === 'INPUT' || t.tagName === 'TEXTAREA' || t.tagName === 'SELECT' || t.isContentEditable);
}

/** The keys that work on every stage, and the list of all keys on `?`. */
export function Keys({ stage }: { stage: string }) {
  const [open, setOpen] = useState(false);
  const { tooth, selectTooth } = useCase();
  const navigate = useNavigate();
  const { id } = useParams();
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (isTyping(e)) return;
      const by = e.key === '[' ? -1 : e.key === ']' ? 1 : 0;
      const row = teethOf(stage, tooth);
      const next = by && row[row.indexOf(tooth) + by];
      if (next) selectTooth(next);
      else if (e.key === '?') setOpen(true);
      else if (e.altKey && /^[1-6]$/.test(e.key)) navigate(`/cases/${id}/${STAGES[Number(e.key) - 1]?.name}`);
      else return;
      e.preventDefault();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [tooth, selectTooth, navigate, id, stage]);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-1/2 z-40 w-[460px] -translate-x-1/2 -translate-y-1/2 rounded-xl bg-leaf p-7 shadow-xl"
        >
          <Dialog.Title className="title mb-4 text-[21px]">Keys</Dialog.Title>
          <dl className="grid grid-cols-[150px_1fr] gap-y-2">
            {[...(BY_STAGE[stage] ?? []), ...EVERYWHERE].map(([k, what]) => (
              <div key={k} className="contents">
                <dt>
                  <kbd className="key">{k}</kbd>
                </dt>
                <dd className="text-ink-2">{what}</dd>
              </div>
            ))}
          </dl>
          <Dialog.Close className="btn btn-ghost mt-6">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
