import type { BoxOutline, FoundRuler, Px, ToothBox } from '@radiant/core';
import { wrap } from 'comlink';
import { useEffect, useMemo, useState } from 'react';
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

/** What is seen in a photograph, off the main thread; each is nothing where the picture can't be looked at. */
export interface Edges {
  /** The strongest edge near a place. */
  readonly snap: (at: Px, radius: number) => Promise<Px | undefined>;
  /** A tooth's outline from a coarse box over it. */
  readonly outline: (box: ToothBox) => Promise<BoxOutline | undefined>;
  /** Where a ruler lies. */
  readonly ruler: () => Promise<FoundRuler | undefined>;
}

/** @param url of the picture; nothing while nobody asks */
export function useEdges(url: string | undefined): Edges {
  const [own, setOwn] = useState<NonNullable<typeof held>>();
  useEffect(() => {
    const mine = take();
    setOwn(mine);
    return () => giveBack(mine);
  }, []);
  useEffect(() => {
    if (url && own) own.work.answer(() => own.service.ready(url)).catch(() => undefined);
  }, [url, own]);
  return useMemo(
    () => ({
      snap: async (at, radius) =>
        url && own ? own.work.answer(() => own.service.snap(url, at, radius)).catch(() => undefined) : undefined,
      outline: async (box) =>
        url && own ? own.work.answer(() => own.service.outline(url, box)).catch(() => undefined) : undefined,
      ruler: async () =>
        url && own ? own.work.answer(() => own.service.ruler(url)).catch(() => undefined) : undefined,
    }),
    [url, own],
  );
}
