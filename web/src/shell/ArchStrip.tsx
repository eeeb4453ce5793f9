import {
  crownSize,
  type Fdi,
  frontRow,
  isUpper,
  kindName,
  LOWER_TEN,
  sideOf,
  UPPER_TEN,
  usualSize,
} from '@radiant/core';
import { useDeferredValue, useEffect, useMemo } from 'react';
import { toothOutline } from '../bench/tooth-outline.js';
import { useCase, useSection, useToothLabel } from '../data/case-context.js';
import { useReading } from '../data/reading.js';
import { PALETTE } from '../ui/palette.js';
import type { StageDefinition } from './stage.js';
import { useStripTeeth } from './use-strip-teeth.js';

const SCALE = 5.6;
const RADIUS_MM = 150;
/** How far over the line of their numbers the edges of lower teeth stand, drawing units. */
const LOWER_EDGE = 51;

/**
 * The teeth in their planned proportions along a slim arc: chooses the tooth, and shows under each whether it is
 * planned (solid) or only part of the plan to come (dotted). The same on every stage.
 */
export function ArchStrip({ stage }: { stage: StageDefinition }) {
  const { tooth: selected, selectTooth } = useCase();
  // A slider on the bench comes first; the strip may follow a frame later.
  const shape = useDeferredValue(useSection('shape').data);
  const { teeth, missing } = useStripTeeth(stage);
  const { roles } = useReading();
  const toCome = useSection('propose').data.planned ?? frontRow(roles);
  const lower = teeth.some((t) => !isUpper(t));
  const name = useToothLabel();
  const placed = useMemo(() => {
    const size = (t: Fdi): readonly [number, number] => {
      const own = shape.teeth.find((p) => p.tooth === t);
      const { widthMm, lengthMm } = own ?? usualSize(t);
      return [widthMm, lengthMm];
    };
    const row = lower ? LOWER_TEN : UPPER_TEN;
    const total = row.reduce((sum, t) => sum + size(t)[0], 0);
    let along = -total / 2;
    return row.map((t) => {
      const [widthMm, lengthMm] = size(t);
      const angle = (along + widthMm / 2) / RADIUS_MM;
      along += widthMm;
      const own = shape.teeth.find((p) => p.tooth === t);
      return {
        tooth: t,
        path: toothOutline(t, own ? crownSize(own) : { widthMm, lengthMm, facialVolumeMm: 0 }).path,
        angle,
      };
    });
  }, [shape.teeth, lower]);

  // A tooth that this stage does not know gives way to the nearest that it knows.
  const instead = teeth.includes(selected) ? undefined : nearest(selected, teeth);
  useEffect(() => {
    if (instead !== undefined) selectTooth(instead);
  }, [instead, selectTooth]);

  const step = (by: number) => {
    const next = teeth[teeth.indexOf(selected) + by];
    if (next) selectTooth(next);
  };
  return (
    <svg
      viewBox="-260 -72 520 100"
      className="mx-auto block h-[100px] w-full max-w-[520px] max-lg:order-last"
      role="radiogroup"
      aria-label="Tooth"
      onKeyDown={(e) => {
        if (e.key === 'ArrowRight') step(1);
        else if (e.key === 'ArrowLeft') step(-1);
        else return;
        e.preventDefault();
      }}
    >
      {placed.map(({ tooth, path, angle }) => {
        const on = tooth === selected;
        const plannable = teeth.includes(tooth);
        const planned = shape.teeth.some((p) => p.tooth === tooth);
        const gone = missing.has(tooth) && !planned;
        const x = RADIUS_MM * Math.sin(angle) * SCALE;
        const y = -RADIUS_MM * (1 - Math.cos(angle)) * SCALE;
        return (
          <g
            key={tooth}
            transform={`translate(${x.toFixed(1)} ${y.toFixed(1)}) rotate(${((-angle * 180) / Math.PI).toFixed(2)})`}
            {...(plannable && {
              role: 'radio',
              'aria-checked': on,
              'aria-label': `${name(tooth)}, ${kindName(tooth)}${planned ? ', planned' : ''}`,
              tabIndex: on ? 0 : -1,
              onClick: () => selectTooth(tooth),
              className: 'cursor-pointer',
            })}
          >
            <path
              d={path}
              transform={lower ? `translate(0 ${-LOWER_EDGE}) rotate(180) scale(${SCALE})` : `scale(${SCALE})`}
              fill={gone ? 'none' : on ? PALETTE.plumSoft : plannable ? PALETTE.leaf : '#f0ece4'}
              stroke={on ? PALETTE.plum : gone ? '#c9c3b8' : '#8d9499'}
              strokeWidth={on ? 0.36 : 0.17}
              {...(gone && { strokeDasharray: '0.5 0.5' })}
            />
            {(planned || toCome.includes(tooth)) && (
              <path
                d="M-9 8 h18"
                stroke={planned ? PALETTE.plum : '#8d9499'}
                strokeWidth={3}
                {...(!planned && { strokeDasharray: '3 3' })}
              />
            )}
            <text
              y={23}
              textAnchor="middle"
              fontSize={11.5}
              fontWeight={on ? 700 : 400}
              fill={on ? PALETTE.plum : PALETTE.ink2}
            >
              {name(tooth)}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

/** Of the same jaw and side if there is one, and as far from the midline as can be. */
function nearest(tooth: Fdi, teeth: readonly Fdi[]): Fdi | undefined {
  const off = (t: Fdi) =>
    (sideOf(t) === sideOf(tooth) ? 0 : 20) +
    (isUpper(t) === isUpper(tooth) ? 0 : 10) +
    Math.abs((t % 10) - (tooth % 10));
  return teeth.reduce<Fdi | undefined>((best, t) => (best === undefined || off(t) < off(best) ? t : best), undefined);
}
