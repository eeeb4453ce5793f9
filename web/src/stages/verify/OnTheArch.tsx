import { SHORT_RANGE_MM, shortColour } from '@radiant/contract';
import { type Fdi, type FinishByHand, isPlannable, jawOf, type Vec3 } from '@radiant/core';
import { useCallback, useMemo, useRef, useState } from 'react';
import type { View } from '../../bench/arch-eye.js';
import { css } from '../../bench/colour-scale.js';
import { PreparedScene, type PreparedShowing } from '../../bench/PreparedScene.js';
import { ViewChips } from '../../bench/ViewChips.js';
import { useCase, useSentence, useToothLabel } from '../../data/case-context.js';
import type { JawState } from '../../engine/use-jaws.js';
import { useHotkeys } from '../../ui/hotkeys.js';
import { Trouble, Waiting } from '../../ui/Waiting.js';
import type { LineDrawing } from './use-line.js';
import type { PreparedTeeth } from './use-prepared.js';

const SHOWING: Readonly<Record<PreparedShowing, string>> = { short: 'still to cut', plain: 'as it is' };
const SHOWINGS = Object.keys(SHOWING) as readonly PreparedShowing[];
const STEPS = 21;

/** The prepared teeth on their arch. */
export function OnTheArch({
  jaw: own,
  prepared,
  of,
  marked,
  pins,
  line,
  drawn,
  onPoint,
}: {
  jaw: JawState;
  prepared: PreparedTeeth;
  /** How many teeth will come. */
  of: number;
  marked: Vec3 | undefined;
  pins: readonly Vec3[];
  line: LineDrawing;
  drawn: readonly FinishByHand[];
  /** Where a point is asked for: takes the next one that is pressed. */
  onPoint: ((tooth: Fdi, at: Vec3) => void) | undefined;
}) {
  const { tooth, selectTooth } = useCase();
  const sentence = useSentence();
  const name = useToothLabel();
  const [showing, setShowing] = useState<PreparedShowing>('short');
  const jaw = jawOf(tooth);
  const [view, setView] = useState<Omit<View, 'jaw'>>({ name: 'front', turn: 0 });
  const reading = useRef<HTMLSpanElement>(null);
  const { pull, done } = line;
  // biome-ignore lint/correctness/useExhaustiveDependencies: letting go is the same thing each time
  const drawing = useMemo(() => (pull ? { pull, done } : undefined), [pull]);
  const choose = useCallback(
    (t: Fdi, at: Vec3) => {
      if (!isPlannable(t)) return;
      selectTooth(t);
      onPoint?.(t, at);
    },
    [selectTooth, onPoint],
  );
  useHotkeys('stage', [
    {
      keys: 'P',
      does: 'what is still to cut, the teeth as they are',
      on: ['p'],
      run: () => setShowing((s) => SHOWINGS[(SHOWINGS.indexOf(s) + 1) % SHOWINGS.length] as PreparedShowing),
    },
  ]);
  if (own.state === 'failed') return <Trouble sentence={sentence(own.sentence)} retry={own.retry} />;
  if (own.state !== 'ready') return <Waiting what="the arch" />;
  return (
    <div className="relative h-full bg-bench">
      <PreparedScene
        arch={own.arch}
        prepared={prepared.views}
        showing={showing}
        view={{ ...view, jaw }}
        selected={tooth}
        marked={marked}
        pins={pins}
        line={drawing}
        drawn={drawn}
        onSelect={choose}
        reading={reading}
      />
      <span
        ref={reading}
        hidden
        className="pointer-events-none absolute top-0 left-0 whitespace-nowrap rounded bg-ink/85 px-1.5 py-0.5 text-tiny text-white"
      />
      <div className="pointer-events-none absolute inset-x-4 top-14 flex flex-wrap gap-1.5 [&>*]:pointer-events-auto">
        {SHOWINGS.map((s) => (
          <button key={s} type="button" className="chip" aria-pressed={showing === s} onClick={() => setShowing(s)}>
            {SHOWING[s]}
          </button>
        ))}
      </div>
      <div className="absolute top-24 left-4 max-w-[320px] text-note [&>*]:mb-2 [&>*]:rounded-r-lg [&>*]:bg-leaf [&>*]:py-1.5 [&>*]:pr-3 [&>*]:shadow-lg">
        {onPoint && (
          <p className="rounded-lg px-3" role="status">
            Press the point that the comment is about; Esc leaves it.
          </p>
        )}
        {[...prepared.troubles].map(([t, why]) => (
          <p key={t} className="finding" data-weight="watch">
            {name(t)} can’t be shown: {sentence(why)}
          </p>
        ))}
        {prepared.views.size + prepared.troubles.size < of && (
          <p className="rounded-lg px-3" role="status">
            Measuring tooth {prepared.views.size + prepared.troubles.size + 1} of {of} …
          </p>
        )}
      </div>
      <div className="pointer-events-none absolute inset-x-4 bottom-4 flex flex-wrap items-end justify-between gap-3 [&>*]:pointer-events-auto">
        {showing === 'short' && <Scale />}
        <ViewChips jaw={jaw} look={(n) => setView(({ turn }) => ({ name: n, turn: turn + 1 }))} />
      </div>
    </div>
  );
}

function Scale() {
  const at = (i: number) => ((2 * i) / (STEPS - 1) - 1) * SHORT_RANGE_MM;
  return (
    <figure className="rounded-lg bg-leaf/95 px-3 py-2 text-tiny shadow-lg" aria-label="Scale">
      <div className="flex">
        {Array.from({ length: STEPS }, (_, i) => (
          <span key={i} className="h-2.5 w-[11px]" style={{ background: css(shortColour(at(i))) }} />
        ))}
      </div>
      <div className="mt-1 flex justify-between">
        <span>{SHORT_RANGE_MM.toFixed(1)} mm</span>
        <span>0</span>
        <span>{SHORT_RANGE_MM.toFixed(1)} mm</span>
      </div>
      <figcaption className="mt-0.5 flex justify-between gap-4 font-semibold">
        <span className="text-added">more gone than asked</span>
        <span className="text-removed-ink">still to cut</span>
      </figcaption>
      <p className="mt-1 text-ink-2">Dots: where the cut was to end, grey, and where it ends.</p>
    </figure>
  );
}
