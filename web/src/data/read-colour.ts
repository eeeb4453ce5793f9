import type { ColourZone, MatchSection } from '@radiant/contract';
import { type Fdi, type ReadColour, shadeOf } from '@radiant/core';

/** What was read at one zone of a tooth, with what is wanted; nothing where one of the two is missing. */
export function readColour(data: MatchSection, tooth: Fdi, zone: ColourZone): ReadColour | null {
  const at = (of: 'tooth' | 'stump') => data.readings.find((r) => r.tooth === tooth && r.of === of && r.zone === zone);
  const [whole, stump] = [at('tooth'), at('stump')];
  if (!data.wanted || !(whole || stump)) return null;
  return {
    wanted: shadeOf(data.wanted).lab,
    cement: data.cement,
    ...(whole && { tooth: { L: whole.L, a: whole.a, b: whole.b } }),
    ...(stump && { stump: { L: stump.L, a: stump.a, b: stump.b } }),
    ...(whole?.spectrum && { toothSpectrum: whole.spectrum }),
    ...(stump?.spectrum && { stumpSpectrum: stump.spectrum }),
  };
}
