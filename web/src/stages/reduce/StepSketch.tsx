import { type Fdi, isUpper, type StepPlace, sideOf, type ToothPlan } from '@radiant/core';
import type { ReactNode } from 'react';
import { toothOutline } from '../../bench/tooth-outline.js';
import { PALETTE } from '../../ui/palette.js';

/** From where to where a place reaches, as shares of the crown's height from the edge. */
const BANDS: Partial<Record<StepPlace, readonly [number, number]>> = {
  edge: [0, 0.13],
  incisal: [0.13, 1 / 3],
  middle: [1 / 3, 2 / 3],
  cervical: [2 / 3, 0.96],
  'incisal half': [0.13, 0.55],
  'cervical half': [0.55, 0.96],
  'whole face': [0.13, 0.96],
};
/** Grooves over a face: three in front and one on each line angle, as shares of half the width. */
const GROOVES = [-0.84, -0.45, 0, 0.45, 0.84] as const;

/** Where on a tooth a step is done, seen from the front: its planned outline with the place marked. */
export function StepSketch({
  tooth,
  plan,
  places,
  grooves,
  height,
}: {
  tooth: Fdi;
  plan: ToothPlan;
  places: readonly StepPlace[];
  /** Whether single grooves are cut, and not a whole surface. */
  grooves: boolean;
  height: number;
}) {
  const { path, heightMm: h } = toothOutline(tooth, plan);
  const w = plan.widthMm;
  const up = isUpper(tooth) ? 1 : -1;
  const y = (share: number) => -share * h;
  const marks: ReactNode[] = places.flatMap((place): ReactNode[] => {
    const band = BANDS[place];
    if (band && grooves && place === 'edge')
      return [-0.5, 0, 0.5].map((x) => (
        <path
          key={`${place}${x}`}
          d={`M${(x * w) / 2} 0.3V${y(0.15)}`}
          stroke={PALETTE.removed}
          strokeWidth={0.55}
          strokeLinecap="round"
        />
      ));
    if (band && grooves)
      return GROOVES.map((x) => (
        <path
          key={`${place}${x}`}
          // Towards the neck a tooth is narrower, and its line angles stand closer.
          d={`M${(x * w * (1 - 0.3 * band[0])) / 2} ${y(band[0] + 0.03)}L${(x * w * (1 - 0.42 * band[1])) / 2} ${y(band[1] - 0.04)}`}
          stroke={PALETTE.removed}
          strokeWidth={0.5}
          strokeLinecap="round"
        />
      ));
    if (band)
      return [
        <rect
          key={place}
          x={-w}
          width={2 * w}
          y={y(band[1])}
          height={(band[1] - band[0]) * h + (band[0] === 0 ? 1 : 0)}
          fill={PALETTE.removed}
          fillOpacity={0.6}
        />,
      ];
    if (place === 'sides' || place === 'neighbours')
      return [-1, 1].map((s) => (
        <rect
          key={`${place}${s}`}
          x={s === 1 ? w / 2 - 0.75 : -w}
          width={w / 2 + 0.75}
          y={y(0.85)}
          height={0.8 * h}
          fill={place === 'sides' ? PALETTE.removed : PALETTE.ink2}
          fillOpacity={0.6}
        />
      ));
    return [];
  });
  const line = places.includes('finish line') || places.includes('all round');
  return (
    <svg
      viewBox={`${-w / 2 - 1.6} ${-h - 0.9} ${w + 3.2} ${h + 1.9}`}
      height={height}
      role="img"
      aria-label={places.join(', ')}
      className="max-w-full"
    >
      {/* A lower tooth stands with its edge up. */}
      <g transform={up === 1 ? undefined : `translate(0 ${-h}) scale(1 -1)`}>
        <clipPath id={`sketch-${tooth}`}>
          <path d={path} />
        </clipPath>
        <path d={path} fill="#efe9dd" />
        <g clipPath={`url(#sketch-${tooth})`}>{marks}</g>
        {places.includes('neighbours') &&
          [-1, 1].map((s) => (
            <path key={s} d={`M${s * (w / 2 + 0.35)} ${y(0.08)}V${y(0.8)}`} stroke={PALETTE.ink} strokeWidth={0.22} />
          ))}
        {places.includes('palatal') && (
          <ellipse
            cx={0}
            cy={y(0.45)}
            rx={w * 0.3}
            ry={h * 0.3}
            fill={PALETTE.removed}
            fillOpacity={0.25}
            stroke={PALETTE.removed}
            strokeWidth={0.16}
            strokeDasharray="0.5 0.35"
          />
        )}
        <path
          d={path}
          fill="none"
          stroke={places.includes('all round') ? PALETTE.removed : PALETTE.ink}
          strokeWidth={places.includes('all round') ? 0.4 : 0.13}
        />
        {line && places.includes('finish line') && (
          <g clipPath={`url(#sketch-${tooth})`}>
            <path d={path} fill="none" stroke={PALETTE.removed} strokeWidth={1.1} clipPath={`url(#neck-${tooth})`} />
          </g>
        )}
        <clipPath id={`neck-${tooth}`}>
          <rect x={-w} width={2 * w} y={-h - 1} height={0.42 * h} />
        </clipPath>
      </g>
      <text
        x={(sideOf(tooth) === 'right') === (up === 1) ? w / 2 + 0.5 : -w / 2 - 0.5}
        y={0.85}
        textAnchor="middle"
        fontSize={0.85}
        fill={PALETTE.ink2}
      >
        mesial
      </text>
    </svg>
  );
}
