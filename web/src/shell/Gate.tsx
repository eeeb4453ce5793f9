import type { Who } from '@radiant/contract';
import { createContext, type ReactNode, useContext } from 'react';
import useSWR from 'swr';
import { api, sentenceOf } from '../data/api.js';
import { FirstAccountForm } from './FirstAccountForm.js';
import { SignInForm } from './SignInForm.js';
import { Trouble, Waiting } from './Waiting.js';

interface Session {
  readonly who: Who | null;
  readonly firstAccountNeeded: boolean;
}

const Refresh = createContext<() => Promise<unknown>>(async () => undefined);
/** Looks again who is signed in. */
export const useSessionRefresh = () => useContext(Refresh);

/** Lets signed-in people through; others meet the sign-in, or the first account's form on a fresh house. */
export function Gate({ children }: { children: (who: Who) => ReactNode }) {
  const { data, error, mutate } = useSWR('/session', (path: string) => api.get<Session>(path), {
    revalidateOnFocus: true,
    shouldRetryOnError: true,
    errorRetryInterval: 3000,
  });
  if (!data) return error ? <Trouble sentence={sentenceOf(error)} retry={() => void mutate()} /> : <Waiting what="the session" />;
  if (data.firstAccountNeeded) return <FirstAccountForm done={() => mutate()} />;
  if (!data.who) return <SignInForm done={() => mutate()} />;
  return <Refresh.Provider value={() => mutate()}>{children(data.who)}</Refresh.Provider>;
}
