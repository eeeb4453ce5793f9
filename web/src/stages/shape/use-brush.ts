import type { ToothPlanInput } from '@radiant/contract';
import { contourPlan } from '@radiant/contract';
import { BRUSH_LIMITS, type ContourPlan, type Fdi, opposite, type Stroke } from '@radiant/core';
import { useCallback, useMemo, useRef, useState } from 'react';
import type { BrushHand } from '../../bench/ArchScene.js';
import { useSection } from '../../data/case-context.js';
import { type ContourState, clientOf } from '../../engine/use-contour.js';
import { faultOf } from '../../engine/work.js';
import type { BrushSetting } from './BrushCard.js';

interface Draft {
  readonly tooth: Fdi;
  readonly stroke: Stroke;
}

/** Strokes while they are drawn, and what becomes of them: checked, mirrored, kept; a refused one is gone again. */
export function useBrush(contour: ContourState, setting: BrushSetting, onTooth: (t: Fdi) => void) {
  const shape = useSection('shape');
  const [draft, setDraft] = useState<Draft>();
  const [refusal, setRefusal] = useState<string>();
  const latest = useRef<Draft | undefined>(undefined);
  const data = useRef(shape.data);
  data.current = shape.data;
  const set = shape.set;

  const show = useCallback((d: Draft | undefined) => {
    latest.current = d;
    setDraft(d);
  }, []);

  const finish = useCallback(
    async (d: Draft) => {
      const client = clientOf(contour);
      if (!client) return show(undefined);
      const plan = contourPlan(data.current.teeth);
      const other = opposite(d.tooth);
      const wanted: Draft[] = [d];
      try {
        if (setting.mirror && plan[other])
          wanted.push({ tooth: other, stroke: await client.ask(plan, 'strokeMirrored', other, d.stroke) });
        for (const w of wanted) await client.ask(plan, 'strokeFits', w.tooth, w.stroke);
      } catch (error) {
        setRefusal(faultOf(error));
        return show(undefined);
      }
      setRefusal(undefined);
      const strokes = new Map(wanted.map((w) => [w.tooth, w.stroke]));
      set({ ...data.current, teeth: data.current.teeth.map((t) => withStroke(t, strokes.get(t.tooth))) });
      show(undefined);
    },
    [contour, setting.mirror, set, show],
  );

  const hand = useMemo<BrushHand>(
    () => ({
      radiusMm: setting.radiusMm,
      begin: (tooth, vertex, e) => {
        onTooth(tooth);
        if (!data.current.teeth.some((t) => t.tooth === tooth)) return false;
        const tool = e.shiftKey
          ? 'smooth'
          : e.altKey && setting.tool !== 'smooth'
            ? setting.tool === 'add'
              ? 'remove'
              : 'add'
            : setting.tool;
        // A pen presses as hard as it presses; a mouse always the same.
        const press = e.pointerType === 'pen' && e.pressure > 0 ? Math.max(0.2, e.pressure * 2) : 1;
        const amount = Math.min(
          BRUSH_LIMITS.amount.max,
          Math.max(BRUSH_LIMITS.amount.min, Math.round(setting.amountMm * press * 100) / 100),
        );
        show({ tooth, stroke: { tool, radiusMm: setting.radiusMm, amount, at: [vertex] } });
        return true;
      },
      go: (tooth, vertex) => {
        const d = latest.current;
        if (!d || d.tooth !== tooth || d.stroke.at.at(-1) === vertex || d.stroke.at.length >= BRUSH_LIMITS.places)
          return;
        show({ tooth, stroke: { ...d.stroke, at: [...d.stroke.at, vertex] } });
      },
      end: () => {
        if (latest.current) void finish(latest.current);
      },
    }),
    [setting, onTooth, show, finish],
  );

  /** The plan with the stroke that is being drawn on it. */
  const drawn = useCallback(
    (plan: ContourPlan): ContourPlan => {
      const own = draft && plan[draft.tooth];
      return own ? { ...plan, [draft.tooth]: { ...own, strokes: [...(own.strokes ?? []), draft.stroke] } } : plan;
    },
    [draft],
  );
  return { hand, drawn, refusal };
}

function withStroke(t: ToothPlanInput, stroke: Stroke | undefined): ToothPlanInput {
  return stroke ? { ...t, strokes: [...(t.strokes ?? []), { ...stroke, at: [...stroke.at] }] } : t;
}
