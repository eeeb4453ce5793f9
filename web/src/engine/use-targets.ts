import {
  type ContourPlan,
  type DesignChoice,
  designKey,
  type Fdi,
  type Mouth,
  Refusal,
  restorationOf,
  widthsToMidline,
} from '@radiant/core';
import { useEffect, useRef, useState } from 'react';
import type { CaseClient } from './case-client.js';
import type { TargetView } from './views.js';
import { faultOf, WorkLost } from './work.js';

/** Target preparations as they come, tooth by tooth, and why there is none of a tooth. */
export interface Targets {
  readonly views: ReadonlyMap<Fdi, TargetView>;
  readonly troubles: ReadonlyMap<Fdi, string>;
}

const NONE: Targets = { views: new Map(), troubles: new Map() };

/**
 * The target preparations of the planned teeth, worked out again for just those that a change touches.
 * @param client undefined while nobody asks
 */
export function useTargets(
  client: CaseClient | undefined,
  plan: ContourPlan,
  teeth: readonly Fdi[],
  choice: DesignChoice,
  mouth: Mouth,
): Targets {
  const [targets, setTargets] = useState<Targets>(NONE);
  const made = useRef(new Map<Fdi, string>());
  const servedBy = useRef(client);
  useEffect(() => {
    if (servedBy.current !== client) {
      servedBy.current = client;
      made.current.clear();
      setTargets(NONE);
    }
    if (!client) return;
    let off = false;
    const keyOf = (t: Fdi) =>
      JSON.stringify([plan[t], widthsToMidline(plan, t), designKey(restorationOf(t, choice).design), mouth]);
    void (async () => {
      for (const tooth of teeth) {
        const key = keyOf(tooth);
        if (made.current.get(tooth) === key) continue;
        const answer = await client.target(plan, tooth, choice, mouth).catch((error: unknown) => {
          if (error instanceof WorkLost) throw error;
          return error instanceof Refusal ? error.message : faultOf(error);
        });
        if (off) return;
        made.current.set(tooth, key);
        setTargets(({ views, troubles }) => {
          const next = { views: new Map(views), troubles: new Map(troubles) };
          next.views.delete(tooth);
          next.troubles.delete(tooth);
          if (typeof answer === 'string') next.troubles.set(tooth, answer);
          else next.views.set(tooth, answer);
          return next;
        });
      }
      // Whoever shows the contour says that its thread is gone.
    })().catch((error: unknown) => {
      if (!(error instanceof WorkLost)) throw error;
    });
    return () => {
      off = true;
    };
  }, [client, plan, teeth, choice, mouth]);
  return targets;
}
