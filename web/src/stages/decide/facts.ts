import { type DecideSection, type MeetSection, readColour, type ToothPast, type WishTag } from '@radiant/contract';
import {
  DARK_L,
  deltaE00,
  distalNeighbour,
  type Fdi,
  mesialNeighbour,
  type OptionId,
  type OptionsTold,
  type ReadColour,
  type ToothFacts,
} from '@radiant/core';
import { useMemo } from 'react';
import { useSection } from '../../data/case-context.js';

/** What has a tooth broken down. */
const BROKEN: readonly ToothPast[] = ['post', 'crown', 'decay'];
/** Wishes that ask for another form. */
const FORM_TAGS: readonly WishTag[] = ['longer', 'shorter', 'wider', 'narrower', 'even', 'gaps-closed'];

/** What was read of the middle of a tooth's face, where a shade is wanted too. */
export function useColour(tooth: Fdi): ReadColour | null {
  const { data } = useSection('match');
  return useMemo(() => readColour(data, tooth, 'body'), [tooth, data]);
}

/** What record, readings and choices say of a tooth. */
export function factsOf(
  tooth: Fdi,
  meet: MeetSection,
  data: DecideSection,
  colour: ReadColour | null,
  told: OptionsTold | undefined,
): ToothFacts {
  const past = meet.teeth.find((t) => t.tooth === tooth)?.past ?? [];
  const chosen = (t: Fdi | undefined): OptionId | undefined => data.choices.find((c) => c.tooth === t)?.option;
  const [mesial, distal] = [mesialNeighbour(tooth), distalNeighbour(tooth)];
  const now = colour?.tooth ?? colour?.stump;
  return {
    tooth,
    ageYears: meet.ageYears ?? undefined,
    grinding: meet.cautions.includes('grinding'),
    acid: meet.cautions.includes('acid'),
    bleeding: meet.cautions.includes('bleeding') || past.includes('inflamed'),
    dry: data.wet?.includes(tooth) ? false : (data.dry ?? undefined),
    dark: past.includes('dark-stump') || (now !== undefined && now.L < DARK_L),
    broken: BROKEN.some((p) => past.includes(p)),
    crowned: past.includes('crown'),
    formWished: FORM_TAGS.some((t) => meet.wishTags.includes(t)),
    lighter: meet.wishTags.includes('lighter'),
    bleachLater: data.bleachLater ?? false,
    gaps: meet.wishTags.includes('gaps-closed'),
    cameOff: data.cameOff?.includes(tooth) ?? false,
    palatalRoomMm: told?.palatalRoomMm,
    nowDE: now && colour ? deltaE00(now, colour.wanted) : undefined,
    otherCentral: tooth % 10 === 1 ? chosen(mesial) : undefined,
    neighbours: [chosen(mesial), chosen(distal)].filter((o) => o !== undefined),
  };
}
