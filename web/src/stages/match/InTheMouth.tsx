import { readingAt } from '@radiant/contract';
import { type ContourPlan, type FacialThird, type Fdi, isPlannable, jawOf, type Lab, VISIBLE } from '@radiant/core';
import { useCallback, useMemo, useRef, useState } from 'react';
import type { View } from '../../bench/arch-eye.js';
import { ColourScene, type ColourShowing } from '../../bench/ColourScene.js';
import { css, SHOWS_RANGE, showsColour } from '../../bench/colour-scale.js';
import { ViewChips } from '../../bench/ViewChips.js';
import { useCase, useSection, useSentence } from '../../data/case-context.js';
import { shownOf } from '../../engine/use-asked.js';
import { type ContourState, clientOf } from '../../engine/use-contour.js';
import { useJaw } from '../../engine/use-jaws.js';
import { useLower } from '../../engine/use-lower.js';
import { usePlanned } from '../../engine/use-planned.js';
import { useSmileColours } from '../../engine/use-smile-colours.js';
import { Empty } from '../../ui/StageLayout.js';
import { Trouble, Waiting } from '../../ui/Waiting.js';

/** The planned teeth in the predicted colour, or where the stump shows through them. */
export function InTheMouth({
  contour,
  plan,
  showing,
}: {
  contour: ContourState;
  plan: ContourPlan;
  showing: ColourShowing;
}) {
  const { tooth, selectTooth } = useCase();
  const sentence = useSentence();
  const jaw = jawOf(tooth);
  const lower = useLower(contour, jaw === 'lower');
  const own = useJaw(contour, lower, jaw);
  const planned = usePlanned(contour, plan);
  const asked = useSmileColours(clientOf(contour), plan);
  const looks = useMemo(() => new Map((shownOf(asked) ?? []).map((l) => [l.tooth, l] as const)), [asked]);
  const { data } = useSection('match');
  const reads = useMemo(() => {
    const known = new Map<Fdi, Record<FacialThird, Lab>>();
    for (const tooth of new Set(data.readings.map((r) => r.tooth))) {
      const body = readingAt(data, tooth, 'tooth', 'body');
      if (!body) continue;
      const at = (zone: 'gum' | 'edge') => readingAt(data, tooth, 'tooth', zone) ?? body;
      known.set(tooth, { cervical: at('gum'), middle: body, incisal: at('edge') });
    }
    return known;
  }, [data]);
  const [view, setView] = useState<Omit<View, 'jaw'>>({ name: 'front', turn: 0 });
  const reading = useRef<HTMLSpanElement>(null);
  const choose = useCallback((t: Fdi) => isPlannable(t) && selectTooth(t), [selectTooth]);
  if (own.state === 'failed') return <Trouble sentence={sentence(own.sentence)} retry={own.retry} />;
  if (asked.state === 'failed') return <Trouble sentence={sentence(asked.sentence)} retry={asked.retry} />;
  if (asked.state === 'idle')
    return (
      <Empty title="No colour is known of a planned tooth">
        <p>Choose what is wanted and read a tooth, or its stump, wet: then the plan is shown as it will look.</p>
      </Empty>
    );
  if (own.state !== 'ready' || looks.size === 0) return <Waiting what="the colours" />;
  return (
    <div className="relative h-full bg-bench">
      <ColourScene
        arch={own.arch}
        planned={planned.views}
        looks={looks}
        reads={reads}
        showing={showing}
        view={{ ...view, jaw }}
        onSelect={choose}
        reading={reading}
      />
      <span
        ref={reading}
        hidden
        className="pointer-events-none absolute top-0 left-0 whitespace-nowrap rounded bg-ink/85 px-1.5 py-0.5 text-tiny text-white"
      />
      <div className="pointer-events-none absolute inset-x-4 bottom-4 flex flex-wrap items-end justify-between gap-3 [&>*]:pointer-events-auto">
        <figure className="max-w-[300px] rounded-xl bg-leaf px-4 py-3 text-fine shadow-lg">
          {showing === 'stump' ? (
            <>
              <div className="flex" aria-hidden="true">
                {STEPS.map((dE) => (
                  <span key={dE} className="h-2.5 w-3.5" style={{ background: css(showsColour(dE)) }} />
                ))}
              </div>
              <div className="mt-1 flex justify-between">
                <span>0</span>
                <span>{SHOWS_RANGE / 2}</span>
                <span>ΔE00 {SHOWS_RANGE}</span>
              </div>
              <figcaption className="mt-0.5 font-semibold">how much of the stump shows</figcaption>
              <p className="mt-1">
                pale: less than {VISIBLE.seen}, nobody sees it;{' '}
                <span
                  className="inline-block h-2.5 w-3"
                  style={{ background: css(showsColour(Number.NaN)) }}
                  aria-hidden
                />{' '}
                no ceramic
              </p>
            </>
          ) : (
            <figcaption>
              Planned teeth <b className="font-semibold">as predicted</b>, at each place as thick as they are planned;
              others as they were read, or pale. A screen does not show colour exactly.
            </figcaption>
          )}
        </figure>
        <ViewChips jaw={jaw} look={(name) => setView(({ turn }) => ({ name, turn: turn + 1 }))} />
      </div>
      <span data-testid="look-count" className="sr-only">
        {looks.size} teeth in predicted colour
      </span>
    </div>
  );
}

const STEPS = Array.from({ length: 13 }, (_, i) => (i / 12) * SHOWS_RANGE);
