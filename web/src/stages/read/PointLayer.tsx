import { lipCurve, type Px } from '@radiant/core';
import { memo } from 'react';
import { Mark } from '../../bench/Mark.js';
import type { BenchView } from '../../bench/PhotoBench.js';
import type { BenchMark } from '../../data/bench-marks.js';
import { lipLineIds } from '../../data/bench-reading.js';
import { useSection } from '../../data/case-context.js';
import { useLatest } from '../../data/use-latest.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { PALETTE } from '../../ui/palette.js';

/**
 * The points of a view, the place that symmetry suggests for the next one, and the lips' borders through their knots.
 */
export function PointLayer({
  marks,
  next,
  tooth,
  view,
  bounds,
  names,
  onPlace,
  onRemove,
  onFocus,
}: {
  marks: readonly BenchMark[];
  next: BenchMark | undefined;
  tooth: number | undefined;
  view: BenchView;
  bounds: { width: number; height: number };
  names: boolean;
  onPlace: (id: string, x: number, y: number, group?: string) => void;
  onRemove: (id: string) => void;
  onFocus: (m: BenchMark) => void;
}) {
  const { store } = useSection('read');
  const mayWrite = useMayWrite('read');
  const px = 1 / view.zoom;
  const acts = useLatest<Acts>({ onPlace, onRemove, onFocus, onDone: () => store.endGroup() });
  return (
    <>
      <LipLine marks={marks} which="upper" px={px} />
      <LipLine marks={marks} which="lower" px={px} />
      {marks.map(
        (m) =>
          m.guessBy === 'face' &&
          m.guess &&
          m.id !== next?.id && (
            <circle
              key={`face ${m.id}`}
              cx={m.guess[0]}
              cy={m.guess[1]}
              r={5 * px}
              fill="none"
              stroke="#e3b4dd"
              strokeWidth={1.8 * px}
              strokeDasharray={`${3 * px} ${2.4 * px}`}
              pointerEvents="none"
              data-testid="face-guess"
            />
          ),
      )}
      {next?.guess && (
        <g
          transform={`translate(${next.guess[0]} ${next.guess[1]}) scale(${px})`}
          pointerEvents="none"
          data-testid="guess"
        >
          <circle r={7} fill="none" stroke={PALETTE.ink} strokeOpacity={0.55} strokeWidth={3.4} strokeDasharray="4 3" />
          <circle r={7} fill="none" stroke="#e3b4dd" strokeWidth={2} strokeDasharray="4 3" />
        </g>
      )}
      {marks.map(
        (m) =>
          m.at && (
            <PointMark
              key={m.id}
              mark={m}
              on={tooth !== undefined && m.tooth === tooth}
              names={names}
              view={view}
              width={bounds.width}
              height={bounds.height}
              locked={!mayWrite}
              acts={acts}
            />
          ),
      )}
    </>
  );
}

interface Acts {
  readonly onPlace: (id: string, x: number, y: number, group?: string) => void;
  readonly onRemove: (id: string) => void;
  readonly onFocus: (m: BenchMark) => void;
  readonly onDone: () => void;
}

/** One point; while another is dragged it is not drawn again. */
const PointMark = memo(
  function PointMark({
    mark: m,
    on,
    names,
    view,
    width,
    height,
    locked,
    acts,
  }: {
    mark: BenchMark;
    on: boolean;
    names: boolean;
    view: BenchView;
    width: number;
    height: number;
    locked: boolean;
    acts: { readonly current: Acts };
  }) {
    if (!m.at) return null;
    return (
      <Mark
        x={m.at.x}
        y={m.at.y}
        label={m.name}
        view={view}
        bounds={{ width, height }}
        locked={locked}
        onMove={(x, y) => acts.current.onPlace(m.id, x, y, `move ${m.id}`)}
        onDone={() => acts.current.onDone()}
        onFocus={() => acts.current.onFocus(m)}
        onRemove={() => acts.current.onRemove(m.id)}
      >
        <Dot on={on} dashed={m.fromScan === true} />
        {names && (
          <text
            x={9}
            y={-7}
            fontSize={12}
            fontWeight={600}
            fill={PALETTE.white}
            stroke={PALETTE.ink}
            strokeWidth={3}
            paintOrder="stroke"
          >
            {m.name}
          </text>
        )}
      </Mark>
    );
  },
  (a, b) =>
    a.mark.at?.x === b.mark.at?.x &&
    a.mark.at?.y === b.mark.at?.y &&
    a.mark.name === b.mark.name &&
    a.mark.fromScan === b.mark.fromScan &&
    a.on === b.on &&
    a.names === b.names &&
    a.view === b.view &&
    a.locked === b.locked,
);

/** A lip's border as the spline that the measures use. */
function LipLine({ marks, which, px }: { marks: readonly BenchMark[]; which: 'upper' | 'lower'; px: number }) {
  const ids = lipLineIds(which);
  const points = ids.flatMap((id): Px[] => {
    const at = marks.find((m) => m.id === id)?.at;
    return at ? [[at.x, at.y]] : [];
  });
  if (points.length < 3 || !marks.some((m) => m.id === ids[1])) return null;
  const [first, last] = [points[0] as Px, points.at(-1) as Px];
  const curve = lipCurve([first, last], points.slice(1, -1));
  const steps = 48;
  const d = Array.from({ length: steps + 1 }, (_, i) => {
    const x = first[0] + ((last[0] - first[0]) * i) / steps;
    return `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${curve(x).toFixed(1)}`;
  }).join('');
  return (
    <g pointerEvents="none" fill="none">
      <path d={d} stroke={PALETTE.ink} strokeOpacity={0.45} strokeWidth={4 * px} />
      <path d={d} stroke={PALETTE.white} strokeWidth={1.8 * px} />
    </g>
  );
}

/** A ring about its place; dashed where the scan and not a hand has put it. */
function Dot({ on, dashed }: { on: boolean; dashed: boolean }) {
  return (
    <>
      <circle
        className="ring"
        r={on ? 7 : 4.8}
        fill="none"
        stroke={PALETTE.ink}
        strokeOpacity={0.55}
        strokeWidth={3.4}
      />
      <circle
        r={on ? 7 : 4.8}
        fill="none"
        stroke={on ? '#8b3c86' : PALETTE.white}
        strokeWidth={2}
        {...(dashed && { strokeDasharray: '3.5 2.5' })}
      />
      <circle r={1.3} fill={on ? '#8b3c86' : PALETTE.white} />
    </>
  );
}
