import type { DraftKeeping, Session, Who } from '@radiant/contract';
import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from 'react';
import useSWR from 'swr';
import { api, sentenceOf, speakAs } from '../data/api.js';
import { Drafts } from '../data/drafts.js';
import { DraftsContext } from '../data/drafts-context.js';
import { JobsProvider } from '../data/jobs.js';
import { hearOfSession, tellOtherTabs } from '../data/session-news.js';
import { UnsentProvider } from '../data/unsent-text.js';
import { UploadsProvider } from '../data/uploads.js';
import { SlowNote } from '../shell/SlowNote.js';
import { PageTitle } from '../ui/PageTitle.js';
import { Trouble, Waiting } from '../ui/Waiting.js';
import { FirstAccountForm } from './FirstAccountForm.js';
import { SignInForm } from './SignInForm.js';

interface Here {
  /** Looks again who is signed in. */
  readonly refresh: () => Promise<unknown>;
  /** What becomes of edits that were not sent when somebody signs out. */
  readonly keeping: DraftKeeping;
}

const HereContext = createContext<Here>({ refresh: async () => undefined, keeping: 'sealed' });
export const useHere = () => useContext(HereContext);

/** Lets signed-in people through; others meet the sign-in, or the first account's form on a fresh house. */
export function Gate({ children }: { children: (who: Who) => ReactNode }) {
  return (
    <>
      <SlowNote />
      <Known>{children}</Known>
    </>
  );
}

function Known({ children }: { children: (who: Who) => ReactNode }) {
  const { data, error, mutate } = useSWR('/session', (path: string) => api.get<Session>(path), {
    revalidateOnFocus: true,
    shouldRetryOnError: true,
    errorRetryInterval: 3000,
  });
  // Who signs in or out in another tab does so in all of them.
  useEffect(() => hearOfSession(() => void mutate()), [mutate]);
  const changed = async () => {
    await mutate();
    tellOtherTabs();
  };
  if (!data)
    return error ? (
      <Trouble sentence={sentenceOf(error)} retry={() => void mutate()} />
    ) : (
      <Waiting what="the session" />
    );
  if (data.firstAccountNeeded) return <FirstAccountForm done={changed} />;
  if (!data.who)
    return (
      <>
        <PageTitle of={['Sign in']} />
        <SignInForm done={changed} />
      </>
    );
  return (
    <SignedIn key={data.who.id} who={data.who} session={data} refresh={changed}>
      {children}
    </SignedIn>
  );
}

/** Everything below belongs to one person: somebody else's pages are begun anew. */
function SignedIn({
  who,
  session,
  refresh,
  children,
}: {
  who: Who;
  session: Session;
  refresh: () => Promise<unknown>;
  children: (who: Who) => ReactNode;
}) {
  speakAs(who.id);
  // Undefined until opened; null where this browser can't keep any.
  const [drafts, setDrafts] = useState<Drafts | null>();
  const { draftKey, drafts: keeping } = session;
  useEffect(() => {
    let gone = false;
    const opened = draftKey ? Drafts.open(who.id, draftKey) : Promise.reject(new Error('no key'));
    opened.then(
      (d) => !gone && setDrafts(d),
      () => !gone && setDrafts(null),
    );
    return () => {
      gone = true;
    };
  }, [who.id, draftKey]);
  const here = useMemo(() => ({ refresh, keeping }), [refresh, keeping]);
  if (drafts === undefined) return <Waiting what="the session" />;
  return (
    <HereContext.Provider value={here}>
      <DraftsContext.Provider value={drafts ?? undefined}>
        <UnsentProvider>
          <UploadsProvider>
            <JobsProvider>{children(who)}</JobsProvider>
          </UploadsProvider>
        </UnsentProvider>
      </DraftsContext.Provider>
    </HereContext.Provider>
  );
}
