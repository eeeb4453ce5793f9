import { type MatchSection, readColour } from '@radiant/contract';
import {
  type ContourPlan,
  type DesignChoice,
  type Fdi,
  type Mouth,
  type OptionsTold,
  Refusal,
  widthsToMidline,
} from '@radiant/core';
import { useEffect, useRef, useState } from 'react';
import type { CaseClient } from '../../engine/case-client.js';
import { faultOf, WorkLost } from '../../engine/work.js';

/** What every option would come to, tooth by tooth as it comes, and why it can't be told of a tooth. */
export interface AllOptions {
  readonly told: ReadonlyMap<Fdi, OptionsTold>;
  readonly troubles: ReadonlyMap<Fdi, string>;
}

const NONE: AllOptions = { told: new Map(), troubles: new Map() };

/**
 * The options of all planned teeth, worked out again for just those that a change touches; first of the tooth that is
 * looked at. @param attempt another number asks again @param client undefined while nobody asks
 */
export function useOptions(
  client: CaseClient | undefined,
  plan: ContourPlan,
  teeth: readonly Fdi[],
  choice: DesignChoice,
  match: MatchSection,
  mouth: Mouth,
  attempt: number,
): AllOptions {
  const [all, setAll] = useState<AllOptions>(NONE);
  const made = useRef(new Map<Fdi, string>());
  const servedBy = useRef<unknown>(undefined);
  useEffect(() => {
    if (servedBy.current !== client) {
      servedBy.current = client;
      made.current.clear();
      setAll(NONE);
    }
    if (!client) return;
    let off = false;
    // What single teeth are planned with has no say: every option is tried.
    const asked = { ...choice, own: [] };
    void (async () => {
      for (const tooth of teeth) {
        const colour = readColour(match, tooth, 'body');
        const key = JSON.stringify([attempt, plan[tooth], widthsToMidline(plan, tooth), asked, colour, mouth]);
        if (made.current.get(tooth) === key) continue;
        const answer = await client.ask(plan, 'optionsTold', tooth, asked, colour, mouth).catch((error: unknown) => {
          if (error instanceof WorkLost) throw error;
          return error instanceof Refusal ? error.message : faultOf(error);
        });
        if (off) return;
        made.current.set(tooth, key);
        setAll(({ told, troubles }) => {
          const next = { told: new Map(told), troubles: new Map(troubles) };
          next.told.delete(tooth);
          next.troubles.delete(tooth);
          if (typeof answer === 'string') next.troubles.set(tooth, answer);
          else next.told.set(tooth, answer);
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
  }, [client, plan, teeth, choice, match, mouth, attempt]);
  return all;
}
