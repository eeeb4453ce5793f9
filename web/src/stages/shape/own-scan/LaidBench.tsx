import { type Dispatch, type SetStateAction, useRef, useState } from 'react';
import type { View, ViewName } from '../../../bench/arch-eye.js';
import { OwnScanScene } from '../../../bench/OwnScanScene.js';
import { useToothLabel } from '../../../data/case-context.js';
import { Legend } from '../Legend.js';
import { FirstScanInset } from './FirstScanInset.js';
import { HANDS, VIEWS } from './hands.js';
import type { ShownJaw } from './shown-jaw.js';
import type { Hands } from './use-hands.js';
import type { OwnScanWork } from './use-own-scan.js';
import type { Ways } from './use-ways.js';

/** The scan as it lies, its teeth tinted, with what a hand can do on it. */
export function LaidBench({
  scan,
  state,
  hands,
  ways,
  view: [view, setView],
}: {
  scan: OwnScanWork;
  state: ShownJaw;
  hands: Hands;
  ways: Ways;
  view: readonly [View, Dispatch<SetStateAction<View>>];
}) {
  const [own, setOwn] = useState(false);
  const [off, setOff] = useState(true);
  const labels = useRef<HTMLDivElement>(null);
  const { hand } = hands;
  const { state: at } = scan;
  const work =
    at.state === 'reading'
      ? at.what
      : scan.busy && (state.picked.teeth.length === 0 ? 'Telling the teeth apart' : 'Working');
  const look = (name: ViewName) => setView((w) => ({ ...w, name, turn: w.turn + 1 }));
  return (
    <>
      <OwnScanScene
        laid={state.laid}
        cells={state.cells}
        picked={state.picked}
        chosen={hands.chosen}
        view={view}
        painting={hand === 'paint' || hand === 'gum'}
        pulling={hand === 'neck'}
        own={own}
        off={off ? state.laid.on?.offMm : undefined}
        across={ways.way === 'hand' && state.laid.bite ? ways.upper : undefined}
        places={hands.places}
        labels={labels}
        onClick={hands.click}
        onStroke={hands.stroke}
        onPull={hands.pull}
      />
      <div ref={labels} className="pointer-events-none absolute inset-0 overflow-hidden" aria-hidden="true">
        <ToothLabels state={state} chosen={hands.chosen} />
      </div>
      <div className="pointer-events-none absolute inset-x-4 top-3.5 flex flex-wrap gap-1.5 [&>*]:pointer-events-auto">
        {HANDS.map(([id, word]) => (
          <Chip key={id} on={hand === id} onPress={() => hands.take(id)} word={word} />
        ))}
        {state.laid.on && <Chip on={off} onPress={() => setOff(!off)} word="how far off" />}
        {state.laid.colours && <Chip on={own} onPress={() => setOwn(!own)} word="scanner’s colours" />}
      </div>
      {hand !== 'choose' && (
        <p role="status" className="absolute top-14 left-4 rounded-lg bg-leaf px-3 py-1.5 text-note shadow-lg">
          {hands.asked()}
        </p>
      )}
      {hand === 'both' && ways.same && (
        <FirstScanInset
          jaw={state.jaw}
          url={ways.urlOf(ways.same.id)}
          view={scan.firstView}
          places={hands.fellows}
          turn={hands.places.length > hands.fellows.length}
          onClick={hands.fellow}
        />
      )}
      {state.laid.on && off && hand !== 'both' && (
        <div className="absolute bottom-4 left-4">
          <Legend of="off" jaw={state.jaw} />
        </div>
      )}
      {work && (
        <p role="status" className="absolute bottom-4 left-4 rounded-lg bg-leaf px-3 py-1.5 text-note shadow-lg">
          {work} …
        </p>
      )}
      <div className="pointer-events-none absolute right-4 bottom-4 flex flex-wrap justify-end gap-1.5 [&>*]:pointer-events-auto">
        {VIEWS.map((v) => (
          <button key={v} type="button" className="chip" onClick={() => look(v)}>
            {v}
          </button>
        ))}
      </div>
    </>
  );
}

function Chip({ on, onPress, word }: { on: boolean; onPress: () => void; word: string }) {
  return (
    <button type="button" className="chip" aria-pressed={on} onClick={onPress}>
      {word}
    </button>
  );
}

function ToothLabels({ state, chosen }: { state: ShownJaw; chosen: number | undefined }) {
  const name = useToothLabel();
  return state.picked.teeth.map((t) => (
    <span
      key={t.tooth}
      className={`absolute top-0 left-0 rounded px-1.5 text-tiny ${t.tooth === chosen ? 'bg-plum text-white' : 'bg-ink/75 text-white'}`}
    >
      {name(t.tooth)}
    </span>
  ));
}
