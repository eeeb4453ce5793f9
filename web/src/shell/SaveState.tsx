import type { SectionName } from '@radiant/contract';
import { Redo2, Undo2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import { useSection } from '../data/case-context.js';
import type { SaveStatus } from '../data/section-store.js';
import { useHotkeys } from '../ui/hotkeys.js';
import { History } from './History.js';

const WORDS: Record<SaveStatus, string> = {
  saved: 'saved',
  waiting: 'saving …',
  saving: 'saving …',
  away: 'kept in this browser: the server is away',
  conflict: 'changed by another: choose',
  refused: 'not accepted',
  'signed-out': 'kept in this browser: sign in again',
};

const NO_TEXT = ['button', 'checkbox', 'radio', 'range', 'file', 'color', 'submit'];

/** Whether keys that go to an element write text there. */
function writesText(target: EventTarget | null): boolean {
  if (target instanceof HTMLInputElement) return !NO_TEXT.includes(target.type);
  return target instanceof HTMLTextAreaElement || (target instanceof HTMLElement && target.isContentEditable);
}

/** Whether the stage's work is saved, and undo and redo, also by keyboard. */
export function SaveState({ section }: { section: SectionName }) {
  const view = useSection(section);
  const { store } = view;
  const [since, setSince] = useState('');

  useEffect(() => {
    const tell = () => {
      if (!view.at) return setSince('');
      const s = (Date.now() - Date.parse(view.at)) / 1000;
      setSince(s < 60 ? ' a moment ago' : s < 3600 ? ` ${Math.round(s / 60)} min ago` : '');
    };
    tell();
    const t = setInterval(tell, 20_000);
    return () => clearInterval(t);
  }, [view.at]);

  // Where text is written, the browser takes back what was written there.
  const whileTyping = (e: KeyboardEvent) => !writesText(e.target);
  useHotkeys('everywhere', [
    { keys: 'Ctrl Z', does: 'undo', on: ['mod+z'], run: () => store.undo(), whileTyping },
    { keys: 'Ctrl Shift Z, Ctrl Y', does: 'redo', on: ['mod+shift+z', 'mod+y'], run: () => store.redo(), whileTyping },
  ]);

  const trouble =
    view.unkept ||
    view.status === 'away' ||
    view.status === 'conflict' ||
    view.status === 'refused' ||
    view.status === 'signed-out';
  return (
    <span className="inline-flex items-center gap-2">
      <span
        role="status"
        data-testid="save-state"
        data-status={view.status}
        className={trouble ? 'font-semibold text-removed-ink' : ''}
      >
        {view.unkept
          ? 'not saved, and this browser can’t keep it: leave the page open'
          : view.status === 'saved' && view.version === 0
            ? 'nothing written yet'
            : view.away
              ? `kept in this browser: ${view.away}`
              : WORDS[view.status]}
        {view.status === 'saved' ? (view.joined ? `, together with ${view.joined}’s changes` : since) : ''}
      </span>
      <button
        type="button"
        aria-label="Undo"
        title="Undo (Ctrl Z)"
        disabled={!view.canUndo}
        onClick={() => store.undo()}
        className="rounded p-1 hover:bg-porcelain"
      >
        <Undo2 size={16} aria-hidden="true" />
      </button>
      <button
        type="button"
        aria-label="Redo"
        title="Redo (Ctrl Shift Z)"
        disabled={!view.canRedo}
        onClick={() => store.redo()}
        className="rounded p-1 hover:bg-porcelain"
      >
        <Redo2 size={16} aria-hidden="true" />
      </button>
      <History key={section} section={section} />
    </span>
  );
}
