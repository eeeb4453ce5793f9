import { Refusal } from '@radiant/core';
import './wire.js';

/** The work was ended, or its thread has broken down: what was asked of it will never be answered. */
export class WorkLost extends Error {
  constructor() {
    super('The work on the scan has stopped.');
    this.name = 'WorkLost';
  }
}

/** What is said of something that was asked of a worker and went wrong. */
export function faultOf(error: unknown): string {
  if (error instanceof Refusal || error instanceof WorkLost) return error.message;
  // Not meant for people: it belongs where a programmer looks.
  console.error(error);
  return 'This could not be worked out.';
}

/**
 * A worker whose questions all end: with an answer, with what it throws, or with WorkLost when it breaks down or is
 * ended.
 */
export class Work {
  private readonly lostBy: Promise<never>;
  private lose: (error: WorkLost) => void = () => undefined;
  private gone = false;
  private waiting = 0;
  private readonly over = new AbortController();

  constructor(private readonly worker: Worker) {
    this.lostBy = new Promise((_, reject) => {
      this.lose = reject;
    });
    // Whoever waits hears of it; without anybody waiting it is no fault.
    this.lostBy.catch(() => undefined);
    const { signal } = this.over;
    worker.addEventListener('error', () => this.end(), { signal });
    worker.addEventListener('messageerror', () => this.end(), { signal });
  }

  get isLost(): boolean {
    return this.gone;
  }

  /** Rejects with WorkLost once the worker is gone; never resolves. */
  get lost(): Promise<never> {
    return this.lostBy;
  }

  /** Asks, unless the worker is gone or was handed on, and gives the answer or WorkLost. */
  answer<T>(ask: () => PromiseLike<T>): Promise<T> {
    if (this.gone) return Promise.reject(new WorkLost());
    const asked = ask();
    this.waiting++;
    const over = () => {
      this.waiting--;
    };
    asked.then(over, over);
    return Promise.race([asked, this.lostBy]);
  }

  /** Whether it is there and nothing is under way. */
  get isIdle(): boolean {
    return !this.gone && this.waiting === 0;
  }

  /** Lets go of the worker, which lives on: nothing more can be asked of it here. */
  release(): void {
    if (this.gone) return;
    this.gone = true;
    this.over.abort();
    this.lose(new WorkLost());
  }

  /** Ends the worker and gives back all that it holds. */
  end(): void {
    if (this.gone) return;
    this.gone = true;
    this.worker.terminate();
    this.lose(new WorkLost());
  }
}
