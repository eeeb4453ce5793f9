import type { CalibrationInput } from '@radiant/contract';
import { pupils } from '@radiant/core';
import { useState } from 'react';
import type { MarkGroup } from '../../data/bench-marks.js';
import type { useBenchReading } from '../../data/bench-reading.js';

/** What a press on the photograph does. */
export type Mode = MarkGroup | 'scale' | 'check' | 'length' | 'angle';
export type Point = { readonly x: number; readonly y: number };

const tenth = (v: number) => Math.round(v * 10) / 10;

/** A known length both ends of which are set, while nobody has said how long it is. */
export type KnownEnds = Omit<CalibrationInput, 'mm'> & { readonly mm?: number };

/** What a hand has begun to draw: a known length, or a measure; and how it is ended. */
export function useDrawing(reading: ReturnType<typeof useBenchReading>) {
  const { view, photo } = reading;
  /** The one end of a known length. */
  const [from, setFrom] = useState<Point>();
  const [ends, setEnds] = useState<KnownEnds>();
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
    if (held || ends) return;
    const point = { x: tenth(x), y: tenth(y) };
    if (!from) return setFrom(point);
    if (Math.hypot(point.x - from.x, point.y - from.y) < 10) return;
    setFrom(undefined);
    // Of the pupils the mean is known, and said to be one; any other length only the person knows.
    if (!view.startsWith('portrait')) return setEnds({ from, to: point });
    const { mm, pmMm } = pupils();
    return reading.change({
      photoId: photo.id,
      [which === 'scale' ? 'calibration' : 'check']: { from, to: point, mm, pmMm, way: 'pupils', origin: 'mean' },
    });
  };
  return { from, setFrom, ends, setEnds, begun, setBegun, draw, scale };
}
