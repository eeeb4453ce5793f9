import { readFile } from 'node:fs/promises';
import { CaseEngine, readScan } from '@radiant/core';

/** Engines that a thread keeps: the jaws of the case that is worked on, together and one by one. House value. */
const KEPT = 3;

/** The one that was asked for last stands last. A thread does one thing at a time, so nobody else has its plan. */
const kept = new Map<string, CaseEngine>();

/**
 * An engine that holds the scans of some files, measured once. Its plan is that of whoever asked last; each sets its
 * own, and what is the same in both is not made again.
 * @param paths of the scans, where their content names them: what lies there never changes
 * @throws Refusal of `readScan`
 */
export async function engineOn(paths: readonly string[]): Promise<CaseEngine> {
  const key = paths.join('\n');
  const engine = kept.get(key) ?? (await opened(paths));
  kept.delete(key);
  kept.set(key, engine);
  for (const oldest of kept.keys()) {
    if (kept.size <= KEPT) break;
    kept.delete(oldest);
  }
  return engine;
}

async function opened(paths: readonly string[]): Promise<CaseEngine> {
  const engine = new CaseEngine();
  for (const path of paths) engine.take(readScan(await readFile(path), []));
  return engine;
}
