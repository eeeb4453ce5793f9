import { type Contact, type ContourPlan, PLANNABLE, type ToothClearance } from '@radiant/core';
import { useEffect, useState } from 'react';
import { type ContourState, clientOf } from './use-contour.js';
import type { LowerState } from './use-lower.js';
import { faultOf } from './work.js';

/** What stands beside and below the planned crowns. */
export interface Neighbours {
  /** Why it could not be worked out, and a way to try again. */
  readonly trouble?: { readonly sentence: string; readonly retry: () => void };
  readonly contacts: readonly Contact[];
  /** Closed bite; undefined without a lower jaw. */
  readonly bite?: { readonly planned: readonly ToothClearance[]; readonly existing: readonly ToothClearance[] };
}

const REST_MS = 350;

/** Contacts and closed bite of the plan, worked out when it has been left alone for a moment. */
export function useNeighbours(contour: ContourState, plan: ContourPlan, lower: LowerState): Neighbours | undefined {
  const [found, setFound] = useState<Neighbours>();
  const [attempt, setAttempt] = useState(0);
  const client = clientOf(contour);
  const hasLower = lower.state === 'ready';
  // biome-ignore lint/correctness/useExhaustiveDependencies: each attempt asks again
  useEffect(() => {
    if (!client || Object.keys(plan).length === 0) return;
    let gone = false;
    const look = async () => {
      // One question after the other: a hand that moves on in between is served first.
      const contacts: Contact[] = [];
      for (const tooth of PLANNABLE) {
        const one = await client.ask(plan, 'contactOf', tooth);
        if (gone) return;
        if (one) contacts.push(one);
      }
      const bite = hasLower ? await client.ask(plan, 'closedBite') : undefined;
      if (!gone) setFound({ contacts, ...(bite && { bite }) });
    };
    const timer = setTimeout(() => {
      look().catch((error: unknown) => {
        if (!gone)
          setFound({ contacts: [], trouble: { sentence: faultOf(error), retry: () => setAttempt((n) => n + 1) } });
      });
    }, REST_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [client, plan, hasLower, attempt]);
  return found;
}
