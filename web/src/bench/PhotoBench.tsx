import { useGesture } from '@use-gesture/react';
import { type ReactNode, type RefObject, useCallback, useEffect, useRef, useState } from 'react';
import { useHotkeys } from '../ui/hotkeys.js';
import { PALETTE } from '../ui/palette.js';
import { Magnifier } from './Magnifier.js';
import { useFingerHold } from './use-finger-hold.js';
import { usePointerPlace } from './use-pointer-place.js';

/** The part of the picture that is shown: its top left corner in px of the picture, and screen px a picture px. */
export interface BenchView {
  readonly x: number;
  readonly y: number;
  readonly zoom: number;
}

/** The preview's longest side, px; see the server's preview route. */
const PREVIEW_PX = 2000;

/**
 * Which picture is drawn: the small one while its pixels are enough for the screen, then the original, once it is
 * decoded.
 */
function useShown(
  src: string,
  preview: string | undefined,
  width: number,
  zoom: number | undefined,
  magnified: boolean,
): string {
  const [whole, setWhole] = useState(!preview || width <= PREVIEW_PX);
  const needed = !whole && (magnified || (zoom ?? 0) * width * devicePixelRatio > PREVIEW_PX);
  useEffect(() => {
    if (!needed) return;
    let gone = false;
    const image = new Image();
    image.src = src;
    image.decode().then(
      () => !gone && setWhole(true),
      () => undefined,
    );
    return () => {
      gone = true;
    };
  }, [needed, src]);
  return whole || !preview ? src : preview;
}

/** A box on the picture, px of it. */
export interface PictureBox {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

function boxBetween(
  [ax, ay]: readonly [number, number],
  [bx, by]: readonly [number, number],
  view: BenchView,
  width: number,
  height: number,
): PictureBox {
  const x = (s: number) => Math.min(width, Math.max(0, view.x + s / view.zoom));
  const y = (s: number) => Math.min(height, Math.max(0, view.y + s / view.zoom));
  return {
    left: x(Math.min(ax, bx)),
    right: x(Math.max(ax, bx)),
    top: y(Math.min(ay, by)),
    bottom: y(Math.max(ay, by)),
  };
}

/** A smaller one is a slip of the hand, px of the screen. */
const LEAST_BOX = 8;
const wideEnough = ({ left, right, top, bottom }: PictureBox, zoom: number): boolean =>
  Math.min(right - left, bottom - top) * zoom >= LEAST_BOX;

/** Says beside the pointer what a click would do; a finger has no place beside it. */
function PointerHint({ frame, children }: { frame: RefObject<HTMLDivElement | null>; children: ReactNode }) {
  const at = usePointerPlace(frame);
  if (!at || at.busy) return null;
  return (
    <div
      aria-hidden="true"
      className="pointer-events-none absolute top-0 left-0"
      style={{ transform: `translate(${at.x + 18}px, ${at.y + 16}px)` }}
    >
      {children}
    </div>
  );
}

const MIN_ZOOM = 0.02;
const MAX_ZOOM = 40;

/**
 * A photograph on the grey bench: zoom about the pointer with wheel or pinch, pan by dragging, and marks drawn over it
 * in the picture's own pixels. A press that is no drag is a click on the picture; a finger that is held aims with the
 * lens and presses where it is lifted.
 */
export function PhotoBench({
  src,
  preview,
  alt,
  width,
  height,
  filter,
  magnified = false,
  onPress,
  onBox,
  hint,
  children,
}: {
  src: string;
  /** A smaller picture of the same, shown until one zooms in beyond it. */
  preview?: string;
  alt: string;
  width: number;
  height: number;
  /** CSS filter for looking; the file is not changed. */
  filter?: string | undefined;
  /** Whether a lens follows the pointer. */
  magnified?: boolean;
  /** A place of the picture, px, and screen px a picture px. */
  onPress: (x: number, y: number, zoom: number) => void;
  /** While it is given a drag draws a box on the picture instead of moving it; px of the picture. */
  onBox?: ((box: PictureBox) => void) | undefined;
  /** Goes with the pointer. */
  hint?: ReactNode;
  children: (view: BenchView) => ReactNode;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ w: 0, h: 0 });
  const [view, setView] = useState<BenchView>();
  const [box, setBox] = useState<PictureBox>();

  const shown = useShown(src, preview, width, view?.zoom, magnified);

  const fit = useCallback(() => {
    const box = frame.current?.getBoundingClientRect();
    if (!box || box.width === 0) return;
    const zoom = Math.min((box.width - 24) / width, (box.height - 24) / height);
    setSize({ w: box.width, h: box.height });
    setView({ zoom, x: (width - box.width / zoom) / 2, y: (height - box.height / zoom) / 2 });
  }, [width, height]);

