import { useState } from 'react';
import type { MarkGroup } from '../../data/bench-marks.js';
import type { useBenchReading } from '../../data/bench-reading.js';

/** What a press on the photograph does. */
export type Mode = MarkGroup | 'scale' | 'check' | 'length' | 'angle';
export type Point = { readonly x: number; readonly y: number };

const tenth = (v: number) => Math.round(v * 10) / 10;

/** What a hand has begun to draw: a known length, or a measure; and how it is ended. */
export function useDrawing(reading: ReturnType<typeof useBenchReading>) {
  const { view, photo } = reading;
  /** The one end of a known length. */
  const [from, setFrom] = useState<Point>();
  const [begun, setBegun] = useState<readonly Point[]>([]);
  const draw = (kind: 'length' | 'angle', x: number, y: number) => {
    const point = { x: tenth(x), y: tenth(y) };
    if (begun.some((p) => Math.hypot(p.x - point.x, p.y - point.y) < 3)) return;
    const points = [...begun, point];
    if (points.length < (kind === 'angle' ? 3 : 2)) return setBegun(points);
    setBegun([]);
    const count = reading.drawn.filter((m) => (m.points.length === 3) === (kind === 'angle')).length;
    reading.change({
      ...(photo && { photoId: photo.id }),
      drawn: [...reading.drawn, { id: crypto.randomUUID(), name: `${kind} ${count + 1}`, points }],
    });
  };
  const scale = (which: 'scale' | 'check', x: number, y: number) => {
    if (!photo) return;
    const held = which === 'scale' ? reading.calibration : reading.check;
    if (held) return;
    const point = { x: tenth(x), y: tenth(y) };
    if (!from) return setFrom(point);
    if (Math.hypot(point.x - from.x, point.y - from.y) < 10) return;
    const made = {
      from,
      to: point,
      mm: view.startsWith('portrait') ? 63.4 : 20,
      ...(view.startsWith('portrait') && { way: 'pupils' as const, origin: 'mean' as const, pmMm: 7.5 }),
    };
    reading.change({ photoId: photo.id, [which === 'scale' ? 'calibration' : 'check']: made });
    return setFrom(undefined);
  };
  return { from, setFrom, begun, setBegun, draw, scale };
}
