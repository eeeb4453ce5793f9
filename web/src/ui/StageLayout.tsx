import type { ReactNode } from 'react';
import { useShownKey } from './hotkeys.js';

/**
 * A stage's page: the bench in the middle, the panel at the right, the foot with what the keys do. On a narrow screen,
 * or a much enlarged one, bench and panel lie under each other and the page scrolls.
 * @param surround grey for pictures and jaws, which keep a height of their own; on paper the bench is as long as it is
 */
export function Stage({
  bench,
  panel,
  foot,
  surround = 'paper',
}: {
  bench: ReactNode;
  panel: ReactNode;
  foot: ReactNode;
  surround?: 'paper' | 'grey';
}) {
  return (
    <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_328px] grid-rows-[minmax(0,1fr)_30px] max-lg:flex max-lg:flex-1 max-lg:flex-col">
      <main
        className={`relative min-h-0 overflow-hidden ${surround === 'grey' ? 'bg-bench max-lg:h-[max(430px,64svh)] max-lg:shrink-0' : 'bg-porcelain max-lg:overflow-visible'}`}
      >
        {bench}
      </main>
      <aside className="min-h-0 overflow-y-auto border-l border-hair bg-leaf px-[18px] py-4 max-lg:flex-1 max-lg:overflow-visible max-lg:border-t max-lg:border-l-0">
        {panel}
      </aside>
      <footer className="col-span-2 flex items-center gap-[22px] overflow-hidden whitespace-nowrap border-t border-hair bg-leaf px-5 text-fine text-ink-2 max-xl:gap-3 max-xl:px-3 max-lg:flex-wrap max-lg:gap-y-1 max-lg:whitespace-normal max-lg:py-2">
        {foot}
      </footer>
    </div>
  );
}

/** One key or more and what they do; as a person has set them, and nothing where keys are off. */
export function KeyHint({ keys, does }: { keys: readonly string[]; does: string }) {
  const shown = useShownKey();
  const now = keys.map(shown).filter((k) => k !== undefined);
  if (now.length === 0) return null;
  return (
    <span>
      {now.map((k) => (
        <kbd key={k} className="key mr-1">
          {k}
        </kbd>
      ))}
      {does}
    </span>
  );
}

/** A bench that has nothing to show yet says what to do. */
export function Empty({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="flex h-full items-center justify-center p-10">
      <div className="max-w-[52ch] rounded-xl bg-leaf p-8 text-center shadow-sm">
        <h2 className="title mb-2">{title}</h2>
        <div className="text-ink-2">{children}</div>
      </div>
    </div>
  );
}
