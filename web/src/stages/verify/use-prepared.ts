import { type ContourPlan, type CutChoice, type Fdi, type FinishByHand, type Mouth, Refusal } from '@radiant/core';
import { useEffect, useState } from 'react';
import type { CaseClient } from '../../engine/case-client.js';
import type { PreparedToothView } from '../../engine/views.js';
import { faultOf, WorkLost } from '../../engine/work.js';

/** Prepared teeth as they come, one by one, and why one can't be shown. */
export interface PreparedTeeth {
  readonly views: ReadonlyMap<Fdi, PreparedToothView>;
  readonly troubles: ReadonlyMap<Fdi, string>;
}

const NONE: PreparedTeeth = { views: new Map(), troubles: new Map() };

/** The prepared teeth of a scan, measured for drawing. @param client undefined while nobody looks */
export function usePrepared(
  client: CaseClient | undefined,
  plan: ContourPlan,
  teeth: readonly Fdi[],
  choice: CutChoice,
  mouth: Mouth,
  lines: readonly FinishByHand[],
  scans: string,
): PreparedTeeth {
  const [shown, setShown] = useState<PreparedTeeth>(NONE);
  const key = teeth.join();
  // Teeth of another scan are not shown while these are measured.
  // biome-ignore lint/correctness/useExhaustiveDependencies: each scan anew
  useEffect(() => setShown(NONE), [scans]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for the teeth
  useEffect(() => {
    if (!client) return;
    let off = false;
    // What is there stands until its tooth comes anew.
    setShown(({ views }) => ({ ...NONE, views: new Map([...views].filter(([t]) => teeth.includes(t))) }));
    void (async () => {
      for (const tooth of teeth) {
        const answer = await client.prepared(plan, tooth, choice, mouth, lines).catch((error: unknown) => {
          if (error instanceof WorkLost) throw error;
          return error instanceof Refusal ? error.message : faultOf(error);
        });
        if (off) return;
        setShown(({ views, troubles }) =>
          typeof answer === 'string'
            ? { views, troubles: new Map([...troubles, [tooth, answer]]) }
            : { views: new Map([...views, [tooth, answer]]), troubles },
        );
      }
      // Whoever shows the contour says that its thread is gone.
    })().catch((error: unknown) => {
      if (!(error instanceof WorkLost)) throw error;
    });
    return () => {
      off = true;
    };
  }, [client, plan, key, choice, mouth, lines]);
  return shown;
}
