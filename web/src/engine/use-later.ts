import { scanFor } from '@radiant/contract';
import type { Jaw } from '@radiant/core';
import { useCallback, useEffect, useState } from 'react';
import { useCase } from '../data/case-context.js';
import { type ContourState, clientOf } from './use-contour.js';
import { faultOf } from './work.js';

export type LaterState =
  | { readonly state: 'none' | 'loading' }
  | { readonly state: 'failed'; readonly sentence: string; readonly retry: () => void }
  | { readonly state: 'ready'; readonly id: string };

/**
 * The scan of a jaw after its teeth were cut, in the engine of the case: the one that is named, else the newest whose
 * teeth are told apart.
 */
export function useLater(contour: ContourState, jaw: Jaw, named: string | null | undefined): LaterState {
  const { detail } = useCase();
  const scan = scanFor(detail.files, jaw, 'prepared', named)?.id;
  const [state, setState] = useState<LaterState>({ state: scan ? 'loading' : 'none' });
  const [attempt, setAttempt] = useState(0);
  const retry = useCallback(() => setAttempt((n) => n + 1), []);
  const client = clientOf(contour);
  // biome-ignore lint/correctness/useExhaustiveDependencies: each attempt loads again
  useEffect(() => {
    if (!scan) return setState({ state: 'none' });
    if (!client) return;
    let gone = false;
    setState({ state: 'loading' });
    client.loadLater(`/api/cases/${detail.id}/files/${scan}`, jaw).then(
      () => !gone && setState({ state: 'ready', id: scan }),
      (error: unknown) => !gone && setState({ state: 'failed', sentence: faultOf(error), retry }),
    );
    return () => {
      gone = true;
    };
  }, [scan, client, jaw, detail.id, attempt, retry]);
  return state;
}
