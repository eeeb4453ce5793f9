import { type CaseFile, type FreeMeasure, landmarkSet } from '@radiant/contract';
import {
  type Figure,
  type Finding,
  findings,
  freeAngle,
  freeLength,
  gapsBetween,
  measureTeeth,
  type Proposal,
  propose,
  Refusal,
  scaleOf,
  type ToothMeasure,
} from '@radiant/core';
import { useMemo } from 'react';
import { useCase, useSection } from './case-context.js';

export interface Reading {
  readonly photo: CaseFile | undefined;
  readonly scale: Figure | undefined;
  readonly measures: readonly ToothMeasure[];
  readonly findings: readonly Finding[];
  readonly gaps: Figure | undefined;
}

/** What the photograph tells, worked out live from scale and landmarks. */
export function useReading(): Reading {
  const { detail } = useCase();
  const { data } = useSection('read');
  return useMemo(() => {
    const photo = detail.files.find((f) => f.id === data.photoId);
    const c = data.calibration;
    if (!c) return { photo, scale: undefined, measures: [], findings: [], gaps: undefined };
    const scale = scaleOf({ from: [c.from.x, c.from.y], to: [c.to.x, c.to.y], mm: c.mm });
    const set = landmarkSet(data.landmarks);
    const measures = measureTeeth(set, scale);
    return { photo, scale, measures, findings: findings(measures), gaps: gapsBetween(set, scale) };
  }, [detail.files, data]);
}

/** A measure that a person drew, with its figure where there is a scale. */
export interface Drawn {
  readonly measure: FreeMeasure;
  readonly figure: Figure | undefined;
}

/** The drawn lengths and angles. */
export function useDrawn(): readonly Drawn[] {
  const { scale } = useReading();
  const { data } = useSection('read');
  return useMemo(() => data.drawn.map((measure) => ({ measure, figure: scale && figureOf(measure, scale) })), [data.drawn, scale]);
}

function figureOf(m: FreeMeasure, scale: Figure): Figure | undefined {
  const [a, b, c] = m.points.map((p) => [p.x, p.y] as const);
  try {
    return a && b && c ? freeAngle(a, b, c, scale) : a && b ? freeLength(a, b, scale) : undefined;
  } catch (error) {
    // While two of its points are dragged over each other a measure has no value.
    if (error instanceof Refusal) return undefined;
    throw error;
  }
}

/** The targets by the chosen school, once all six teeth are measured. */
export function useProposal(): Proposal | undefined {
  const { measures, gaps } = useReading();
  const { data } = useSection('propose');
  return useMemo(() => (gaps ? propose(measures, data, gaps) : undefined), [measures, gaps, data]);
}
