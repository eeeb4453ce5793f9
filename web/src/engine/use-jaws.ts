import { type ContourPlan, type Jaw, jawOf } from '@radiant/core';
import { useMemo } from 'react';
import { useAsked } from './use-asked.js';
import { type ContourState, clientOf } from './use-contour.js';
import type { LowerState } from './use-lower.js';
import type { ArchView } from './views.js';

/** A jaw ready to be shown and shaped, or the sentence why it is not. */
export type JawState =
  | { readonly state: 'none' | 'loading' }
  | { readonly state: 'failed'; readonly sentence: string; readonly retry: () => void }
  | { readonly state: 'ready'; readonly arch: ArchView };

const LOWER = ['lower'] as const;

/** The jaw that is worked on; the lower one's teeth are measured once they are looked at. */
export function useJaw(contour: ContourState, lower: LowerState, jaw: Jaw): JawState {
  const wanted = jaw === 'lower' && lower.state === 'ready';
  const measured = useAsked(clientOf(contour), undefined, 'existing', wanted ? LOWER : undefined);
  return useMemo(() => {
    if (contour.state !== 'ready') return { state: 'loading' };
    if (jaw === 'upper') return { state: 'ready', arch: contour.arch };
    if (lower.state === 'failed') return lower;
    if (lower.state === 'none') return { state: 'none' };
    if (lower.state !== 'ready' || measured.state === 'idle' || measured.state === 'waiting')
      return { state: 'loading' };
    if (measured.state === 'failed') return measured;
    return { state: 'ready', arch: { ...lower.view, existing: measured.value } };
  }, [contour, lower, jaw, measured]);
}

/** What of a plan can be drawn: lower crowns once their scan is there. */
export function useDrawable(plan: ContourPlan, lower: LowerState): ContourPlan {
  const has = lower.state === 'ready';
  return useMemo(
    () => (has ? plan : Object.fromEntries(Object.entries(plan).filter(([t]) => jawOf(Number(t)) === 'upper'))),
    [plan, has],
  );
}
