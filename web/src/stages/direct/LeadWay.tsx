import type { LeadStep } from '@radiant/core';
import { number } from '../../ui/format.js';
import { PALETTE } from '../../ui/palette.js';

/** Of the drawing, its units are millimetres of the way times `X` and of parting times `Y`. */
const [X, Y, LEFT, BELOW, ABOVE] = [84, 60, 34, 26, 10] as const;
const WAY_TICKS = [0, 1, 2, 3] as const;

/** How far the back teeth part along the way to a side: wished, now and as planned, and where the canine leads. */
export function LeadWay({ now, planned }: { now: readonly LeadStep[]; planned: readonly LeadStep[] }) {
  const all = [...now, ...planned];
  const most = Math.max(1, ...all.map((s) => Math.max(s.partMm, s.wantedMm)));
  const top = Math.ceil(2 * most) / 2;
  const [width, height] = [LEFT + 3.25 * X, ABOVE + top * Y + BELOW];
  const at = (along: number, mm: number) => `${LEFT + along * X},${ABOVE + (top - mm) * Y}`;
  const line = (steps: readonly LeadStep[], of: (s: LeadStep) => number) =>
    [at(0, 0), ...steps.map((s) => at(s.alongMm, of(s)))].join(' ');
  const longest = now.length > planned.length ? now : planned;
  const leads = planned.filter((s) => s.leads).length;
  return (
    <figure className="mt-3">
      <figcaption className="mb-1 text-note text-ink-2">
        Parting of the back teeth along the way, mm: <b className="font-semibold text-plum">as planned</b>, now (thin),
        wished (dashed). Dots: the canine touches.
      </figcaption>
      <svg
        viewBox={`0 0 ${width} ${height}`}
        className="w-full max-w-[440px]"
        role="img"
        aria-label={`As planned the canine touches at ${leads} of ${planned.length} places on the way; at the end the back teeth part by ${number(planned.at(-1)?.partMm ?? 0, 1)} mm`}
      >
        {Array.from({ length: 2 * top + 1 }, (_, i) => i / 2).map((mm) => (
          <g key={mm}>
            <path d={`M${at(0, mm)}L${at(3, mm)}`} stroke={PALETTE.hair} strokeWidth={1} />
            <text x={LEFT - 6} y={ABOVE + (top - mm) * Y + 4} fontSize={11} textAnchor="end" fill={PALETTE.ink2}>
              {number(mm, 1)}
            </text>
          </g>
        ))}
        {WAY_TICKS.map((mm) => (
          <text key={mm} x={LEFT + mm * X} y={height - 8} fontSize={11} textAnchor="middle" fill={PALETTE.ink2}>
            {mm === 3 ? '3 mm' : mm}
          </text>
        ))}
        <polyline
          points={line(longest, (s) => s.wantedMm)}
          fill="none"
          stroke={PALETTE.ink2}
          strokeDasharray="4 4"
          strokeWidth={1.2}
        />
        <polyline points={line(now, (s) => s.partMm)} fill="none" stroke={PALETTE.ink2} strokeWidth={1.2} />
        <polyline points={line(planned, (s) => s.partMm)} fill="none" stroke={PALETTE.plum} strokeWidth={2.4} />
        {planned.map((s) => {
          const [cx, cy] = at(s.alongMm, s.partMm).split(',').map(Number) as [number, number];
          return s.leads ? <circle key={s.alongMm} cx={cx} cy={cy} r={4} fill={PALETTE.plum} /> : null;
        })}
      </svg>
    </figure>
  );
}
