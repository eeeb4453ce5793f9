import { type KeyboardEvent, type PointerEvent, type ReactNode, useRef } from 'react';
import type { BenchView } from './PhotoBench.js';

/**
 * A point on the photograph that can be dragged, focused and nudged: 1 px by arrow key, 0.1 px with Shift.
 * Its size on the screen stays the same at every zoom.
 */
export function Mark({
  x,
  y,
  label,
  view,
  bounds,
  locked,
  onMove,
  onDone,
  onFocus,
  onRemove,
  children,
}: {
  x: number;
  y: number;
  label: string;
  view: BenchView;
  bounds: { readonly width: number; readonly height: number };
  locked: boolean;
  onMove: (x: number, y: number) => void;
  onDone: () => void;
  onFocus?: () => void;
  onRemove?: () => void;
  children: ReactNode;
}) {
  const grip = useRef<{ dx: number; dy: number } | undefined>(undefined);
  const within = (v: number, max: number) => Math.min(max, Math.max(0, Math.round(v * 10) / 10));
  const move = (nx: number, ny: number) => onMove(within(nx, bounds.width), within(ny, bounds.height));
  const down = (e: PointerEvent<SVGGElement>) => {
    if (locked) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    grip.current = { dx: e.clientX / view.zoom - x, dy: e.clientY / view.zoom - y };
  };
  const drag = (e: PointerEvent<SVGGElement>) => {
    if (grip.current) move(e.clientX / view.zoom - grip.current.dx, e.clientY / view.zoom - grip.current.dy);
  };
  const up = () => {
    if (!grip.current) return;
    grip.current = undefined;
    onDone();
  };
  const key = (e: KeyboardEvent<SVGGElement>) => {
    if (locked) return;
    const step = e.shiftKey ? 0.1 : 1;
    const by: Record<string, readonly [number, number]> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    };
    const d = by[e.key];
    if (d) move(x + d[0], y + d[1]);
    else if ((e.key === 'Delete' || e.key === 'Backspace') && onRemove) onRemove();
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <g
      data-mark
      role="button"
      tabIndex={0}
      aria-label={`${label}, at ${x.toFixed(1)}, ${y.toFixed(1)} px`}
      transform={`translate(${x} ${y}) scale(${1 / view.zoom})`}
      className={locked ? 'cursor-default outline-none' : 'cursor-grab outline-none'}
      onPointerDown={down}
      onPointerMove={drag}
      onPointerUp={up}
      onPointerCancel={up}
      onKeyDown={key}
      onKeyUp={(e) => e.key.startsWith('Arrow') && onDone()}
      onFocus={onFocus}
    >
      <circle r={14} fill="transparent" />
      {children}
    </g>
  );
}
