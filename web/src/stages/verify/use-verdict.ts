import {
  type ContourPlan,
  type CutChoice,
  type FinishByHand,
  type Jaw,
  type Mouth,
  type PrepToothVerdict,
  type PrepVerdict,
  verdictOf,
} from '@radiant/core';
import { useCallback, useEffect, useState } from 'react';
import type { CaseClient } from '../../engine/case-client.js';
import { faultOf } from '../../engine/work.js';

/** How far a verdict has come. */
export interface Judging {
  /** Of the teeth that were measured so far; the last one until the next begins. */
  readonly verdict?: PrepVerdict;
  /** Whether all teeth are in it. */
  readonly whole: boolean;
  readonly failed?: string;
  readonly retry: () => void;
}

/**
 * Asks for the verdict on a jaw tooth by tooth, so that what was found on the first is read while the next is measured.
 * @param client undefined while nothing can be asked
 * @param scans which scans are judged: of others it is asked anew
 */
export function useVerdict(
  client: CaseClient | undefined,
  plan: ContourPlan,
  jaw: Jaw,
  choice: CutChoice,
  mouth: Mouth,
  lines: readonly FinishByHand[],
  scans: string,
): Judging {
  const [own, setOwn] = useState<Omit<Judging, 'retry'>>({ whole: false });
  const [attempt, setAttempt] = useState(0);
  const retry = useCallback(() => setAttempt((n) => n + 1), []);
  const question = JSON.stringify([choice, mouth, lines]);
  // What was found on another jaw, or by another scan, is not shown while this one is measured.
  // biome-ignore lint/correctness/useExhaustiveDependencies: each of them makes it another verdict
  useEffect(() => setOwn({ whole: false }), [jaw, scans]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: each attempt and scan anew; the question has the rest in it
  useEffect(() => {
    if (!client) return;
    let off = false;
    const put = (next: Omit<Judging, 'retry'>) => !off && setOwn(next);
    void (async () => {
      const standing = await client.ask(plan, 'prepStanding', jaw, choice);
      const teeth: PrepToothVerdict[] = [];
      put({ verdict: verdictOf(standing, teeth, choice), whole: standing.judged.length === 0 });
      for (const tooth of standing.judged) {
        if (off) return;
        teeth.push(await client.ask(plan, 'prepTooth', tooth, choice, mouth, lines));
        put({
          verdict: verdictOf(standing, [...teeth], choice),
          whole: teeth.length === standing.judged.length,
        });
      }
    })().catch((error: unknown) => put({ whole: false, failed: faultOf(error) }));
    return () => {
      off = true;
    };
  }, [client, plan, jaw, question, scans, attempt]);
  return { ...own, retry };
}
