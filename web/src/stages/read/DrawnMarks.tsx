import { Mark } from '../../bench/Mark.js';
import type { BenchView } from '../../bench/PhotoBench.js';
import type { useBenchReading } from '../../data/bench-reading.js';
import { useSection } from '../../data/case-context.js';
import { drawnOf } from '../../data/reading.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { number } from '../../ui/format.js';
import { PALETTE } from '../../ui/palette.js';

/**
 * The drawn lengths and angles on the photograph, their points to be dragged, and the points of the one being drawn.
 */
export function DrawnMarks({
  reading,
  view,
  bounds,
  begun,
}: {
  reading: ReturnType<typeof useBenchReading>;
  view: BenchView;
  bounds: { width: number; height: number };
  begun: readonly { x: number; y: number }[];
}) {
  const { store } = useSection('read');
  const mayWrite = useMayWrite('read');
  const drawn = drawnOf(reading.drawn, reading.scale);
  const px = 1 / view.zoom;
  return (
    <>
      {drawn.map(({ measure: m, figure }) => {
        const at = m.points[m.points.length === 3 ? 1 : 0] as { x: number; y: number };
        const end = m.points.at(-1) as { x: number; y: number };
        const label = m.points.length === 3 ? at : { x: (at.x + end.x) / 2, y: (at.y + end.y) / 2 };
        return (
          <g key={m.id}>
            <polyline
              points={m.points.map((p) => `${p.x},${p.y}`).join(' ')}
              fill="none"
              stroke={PALETTE.ink}
              strokeOpacity={0.55}
              strokeWidth={4 * px}
            />
            <polyline
              points={m.points.map((p) => `${p.x},${p.y}`).join(' ')}
              fill="none"
              stroke={PALETTE.white}
              strokeWidth={1.8 * px}
            />
            <text
              x={label.x + 9 * px}
              y={label.y - 9 * px}
              fontSize={14 * px}
              fontWeight={650}
              fill={PALETTE.white}
              stroke={PALETTE.ink}
              strokeWidth={3 * px}
              paintOrder="stroke"
            >
              {figure ? `${number(figure.value, 1)} ${figure.unit}` : m.name}
            </text>
            {m.points.map((p, i) => (
              <Mark
                key={i}
                x={p.x}
                y={p.y}
                label={`point ${i + 1} of ${m.name}`}
                view={view}
                bounds={bounds}
                locked={!mayWrite}
                onMove={(x, y) =>
                  reading.change(
                    {
                      drawn: reading.drawn.map((q) =>
                        q.id === m.id ? { ...q, points: q.points.map((o, k) => (k === i ? { x, y } : o)) } : q,
                      ),
                    },
                    `draw ${m.id} ${i}`,
                  )
                }
                onDone={() => store.endGroup()}
                onRemove={() => reading.change({ drawn: reading.drawn.filter((q) => q.id !== m.id) })}
              >
                <circle
                  className="ring"
                  r={6}
                  fill="none"
                  stroke={PALETTE.ink}
                  strokeOpacity={0.55}
                  strokeWidth={3.4}
                />
                <circle r={6} fill="none" stroke={PALETTE.white} strokeWidth={2} />
              </Mark>
            ))}
          </g>
        );
      })}
      {begun.map((p) => (
        <circle
          key={`${p.x} ${p.y}`}
          cx={p.x}
          cy={p.y}
          r={5 * px}
          fill="none"
          stroke={PALETTE.white}
          strokeWidth={2 * px}
        />
      ))}
    </>
  );
}
