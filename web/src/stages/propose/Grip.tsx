import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import { number, signed } from '../../ui/format.js';
import { PALETTE } from '../../ui/palette.js';

const STEP_MM = 0.1;
const tenth = (mm: number) => Math.round(mm * 10) / 10;

/**
 * A handle on a drawing in millimetres: dragged, or moved by arrow keys, one step a key and ten with Shift. While it
 * is moved its figure stands beside it.
 */
export function Grip({
  label,
  x,
  y,
  along,
  grows,
  value,
  limits,
  sign = false,
  onSlide,
  onDone,
}: {
  label: string;
  /** Where it stands on the drawing, mm. */
  x: number;
  y: number;
  along: 'x' | 'y';
  /** How much the value grows while the handle moves one millimetre right or down. */
  grows: number;
  /** mm */
  value: number;
  limits: { readonly min: number; readonly max: number };
  /** Whether the figure is written with its sign. */
  sign?: boolean;
  onSlide: (mm: number) => void;
  onDone: () => void;
}) {
  const grabbed = useRef<{ at: number; value: number } | undefined>(undefined);
  const [moving, setMoving] = useState(false);
  const placeOf = (e: PointerEvent<SVGGElement>): number => {
    // Of the drawing, not of the handle, which moves under the pointer.
    const m = e.currentTarget.ownerSVGElement?.getScreenCTM()?.inverse();
    if (!m) return 0;
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(m);
    return along === 'x' ? p.x : p.y;
  };
  const slide = (mm: number) => {
    const next = tenth(Math.min(limits.max, Math.max(limits.min, mm)));
    if (next !== value) onSlide(next);
  };
  const end = () => {
    if (!grabbed.current) return;
    grabbed.current = undefined;
    setMoving(false);
    onDone();
  };
  const key = (e: KeyboardEvent) => {
    const [more, less] = along === 'x' ? ['ArrowRight', 'ArrowLeft'] : ['ArrowDown', 'ArrowUp'];
    const d = e.key === more ? 1 : e.key === less ? -1 : 0;
    if (!d) return;
    e.preventDefault();
    e.stopPropagation();
    slide(value + d * Math.sign(grows) * STEP_MM * (e.shiftKey ? 10 : 1));
  };
  const words = sign ? signed(value, 1) : number(value, 1);
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-orientation={along === 'x' ? 'horizontal' : 'vertical'}
      aria-valuemin={limits.min}
      aria-valuemax={limits.max}
      aria-valuenow={value}
      aria-valuetext={`${words} mm`}
      transform={`translate(${x} ${y})`}
      className={`touch-none outline-none [&:focus-visible>.ring]:opacity-100 ${along === 'x' ? 'cursor-ew-resize' : 'cursor-ns-resize'}`}
      onPointerDown={(e) => {
        e.stopPropagation();
        e.currentTarget.setPointerCapture(e.pointerId);
        grabbed.current = { at: placeOf(e), value };
        setMoving(true);
      }}
      onPointerMove={(e) => {
        const g = grabbed.current;
        if (g) slide(g.value + (placeOf(e) - g.at) * grows);
      }}
      onPointerUp={end}
      onPointerCancel={end}
      onKeyDown={key}
      onKeyUp={(e) => e.key.startsWith('Arrow') && onDone()}
      onClick={(e) => e.stopPropagation()}
    >
      <title>{label}</title>
      {/* As large as a finger wants it; what is seen is small. */}
      <circle r={1.25} fill="transparent" />
      <circle className="ring opacity-0" r={0.85} fill="none" stroke={PALETTE.plum} strokeWidth={0.16} />
      <circle r={0.5} fill={PALETTE.white} stroke={PALETTE.plum} strokeWidth={0.18} />
      <path
        d={along === 'x' ? 'M-0.22 0H0.22' : 'M0 -0.22V0.22'}
        stroke={PALETTE.plum}
        strokeWidth={0.14}
        strokeLinecap="round"
      />
      {moving && (
        <g transform={`translate(${x > 14 ? -5.2 : 0.9} -0.9)`} pointerEvents="none">
          <rect x={0} y={-1.15} width={4.4} height={1.6} rx={0.35} fill={PALETTE.ink} fillOpacity={0.85} />
          <text x={2.2} y={0} fontSize={1.05} fontWeight={600} textAnchor="middle" fill={PALETTE.white}>
            {words} mm
          </text>
        </g>
      )}
    </g>
  );
}
