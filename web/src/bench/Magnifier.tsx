import type { RefObject } from 'react';
import { PALETTE } from '../ui/palette.js';
import type { BenchView } from './PhotoBench.js';
import { type PointerPlace, usePointerPlace } from './use-pointer-place.js';

const SIDE = 156;
/** How much larger than the bench shows. */
const TIMES = 3;
/** Free room between the pointer and the lens, px; a finger hides more. */
const OFF = 22;
const OFF_FINGER = 46;

/** A lens that follows the pointer over the bench and shows what lies under it, with a cross at the very place. */
export function Magnifier({
  frame,
  finger,
  view,
  src,
  width,
  height,
  filter,
}: {
  frame: RefObject<HTMLDivElement | null>;
  /** Where a finger aims. */
  finger?: PointerPlace | undefined;
  view: BenchView;
  src: string;
  width: number;
  height: number;
  filter: string | undefined;
}) {
  const pointer = usePointerPlace(frame);
  const at = finger ?? pointer;
  if (!at) return null;
  const off = finger ? OFF_FINGER : OFF;
  const span = SIDE / (view.zoom * TIMES);
  const left = at.x + off + SIDE > at.w ? at.x - off - SIDE : at.x + off;
  const top = at.y - off - SIDE < 0 ? at.y + off : at.y - off - SIDE;
  return (
    <svg
      data-testid="magnifier"
      aria-hidden="true"
      width={SIDE}
      height={SIDE}
      viewBox={`${view.x + at.x / view.zoom - span / 2} ${view.y + at.y / view.zoom - span / 2} ${span} ${span}`}
      className="pointer-events-none absolute overflow-hidden rounded-full bg-bench-2 shadow-lg ring-2 ring-white"
      style={{ left, top }}
    >
      <image
        href={src}
        width={width}
        height={height}
        preserveAspectRatio="none"
        style={{ filter, imageRendering: 'pixelated' }}
      />
      <path
        d={`M${view.x + at.x / view.zoom - span / 2} ${view.y + at.y / view.zoom}h${span}M${view.x + at.x / view.zoom} ${view.y + at.y / view.zoom - span / 2}v${span}`}
        stroke={PALETTE.white}
        strokeOpacity={0.8}
        strokeWidth={span / SIDE}
      />
    </svg>
  );
}
