import { type CaseFile, landmarkSet } from '@radiant/contract';
import { type Figure, type Finding, findings, gapsBetween, measureTeeth, type Proposal, propose, scaleOf, type ToothMeasure } from '@radiant/core';
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

/** The targets by the chosen school, once all six teeth are measured. */
export function useProposal(): Proposal | undefined {
  const { measures, gaps } = useReading();
  const { data } = useSection('propose');
  return useMemo(() => (gaps ? propose(measures, data, gaps) : undefined), [measures, gaps, data]);
}
