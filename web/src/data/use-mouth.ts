import { mouthOf } from '@radiant/contract';
import type { Mouth } from '@radiant/core';
import { useMemo } from 'react';
import { useSection } from './case-context.js';

/** What of the patient's mouth changes what is safe to cut; the same one until what it comes from changes. */
export function useMouth(): Mouth {
  const { cautions, ageYears, teeth } = useSection('meet').data;
  return useMemo(() => mouthOf({ cautions, ageYears, teeth }), [cautions, ageYears, teeth]);
}
