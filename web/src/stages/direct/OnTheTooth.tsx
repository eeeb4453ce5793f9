import {
  type ContourPlan,
  type DirectSettings,
  type DirectView,
  type DirectWork,
  isPlannable,
  jawOf,
  LAYERS,
  layerWords,
  TOOTH_PLACES,
} from '@radiant/core';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { View } from '../../bench/arch-eye.js';
import { CompositeScene } from '../../bench/CompositeScene.js';
import { ViewChips } from '../../bench/ViewChips.js';
import { useCase, useSentence } from '../../data/case-context.js';
import type { CaseClient } from '../../engine/case-client.js';
import { shownOf, useAsked } from '../../engine/use-asked.js';
import type { JawView } from '../../engine/views.js';
import { Trouble, Waiting } from '../../ui/Waiting.js';
import { CORE_COLOUR, LAYER_COLOURS, PLACE_COLOURS } from './layer-colours.js';
import type { IslandMarking } from './use-island.js';

const COLOURS = { bodies: { ...LAYER_COLOURS, core: CORE_COLOUR }, places: PLACE_COLOURS } as const;
type Layer = DirectView['bodies'][number]['layer'];
const ALL: readonly Layer[] = ['core', ...(Object.keys(LAYERS) as (keyof typeof LAYERS)[])];

/** The tooth as it stands on its arch, what is worked on it, and the bodies of composite; dentin is marked here. */
export function OnTheTooth({
  client,
  plan,
  settings,
  work,
  arch,
  island,
}: {
  client: CaseClient | undefined;
  plan: ContourPlan;
  settings: DirectSettings;
  work: DirectWork;
  arch: JawView;
  island: IslandMarking;
}) {
  const { tooth, selectTooth } = useCase();
  const sentence = useSentence();
  const input = useMemo(() => [tooth, settings, work] as const, [tooth, settings, work]);
  const asked = useAsked(client, plan, 'directView', input);
  const [hidden, setHidden] = useState<ReadonlySet<Layer>>(new Set());
  const jaw = jawOf(tooth);
  const [look, setLook] = useState<Pick<View, 'name' | 'turn'>>({ name: 'front', turn: 0 });
  const reading = useRef<HTMLSpanElement>(null);
  const { places, put } = island;
  const isMarking = places !== undefined;
  // An edge is marked from where it is seen.
  useEffect(() => {
    if (isMarking) setLook(({ turn }) => ({ name: 'above', turn: turn + 1 }));
  }, [isMarking]);
  const press = useCallback(
    (t: number, at: readonly [number, number, number]) => {
      if (isMarking) {
        if (t === tooth) put(at);
      } else if (isPlannable(t)) selectTooth(t);
    },
    [isMarking, tooth, put, selectTooth],
  );
  const told = shownOf(asked);
  const own = told?.tooth === tooth ? told : undefined;
  const about = useMemo(() => {
    const mesh = arch.teeth.find((t) => t.tooth === tooth)?.mesh;
    return mesh && middleOf(mesh.positions);
  }, [arch, tooth]);
  // The same object until somebody looks from elsewhere: a new one would take the eye back.
  const view = useMemo<View>(() => ({ ...look, jaw, about }), [look, jaw, about]);
  // Composite over the edge would hide what is marked.
  const shown = useMemo(() => new Set<string>(isMarking ? [] : ALL.filter((l) => !hidden.has(l))), [hidden, isMarking]);
  if (asked.state === 'failed') return <Trouble sentence={sentence(asked.sentence)} retry={asked.retry} />;
  if (!own) return <Waiting what="the bodies of composite" />;
  const layers = ALL.filter((l) => own.bodies.some((b) => b.layer === l));
  const seen = TOOTH_PLACES.filter((_, i) => i > 0 && own.places.includes(i));
  const toggle = (l: Layer) =>
    setHidden((h) => {
      const next = new Set(h);
      if (!next.delete(l)) next.add(l);
      return next;
    });
  return (
    <div className="relative mt-3 h-[calc(100%-12px)] min-h-[420px] bg-bench">
      <CompositeScene
        arch={arch}
        told={own}
        shown={shown}
        colours={COLOURS}
        view={view}
        // Marks of a worn edge are kept while another kind of work is tried, and not drawn for it.
        marks={places ?? (work.kind === 'worn' ? work.island : undefined) ?? NONE}
        onPress={press}
        reading={reading}
      />
      <span
        ref={reading}
        hidden
        className="pointer-events-none absolute top-0 left-0 whitespace-nowrap rounded bg-ink/85 px-1.5 py-0.5 text-tiny text-white"
      />
      {isMarking ? (
        <div
          className="absolute top-4 left-4 flex max-w-[340px] flex-col gap-2 rounded-lg bg-leaf px-4 py-3 text-note shadow-lg"
          role="status"
        >
          <p>Press round the dentin that lies open, place by place on the scan: {soFar(places.length)} so far.</p>
          <div className="flex gap-1.5">
            <button type="button" className="btn btn-solid" disabled={!island.isEnough} onClick={island.done}>
              Keep it
            </button>
            <button type="button" className="btn btn-ghost" disabled={places.length === 0} onClick={island.takeBack}>
              Take one back
            </button>
            <button type="button" className="btn btn-ghost" onClick={island.leave}>
              Leave it
            </button>
          </div>
        </div>
      ) : (
        <fieldset className="absolute top-4 left-4 flex flex-wrap gap-1.5" aria-label="Layers that are drawn">
          {layers.map((l) => (
            <button key={l} type="button" className="chip" aria-pressed={!hidden.has(l)} onClick={() => toggle(l)}>
              <Swatch colour={COLOURS.bodies[l]} />
              {layerWords(l)}
            </button>
          ))}
        </fieldset>
      )}
      <div className="pointer-events-none absolute inset-x-4 bottom-4 flex flex-wrap items-end justify-between gap-3 [&>*]:pointer-events-auto">
        {seen.length > 0 && (
          <ul className="rounded-lg bg-leaf/95 px-3 py-2 text-note shadow-lg" aria-label="On the tooth">
            {seen.map((p) => (
              <li key={p}>
                <Swatch colour={PLACE_COLOURS[p]} />
                {p === 'dentin that is troughed' && work.island ? 'dentin as it is marked, troughed' : p}
              </li>
            ))}
          </ul>
        )}
        <ViewChips jaw={jaw} look={(n) => setLook(({ turn }) => ({ name: n, turn: turn + 1 }))} />
      </div>
    </div>
  );
}

/** Half way between the ends of a surface, mm. */
function middleOf(positions: Float32Array): [number, number, number] {
  const ends = [0, 1, 2].map((k) => {
    let [least, most] = [Infinity, -Infinity];
    for (let i = k; i < positions.length; i += 3) {
      least = Math.min(least, positions[i] as number);
      most = Math.max(most, positions[i] as number);
    }
    return (least + most) / 2;
  });
  return [ends[0] as number, ends[1] as number, ends[2] as number];
}

const soFar = (n: number): string => (n === 0 ? 'none' : n === 1 ? 'one place' : `${n} places`);

const NONE: readonly (readonly [number, number, number])[] = [];

function Swatch({ colour }: { colour: string }) {
  return <span className="mr-1.5 inline-block h-2.5 w-2.5 rounded-sm align-baseline" style={{ background: colour }} />;
}
