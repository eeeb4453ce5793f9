import { type Opened, type Progress, Refusal } from '@radiant/core';
import { proxy, type Remote } from 'comlink';
import { Threads } from '../../../engine/kept-thread.js';
import type { GlimpseView, RawJawService } from '../../../engine/raw-jaw.worker.js';
import { Work } from '../../../engine/work.js';

/** A worker that reads a scan. */
export interface Reading {
  readonly work: Work;
  readonly service: Remote<RawJawService>;
  readonly opened: Promise<Opened>;
  /** Tells how far it is, now and from now on, and shows it as soon as it can be seen. */
  readonly follow: (told: Progress, seen: (glimpse: GlimpseView) => void) => void;
  /** Nothing more is asked of it; its thread is kept a while for the next scan, unless it is still at work. */
  readonly end: () => void;
}

const threads = new Threads<RawJawService>(
  () => new Worker(new URL('../../../engine/raw-jaw.worker.ts', import.meta.url), { type: 'module' }),
  (remote) => remote.begin(),
);

/** A worker that says nothing for so long has met something that no scanner writes; it is ended, ms. */
const SILENT_MS = 120_000;

/** Fails when nothing was heard for too long; the worker is ended then. */
function patience(work: Work): { heard: () => void; over: () => void; failed: Promise<never> } {
  let timer: ReturnType<typeof setTimeout>;
  let fail: (error: Error) => void = () => undefined;
  const failed = new Promise<never>((_, reject) => {
    fail = reject;
  });
  const heard = () => {
    clearTimeout(timer);
    timer = setTimeout(() => {
      fail(
        new Refusal(
          'too-slow',
          'The scan was not read within two minutes. Let the scanner’s program write it again, or coarser.',
        ),
      );
      work.end();
    }, SILENT_MS);
  };
  heard();
  return { heard, over: () => clearTimeout(timer), failed };
}

/** The same service, every question of which ends with an answer or with the worker. */
function guarded(work: Work, service: Remote<RawJawService>): Remote<RawJawService> {
  return new Proxy(service, {
    get:
      (of, name) =>
      (...input: unknown[]) =>
        work.answer(
          () =>
            (of as unknown as Record<string | symbol, (...i: unknown[]) => Promise<unknown>>)[name]?.(
              ...input,
            ) as Promise<unknown>,
        ),
  });
}

/** Begins to read a scan, from its address or from the file itself. */
export function startReading(from: string | File, mend: boolean): Reading {
  const thread = threads.take();
  const work = new Work(thread.worker);
  const service = guarded(work, thread.remote);
  let told: Progress = () => undefined;
  let last: Parameters<Progress> | undefined;
  let seen: (glimpse: GlimpseView) => void = () => undefined;
  let glimpse: GlimpseView | undefined;
  const { heard, over, failed } = patience(work);
  const read = service.open(
    from,
    proxy((what, share) => {
      heard();
      last = [what, share];
      told(what, share);
    }),
    proxy((own) => {
      glimpse = own;
      seen(own);
    }),
    mend,
  );
  const opened = Promise.race([failed, read]).finally(over);
  // Whoever follows it later hears of a failure then.
  opened.catch(() => undefined);
  return {
    work,
    service,
    opened,
    follow: (next, show) => {
      told = next;
      seen = show;
      if (last) next(...last);
      if (glimpse) show(glimpse);
    },
    end: () => {
      if (!work.isIdle) return work.end();
      work.release();
      threads.keep(thread);
    },
  };
}
