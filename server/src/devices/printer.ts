import { spawn } from 'node:child_process';
import { text } from 'node:stream/consumers';
import { fileURLToPath } from 'node:url';
import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import type { PrinterSays } from '@radiant/contract';
import { ProblemException } from '../common/problem.filter.js';

/** So many files are looked at at once, and each so long. */
const AT_ONCE = 2;
const TIME_MS = 120_000;

/** Sends files to the simulated printer, which is a process of its own, and hears what it says. */
@Injectable()
export class Printer implements OnModuleDestroy {
  private readonly under = new Set<ReturnType<typeof spawn>>();

  onModuleDestroy(): void {
    for (const own of this.under) own.kill();
  }

  /**
   * Sends a file. @param signal ends it
   * @throws ProblemException 503 while the printer has enough to do, or where it did not answer
   */
  async send(file: Uint8Array, signal?: AbortSignal): Promise<PrinterSays> {
    if (this.under.size >= AT_ONCE)
      throw new ProblemException(503, 'Busy', 'The printer has enough to look at; try again in a moment.');
    const script = fileURLToPath(new URL('./simulated-printer.js', import.meta.url));
    const own = spawn(process.execPath, [script], { stdio: ['pipe', 'pipe', 'inherit'] });
    this.under.add(own);
    const end = () => own.kill();
    const late = setTimeout(end, TIME_MS);
    signal?.addEventListener('abort', end);
    try {
      own.stdin.on('error', () => undefined);
      own.stdin.end(file);
      return JSON.parse(await text(own.stdout)) as PrinterSays;
    } catch {
      throw new ProblemException(503, 'No answer', 'The printer did not answer; nothing was printed. Try again.');
    } finally {
      clearTimeout(late);
      signal?.removeEventListener('abort', end);
      this.under.delete(own);
    }
  }
}
