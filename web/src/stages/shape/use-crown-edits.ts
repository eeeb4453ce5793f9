import { contourPlan, planInputs, sameContour, type ToothPlanInput } from '@radiant/contract';
import { type Fdi, opposite } from '@radiant/core';
import { useRef, useState } from 'react';
import { useSection } from '../../data/case-context.js';
import { type ContourState, clientOf } from '../../engine/use-contour.js';
import { faultOf } from '../../engine/work.js';

export type CrownEdits = ReturnType<typeof useCrownEdits>;

/** What a hand does to a crown's numbers: a change, what follows when it rests, and taking another tooth in. */
export function useCrownEdits(contour: ContourState, tooth: Fdi) {
  const [alike, setAlike] = useState(false);
  const shape = useSection('shape');
  const [refusal, setRefusal] = useState<string>();
  const latest = useRef(shape.data.teeth);
  latest.current = shape.data.teeth;
  const change = (by: Partial<ToothPlanInput>, what: string) => {
    const takes = (t: ToothPlanInput) => t.tooth === tooth || (alike && t.tooth === opposite(tooth));
    group.current = `${tooth} ${what}`;
    shape.set({ ...shape.data, teeth: shape.data.teeth.map((t) => (takes(t) ? { ...t, ...by } : t)) }, group.current);
  };
  const group = useRef('');
  /** After a change the contacts are set anew where they are kept, as part of the same step back. */
  const settle = async () => {
    const { contactsMm } = shape.data;
    const mine = group.current;
    group.current = '';
    const client = clientOf(contour);
    if (mine && typeof contactsMm === 'number' && client) {
      const before = shape.data.teeth;
      const done = await client
        .ask(contourPlan(before), 'contactsSet', contactsMm)
        .catch((error: unknown) => setRefusal(faultOf(error)));
      // Unless somebody was faster.
      if (done && sameContour(latest.current, before)) shape.set({ ...shape.data, teeth: planInputs(done.plan) }, mine);
    }
    shape.store.endGroup();
  };
  const takeIn = async () => {
    const plan = await clientOf(contour)
      ?.ask(contourPlan(shape.data.teeth), 'asItStands', tooth)
      .catch((error: unknown) => setRefusal(faultOf(error)));
    if (!plan) return;
    setRefusal(undefined);
    const { strokes: _, ...numbers } = plan;
    shape.set({ ...shape.data, teeth: [...shape.data.teeth, { tooth, ...numbers }] });
  };
  return { change, settle, takeIn, refusal, alike, setAlike };
}
