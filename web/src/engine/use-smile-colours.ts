import { readColour, THIRD_OF } from '@radiant/contract';
import {
  type ContourPlan,
  type FacialThird,
  type Fdi,
  READING_ZONES,
  type ReadColour,
  type ToothLook,
  type ToothRead,
} from '@radiant/core';
import { useMemo } from 'react';
import { useSection } from '../data/case-context.js';
import { useMouth } from '../data/use-mouth.js';
import { usePracticeSettings } from '../data/use-practice-settings.js';
import type { CaseClient } from './case-client.js';
import { type Asked, useAsked } from './use-asked.js';

/**
 * The planned teeth as they will look, those of which a colour is known.
 * @param client undefined while nobody looks
 */
export function useSmileColours(client: CaseClient | undefined, plan: ContourPlan): Asked<ToothLook[]> {
  const { data } = useSection('match');
  const reduce = useSection('reduce').data;
  const mouth = useMouth();
  const plates = usePracticeSettings().shown?.plates;
  const input = useMemo(() => {
    const teeth = Object.keys(plan).flatMap((t): ToothRead[] => {
      const tooth = Number(t) as Fdi;
      const colours: Partial<Record<FacialThird, ReadColour>> = {};
      for (const zone of READING_ZONES) {
        const own = readColour(data, tooth, zone);
        if (own) colours[THIRD_OF[zone]] = own;
      }
      const ceramic = data.own?.find((o) => o.tooth === tooth)?.ceramic ?? data.ceramic;
      return Object.keys(colours).length > 0 ? [{ tooth, ceramic, colours }] : [];
    });
    return teeth.length > 0 ? ([teeth, reduce, plates ?? [], mouth] as const) : undefined;
  }, [plan, data, reduce, plates, mouth]);
  return useAsked(client, plan, 'smileColours', input);
}
