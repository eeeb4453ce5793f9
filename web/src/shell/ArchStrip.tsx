import { crownSize, type Fdi, isUpper, kindName, LOWER_TEN, UPPER_SIX, UPPER_TEN } from '@radiant/core';
import { useDeferredValue, useEffect, useMemo } from 'react';
import { toothOutline } from '../bench/tooth-outline.js';
import { useCase, useSection, useToothLabel } from '../data/case-context.js';
import { acrossFrom, teethOf } from './stages.js';

/** Sizes that a tooth is drawn with before it has been measured or planned, mm. */
const USUAL: Readonly<Record<'upper' | 'lower', Readonly<Record<number, readonly [number, number]>>>> = {
  upper: { 1: [8.5, 10.6], 2: [6.5, 9.2], 3: [7.5, 10.2], 4: [7, 8.6], 5: [6.7, 7.9] },
  lower: { 1: [5.4, 8.8], 2: [5.9, 9], 3: [6.8, 10], 4: [7, 8.4], 5: [7.1, 7.8] },
};

const SCALE = 5.6;
const RADIUS_MM = 150;
/** How far over the line of their numbers the edges of lower teeth stand, drawing units. */
const LOWER_EDGE = 51;

/**
 * The teeth in their planned proportions along a slim arc: chooses the tooth, and shows under each whether it is planned
 * (solid) or only part of the plan to come (dotted). The same on every stage.
 */
export function ArchStrip({ stage }: { stage: string }) {
  const { tooth: selected, selectTooth } = useCase();
  const teeth = teethOf(stage, selected);
  const lower = stage === 'shape' && !isUpper(selected);
  // A slider on the bench comes first; the strip may follow a frame later.
  const shape = useDeferredValue(useSection('shape').data);
  const name = useToothLabel();
  const placed = useMemo(() => {
    const size = (t: Fdi): readonly [number, number] => {
      const own = shape.teeth.find((p) => p.tooth === t);
      return own ? [own.widthMm, own.lengthMm] : (USUAL[lower ? 'lower' : 'upper'][t % 10] as readonly [number, number]);
    };
    const row = lower ? LOWER_TEN : UPPER_TEN;
    const total = row.reduce((sum, t) => sum + size(t)[0], 0);
    let along = -total / 2;
    return row.map((t) => {
      const [widthMm, lengthMm] = size(t);
      const angle = (along + widthMm / 2) / RADIUS_MM;
      along += widthMm;
      const own = shape.teeth.find((p) => p.tooth === t);
      return { tooth: t, path: toothOutline(t, own ? crownSize(own) : { widthMm, lengthMm, facialVolumeMm: 0 }).path, angle };
    });
  }, [shape.teeth, lower]);

  // A tooth that this stage does not know gives way to the one across or the canine beside it.
  const known = teeth.includes(selected);
  useEffect(() => {
    if (known) return;
    const above = isUpper(selected) ? selected : acrossFrom(selected);
    selectTooth(above - (above % 10) + Math.min(3, above % 10));
  }, [known, selected, selectTooth]);

  const step = (by: number) => {
    const next = teeth[teeth.indexOf(selected) + by];
    if (next) selectTooth(next);
  };
  return (
    <svg
      width="520"
      height="100"
      viewBox="-260 -72 520 100"
      className="mx-auto block"
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
              fill={on ? '#efe6ee' : plannable ? '#fffefb' : '#f0ece4'}
              stroke={on ? '#5d2a5a' : '#8d9499'}
              strokeWidth={on ? 0.36 : 0.17}
            />
            {(UPPER_SIX.includes(tooth) || planned) && (
              <path d="M-9 8 h18" stroke={planned ? '#5d2a5a' : '#8d9499'} strokeWidth={3} {...(!planned && { strokeDasharray: '3 3' })} />
            )}
            <text y={23} textAnchor="middle" fontSize={11.5} fontWeight={on ? 700 : 400} fill={on ? '#5d2a5a' : '#566068'}>
              {name(tooth)}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
