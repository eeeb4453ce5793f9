import type { ContourPlan, QueryInput, QueryName, QueryOutput } from '@radiant/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { CaseClient } from './case-client.js';
import { faultOf } from './work.js';

/** Where a question stands. `before` is the answer to the last one that was answered. */
export type Asked<T> =
  | { readonly state: 'idle' }
  | { readonly state: 'waiting'; readonly before?: T }
  | { readonly state: 'ready'; readonly value: T }
  | { readonly state: 'failed'; readonly sentence: string; readonly error: unknown; readonly retry: () => void };

/** What can be shown of it: its answer, or while it is being worked out the last one. */
export const shownOf = <T>(a: Asked<T>): T | undefined =>
  a.state === 'ready' ? a.value : a.state === 'waiting' ? a.before : undefined;

/**
 * Asks the engine whenever plan or input change. One question is under way at a time and only the newest waits, so a
 * fast hand never builds a queue; each ends in an answer, or in a sentence and a way to try again.
 * @param client undefined while there is none
 * @param plan undefined where no plan has a say in the question
 * @param input undefined while nothing is asked
 */
export function useAsked<N extends QueryName>(
  client: CaseClient | undefined,
  plan: ContourPlan | undefined,
  name: N,
  input: Readonly<QueryInput<N>> | undefined,
): Asked<Awaited<QueryOutput<N>>> {
  type Answer = Awaited<QueryOutput<N>>;
  const key = input && JSON.stringify(input);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for the input
  const stable = useMemo(() => input, [key]);
  const [asked, setAsked] = useState<Asked<Answer>>({ state: 'idle' });
  const [attempt, setAttempt] = useState(0);
  const wish = useRef<(() => Promise<void>) | undefined>(undefined);
  const busy = useRef(false);
  const newest = useRef(0);
  const here = useRef(true);
  useEffect(() => {
    here.current = true;
    return () => {
      here.current = false;
      wish.current = undefined;
    };
  }, []);
  // biome-ignore lint/correctness/useExhaustiveDependencies: each attempt asks again
  useEffect(() => {
    wish.current = undefined;
    newest.current++;
    if (!client || !stable) return setAsked({ state: 'idle' });
    const own = newest.current;
    const mine = async () => {
      const answered = (next: Asked<Answer>) => {
        if (!here.current) return;
        if (own === newest.current) setAsked(next);
        // Something else is wished by now: what comes is shown until then.
        else if (next.state === 'ready')
          setAsked((now) => (now.state === 'waiting' ? { state: 'waiting', before: next.value } : now));
      };
      try {
        answered({ state: 'ready', value: await client.ask(plan, name, ...(stable as QueryInput<N>)) });
      } catch (error) {
        answered({ state: 'failed', sentence: faultOf(error), error, retry: () => setAttempt((n) => n + 1) });
      }
    };
    setAsked((now) => {
      const before = shownOf(now);
      return before === undefined ? { state: 'waiting' } : { state: 'waiting', before };
    });
    wish.current = mine;
    if (busy.current) return;
    busy.current = true;
    void (async () => {
      for (let next = wish.current; next; next = wish.current) {
        wish.current = undefined;
        await next();
      }
      busy.current = false;
    })();
  }, [client, plan, name, stable, attempt]);
  return asked;
}
