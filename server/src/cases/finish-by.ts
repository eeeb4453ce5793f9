import { isDay, type MeetSection, type SectionName } from '@radiant/contract';

/**
 * The day by which a case is to be finished, as the list of cases sorts it; undefined for a section that says nothing
 * of it.
 */
export function finishByOf(name: SectionName, data: object): string | null | undefined {
  if (name !== 'meet') return undefined;
  const { finishBy } = data as MeetSection;
  return isDay(finishBy) ? finishBy : null;
}
