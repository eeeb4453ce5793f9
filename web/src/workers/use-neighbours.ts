import { type Contact, type ContourPlan, PLANNABLE, type ToothClearance } from '@radiant/core';
import { useEffect, useState } from 'react';
import type { ContourState } from './use-contour.js';
import type { LowerState } from './use-lower.js';

/** What stands beside and below the planned crowns. */
export interface Neighbours {
  readonly contacts: readonly Contact[];
  /** Closed bite; undefined without a lower jaw. */
  readonly bite?: { readonly planned: readonly ToothClearance[]; readonly existing: readonly ToothClearance[] };
}

const REST_MS = 350;

/** Contacts and closed bite of the plan, worked out when it has been left alone for a moment. */
export function useNeighbours(contour: ContourState, plan: ContourPlan, lower: LowerState): Neighbours | undefined {
  const [found, setFound] = useState<Neighbours>();
  const service = contour.state === 'ready' ? contour.service : undefined;
  const hasLower = lower.state === 'ready';
  useEffect(() => {
    if (!service || Object.keys(plan).length === 0) return;
    let gone = false;
    const timer = setTimeout(async () => {
      // One question after the other: a hand that moves on in between is served first.
      const contacts: Contact[] = [];
      for (const tooth of PLANNABLE) {
        const one = await service.contactOf(plan, tooth);
        if (gone) return;
        if (one) contacts.push(one);
      }
      const bite = hasLower ? await service.closedBite(plan) : undefined;
      if (!gone) setFound({ contacts, ...(bite && { bite }) });
    }, REST_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [service, plan, hasLower]);
  return found;
}
