import { type Remote, wrap } from 'comlink';
import type { CaseService } from './case.worker.js';

/** A thread with the engine of a case in it. */
export interface CaseThread {
  readonly worker: Worker;
  readonly remote: Remote<CaseService>;
}

/** So long a thread that has nothing to do waits for the next case, ms. House value. */
const KEPT_MS = 60_000;

/** The thread of the case that was left last: warm, and it knows the scans that it measured. */
let kept: { readonly thread: CaseThread; readonly end: () => void } | undefined;

function begun(): CaseThread {
  const worker = new Worker(new URL('./case.worker.ts', import.meta.url), { type: 'module' });
  return { worker, remote: wrap<CaseService>(worker) };
}

/** A thread for a case: the one that was kept, else a new one. */
export function caseThread(): CaseThread {
  const thread = kept?.thread ?? begun();
  kept?.end();
  kept = undefined;
  return thread;
}

/** Keeps a thread for the case that is opened next, and ends it when none is opened for a while. */
export function keepForNext(thread: CaseThread): void {
  kept?.thread.worker.terminate();
  kept?.end();
  const ended = new AbortController();
  const letGo = () => {
    thread.worker.terminate();
    ended.abort();
    if (kept?.thread === thread) kept = undefined;
  };
  const timer = setTimeout(letGo, KEPT_MS);
  // One that breaks down meanwhile is not handed on.
  for (const fault of ['error', 'messageerror']) thread.worker.addEventListener(fault, letGo, { signal: ended.signal });
  kept = {
    thread,
    end: () => {
      clearTimeout(timer);
      ended.abort();
    },
  };
  // Its plan and its crowns go now; a thread that can't answer is not kept.
  thread.remote.begin().catch(letGo);
}