  useEffect(() => {
    fit();
    const watch = new ResizeObserver(fit);
    if (frame.current) watch.observe(frame.current);
    return () => watch.disconnect();
  }, [fit]);

  const zoomAbout = useCallback((sx: number, sy: number, factor: number) => {
    setView((v) => {
      if (!v) return v;
      const zoom = Math.min(MAX_ZOOM, Math.max(MIN_ZOOM, v.zoom * factor));
      return { zoom, x: v.x + sx / v.zoom - sx / zoom, y: v.y + sy / v.zoom - sy / zoom };
    });
  }, []);

  useHotkeys('stage', [
    {
      keys: 'wheel, + −',
      does: 'zoom',
      on: ['+', '=', '-'],
      each: ['zoom in', 'zoom in', 'zoom out'],
      run: (key) => zoomAbout(size.w / 2, size.h / 2, key === '-' ? 0.8 : 1.25),
    },
    { keys: '0', does: 'whole picture', on: ['0'], run: fit },
  ]);

  const press = (sx: number, sy: number) => {
    if (!view) return;
    const x = view.x + sx / view.zoom;
    const y = view.y + sy / view.zoom;
    if (x >= 0 && y >= 0 && x <= width && y <= height) onPress(x, y, view.zoom);
  };
  const finger = useFingerHold(frame, press);

  const placeIn = (clientX: number, clientY: number): readonly [number, number] => {
    const box = frame.current?.getBoundingClientRect();
    return [clientX - (box?.left ?? 0), clientY - (box?.top ?? 0)];
  };
  useGesture(
    {
      onDrag: ({ delta: [dx, dy], tap, event, pinching, cancel, last, buttons, initial, xy: [cx, cy] }) => {
        if (pinching) {
          setBox(undefined);
          return cancel();
        }
        if (finger.holds.current) return setBox(undefined);
        // A press without a drag sets a point even on top of another one: neighbours' contact points share a place.
        if (!tap && (event.target as Element | null)?.closest('[data-mark]')) return;
        if (tap) {
          press(...placeIn(cx, cy));
          return;
        }
        if (onBox && buttons !== 4) {
          const drawn = view && boxBetween(placeIn(initial[0], initial[1]), placeIn(cx, cy), view, width, height);
          setBox(last ? undefined : drawn);
          if (last && drawn && wideEnough(drawn, view.zoom)) onBox(drawn);
          return;
        }
        setView((v) => v && { ...v, x: v.x - dx / v.zoom, y: v.y - dy / v.zoom });
      },
      onWheel: ({ event, last }) => {
        // When the wheel rests the last event is told once more.
        if (last) return;
        event.preventDefault();
        const [sx, sy] = placeIn(event.clientX, event.clientY);
        zoomAbout(sx, sy, Math.exp(-event.deltaY * 0.0016));
      },
      onPinch: ({ origin: [ox, oy], delta: [d], offset: [s] }) => {
        const [sx, sy] = placeIn(ox, oy);
        zoomAbout(sx, sy, s / (s - d || s));
      },
    },
    {
      target: frame,
      drag: { filterTaps: true, pointer: { buttons: [1, 4] } },
      wheel: { eventOptions: { passive: false } },
      eventOptions: { passive: false },
    },
  );

  return (
    <div ref={frame} className="absolute inset-0 touch-none overflow-hidden" data-testid="photo-bench">
      {view && (
        <svg
          width={size.w}
          height={size.h}
          viewBox={`${view.x} ${view.y} ${size.w / view.zoom} ${size.h / view.zoom}`}
          className="block cursor-crosshair select-none"
        >
          <title>{alt}</title>
          <image
            href={shown}
            width={width}
            height={height}
            preserveAspectRatio="none"
            {...(filter && { style: { filter } })}
          />
          {children(view)}
          {box && (
            <rect
              x={box.left}
              y={box.top}
              width={box.right - box.left}
              height={box.bottom - box.top}
              fill={PALETTE.plum}
              fillOpacity={0.12}
              stroke={PALETTE.white}
              strokeWidth={2 / view.zoom}
              strokeDasharray={`${6 / view.zoom} ${4 / view.zoom}`}
            />
          )}
        </svg>
      )}
      {view && hint && <PointerHint frame={frame}>{hint}</PointerHint>}
      {view && (magnified || finger.at) && (
        <Magnifier
          frame={frame}
          finger={finger.at}
          view={view}
          src={shown}
          width={width}
          height={height}
          filter={filter}
        />
      )}
    </div>
  );
}
