import { Injectable } from '@nestjs/common';
import type { Response } from 'express';
import type { Asking, Progress } from '../pool/threads.js';

/** What is being made for somebody, by the number that they gave it. */
@Injectable()
export class JobsService {
  private readonly under = new Map<string, Progress>();

  /** How far a person's piece of work is; nothing where none of theirs has this number. */
  progress(personId: string, job: string): Progress | undefined {
    return this.under.get(keyOf(personId, job));
  }

  /**
   * Follows a piece of work until its answer is sent; whoever hangs up calls it off.
   * @param job the number that the page gave it, where it wants to hear of it
   */
  asking(personId: string, job: string | undefined, response: Response): Asking {
    const off = new AbortController();
    const key = job && /^[0-9a-f-]{36}$/.test(job) ? keyOf(personId, job) : undefined;
    if (key) this.under.set(key, { what: 'Waiting its turn', share: 0 });
    response.on('close', () => {
      if (key) this.under.delete(key);
      if (!response.writableFinished) off.abort();
    });
    return {
      signal: off.signal,
      told: (p) => {
        if (key && this.under.has(key)) this.under.set(key, p);
      },
    };
  }
}

const keyOf = (personId: string, job: string): string => `${personId} ${job}`;
