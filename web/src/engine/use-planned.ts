import { type ContourPlan, type Fdi, Refusal, widthsToMidline } from '@radiant/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { type ContourState, clientOf } from './use-contour.js';
import type { PlannedView } from './views.js';
import { faultOf, WorkLost } from './work.js';

/** All that a planned tooth's surface depends on. */
const keyOf = (plan: ContourPlan, tooth: Fdi): string => JSON.stringify([plan[tooth], widthsToMidline(plan, tooth)]);

/** How long a plan must have been left alone before its full maps are worked out, and how often that is looked at. */
const REST_MS = 200;
const STEP_MS = 25;

/** Planned surfaces, and why there is none of a tooth that is planned. */
export interface Planned {
  readonly views: ReadonlyMap<Fdi, PlannedView>;
  readonly troubles: ReadonlyMap<Fdi, string>;
}

/**
 * Planned surfaces, worked out again for just the teeth that a change touches: quickly at first, then in full once
 * the hand rests. While the worker is busy only the newest wish waits, so a fast slider never builds a queue.
 */
export function usePlanned(contour: ContourState, plan: ContourPlan): Planned {
  const [views, setViews] = useState<ReadonlyMap<Fdi, PlannedView>>(new Map());
  const [troubles, setTroubles] = useState<ReadonlyMap<Fdi, string>>(new Map());
  /** What each tooth's drawn surface and full map were made from. */
  const drawn = useRef(new Map<Fdi, string>());
  const full = useRef(new Map<Fdi, string>());
  const wanted = useRef(plan);
  const busy = useRef(false);
  const restedAt = useRef(0);
  const client = clientOf(contour);
  const servedBy = useRef(contour);
  useEffect(() => {
    wanted.current = plan;
    restedAt.current = performance.now();
    if (servedBy.current !== contour) {
      servedBy.current = contour;
      drawn.current.clear();
      full.current.clear();
      setViews(new Map());
      setTroubles(new Map());
    }
    if (!client || busy.current) return;
    const work = async () => {
      busy.current = true;
      try {
        for (;;) {
          const now = wanted.current;
          const teeth = Object.keys(now).map(Number);
          const due = (done: Map<Fdi, string>) => teeth.find((t) => done.get(t) !== keyOf(now, t));
          const quick = due(drawn.current);
          if (
            quick === undefined &&
            due(full.current) !== undefined &&
            [...drawn.current.keys()].length >= teeth.length
          ) {
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
          const view = await client.planned(now, tooth, hurried).catch((error: unknown) => {
            if (error instanceof WorkLost) throw error;
            return error instanceof Refusal ? error.message : faultOf(error);
          });
          drawn.current.set(tooth, key);
          // What is drawn in a hurry takes the place of a full map, of whatever plan that was.
          if (!hurried || typeof view === 'string') full.current.set(tooth, key);
          else full.current.delete(tooth);
          setViews((old) => (typeof view === 'string' ? without(old, tooth) : new Map(old).set(tooth, view)));
          setTroubles((old) => (typeof view === 'string' ? new Map(old).set(tooth, view) : without(old, tooth)));
        }
      } catch (error) {
        // Whoever shows the contour says that its thread is gone.
        if (!(error instanceof WorkLost)) throw error;
      } finally {
        busy.current = false;
      }
    };
    void work();
  }, [contour, client, plan]);
  const members = Object.keys(plan).join(' ');
  return useMemo(() => {
    const own = <T>(of: ReadonlyMap<Fdi, T>) =>
      new Map([...of].filter(([t]) => members.split(' ').includes(String(t))));
    return { views: own(views), troubles: own(troubles) };
  }, [views, troubles, members]);
}

function without<T>(of: ReadonlyMap<Fdi, T>, tooth: Fdi): ReadonlyMap<Fdi, T> {
  if (!of.has(tooth)) return of;
  const rest = new Map(of);
  rest.delete(tooth);
  return rest;
}
