import { createHash } from 'node:crypto';
import { availableParallelism } from 'node:os';
import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import { Refusal } from '@radiant/core';
import { ProblemException } from '../common/problem.filter.js';
import type { Fault, Tasks } from '../work/tasks.js';
import { type Asking, type Bounds, type Progress, Threads } from './threads.js';

/**
 * Reading what comes in is short and must not wait behind the making of models. Its thread takes two seconds to start,
 * while whoever chose a scan waits for it: it is kept through a visit.
 */
const READING: Bounds = { threads: 1, waiting: 64, memoryMb: 3072, timeMs: 60_000, keptMs: 20 * 60_000 };
/** One processor is left for answering. */
const MAKING: Bounds = {
  threads: Math.max(1, availableParallelism() - 1),
  waiting: 24,
  memoryMb: 2048,
  timeMs: 120_000,
};
/** A whole case: its photographs and scans are looked at one by one. */
const WHOLE_CASE_MS = 30 * 60_000;

/** Finished results kept for whoever asks for the same again, bytes in all. */
const KEPT_BYTES = 96 * 1024 * 1024;

/** A document that is being made, and everybody who waits for it. */
interface Making {
  readonly made: Promise<Uint8Array>;
  readonly askers: Set<Asking>;
  readonly end: AbortController;
}

type Name = keyof Tasks;
type Input<N extends Name> = Parameters<Tasks[N]>[0];
type Output<N extends Name> = Exclude<Awaited<ReturnType<Tasks[N]>>, { fault: Fault }>;

const open = (bounds: Bounds) => new Threads(new URL('../work/tasks.js', import.meta.url).href, bounds);

/**
 * Everything that takes longer than an answer may, in threads: bounded in number, time and memory. What two people ask
 * for at once, or one twice, is made once.
 */
@Injectable()
export class Pool implements OnModuleDestroy {
  private readonly reading = open(READING);
  private readonly making = open(MAKING);
  private readonly cases = open({ ...READING, waiting: 8, timeMs: WHOLE_CASE_MS, keptMs: 60_000 });
  private readonly under = new Map<string, Making>();
  private readonly kept = new Map<string, Uint8Array>();
  private keptBytes = 0;

  async onModuleDestroy(): Promise<void> {
    await Promise.all([this.reading.end(), this.making.end(), this.cases.end()]);
  }

  /**
   * Looks at something that came in. @throws ProblemException 413 when it takes too much memory or time, 422, 503;
   * Refusal
   */
  read<N extends 'inspect' | 'readChange' | 'decode' | 'holidays'>(name: N, input: Input<N>): Promise<Output<N>> {
    return this.run(this.reading, name, input);
  }

  /** Reads a whole case file. @throws as `read` */
  readCase(input: Input<'readCase'>): Promise<Output<'readCase'>> {
    return this.run(this.cases, 'readCase', input);
  }

  /** Writes a whole case file to the disk. @throws as `read` */
  async writeCase(input: Input<'writeCase'>): Promise<void> {
    await this.run(this.cases, 'writeCase', input);
  }

  /**
   * Makes a document; once for the same input, whoever asks. It is ended when everybody who asked has gone.
   * @throws as `read`; CalledOff
   */
  async make<N extends 'plan' | 'surface'>(name: N, input: Input<N>, asking: Asking = {}): Promise<Uint8Array> {
    const key = createHash('sha256').update(name).update(JSON.stringify(input)).digest('hex');
    const before = this.kept.get(key);
    if (before) {
      this.kept.delete(key);
      this.kept.set(key, before);
      return before;
    }
    const making = this.under.get(key) ?? this.begin(key, name, input);
    const leave = () => {
      making.askers.delete(asking);
      if (making.askers.size === 0) making.end.abort();
    };
    making.askers.add(asking);
    asking.signal?.addEventListener('abort', leave);
    try {
      return await making.made;
    } finally {
      asking.signal?.removeEventListener('abort', leave);
    }
  }

  private begin<N extends 'plan' | 'surface'>(key: string, name: N, input: Input<N>): Making {
    const end = new AbortController();
    const askers = new Set<Asking>();
    const told = (p: Progress) => {
      for (const a of askers) a.told?.(p);
    };
    const made = (this.run(this.making, name, input, { signal: end.signal, told }) as Promise<Uint8Array>)
      .then((bytes) => {
        this.keep(key, bytes);
        return bytes;
      })
      .finally(() => this.under.delete(key));
    const making = { made, askers, end };
    this.under.set(key, making);
    return making;
  }

  private keep(key: string, bytes: Uint8Array): void {
    if (bytes.length > KEPT_BYTES / 2) return;
    this.kept.set(key, bytes);
    this.keptBytes += bytes.length;
    for (const [oldest, held] of this.kept) {
      if (this.keptBytes <= KEPT_BYTES) break;
      this.kept.delete(oldest);
      this.keptBytes -= held.length;
    }
  }

  private async run<N extends Name>(threads: Threads, name: N, input: Input<N>, asking?: Asking): Promise<Output<N>> {
    const out = await threads.run<Output<N> | { fault: Fault }>(name, input, asking);
    if (out && typeof out === 'object' && 'fault' in out) throw asError(out.fault);
    return out as Output<N>;
  }
}

function asError({ code, status = 422, title = 'Not accepted', sentence, errors }: Fault): Error {
  return code ? new Refusal(code, sentence) : new ProblemException(status, title, sentence, errors ? { errors } : {});
}
