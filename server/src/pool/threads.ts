import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { CalledOff } from '../common/called-off.js';
import { ProblemException } from '../common/problem.filter.js';

/**
 * How a kind of work is bounded: threads, what may wait, memory of a thread in MB, and time in ms; and how long a
 * thread without work is kept, ms.
 */
export interface Bounds {
  readonly threads: number;
  readonly waiting: number;
  readonly memoryMb: number;
  readonly timeMs: number;
  readonly keptMs?: number;
}

/** How far a piece of work has got: what it is at, and which share of it is done, 0 to 1. */
export interface Progress {
  readonly what: string;
  readonly share: number;
}

/** Who asks for work, and what they want to hear of it. */
export interface Asking {
  /** Ends the work, and its thread with it. */
  readonly signal?: AbortSignal;
  readonly told?: (progress: Progress) => void;
}

const tooMuch = (of: 'time' | 'memory') =>
  new ProblemException(413, 'Too large', `This took more ${of} than one piece of work may take; nothing was changed.`);

/** Threads that run the functions a module exports, each within its bounds. */
export class Threads {
  private readonly pool: Piscina;
  /** Work that runs or waits. */
  private open = 0;

  /** @param module its address; each export is a kind of work */
  constructor(
    module: string,
    private readonly bounds: Bounds,
  ) {
    this.pool = new Piscina({
      filename: module,
      minThreads: 0,
      maxThreads: bounds.threads,
      idleTimeout: bounds.keptMs ?? 60_000,
      resourceLimits: { maxOldGenerationSizeMb: bounds.memoryMb, stackSizeMb: 4 },
    });
  }

  /**
   * @throws ProblemException 413 when it takes too much time or memory, which ends its thread; 503 when too much waits
   * already; CalledOff
   */
  async run<T>(name: string, input: unknown, { signal, told }: Asking = {}): Promise<T> {
    // Counted here: the pool's own limit lets more through while its threads are starting.
    if (this.open >= this.bounds.threads + this.bounds.waiting)
      throw new ProblemException(503, 'Busy', 'The server is busy with other work; try again in a moment.');
    this.open++;
    const line = told && new MessageChannel();
    line?.port2.on('message', (p: Progress) => told?.(p));
    // Signals that are made of others may be collected before they fire (Node 20): one, held here, is enough.
    const end = new AbortController();
    const leave = () => end.abort();
    const timer = setTimeout(leave, this.bounds.timeMs);
    signal?.addEventListener('abort', leave);
    if (signal?.aborted) leave();
    try {
      return (await this.pool.run(line ? { ...(input as object), line: line.port1 } : input, {
        name,
        signal: end.signal,
        ...(line && { transferList: [line.port1] }),
      })) as T;
    } catch (e) {
      const error = e as Error & { code?: string };
      if (signal?.aborted) throw new CalledOff();
      if (error.name === 'AbortError' || error.name === 'TimeoutError') throw tooMuch('time');
      if (error.code === 'ERR_WORKER_OUT_OF_MEMORY') throw tooMuch('memory');
      throw error;
    } finally {
      clearTimeout(timer);
      signal?.removeEventListener('abort', leave);
      line?.port2.close();
      this.open--;
    }
  }

  async end(): Promise<void> {
    await this.pool.destroy();
  }
}
