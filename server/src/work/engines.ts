import { readFile } from 'node:fs/promises';
import { CaseEngine, readScan, ScannedJaw } from '@radiant/core';

/** Engines that a thread keeps: the jaws of the case that is worked on, together and one by one. House value. */
const KEPT = 3;

/** The one that was asked for last stands last. A thread does one thing at a time, so nobody else has its plan. */
const kept = new Map<string, CaseEngine>();
/** Their jaws by their paths: a jaw is measured once, alone and together with the other. */
const jaws = new Map<string, ScannedJaw>();

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
  const needed = new Set([...kept.keys()].flatMap((k) => k.split('\n')));
  for (const path of jaws.keys()) if (!needed.has(path)) jaws.delete(path);
  return engine;
}

async function opened(paths: readonly string[]): Promise<CaseEngine> {
  const engine = new CaseEngine();
  for (const path of paths) {
    const jaw = jaws.get(path) ?? new ScannedJaw(readScan(await readFile(path), []));
    jaws.set(path, jaw);
    engine.take(jaw);
  }
  return engine;
}
