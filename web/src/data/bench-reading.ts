import {
  type CalibrationInput,
  type CaseFile,
  type FreeMeasure,
  type LandmarkInput,
  type PhotoView,
  type ReadSection,
  readingOf,
  scaleBy,
  type ViewReadingInput,
} from '@radiant/contract';
import { type Figure, LIP_KNOTS } from '@radiant/core';
import { useMemo } from 'react';
import { useCase, useSection } from './case-context.js';

/** What a bench holds of one view. */
export interface BenchReading {
  readonly view: PhotoView;
  readonly photo: CaseFile | undefined;
  readonly calibration: CalibrationInput | null | undefined;
  readonly check: CalibrationInput | null | undefined;
  readonly drawn: readonly FreeMeasure[];
  readonly points: ViewReadingInput['points'];
  /** Of the retracted front view: the outlines of teeth. */
  readonly landmarks: readonly LandmarkInput[];
  readonly scale: Figure | undefined;
}

export interface BenchChange {
  readonly photoId?: string | null;
  readonly calibration?: CalibrationInput | null;
  readonly check?: CalibrationInput | null;
  readonly drawn?: FreeMeasure[];
  readonly points?: ViewReadingInput['points'];
  readonly landmarks?: LandmarkInput[];
  readonly lastRight?: number | null;
  readonly lastLeft?: number | null;
}

/** The section with a view's reading changed. */
export function withReading(read: ReadSection, view: PhotoView, change: BenchChange): ReadSection {
  const own = { ...readingOf(read, view), ...change };
  return { ...read, views: [...read.views.filter((v) => v.view !== view), own] };
}

const NONE: readonly never[] = [];

export function readBench(read: ReadSection, view: PhotoView, files: readonly CaseFile[]): BenchReading {
  const { photoId, calibration, check, drawn, points, landmarks = NONE } = readingOf(read, view);
  return {
    view,
    // What is marked on one photograph must not be shown on another.
    photo: photoId ? files.find((f) => f.id === photoId) : newestOf(files, view),
    calibration,
    check,
    drawn,
    points,
    landmarks,
    scale: scaleBy(calibration),
  };
}

/** The photograph that stands for a view until one is chosen: the newest from before, or the newest of all. */
export function newestOf(files: readonly CaseFile[], view: PhotoView): CaseFile | undefined {
  const own = files.filter((f) => f.kind === 'photo' && f.view === view);
  return own.filter((f) => f.state === 'before').at(-1) ?? own.at(-1);
}

/** A view's reading, and the ways to change it. */
export function useBenchReading(view: PhotoView): BenchReading & {
  readonly change: (c: BenchChange, group?: string) => void;
  /** What follows from the last change made on this page; undefined while none was made. */
  readonly amend: ((c: BenchChange) => void) | undefined;
} {
  const { detail } = useCase();
  const { data, set, amend, canUndo } = useSection('read');
  return useMemo(
    () => ({
      ...readBench(data, view, detail.files),
      change: (c: BenchChange, group?: string) => set(withReading(data, view, c), group),
      amend: canUndo ? (c: BenchChange) => amend(withReading(data, view, c)) : undefined,
    }),
    [data, detail.files, view, set, amend, canUndo],
  );
}

/** The ids of a lip's knots with the corners at both ends, for drawing it. */
export const lipLineIds = (which: 'upper' | 'lower'): string[] => [
  'corner-right',
  ...Array.from({ length: LIP_KNOTS }, (_, i) => `${which}-lip-${i + 1}`),
  'corner-left',
];
