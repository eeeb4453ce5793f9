import { useToothLabel } from '../../data/case-context.js';
import type { PreparedToothView } from '../../engine/views.js';
import { number } from '../../ui/format.js';
import { PALETTE } from '../../ui/palette.js';

const SIZE = 150;
/** The circle's edge stands for so many degrees. */
const MOST_DEG = 45;
const RINGS = [15, 30, 45] as const;

/** How far the way out may lean in each direction: a cone, looked into from the edge. Up is the face. */
export function WaysOut({ own }: { own: PreparedToothView }) {
  const name = useToothLabel();
  const { cone, plannedMm2, best } = own.draw;
  const c = SIZE / 2;
  const r = (deg: number) => (Math.min(deg, MOST_DEG) / MOST_DEG) * (c - 16);
  const point = (deg: number, k: number) => {
    const a = (2 * Math.PI * k) / cone.leanDeg.length;
    return [c - r(deg) * Math.sin(a), c - r(deg) * Math.cos(a)] as const;
  };
  const least = Math.min(...cone.leanDeg);
  return (
    <section aria-label="Ways out" className="mt-5">
      <h2 className="subtitle mb-1">Ways out</h2>
      <div className="flex items-center gap-3">
        <svg
          className="shrink-0"
          width={SIZE}
          height={SIZE}
          role="img"
          aria-label={`Cone of ways on which ${name(own.tooth)} comes off`}
        >
          {RINGS.map((deg) => (
            <circle key={deg} cx={c} cy={c} r={r(deg)} fill="none" stroke={PALETTE.hair} />
          ))}
          <polygon
            points={cone.leanDeg
              .map((deg, k) =>
                point(deg, k)
                  .map((v) => v.toFixed(1))
                  .join(','),
              )
              .join(' ')}
            fill={PALETTE.plumSoft}
            stroke={PALETTE.plum}
            strokeWidth={1.5}
          />
          <circle cx={c} cy={c} r={3} fill={PALETTE.plum} />
          {RINGS.map((deg) => (
            <text key={deg} x={c + r(deg) * 0.71 + 2} y={c + r(deg) * 0.71 + 8} fontSize="8.5" fill={PALETTE.ink2}>
              {deg}°
            </text>
          ))}
          <text x={c} y={10} fontSize="9" fill={PALETTE.ink2} textAnchor="middle">
            to the face
          </text>
        </svg>
        <p className="text-note text-ink-2">
          {plannedMm2 < 0.05
            ? 'Nothing hangs over on the planned way.'
            : `${number(plannedMm2, 1)} mm² hang over on the planned way, ${number(best.undercutMm2, 1)} on the best one.`}{' '}
          {least < 1
            ? 'It leaves no room to lean.'
            : `It may lean ${least}° whichever way, more where the shape reaches further.`}
        </p>
      </div>
    </section>
  );
}
