import type { Who } from '@radiant/contract';
import { LogOut } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { api } from '../data/api.js';
import { useDrafts } from '../data/drafts-context.js';
import { Arrivals } from '../shell/Arrivals.js';
import { PageTitle } from '../ui/PageTitle.js';
import { useHere } from './Gate.js';

/** The frame of the pages outside a case: who one is, the practice, the way out. */
export function PracticePage({ who, title, children }: { who: Who; title: string; children: ReactNode }) {
  const { refresh, keeping } = useHere();
  const drafts = useDrafts();
  const [waiting, setWaiting] = useState<number>();
  const leave = async () => {
    if (keeping === 'removed') await drafts?.removeAll();
    await api.remove('/session');
    await refresh();
  };
  const ask = async () => {
    const count = (await drafts?.count().catch(() => 0)) ?? 0;
    if (count > 0) setWaiting(count);
    else await leave();
  };
  return (
    <div className="flex h-full flex-col">
      <PageTitle of={[title]} />
      <header className="flex min-h-[72px] shrink-0 flex-wrap items-center gap-x-4 gap-y-1 border-b border-hair bg-leaf px-6 max-lg:py-2">
        <Link to="/" className="flex items-center gap-3">
          <img src="/arch.svg" alt="" className="h-7 w-7" />
          <span className="font-serif text-figure font-semibold">Radiant Arch</span>
        </Link>
        <span className="text-ink-2">{who.practice}</span>
        <nav className="ml-auto flex flex-wrap items-center gap-x-5 gap-y-1 text-ink-2">
          <Arrivals who={who} />
          <Link to="/week" className="hover:text-ink">
            week
          </Link>
          <Link to="/hours" className="hover:text-ink">
            hours
          </Link>
          <Link to="/trays" className="hover:text-ink">
            trays
          </Link>
          <Link to="/materials" className="hover:text-ink">
            ceramics and rules
          </Link>
          <Link to="/people" className="hover:text-ink">
            people
          </Link>
          <span>
            <b className="font-semibold text-ink">{who.name}</b>, {who.role}
          </span>
          <button type="button" className="flex items-center gap-1.5 hover:text-ink" onClick={() => void ask()}>
            <LogOut size={15} aria-hidden="true" /> sign out
          </button>
        </nav>
      </header>
      {waiting !== undefined && (
        <div
          role="alertdialog"
          aria-label="Edits that were not sent"
          className="flex flex-wrap items-center gap-4 border-b border-hair bg-plum-soft px-6 py-3"
        >
          <span>
            {waiting === 1 ? 'An edit' : `${waiting} edits`} of yours {waiting === 1 ? 'has' : 'have'} not reached the
            server.{' '}
            {keeping === 'removed'
              ? 'Signing out removes what is left in this browser.'
              : 'In this browser it stays sealed until you sign in again; nobody else can read or send it.'}
          </span>
          <button type="button" className="btn" onClick={() => setWaiting(undefined)}>
            Stay
          </button>
          <button type="button" className="btn btn-ghost" onClick={() => void leave()}>
            {keeping === 'removed' ? 'Remove and sign out' : 'Sign out'}
          </button>
        </div>
      )}
      <main className="flex-1 overflow-auto px-6 py-8 max-sm:px-3">
        <div className="mx-auto max-w-[1040px]">
          <h1 className="mb-6 font-serif text-head font-semibold tracking-tight">{title}</h1>
          {children}
        </div>
      </main>
    </div>
  );
}
