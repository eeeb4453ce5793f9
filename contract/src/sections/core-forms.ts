import {
  byScan,
  type ContourPlan,
  type Figure,
  type KnownLength,
  LANDMARK_SD_MM,
  type LandmarkSet,
  PLANNABLE,
  type ProposalChoice,
  type Px,
  printed,
  pupils,
  scaleFrom,
  standOf,
  type ViewPoints,
  type ViewReading,
} from '@radiant/core';
import type { PhotoView } from '../base/records.js';
import type { CalibrationInput } from './places.js';
import type { ProposeSection } from './propose.js';
import type { LandmarkInput, ReadSection, ViewPointInput, ViewReadingInput } from './read.js';
import type { ToothPlanInput } from './shape.js';

/** Landmarks in core's form. */
export function landmarkSet(landmarks: readonly LandmarkInput[]): LandmarkSet {
  const out: Record<number, Record<string, readonly [number, number]>> = {};
  for (const m of landmarks) {
    const own = out[m.tooth] ?? {};
    own[m.kind] = [m.x, m.y];
    out[m.tooth] = own;
  }
  return out;
}

/** The known length behind a calibration. */
export function knownLength(c: CalibrationInput, sdMm = LANDMARK_SD_MM): KnownLength {
  const way = c.way ?? 'scale';
  if (way === 'scale') return printed(c.mm);
  if (way === 'scan') return byScan(c.mm, c.pmMm ?? 0);
  return { way, mm: c.mm, pmMm: c.pmMm ?? 0, sdMm: way === 'pupils' ? pupils().sdMm : sdMm };
}

/** Both ends of a calibration in core's form. */
export const endsOf = ({ from, to }: CalibrationInput): { from: Px; to: Px } => ({
  from: [from.x, from.y],
  to: [to.x, to.y],
});

/** The scale that a calibration gives. */
export const scaleBy = (c: CalibrationInput | null | undefined): Figure | undefined =>
  c ? scaleFrom(endsOf(c), knownLength(c)) : undefined;

/** The points of a view in core's form. */
export function viewPoints(points: readonly ViewPointInput[]): ViewPoints {
  const out: Record<string, Px> = {};
  for (const p of points) out[p.id] = [p.x, p.y];
  return out;
}

/** What is held of a view, or an empty reading of it. */
export function readingOf(read: Pick<ReadSection, 'views'>, view: PhotoView): ViewReadingInput {
  return read.views.find((v) => v.view === view) ?? { view, points: [], drawn: [] };
}

/** What is held of a view in core's form; undefined while it has no scale or no points. */
export function viewReadingOf(read: Pick<ReadSection, 'views'>, view: PhotoView): ViewReading | undefined {
  const own = readingOf(read, view);
  const scale = scaleBy(own.calibration);
  if (!scale || own.points.length === 0) return undefined;
  const { tooth, way, camera } = own.calibration ?? {};
  return {
    view,
    points: viewPoints(own.points),
    scale,
    ...(way === 'tooth' && tooth && { scaleTooth: tooth }),
    ...(camera && { stand: standOf(camera) }),
  };
}

const NONE: readonly LandmarkInput[] = [];

/** The outlines of teeth that are marked on the retracted front view. */
export const frontLandmarks = (read: Pick<ReadSection, 'views'>): readonly LandmarkInput[] =>
  readingOf(read, 'retracted-front').landmarks ?? NONE;

/** The scale of the retracted front view. */
export const frontScale = (read: Pick<ReadSection, 'views'>): Figure | undefined =>
  scaleBy(readingOf(read, 'retracted-front').calibration);

/** The choice of a proposal in core's form. */
export function proposalChoice({ locked, liked, premolars, ...p }: ProposeSection): ProposalChoice {
  return {
    ...p,
    ...(premolars && { premolars }),
    ...(liked && { liked }),
    ...(locked && { locked: Object.fromEntries(locked.map((l) => [l.tooth, l.widthMm])) }),
  };
}

/** The planned contour in core's form. */
export function contourPlan(teeth: readonly ToothPlanInput[]): ContourPlan {
  return Object.fromEntries(teeth.map(({ tooth, ...plan }) => [tooth, plan]));
}

/** Core's contour as section entries, in the order of the teeth. */
export function planInputs(plan: ContourPlan): ToothPlanInput[] {
  return PLANNABLE.flatMap((tooth) => {
    const own = plan[tooth];
    if (!own) return [];
    const { strokes, ...numbers } = own;
    return [{ tooth, ...numbers, ...(strokes && { strokes: strokes.map((s) => ({ ...s, at: [...s.at] })) }) }];
  });
}
