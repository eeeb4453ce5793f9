import { type ContourPlan, type Jaw, jawOf } from '@radiant/core';
import { useEffect, useMemo, useState } from 'react';
import type { ArchView, ExistingSummary } from './contour.worker.js';
import type { ContourState } from './use-contour.js';
import type { LowerState } from './use-lower.js';

/** A jaw ready to be shown and shaped, or the sentence why it is not. */
export type JawState =
  | { readonly state: 'none' | 'loading' }
  | { readonly state: 'failed'; readonly sentence: string }
  | { readonly state: 'ready'; readonly arch: ArchView };

/** The jaw that is worked on; the lower one's teeth are measured once they are looked at. */
export function useJaw(contour: ContourState, lower: LowerState, jaw: Jaw): JawState {
  const [measured, setMeasured] = useState<{ readonly of: object; readonly existing?: readonly ExistingSummary[]; readonly sentence?: string }>();
  const service = contour.state === 'ready' ? contour.service : undefined;
  const view = lower.state === 'ready' ? lower.view : undefined;
  const wanted = jaw === 'lower' && view && measured?.of !== view ? view : undefined;
  useEffect(() => {
    if (!service || !wanted) return;
    let gone = false;
    service.measuredLower().then(
      (existing) => !gone && setMeasured({ of: wanted, existing }),
      (error: Error) => !gone && setMeasured({ of: wanted, sentence: error.message }),
    );
    return () => {
      gone = true;
    };
  }, [service, wanted]);
  return useMemo(() => {
    if (contour.state !== 'ready') return { state: 'loading' };
    if (jaw === 'upper') return { state: 'ready', arch: contour.arch };
    if (lower.state === 'failed') return { state: 'failed', sentence: lower.sentence };
    if (lower.state === 'none') return { state: 'none' };
    if (!view || measured?.of !== view) return { state: 'loading' };
    if (measured.sentence !== undefined) return { state: 'failed', sentence: measured.sentence };
    return { state: 'ready', arch: { ...view, existing: measured.existing ?? [] } };
  }, [contour, lower, jaw, view, measured]);
}

/** What of a plan can be drawn: lower crowns once their scan is there. */
export function useDrawable(plan: ContourPlan, lower: LowerState): ContourPlan {
  const has = lower.state === 'ready';
  return useMemo(() => (has ? plan : Object.fromEntries(Object.entries(plan).filter(([t]) => jawOf(Number(t)) === 'upper'))), [plan, has]);
}
