import type { Who } from '@radiant/contract';
import { LogOut } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { api } from '../data/api.js';
import { Arrivals } from './Arrivals.js';
import { useSessionRefresh } from './Gate.js';

/** The frame of the pages outside a case: who one is, the practice, the way out. */
export function House({ who, title, children }: { who: Who; title: string; children: ReactNode }) {
  const refresh = useSessionRefresh();
  const leave = async () => {
    await api.remove('/session');
    await refresh();
  };
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-[72px] shrink-0 items-center gap-4 border-b border-hair bg-leaf px-6">
        <Link to="/" className="flex items-center gap-3">
          <img src="/arch.svg" alt="" className="h-7 w-7" />
          <span className="font-serif text-[20px] font-semibold">Radiant Arch</span>
        </Link>
        <span className="text-ink-2">{who.practice}</span>
        <nav className="ml-auto flex items-center gap-5 text-ink-2">
          <Arrivals who={who} />
          <Link to="/people" className="hover:text-ink">
            people
          </Link>
          <span>
            <b className="font-semibold text-ink">{who.name}</b>, {who.role}
          </span>
          <button type="button" className="flex items-center gap-1.5 hover:text-ink" onClick={() => void leave()}>
            <LogOut size={15} aria-hidden="true" /> sign out
          </button>
        </nav>
      </header>
      <main className="flex-1 overflow-auto px-6 py-8">
        <div className="mx-auto max-w-[1040px]">
          <h1 className="mb-6 font-serif text-[28px] font-semibold tracking-tight">{title}</h1>
          {children}
        </div>
      </main>
    </div>
  );
}
