import {
  type Arrived,
  type CasePage,
  keysOf,
  PHOTO_VIEWS,
  type PhotoView,
  readFileName,
  type Who,
} from '@radiant/contract';
import { Inbox } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { Link } from 'react-router';
import useSWR, { useSWRConfig } from 'swr';
import { api, sentenceOf } from '../data/api.js';
import { ago } from '../ui/format.js';

const LOOK_MS = 5000;
const SHOWN = 8;

/** What devices have delivered into the watched folder, for which case, and what waits for a word. */
export function Arrivals({ who, compact = false }: { who: Who; compact?: boolean }) {
  const { data } = useSWR('/arrivals', (path: string) => api.get<Arrived[]>(path), { refreshInterval: LOOK_MS });
  const [seen, setSeen] = useState(() => localStorage.getItem('radiant-arrivals-seen') ?? '');
  const waiting = (data ?? []).filter((a) => a.state === 'tray' || a.state === 'refused');
  const taken = (data ?? []).filter((a) => a.state === 'taken' || a.state === 'held');
  const fresh = taken.filter((a) => a.at > seen).length;
  const open = (isOpen: boolean) => {
    if (isOpen || !data?.[0]) return;
    localStorage.setItem('radiant-arrivals-seen', data[0].at);
    setSeen(data[0].at);
  };
  return (
    <Popover.Root onOpenChange={open}>
      <Popover.Trigger className="relative flex items-center gap-1.5 hover:text-ink">
        <Inbox size={compact ? 15 : 16} aria-hidden="true" className="shrink-0" /> arrivals
        {fresh > 0 && !(compact && waiting.length > 0) && (
          <b className="font-semibold text-ink">
            {fresh}
            <span className="sr-only"> new</span>
          </b>
        )}
        {waiting.length > 0 && (
          <b className="rounded-full bg-plum px-1.5 text-tiny font-semibold leading-[18px] text-white">
            {waiting.length}
            <span className={compact ? 'sr-only' : ''}> waiting</span>
          </b>
        )}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={8}
          collisionPadding={12}
          className="z-20 max-h-[78vh] w-[430px] overflow-y-auto rounded-xl border border-hair bg-leaf p-4 text-ink shadow-lg"
        >
          {waiting.length > 0 && (
            <section aria-label="Tray" className="mb-4">
              <h2 className="subtitle mb-1">Waiting in the tray</h2>
              <ul>
                {waiting.map((a) => (
                  <Waiting key={a.id} arrival={a} mayKeep={who.role !== 'technician'} />
                ))}
              </ul>
            </section>
          )}
          <h2 className="subtitle mb-1">Arrived</h2>
          {taken.length === 0 && (
            <p className="text-note text-ink-2">
              Nothing yet. Files that devices lay into the watched folder go to the case that their name begins with.
            </p>
          )}
          <ul>
            {taken.slice(0, SHOWN).map((a) => (
              <li key={a.id} className="border-t border-hair py-1.5 text-note">
                <span className="flex items-baseline justify-between gap-3">
                  <span className="min-w-0 truncate">{a.name}</span>
                  <span className="shrink-0 text-ink-2">{ago(a.at)}</span>
                </span>
                <span className="block text-ink-2">
                  {a.origin} →{' '}
                  {a.caseId ? (
                    <Link className="how" to={`/cases/${a.caseId}/meet`}>
                      {a.caseName ?? 'a case'}
                    </Link>
                  ) : (
                    'a case that is gone'
                  )}
                  {a.sentence && `; ${a.sentence}`}
                </span>
              </li>
            ))}
          </ul>
          {taken.length > SHOWN && <p className="mt-1 text-fine text-ink-2">and {taken.length - SHOWN} before</p>}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** A file that names no case: give it to one, or throw it away. */
function Waiting({ arrival: a, mayKeep }: { arrival: Arrived; mayKeep: boolean }) {
  const { mutate } = useSWRConfig();
  const [search, setSearch] = useState('');
  const { data: found } = useSWR(
    `/cases?${new URLSearchParams({ search })}`,
    (path: string) => api.get<CasePage>(path),
    { keepPreviousData: true },
  );
  const cases = found?.cases;
  const [caseId, setCaseId] = useState('');
  const [view, setView] = useState<PhotoView | ''>(readFileName(a.name).view ?? '');
  const [refusal, setRefusal] = useState<string>();
  const act = async (work: () => Promise<unknown>) => {
    setRefusal(undefined);
    try {
      await work();
      await mutate('/arrivals');
      if (caseId) await mutate(`/cases/${caseId}`);
    } catch (error) {
      setRefusal(sentenceOf(error));
    }
  };
  return (
    <li className="grid grid-cols-[84px_minmax(0,1fr)] gap-3 border-t border-hair py-2.5 text-note">
      {a.kind === 'photo' ? (
        <img src={`/api/arrivals/${a.id}/picture`} alt="" className="h-14 w-[84px] rounded bg-bench object-cover" />
      ) : (
        <span className="flex h-14 items-center justify-center rounded bg-porcelain text-ink-2">
          {a.kind ?? 'unknown'}
        </span>
      )}
      <div className="min-w-0">
        <span className="block truncate font-semibold">{a.name}</span>
        <span className="block text-ink-2">
          {a.origin}, {ago(a.at)}. {a.sentence}
        </span>
        {mayKeep && (
          <span className="mt-1.5 flex flex-wrap items-center gap-2">
            {a.kind && (
              <>
                {(search !== '' || (found?.pages ?? 1) > 1) && (
                  <input
                    type="search"
                    aria-label={`Look for where ${a.name} belongs`}
                    className="field h-7 w-[110px] text-note"
                    placeholder="find"
                    value={search}
                    onChange={(e) => setSearch(e.target.value)}
                  />
                )}
                <select
                  aria-label={`Case of ${a.name}`}
                  className="field h-7 w-[116px] text-note"
                  value={caseId}
                  onChange={(e) => setCaseId(e.target.value)}
                >
                  <option value="">which case?</option>
                  {cases?.map((c) => (
                    <option key={c.id} value={c.id}>
                      {c.name}
                    </option>
                  ))}
                </select>
                {a.kind === 'photo' && (
                  <select
                    aria-label={`View of ${a.name}`}
                    className="field h-7 w-[120px] text-note"
                    value={view}
                    onChange={(e) => setView(e.target.value as PhotoView | '')}
                  >
                    <option value="">view not said</option>
                    {keysOf(PHOTO_VIEWS).map((v) => (
                      <option key={v} value={v}>
                        {PHOTO_VIEWS[v]}
                      </option>
                    ))}
                  </select>
                )}
                <button
                  type="button"
                  className="how"
                  disabled={!caseId}
                  onClick={() => void act(() => api.post(`/arrivals/${a.id}/place`, { caseId, ...(view && { view }) }))}
                >
                  put it there
                </button>
              </>
            )}
            <button type="button" className="how" onClick={() => void act(() => api.remove(`/arrivals/${a.id}`))}>
              throw away<span className="sr-only"> {a.name}</span>
            </button>
          </span>
        )}
        {refusal && (
          <span role="alert" className="block text-stop">
            {refusal}
          </span>
        )}
      </div>
    </li>
  );
}
