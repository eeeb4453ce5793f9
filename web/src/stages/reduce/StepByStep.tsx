import { standingOf, standingWords } from '@radiant/contract';
import {
  burName,
  type ContourPlan,
  type CutStep,
  isoDiameter,
  SPEEDS,
  type ToothCutList,
  type ToothPlan,
} from '@radiant/core';
import { ChevronLeft, ChevronRight, TriangleAlert } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { BurProfile } from '../../bench/BurProfile.js';
import { useCase, useSection, useToothLabel } from '../../data/case-context.js';
import { StepSketch } from './StepSketch.js';

/** One tooth's cut list, a step at a time, large enough to be read from where the hands are. */
export function StepByStep({
  list,
  plan,
  at,
  setAt,
}: {
  list: ToothCutList;
  plan: ContourPlan;
  at: number;
  setAt: (at: number) => void;
}) {
  const name = useToothLabel();
  const { detail } = useCase();
  const standing = standingOf(useSection('shape').data.teeth, detail.contours);
  const { tooth, steps } = list;
  const now = Math.min(at, steps.length - 1);
  const step = steps[now] as CutStep;
  const rows = useRef<HTMLOListElement>(null);
  useEffect(() => {
    rows.current?.children[now]?.scrollIntoView({ block: 'nearest' });
  }, [now]);
  return (
    <section
      aria-label={`Steps of ${name(tooth)}`}
      className="grid h-full grid-cols-[minmax(0,250px)_minmax(0,1fr)] pt-14 max-xl:grid-cols-[minmax(0,190px)_minmax(0,1fr)] max-md:flex max-md:flex-col"
    >
      <ol
        ref={rows}
        className="min-h-0 overflow-y-auto border-r border-hair px-3 pb-4 max-xl:px-1.5 max-md:max-h-[34svh]"
      >
        {steps.map((s, i) => (
          <li key={s.title}>
            <button
              type="button"
              aria-current={i === now ? 'step' : undefined}
              onClick={() => setAt(i)}
              className="flex min-h-12 w-full items-center gap-2.5 rounded-md px-2.5 py-1 text-left hover:bg-leaf aria-[current=step]:bg-plum aria-[current=step]:text-white"
            >
              <span className="w-5 shrink-0 text-right text-note opacity-70">{i + 1}</span>
              <span className="min-w-0 flex-1">{s.title}</span>
              {s.depthMm !== undefined && <b className="shrink-0 font-[650]">{s.depthMm.toFixed(1)}</b>}
            </button>
          </li>
        ))}
      </ol>
      <div className="flex min-h-0 flex-col overflow-y-auto px-7 pb-4 max-xl:px-4 max-md:pt-4">
        {standing.kind !== 'approved' && (
          <p className="finding mb-3 text-note" data-weight="stop">
            The contour is {standingWords(standing)}: what is cut by it can’t be put back. Let the patient wear it and
            approve it first.
          </p>
        )}
        <p className="text-lead text-ink-2">
          {name(tooth)} · step {now + 1} of {steps.length}
        </p>
        <h2 className="title mt-0.5 text-head leading-tight">{step.title}</h2>
        <div className="mt-3 flex shrink-0 flex-wrap items-end gap-x-6 gap-y-3">
          <StepSketch
            tooth={tooth}
            plan={plan[tooth] as ToothPlan}
            places={step.places}
            grooves={step.how !== undefined}
            height={190}
          />
          {step.bur && <BurProfile bur={step.bur} pxPerMm={16} sunkMm={step.how ? step.depthMm : undefined} />}
          <div className="min-w-[170px] flex-1 pb-1 max-xl:order-first">
            {step.depthMm !== undefined && (
              <p className="leading-none" data-testid="step-depth">
                <b className="font-[650] text-set tracking-tight">{step.depthMm.toFixed(1)}</b>
                <span className="ml-1.5 text-figure text-ink-2">mm</span>
              </p>
            )}
            {step.bur && (
              <p className="mt-2 text-lead">
                {burName(step.bur)}
                <span className="block text-note text-ink-2">
                  ISO {isoDiameter(step.bur)}
                  {step.how && ` · ${step.how}`}
                  {step.bur.note && ` · ${step.bur.note}`}
                </span>
              </p>
            )}
            {step.speed && <p className="mt-1 text-note text-ink-2">{SPEEDS[step.speed]}</p>}
          </div>
        </div>
        <p className="mt-4 max-w-[62ch] text-lead leading-snug">{step.detail}</p>
        {step.caution && (
          <p className="finding mt-3 flex max-w-[62ch] items-start gap-2.5 text-body" data-weight="watch">
            <TriangleAlert size={18} className="mt-0.5 shrink-0" aria-hidden="true" />
            {step.caution}
          </p>
        )}
        <div className="mt-auto flex gap-3 pt-4">
          <button
            type="button"
            className="btn btn-ghost min-h-14 min-w-0 flex-1 text-lead"
            disabled={now === 0}
            onClick={() => setAt(now - 1)}
          >
            <ChevronLeft size={20} aria-hidden="true" /> before
          </button>
          <button
            type="button"
            className="btn min-h-14 min-w-0 flex-[2] text-lead"
            disabled={now === steps.length - 1}
            onClick={() => setAt(now + 1)}
          >
            <span className="min-w-0 truncate">{steps[now + 1] ? `next: ${steps[now + 1]?.title}` : 'done'}</span>
            <ChevronRight size={20} aria-hidden="true" />
          </button>
        </div>
      </div>
    </section>
  );
}
