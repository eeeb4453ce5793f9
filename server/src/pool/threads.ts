import { Piscina } from 'piscina';
import { ProblemException } from '../common/problem.filter.js';

/** How a kind of work is bounded: threads, what may wait, memory of a thread in MB, and time in ms. */
export interface Bounds {
  readonly threads: number;
  readonly waiting: number;
  readonly memoryMb: number;
  readonly timeMs: number;
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
      idleTimeout: 60_000,
      resourceLimits: { maxOldGenerationSizeMb: bounds.memoryMb, stackSizeMb: 4 },
    });
  }

  /**
   * @throws ProblemException 413 when it takes too much time or memory, which ends its thread; 503 when too much waits
   * already
   */
  async run<T>(name: string, input: unknown): Promise<T> {
    // Counted here: the pool's own limit lets more through while its threads are starting.
    if (this.open >= this.bounds.threads + this.bounds.waiting)
      throw new ProblemException(503, 'Busy', 'The server is busy with other work; try again in a moment.');
    this.open++;
    try {
      return (await this.pool.run(input, { name, signal: AbortSignal.timeout(this.bounds.timeMs) })) as T;
    } catch (e) {
      const error = e as Error & { code?: string };
      if (error.name === 'AbortError' || error.name === 'TimeoutError') throw tooMuch('time');
      if (error.code === 'ERR_WORKER_OUT_OF_MEMORY') throw tooMuch('memory');
      throw error;
    } finally {
      this.open--;
    }
  }

  async end(): Promise<void> {
    await this.pool.destroy();
  }
}
