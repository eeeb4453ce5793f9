import type { ChildProcess } from 'node:child_process';

export function launchHouse(options: { port: number; data: string; empty?: boolean }): Promise<{
  readonly url: string;
  readonly child: ChildProcess;
  readonly output: () => string;
  readonly stop: () => Promise<void>;
}>;
