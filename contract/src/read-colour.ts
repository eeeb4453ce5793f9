import {
  type FacialThird,
  type Fdi,
  type Lab,
  type ReadColour,
  type ReadingOf,
  type ReadingZone,
  shadeOf,
} from '@radiant/core';
import type { Bleaching, ColourReadingInput, MatchSection } from './sections/match.js';

/** The third of the face that each zone is. */
export const THIRD_OF: Readonly<Record<ReadingZone, FacialThird>> = {
  gum: 'cervical',
  body: 'middle',
  edge: 'incisal',
};

const DAY_MS = 24 * 3600 * 1000;

export const readingAt = (data: MatchSection, tooth: number, of: ReadingOf, zone: ReadingZone) =>
  data.readings.find((r) => r.tooth === tooth && r.of === of && r.zone === zone);

const labOf = ({ L, a, b }: Lab): Lab => ({ L, a, b });

/** The colour of the wanted shade, where one is chosen. */
export function wantedShade({ wanted, wantedColour }: MatchSection): Lab | undefined {
  if (wantedColour) return labOf(wantedColour);
  return wanted ? shadeOf(wanted).lab : undefined;
}

/** What is wanted at a zone of a tooth: as the tooth it is to look like was read there, else the wanted shade. */
export function wantedAt(data: MatchSection, tooth: Fdi, zone: ReadingZone): Lab | undefined {
  const model = data.like && data.like !== tooth ? readingAt(data, data.like, 'tooth', zone) : undefined;
  return model ? labOf(model) : wantedShade(data);
}

/** The first day on which a bleached tooth can be read; nothing while it is still being bleached. */
export function settledOn({ endedOn, waitDays }: Bleaching): string | undefined {
  if (!endedOn) return undefined;
  return new Date(Date.parse(`${endedOn}T00:00:00Z`) + waitDays * DAY_MS).toISOString().slice(0, 10);
}

/** Whether a reading says what a bleached tooth looks like once its colour has settled. */
export function isSettled({ at }: ColourReadingInput, bleaching: Bleaching | undefined): boolean {
  if (!bleaching) return true;
  const day = settledOn(bleaching);
  return day !== undefined && at.slice(0, 10) >= day;
}

/**
 * What was read at one zone of a tooth, with what is wanted; nothing where one of the two is missing. A tooth that is
 * bleached first has the shade that is hoped for until it is read again.
 */
export function readColour(data: MatchSection, tooth: Fdi, zone: ReadingZone): ReadColour | null {
  const wanted = wantedAt(data, tooth, zone);
  const bleaching = data.bleaching?.find((b) => b.tooth === tooth);
  const settled = (of: ReadingOf) => {
    const own = readingAt(data, tooth, of, zone);
    return own && isSettled(own, bleaching) ? own : undefined;
  };
  const [whole, stump] = [settled('tooth'), settled('stump')];
  if (!wanted) return null;
  const { cement } = data;
  if (!whole && !stump) return bleaching ? { wanted, cement, tooth: shadeOf(bleaching.to).lab } : null;
  return {
    wanted,
    cement,
    ...(whole && { tooth: labOf(whole) }),
    ...(stump && { stump: labOf(stump) }),
    ...(whole?.spectrum && { toothSpectrum: whole.spectrum }),
    ...(stump?.spectrum && { stumpSpectrum: stump.spectrum }),
    ...((stump ?? whole)?.rough && { rough: true }),
  };
}
