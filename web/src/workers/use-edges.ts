import type { Px } from '@radiant/core';
import { type Remote, wrap } from 'comlink';
import { useCallback, useEffect } from 'react';
import type { EdgeService } from './edge.worker.js';

let worker: Remote<EdgeService> | undefined;

const edges = (): Remote<EdgeService> => {
  worker ??= wrap<EdgeService>(new Worker(new URL('./edge.worker.ts', import.meta.url), { type: 'module' }));
  return worker;
};

/** Finds the strongest edge near a place of a photograph, off the main thread. */
export function useEdges(url: string | undefined): (at: Px, radius: number) => Promise<Px | undefined> {
  useEffect(() => {
    if (url)
      edges()
        .ready(url)
        .catch(() => undefined);
  }, [url]);
  return useCallback(
    async (at, radius) =>
      url
        ? edges()
            .snap(url, at, radius)
            .catch(() => undefined)
        : undefined,
    [url],
  );
}
