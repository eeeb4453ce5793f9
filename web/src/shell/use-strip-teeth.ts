import type { Fdi } from '@radiant/core';
import { useMemo } from 'react';
import { useCase, useSection } from '../data/case-context.js';
import type { StageDefinition } from './stage.js';

/**
 * The teeth that can be chosen on a stage: those that it names, without what the record calls missing and nobody plans.
 */
export function useStripTeeth(stage: StageDefinition): {
  readonly teeth: readonly Fdi[];
  readonly missing: ReadonlySet<Fdi>;
} {
  const { tooth } = useCase();
  const shape = useSection('shape').data;
  const meet = useSection('meet').data;
  return useMemo(() => {
    const missing = new Set(meet.teeth.filter((t) => t.past.includes('missing')).map((t) => t.tooth));
    const planned = shape.teeth.map((t) => t.tooth);
    return { teeth: stage.teeth(tooth, planned).filter((t) => !missing.has(t) || planned.includes(t)), missing };
  }, [stage, tooth, shape.teeth, meet.teeth]);
}
