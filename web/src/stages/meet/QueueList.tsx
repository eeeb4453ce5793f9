import { arrivedOf, type ItemState, isMoving, type QueueItem, type UploadQueue } from '../../data/upload-queue.js';

const WORDS: Record<ItemState, string> = {
  waiting: 'waits',
  sending: 'on its way',
  done: 'arrived',
  already: 'held already',
  refused: 'refused',
  cut: 'cut off',
};

/** The files on their way and what became of each. */
export function QueueList({ items, queue }: { items: readonly QueueItem[]; queue: UploadQueue }) {
  if (items.length === 0) return null;
  const moving = isMoving(items);
  return (
    <section aria-label="Files on their way" className="rounded-xl border border-hair bg-leaf px-4 py-3">
      <div className="mb-1 flex items-baseline justify-between gap-4">
        <p role="status" className="font-semibold">
          {arrivedOf(items)} of {items.length} arrived
        </p>
        <button type="button" className="how text-note" onClick={() => (moving ? queue.callOff() : queue.clear())}>
          {moving ? 'call off' : 'clear the list'}
        </button>
      </div>
      <ul className="max-h-[132px] overflow-y-auto">
        {items.map((i) => (
          <li key={i.key} className="flex items-baseline gap-3 py-0.5 text-note">
            <span className="w-[220px] shrink-0 truncate">{i.name}</span>
            <span className="w-[84px] shrink-0">{WORDS[i.state]}</span>
            {i.state === 'sending' ? (
              <progress value={i.share} max={1} aria-label={`${i.name}, sent`} className="h-1.5 flex-1 accent-plum" />
            ) : (
              <span
                className={`min-w-0 flex-1 ${i.state === 'refused' || i.state === 'cut' ? 'text-stop' : 'text-ink-2'}`}
              >
                {i.sentence}
              </span>
            )}
            {i.state === 'cut' && (
              <button type="button" className="how" onClick={() => queue.again(i.key)}>
                send again
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
