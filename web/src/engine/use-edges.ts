import type { Px } from '@radiant/core';
import { wrap } from 'comlink';
import { useCallback, useEffect, useState } from 'react';
import type { PictureService } from './picture.worker.js';
import { Work } from './work.js';

/** The worker that looks at photographs, for as long as somebody works on one. */
let held: { readonly work: Work; readonly service: ReturnType<typeof wrap<PictureService>>; users: number } | undefined;

function take() {
  if (!held || held.work.isLost) {
    const worker = new Worker(new URL('./picture.worker.ts', import.meta.url), { type: 'module' });
    held = { work: new Work(worker), service: wrap<PictureService>(worker), users: 0 };
  }
  held.users++;
  return held;
}

function giveBack(own: NonNullable<typeof held>): void {
  own.users--;
  if (own.users > 0) return;
  own.work.end();
  if (held === own) held = undefined;
}

/**
 * Finds the strongest edge near a place of a photograph, off the main thread; nothing where the picture can't be looked
 * at.
 */
export function useEdges(url: string | undefined): (at: Px, radius: number) => Promise<Px | undefined> {
  const [own, setOwn] = useState<NonNullable<typeof held>>();
  useEffect(() => {
    const mine = take();
    setOwn(mine);
    return () => giveBack(mine);
  }, []);
  useEffect(() => {
    if (url && own) own.work.answer(() => own.service.ready(url)).catch(() => undefined);
  }, [url, own]);
  return useCallback(
    async (at, radius) =>
      url && own ? own.work.answer(() => own.service.snap(url, at, radius)).catch(() => undefined) : undefined,
    [url, own],
  );
}
