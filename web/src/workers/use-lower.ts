import { useEffect, useState } from 'react';
import { useCase } from '../data/case-context.js';
import type { JawView } from './contour.worker.js';
import type { ContourState } from './use-contour.js';

export type LowerState =
  | { readonly state: 'none' | 'loading' }
  | { readonly state: 'failed'; readonly sentence: string }
  | { readonly state: 'ready'; readonly view: JawView };

/** Loads that a worker has done already: the lower jaw stays with its worker. */
const loads = new WeakMap<object, { readonly url: string; readonly view: Promise<JawView> }>();

/** The newest scan of the lower jaw, in the worker of the upper one. Loaded once it is wished. */
export function useLower(contour: ContourState, wished: boolean): LowerState {
  const { detail } = useCase();
  const scan = detail.files.filter((f) => f.kind === 'lower-scan').at(-1)?.id;
  const [state, setState] = useState<LowerState>({ state: scan ? 'loading' : 'none' });
  const service = contour.state === 'ready' ? contour.service : undefined;
  const key = contour.state === 'ready' ? contour.arch : undefined;
  useEffect(() => {
    if (!scan) return setState({ state: 'none' });
    if (!service || !key || !wished) return;
    const url = `/api/cases/${detail.id}/files/${scan}`;
    let load = loads.get(key);
    if (load?.url !== url) {
      load = { url, view: service.loadLower(url) };
      loads.set(key, load);
    }
    let gone = false;
    load.view.then(
      (view) => !gone && setState({ state: 'ready', view }),
      (error: Error) => {
        loads.delete(key);
        if (!gone) setState({ state: 'failed', sentence: error.message });
      },
    );
    return () => {
      gone = true;
    };
  }, [scan, service, key, wished, detail.id]);
  return state;
}
