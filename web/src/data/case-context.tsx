import {
  type CaseDetail,
  mayWriteSome,
  SECTION_NAMES,
  type SectionData,
  type SectionName,
  type SectionState,
  type Who,
} from '@radiant/contract';
import type { Fdi, Notation } from '@radiant/core';
import { label } from '@radiant/core';
import {
  createContext,
  type ReactNode,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
  useSyncExternalStore,
} from 'react';
import useSWR, { useSWRConfig } from 'swr';
import { api } from './api.js';
import { useDrafts } from './drafts-context.js';
import { SectionStore, type SectionView } from './section-store.js';
import { hearOfSession } from './session-news.js';

type Stores = { readonly [K in SectionName]: SectionStore<K> };

interface CaseContextValue {
  readonly detail: CaseDetail;
  readonly stores: Stores;
  readonly who: Who;
  readonly tooth: Fdi;
  readonly selectTooth: (tooth: Fdi) => void;
  readonly notation: Notation;
  readonly setNotation: (n: Notation) => void;
  readonly refresh: () => Promise<unknown>;
}

const CaseContext = createContext<CaseContextValue | undefined>(undefined);

const REFRESH_MS = 10_000;

/** How teeth are numbered in this browser, where somebody has chosen it; the practice's way counts else. */
const CHOSEN = 'radiant-notation';

function chosenNotation(): Notation | undefined {
  const kept = localStorage.getItem(CHOSEN);
  return kept === 'fdi' || kept === 'universal' ? kept : undefined;
}

/** Loads a case, keeps it fresh, and gives the stages its sections. */
export function CaseProvider({
  id,
  who,
  children,
  fallback,
}: {
  id: string;
  who: Who;
  children: ReactNode;
  fallback: (error: unknown) => ReactNode;
}) {
  const {
    data: detail,
    error,
    mutate,
  } = useSWR(`/cases/${id}`, (path: string) => api.get<CaseDetail>(path), { refreshInterval: REFRESH_MS });
  const stores = useRef<Stores | undefined>(undefined);
  const drafts = useDrafts();
  const [tooth, selectTooth] = useState<Fdi>(11);
  const [notation, setNotation] = useState<Notation>(() => chosenNotation() ?? who.notation);

  if (detail && !stores.current) {
    stores.current = Object.fromEntries(
      SECTION_NAMES.map((n) => [n, new SectionStore(id, detail.sections[n], drafts)]),
    ) as unknown as Stores;
  }

  useEffect(() => {
    if (!detail || !stores.current) return;
    for (const n of SECTION_NAMES) (stores.current[n] as SectionStore<SectionName>).serverHas(detail.sections[n]);
  }, [detail]);

  const { mutate: keep } = useSWRConfig();
  useEffect(
    () => () => {
      // Whoever is signed out or comes in another's place stays where they are: their edits wait for them.
      const left = !location.pathname.startsWith(`/cases/${id}`);
      // The next time the case is opened it begins from what is known now.
      const told = (state: SectionState) =>
        void keep(
          `/cases/${id}`,
          (was?: CaseDetail) => was && { ...was, sections: { ...was.sections, [state.name]: state } },
          { revalidate: false },
        );
      for (const n of SECTION_NAMES) {
        const store = stores.current?.[n] as SectionStore<SectionName> | undefined;
        if (left) void store?.leave(told);
        else store?.end();
      }
    },
    [id, keep],
  );

  useEffect(() => {
    const retry = () => {
      for (const n of SECTION_NAMES) stores.current?.[n].retry();
    };
    window.addEventListener('online', retry);
    // Signed in again in another tab, this one goes on too.
    const deaf = hearOfSession(() => {
      retry();
      void mutate();
    });
    return () => {
      window.removeEventListener('online', retry);
      deaf();
    };
  }, [mutate]);

  const value = useMemo<CaseContextValue | undefined>(
    () =>
      detail && stores.current
        ? {
            detail,
            stores: stores.current,
            who,
            tooth,
            selectTooth,
            notation,
            setNotation: (n) => {
              localStorage.setItem(CHOSEN, n);
              setNotation(n);
            },
            refresh: () => mutate(),
          }
        : undefined,
    [detail, who, tooth, notation, mutate],
  );
  if (!value) return fallback(error);
  return <CaseContext.Provider value={value}>{children}</CaseContext.Provider>;
}

export function useCase(): CaseContextValue {
  const value = useContext(CaseContext);
  if (!value) throw new Error('This belongs inside a case.');
  return value;
}

/** A section as it is shown, and the store that changes it. */
export function useSection<N extends SectionName>(
  name: N,
): SectionView<N> & {
  readonly store: SectionStore<N>;
  readonly set: (next: SectionData[N], group?: string) => void;
  /** Something that follows from the last change, without a step of its own for undo. */
  readonly amend: (next: SectionData[N]) => void;
} {
  const { stores, who } = useCase();
  const store = stores[name] as unknown as SectionStore<N>;
  const view = useSyncExternalStore(store.subscribe, store.snapshot);
  // Whatever a screen forgets to close: who may only read leaves nothing behind that looks like a change.
  const may = mayWriteSome(who.role, name);
  return useMemo(
    () => ({
      ...view,
      store,
      set: (next: SectionData[N], group?: string) => may && store.set(next, group),
      amend: (next: SectionData[N]) => may && store.amend(next),
    }),
    [view, store, may],
  );
}

/** Writes a tooth's number in the chosen notation. */
export function useToothLabel(): (tooth: Fdi) => string {
  const { notation } = useCase();
  return useMemo(() => (tooth: Fdi) => label(tooth, notation), [notation]);
}

/** Puts tooth numbers into a sentence of core, which marks them as `{11}`. */
export function useSentence(): (sentence: string) => string {
  const name = useToothLabel();
  return useMemo(
    () => (sentence: string) => sentence.replaceAll(/\{(\d\d)\}/g, (_, n: string) => name(Number(n))),
    [name],
  );
}
