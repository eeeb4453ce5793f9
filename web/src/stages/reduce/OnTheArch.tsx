import type { Fdi } from '@radiant/core';
import { isPlannable, jawOf } from '@radiant/core';
import { useCallback, useRef, useState } from 'react';
import type { View } from '../../bench/arch-eye.js';
import { css, REMOVAL_RANGE_MM, targetColour } from '../../bench/colour-scale.js';
import { TargetScene, type TargetShowing } from '../../bench/TargetScene.js';
import { ViewChips } from '../../bench/ViewChips.js';
import { useCase, useSentence, useToothLabel } from '../../data/case-context.js';
import type { JawState } from '../../engine/use-jaws.js';
import type { Targets } from '../../engine/use-targets.js';
import { useHotkeys } from '../../ui/hotkeys.js';
import { Trouble, Waiting } from '../../ui/Waiting.js';

const SHOWING: Readonly<Record<TargetShowing, string>> = {
  removal: 'what goes',
  align: 'into line first',
  ceramic: 'then for the ceramic',
  prepared: 'prepared',
};
const SHOWINGS = Object.keys(SHOWING) as readonly TargetShowing[];
/** What the colours tell. */
const SCALE_WORDS: Readonly<Record<Exclude<TargetShowing, 'prepared'>, string>> = {
  removal: 'tooth to remove',
  align: 'to remove to stand in line with the plan',
  ceramic: 'to remove for the ceramic, once in line',
};
const STEPS = 16;

/** The arch with what goes from each tooth, or with the teeth as they are to be prepared. */
export function OnTheArch({ jaw: own, targets }: { jaw: JawState; targets: Targets }) {
  const { tooth, selectTooth } = useCase();
  const sentence = useSentence();
  const name = useToothLabel();
  const [showing, setShowing] = useState<TargetShowing>('removal');
  const [dentin, setDentin] = useState(true);
  const jaw = jawOf(tooth);
  const [view, setView] = useState<Omit<View, 'jaw'>>({ name: 'front', turn: 0 });
  const reading = useRef<HTMLSpanElement>(null);
  const choose = useCallback((t: Fdi) => isPlannable(t) && selectTooth(t), [selectTooth]);
  useHotkeys('stage', [
    {
      keys: 'P',
      does: 'what goes, its two parts, the prepared teeth',
      on: ['p'],
      run: () => setShowing((s) => SHOWINGS[(SHOWINGS.indexOf(s) + 1) % SHOWINGS.length] as TargetShowing),
    },
    { keys: 'D', does: 'dentin on and off', on: ['d'], run: () => setDentin((d) => !d) },
  ]);
  if (own.state === 'failed') return <Trouble sentence={sentence(own.sentence)} retry={own.retry} />;
  if (own.state !== 'ready') return <Waiting what="the arch" />;
  return (
    <div className="relative h-full bg-bench">
      <TargetScene
        arch={own.arch}
        targets={targets.views}
        showing={showing}
        dentin={dentin}
        view={{ ...view, jaw }}
        selected={tooth}
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
        <button
          type="button"
          className="chip"
          aria-pressed={dentin}
          disabled={showing !== 'removal'}
          onClick={() => setDentin(!dentin)}
        >
          dentin
        </button>
      </div>
      <div className="absolute top-24 left-4 max-w-[320px] text-note [&>*]:mb-2 [&>*]:rounded-r-lg [&>*]:bg-leaf [&>*]:py-1.5 [&>*]:pr-3 [&>*]:shadow-lg">
        {[...targets.troubles].map(([t, why]) => (
          <p key={t} className="finding" data-weight="watch">
            No target for {name(t)}: {sentence(why)}
          </p>
        ))}
      </div>
      <div className="pointer-events-none absolute inset-x-4 bottom-4 flex flex-wrap items-end justify-between gap-3 [&>*]:pointer-events-auto">
        {showing !== 'prepared' && <Scale words={SCALE_WORDS[showing]} dentin={dentin && showing === 'removal'} />}
        <ViewChips jaw={jaw} look={(name) => setView(({ turn }) => ({ name, turn: turn + 1 }))} />
      </div>
      <span data-testid="target-count" className="sr-only">
        {targets.views.size} target preparations
      </span>
    </div>
  );
}

function Scale({ words, dentin }: { words: string; dentin: boolean }) {
  return (
    <figure className="rounded-xl bg-leaf px-4 py-3 text-fine shadow-lg">
      <div className="flex" aria-hidden="true">
        {Array.from({ length: STEPS }, (_, i) => (i / (STEPS - 1)) * REMOVAL_RANGE_MM).map((mm) => (
          <span key={mm} className="h-2.5 w-[12px]" style={{ background: css(targetColour(mm)) }} />
        ))}
      </div>
      <div className="mt-1 flex justify-between">
        <span>0</span>
        <span>{(REMOVAL_RANGE_MM / 2).toFixed(2)}</span>
        <span>{REMOVAL_RANGE_MM.toFixed(1)} mm</span>
      </div>
      <figcaption className="mt-0.5 font-semibold text-removed-ink">{words}</figcaption>
      {dentin && (
        <p className="mt-1.5 flex flex-col gap-0.5">
          <span>
            <span className="mr-1.5 inline-block h-2.5 w-3" style={{ background: css(targetColour(200)) }} />
            through the enamel of most teeth
          </span>
          <span>
            <span className="mr-1.5 inline-block h-2.5 w-3" style={{ background: css(targetColour(100)) }} />
            through it where it is thin
          </span>
        </p>
      )}
    </figure>
  );
}
