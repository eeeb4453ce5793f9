import { type Bur, burName, GRITS, outlineOf } from '@radiant/core';
import { useId } from 'react';
import { PALETTE } from '../ui/palette.js';

/** The ring on the shank, as ISO 6360 colours it. */
const RING: Readonly<Record<(typeof GRITS)[keyof typeof GRITS]['ring'], string>> = {
  black: PALETTE.ink,
  green: '#3d7f4f',
  blue: PALETTE.added,
  red: PALETTE.stop,
  yellow: '#d9a424',
  white: PALETTE.white,
};
/** So much of the shank is drawn behind the working part, mm. */
const SHANK_MM = 3;

/**
 * A bur in profile, to scale, its end down, or to the left where it lies.
 * @param pxPerMm of the drawing; `sunkMm` how deep it goes, drawn as the surface it is sunk under
 */
export function BurProfile({
  bur,
  pxPerMm,
  sunkMm,
  lying = false,
}: {
  bur: Bur;
  pxPerMm: number;
  sunkMm?: number | undefined;
  lying?: boolean;
}) {
  const clip = useId();
  const outline = outlineOf(bur, SHANK_MM);
  const long = outline.at(-1)?.[0] ?? bur.lengthMm;
  const half = Math.max(bur.largestMm, bur.shankMm) / 2 + (sunkMm === undefined ? 0.25 : 0.6);
  // The side that is sunk lies to the left.
  const points = [...outline.map(([t, r]) => [r, -t]), ...[...outline].reverse().map(([t, r]) => [-r, -t])];
  const end = outline.length > 2 ? (outline.at(-2)?.[0] ?? 0) : 0;
  const d = `${points.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x?.toFixed(3)} ${y?.toFixed(3)}`).join('')}Z`;
  const surface = sunkMm === undefined ? undefined : Math.min(half, sunkMm - bur.largestMm / 2);
  return (
    <svg
      viewBox={lying ? `-0.15 ${-half} ${long + 0.15} ${2 * half}` : `${-half} ${-long} ${2 * half} ${long + 0.15}`}
      width={(lying ? long + 0.15 : 2 * half) * pxPerMm}
      height={(lying ? 2 * half : long + 0.15) * pxPerMm}
      role="img"
      aria-label={`${burName(bur)}${sunkMm === undefined ? '' : `, sunk ${sunkMm.toFixed(1)} mm`}`}
      className="shrink-0"
    >
      <g transform={lying ? 'rotate(90)' : undefined}>
        <clipPath id={clip}>
          <path d={d} />
        </clipPath>
        <path d={d} fill="#cfd3d6" />
        <g clipPath={`url(#${clip})`}>
          <rect x={-half} y={-end} width={2 * half} height={end + 1} fill="#aab0b5" />
          {surface !== undefined && (
            <rect
              x={-half}
              y={-end}
              width={surface + half}
              height={end + 1}
              fill={PALETTE.removed}
              fillOpacity={0.75}
            />
          )}
          <rect
            x={-half}
            y={-long + 0.7}
            width={2 * half}
            height={0.7}
            fill={RING[GRITS[bur.grit].ring]}
            stroke={PALETTE.ink2}
            strokeWidth={0.03}
          />
        </g>
        <path d={d} fill="none" stroke={PALETTE.ink} strokeWidth={0.06} />
        {surface !== undefined && (
          <path
            d={`M${surface} ${-Math.min(end, long)}V0.1`}
            stroke={PALETTE.ink}
            strokeWidth={0.07}
            strokeDasharray="0.3 0.2"
          />
        )}
      </g>
    </svg>
  );
}
