import { readFile } from 'node:fs/promises';
import { JAWS } from '@radiant/contract';
import { CaseEngine, type Jaw, LATER_STATES, type LaterState, readScan, ScannedJaw } from '@radiant/core';

/** A later scan of a jaw, where its content names it. */
export interface LaterPath {
  readonly jaw: Jaw;
  readonly state: LaterState;
  readonly path: string;
}

/** Engines that a thread keeps: the jaws of the case that is worked on, together and one by one. House value. */
const KEPT = 3;

/** The one that was asked for last stands last. A thread does one thing at a time, so nobody else has its plan. */
const kept = new Map<string, CaseEngine>();
/** Their jaws by their paths: a jaw is measured once, alone and together with the other. */
const jaws = new Map<string, ScannedJaw>();

/** The paths of the later scans that an engine has, by jaw and state. */
const laterIn = new WeakMap<CaseEngine, Map<string, string>>();

/**
 * An engine that holds the scans of some files, measured once. Its plan is that of whoever asked last; each sets its
 * own, and what is the same in both is not made again.
 * @param paths of the scans, where their content names them: what lies there never changes
 * @param later scans of the same jaws after they were cut; without one the engine has none
 * @throws Refusal of `readScan`
 */
export async function engineOn(paths: readonly string[], later: readonly LaterPath[] = []): Promise<CaseEngine> {
  const engine = await firstOn(paths);
  const has = laterIn.get(engine) ?? new Map<string, string>();
  laterIn.set(engine, has);
  for (const jaw of JAWS)
    for (const state of LATER_STATES) {
      const own = later.find((l) => l.jaw === jaw && l.state === state)?.path;
      const key = `${jaw} ${state}`;
      if (own && has.get(key) === own) continue;
      has.delete(key);
      if (!own) engine.dropLater(jaw, state);
      else {
        engine.takeLater(readScan(await readFile(own), []), state);
        has.set(key, own);
      }
    }
  return engine;
}

async function firstOn(paths: readonly string[]): Promise<CaseEngine> {
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
