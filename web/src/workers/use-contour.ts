import type { ContourPlan, Fdi } from '@radiant/core';
import { type Remote, wrap } from 'comlink';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useCase, useSection } from '../data/case-context.js';
import type { ArchView, ContourService, PlannedView } from './contour.worker.js';

interface Loaded {
  readonly url: string;
  readonly service: Remote<ContourService>;
  readonly arch: Promise<ArchView>;
}

/** The scan that is loaded now; one worker lives as long as its scan is looked at, over all stages. */
let loaded: Loaded | undefined;

function load(url: string): Loaded {
  if (loaded?.url === url) return loaded;
  const service = wrap<ContourService>(new Worker(new URL('./contour.worker.ts', import.meta.url), { type: 'module' }));
  const arch = service.load(url);
  const mine: Loaded = { url, service, arch };
  // A failed load is tried again the next time it is asked for.
  arch.catch(() => {
    if (loaded === mine) loaded = undefined;
  });
  loaded = mine;
  return mine;
}

export type ContourState =
  | { readonly state: 'no-scan' }
  | { readonly state: 'loading' }
  | { readonly state: 'failed'; readonly sentence: string; readonly retry: () => void }
  | { readonly state: 'ready'; readonly arch: ArchView; readonly service: Remote<ContourService> };

/** The case's scan in its worker: the newest one, or the one that the contour names. */
export function useContour(): ContourState {
  const { detail } = useCase();
  const { data } = useSection('shape');
  const scanId = data.scanId ?? detail.files.filter((f) => f.kind === 'scan').at(-1)?.id;
  const [state, setState] = useState<ContourState>(scanId ? { state: 'loading' } : { state: 'no-scan' });
  const [attempt, setAttempt] = useState(0);
  useEffect(() => {
    if (!scanId) return setState({ state: 'no-scan' });
    let gone = false;
    const l = load(`/api/cases/${detail.id}/files/${scanId}`);
    l.arch.then(
      (arch) => !gone && setState({ state: 'ready', arch, service: l.service }),
      (error: Error) => !gone && setState({ state: 'failed', sentence: error.message, retry: () => setAttempt(attempt + 1) }),
    );
    return () => {
      gone = true;
    };
  }, [scanId, detail.id, attempt]);
  return state;
}

/** What a planned tooth's place depends on: its own plan and the widths between it and the midline. */
function keyOf(plan: ContourPlan, tooth: Fdi): string {
  const widths = [];
  for (let t = tooth - 1; t % 10 >= 1; t--) widths.push(plan[t]?.widthMm);
  return JSON.stringify([plan[tooth], widths]);
}

/** How long a plan must have been left alone before its full maps are worked out, and how often that is looked at. */
const REST_MS = 200;
const STEP_MS = 25;

/**
 * Planned surfaces, worked out again for just the teeth that a change touches: quickly at first, then in full once
 * the hand rests. While the worker is busy only the newest wish waits, so a fast slider never builds a queue.
 */
export function usePlanned(contour: ContourState, plan: ContourPlan): ReadonlyMap<Fdi, PlannedView> {
  const [views, setViews] = useState<ReadonlyMap<Fdi, PlannedView>>(new Map());
  /** What each tooth's drawn surface and full map were made from. */
  const drawn = useRef(new Map<Fdi, string>());
  const full = useRef(new Map<Fdi, string>());
  const wanted = useRef(plan);
  const busy = useRef(false);
  const restedAt = useRef(0);
  const service = contour.state === 'ready' ? contour.service : undefined;
  const servedBy = useRef(service);
  useEffect(() => {
    wanted.current = plan;
    restedAt.current = performance.now();
    if (servedBy.current !== service) {
      servedBy.current = service;
      drawn.current.clear();
      full.current.clear();
      setViews(new Map());
    }
    if (!service || busy.current) return;
    const work = async () => {
      busy.current = true;
      try {
        for (;;) {
          const now = wanted.current;
          const teeth = Object.keys(now).map(Number);
          const due = (done: Map<Fdi, string>) => teeth.find((t) => done.get(t) !== keyOf(now, t));
          const quick = due(drawn.current);
          if (quick === undefined && due(full.current) !== undefined && [...drawn.current.keys()].length >= teeth.length) {
            // The full map is for when the hand rests: while it moves, the worker must be free for the next quick one.
            const left = restedAt.current + REST_MS - performance.now();
            if (left > 0) {
              await new Promise((r) => setTimeout(r, Math.min(left, STEP_MS)));
              continue;
            }
          }
          const tooth = quick ?? due(full.current);
          if (tooth === undefined) break;
          const key = keyOf(now, tooth);
          // A tooth that was never drawn has nobody waiting on a slider.
          const hurried = quick !== undefined && drawn.current.has(tooth);
          const view = await service.planned(now, tooth, hurried);
          drawn.current.set(tooth, key);
          if (!hurried) full.current.set(tooth, key);
          setViews((old) => new Map(old).set(tooth, view));
        }
      } finally {
        busy.current = false;
      }
    };
    void work();
  }, [service, plan]);
  const members = Object.keys(plan).join(' ');
  return useMemo(() => new Map([...views].filter(([t]) => members.split(' ').includes(String(t)))), [views, members]);
}
