import { plannedOn } from '@radiant/contract';
import { useCallback, useEffect, useState } from 'react';
import { useCase } from '../data/case-context.js';
import { type ContourState, clientOf } from './use-contour.js';
import type { JawView } from './views.js';
import { faultOf } from './work.js';

export type LowerState =
  | { readonly state: 'none' | 'loading' }
  | { readonly state: 'failed'; readonly sentence: string; readonly retry: () => void }
  | { readonly state: 'ready'; readonly view: JawView };

/** The scan of the lower jaw that the plan stands on, in the engine of the upper one. Loaded once it is wished. */
export function useLower(contour: ContourState, wished: boolean): LowerState {
  const { detail } = useCase();
  const scan = plannedOn(detail, 'lower')?.id;
  const [state, setState] = useState<LowerState>({ state: scan ? 'loading' : 'none' });
  const [attempt, setAttempt] = useState(0);
  const retry = useCallback(() => setAttempt((n) => n + 1), []);
  const client = clientOf(contour);
  // biome-ignore lint/correctness/useExhaustiveDependencies: each attempt loads again
  useEffect(() => {
    if (!scan) return setState({ state: 'none' });
    if (!client || !wished) return;
    let gone = false;
    client.loadLower(`/api/cases/${detail.id}/files/${scan}`).then(
      (view) => !gone && setState({ state: 'ready', view }),
      (error: unknown) => !gone && setState({ state: 'failed', sentence: faultOf(error), retry }),
    );
    return () => {
      gone = true;
    };
  }, [scan, client, wished, detail.id, attempt, retry]);
  return state;
}
