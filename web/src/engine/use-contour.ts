import { plannedOn } from '@radiant/contract';
import { useCallback, useEffect, useState } from 'react';
import { useCase } from '../data/case-context.js';
import type { CaseClient } from './case-client.js';
import { useEngine } from './engine-context.js';
import type { ArchView } from './views.js';
import { faultOf } from './work.js';

/** The case's upper scan in its engine. */
export type ContourState =
  | { readonly state: 'no-scan' }
  | { readonly state: 'loading' }
  | { readonly state: 'failed'; readonly sentence: string; readonly retry: () => void }
  | { readonly state: 'ready'; readonly arch: ArchView; readonly client: CaseClient };

/** The engine of a contour that is ready. */
export const clientOf = (contour: ContourState): CaseClient | undefined =>
  contour.state === 'ready' ? contour.client : undefined;

/** The case's scan in its engine: the newest one, or the one that the contour names. */
export function useContour(): ContourState {
  const { detail } = useCase();
  const engine = useEngine();
  const scanId = plannedOn(detail, 'upper')?.id;
  const [state, setState] = useState<ContourState>(scanId ? { state: 'loading' } : { state: 'no-scan' });
  const [attempt, setAttempt] = useState(0);
  const retry = useCallback(() => setAttempt((n) => n + 1), []);
  // biome-ignore lint/correctness/useExhaustiveDependencies: each attempt loads again
  useEffect(() => {
    if (!scanId) return setState({ state: 'no-scan' });
    let gone = false;
    setState((now) => (now.state === 'ready' ? now : { state: 'loading' }));
    const client = engine();
    const failed = (error: unknown) => !gone && setState({ state: 'failed', sentence: faultOf(error), retry });
    client.loadUpper(`/api/cases/${detail.id}/files/${scanId}`).then((arch) => {
      if (gone) return;
      setState({ state: 'ready', arch, client });
      // A thread that breaks down later takes everything with it that was loaded.
      client.lost.catch(failed);
    }, failed);
    return () => {
      gone = true;
    };
  }, [scanId, detail.id, engine, attempt, retry]);
  return state;
}
