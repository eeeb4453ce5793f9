import { scanFor } from '@radiant/contract';
import type { Jaw, LaterState } from '@radiant/core';
import { useCallback, useEffect, useState } from 'react';
import { useCase } from '../data/case-context.js';
import { type ContourState, clientOf } from './use-contour.js';
import { faultOf } from './work.js';

export type Later =
  | { readonly state: 'none' | 'loading' }
  | { readonly state: 'failed'; readonly sentence: string; readonly retry: () => void }
  | { readonly state: 'ready'; readonly id: string };

/**
 * A later scan of a jaw, of its prepared teeth or with its provisionals in place, in the engine of the case: the one
 * that is named, else the newest whose teeth are told apart.
 */
export function useLater(contour: ContourState, jaw: Jaw, of: LaterState, named?: string | null): Later {
  const { detail } = useCase();
  const scan = scanFor(detail.files, jaw, of, named)?.id;
  const [state, setState] = useState<Later>({ state: scan ? 'loading' : 'none' });
  const [attempt, setAttempt] = useState(0);
  const retry = useCallback(() => setAttempt((n) => n + 1), []);
  const client = clientOf(contour);
  // biome-ignore lint/correctness/useExhaustiveDependencies: each attempt loads again
  useEffect(() => {
    if (!scan) {
      setState({ state: 'none' });
      // Whoever shows the contour says that its thread is gone.
      void client?.dropLater(jaw, of).catch(() => undefined);
      return;
    }
    if (!client) return;
    let gone = false;
    setState({ state: 'loading' });
    client.loadLater(`/api/cases/${detail.id}/files/${scan}`, jaw, of).then(
      () => !gone && setState({ state: 'ready', id: scan }),
      (error: unknown) => !gone && setState({ state: 'failed', sentence: faultOf(error), retry }),
    );
    return () => {
      gone = true;
    };
  }, [scan, client, jaw, of, detail.id, attempt, retry]);
  return state;
}
