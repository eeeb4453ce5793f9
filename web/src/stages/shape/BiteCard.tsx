import { type BiteView, type BiteWish, type CentralOverlap, type Direction, type Jaw, SCAN_PM_MM } from '@radiant/core';
import { useToothLabel } from '../../data/case-context.js';
import { type Asked, shownOf } from '../../engine/use-asked.js';
import type { LowerState } from '../../engine/use-lower.js';
import { FigureTable } from '../../shell/FigureTable.js';
import { number } from '../../ui/format.js';
import { NumberInput } from '../../ui/NumberInput.js';
import { verdict } from './bite-verdict.js';

export const FIRST_BITE: BiteWish = { which: 'planned', direction: 'forward', alongMm: 0, guidance: 'teeth' };

const WAYS: readonly (readonly [Direction, string])[] = [
  ['forward', 'forward'],
  ['right', 'to the right'],
  ['left', 'to the left'],
];
/** How steep a set guidance is where nothing is said, degrees. Common practice, no source. */
const USUAL_ANGLE_DEG = 35;

/** The lower jaw against the upper: closed, forward and to the sides, as it is and as planned. */
export function BiteCard({
  wish,
  set,
  asked,
  lower,
  jaw,
  shown,
  show,
}: {
  wish: BiteWish;
  set: (w: BiteWish) => void;
  asked: Asked<BiteView | undefined>;
  lower: LowerState;
  /** Of the chosen tooth. */
  jaw: Jaw;
  /** Whether the teeth of the other jaw are in the picture. */
  shown: boolean;
  show: (shown: boolean) => void;
}) {
  const name = useToothLabel();
  const view = shownOf(asked);
  if (lower.state !== 'ready')
    return (
      <section aria-label="Bite" className="text-note">
        {lower.state === 'loading' && <p role="status">Reading the lower jaw …</p>}
        {lower.state === 'failed' && (
          <p role="alert" className="text-stop">
            {lower.sentence}{' '}
            <button type="button" className="how" onClick={lower.retry}>
              try again
            </button>
          </p>
        )}
        {lower.state === 'none' && (
          <p>
            <b className="block font-[650]">No scan of the lower jaw yet</b>
            Put one in at the right, scanned in the closed bite with the upper jaw.
          </p>
        )}
      </section>
    );
  const atRest = wish.alongMm === 0;
  return (
    <section aria-label="Bite" className="text-note">
      <div className="mb-2 flex gap-1">
        {(['existing', 'planned'] as const).map((which) => (
          <button
            key={which}
            type="button"
            className="chip chip-flat"
            aria-pressed={wish.which === which}
            onClick={() => set({ ...wish, which })}
          >
            {which === 'existing' ? 'as scanned' : 'planned'}
          </button>
        ))}
        <button type="button" className="chip chip-flat ml-auto" aria-pressed={shown} onClick={() => show(!shown)}>
          {jaw === 'upper' ? 'lower jaw' : 'upper jaw'}
        </button>
      </div>
      <div className="mb-1.5 flex gap-1">
        {WAYS.map(([direction, word]) => (
          <button
            key={direction}
            type="button"
            className="chip chip-flat px-[9px]"
            aria-pressed={wish.direction === direction}
            onClick={() => set({ ...wish, direction })}
          >
            {word}
          </button>
        ))}
      </div>
      <label className="flex h-[26px] items-center gap-2">
        <span className="w-[30px]">way</span>
        <input
          type="range"
          className="min-w-0 flex-1 accent-plum"
          min={0}
          max={5}
          step={0.1}
          value={wish.alongMm}
          onChange={(e) => set({ ...wish, alongMm: Number(e.target.value) })}
        />
        <output className="w-[54px] text-right font-semibold">
          {atRest ? 'closed' : `${number(wish.alongMm, 1)} mm`}
        </output>
      </label>
      <div className="mb-2 flex items-center gap-2">
        <span>led by</span>
        <button
          type="button"
          className="chip chip-flat"
          aria-pressed={wish.guidance === 'teeth'}
          onClick={() => set({ ...wish, guidance: 'teeth' })}
        >
          its teeth
        </button>
        <button
          type="button"
          className="chip chip-flat"
          aria-pressed={wish.guidance !== 'teeth'}
          onClick={() => set({ ...wish, guidance: wish.guidance === 'teeth' ? USUAL_ANGLE_DEG : wish.guidance })}
        >
          an angle
        </button>
        {wish.guidance !== 'teeth' && (
          <span className="flex items-center gap-1">
            <NumberInput
              label="Guidance angle, degrees"
              className="field h-[26px] w-[52px] px-1.5 text-right"
              value={wish.guidance}
              min={0}
              max={80}
              step={1}
              digits={0}
              unit="°"
              onChange={(v) => v !== null && set({ ...wish, guidance: v })}
            />
            °
          </span>
        )}
      </div>
      {asked.state === 'failed' && (
        <p className="finding mb-2" data-weight="watch">
          {asked.sentence}{' '}
          <button type="button" className="how" onClick={asked.retry}>
            try again
          </button>
        </p>
      )}
      {view && (
        <>
          <div className="finding mb-2" data-weight={verdict(view, wish).weight} role="status">
            <b className="font-[650]">{verdict(view, wish).words(name)}</b>
            {!atRest && (
              <span className="block text-ink-2">
                opens {number(view.dropMm, 1)} mm here; the way is {number(view.angleDeg, 0)}° steep
              </span>
            )}
          </div>
          <Overlaps of={view.overlap} />
          <p className="mt-1.5 text-tiny text-ink-2">
            The jaw is carried straight, without its joints, on scans ±{SCAN_PM_MM} mm. Paper in the mouth decides.
          </p>
        </>
      )}
    </section>
  );
}

function Overlaps({ of }: { of: BiteView['overlap'] }) {
  const name = useToothLabel();
  const cell = (list: readonly CentralOverlap[], tooth: number, key: 'overbiteMm' | 'overjetMm') => {
    const v = list.find((o) => o.tooth === tooth)?.[key];
    return v === undefined ? '–' : number(v, 1);
  };
  return (
    <FigureTable className="text-fine" aria-label="Overbite and overjet">
      <thead>
        <tr>
          <th scope="col">mm, before → planned</th>
          <th scope="col">{name(11)}</th>
          <th scope="col">{name(21)}</th>
        </tr>
      </thead>
      <tbody>
        {(['overbiteMm', 'overjetMm'] as const).map((key) => (
          <tr key={key}>
            <td>{key === 'overbiteMm' ? 'overbite' : 'overjet'}</td>
            {[11, 21].map((t) => (
              <td key={t}>
                {cell(of.before, t, key)} → <b className="font-semibold">{cell(of.planned, t, key)}</b>
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </FigureTable>
  );
}
