import { type Remote, wrap } from 'comlink';

/** A thread and the service in it. */
export interface Thread<S> {
  readonly worker: Worker;
  readonly remote: Remote<S>;
}

/** So long a thread that has nothing to do waits for its next work, ms. House value. */
const KEPT_MS = 60_000;

/**
 * Threads of one kind. The one that was given back last is kept for a while: warm, and it knows what it read.
 * @param begin how the service is told to drop what it holds of the last work
 */
export class Threads<S> {
  private kept: { readonly thread: Thread<S>; readonly end: () => void } | undefined;

  constructor(
    private readonly start: () => Worker,
    private readonly begin: (remote: Remote<S>) => Promise<unknown>,
  ) {}

  /** The thread that was kept, else a new one. */
  take(): Thread<S> {
    const { kept } = this;
    this.kept = undefined;
    kept?.end();
    if (kept) return kept.thread;
    const worker = this.start();
    return { worker, remote: wrap<S>(worker) };
  }

  /** Keeps a thread for its next work, and ends it when none comes for a while. */
  keep(thread: Thread<S>): void {
    this.kept?.thread.worker.terminate();
    this.kept?.end();
    const ended = new AbortController();
    const letGo = () => {
      thread.worker.terminate();
      ended.abort();
      if (this.kept?.thread === thread) this.kept = undefined;
    };
    const timer = setTimeout(letGo, KEPT_MS);
    // One that breaks down meanwhile is not handed on.
    for (const fault of ['error', 'messageerror'])
      thread.worker.addEventListener(fault, letGo, { signal: ended.signal });
    this.kept = {
      thread,
      end: () => {
        clearTimeout(timer);
        ended.abort();
      },
    };
    // A thread that can't answer is not kept.
    this.begin(thread.remote).catch(() => this.kept?.thread === thread && letGo());
  }
}
