import 'reflect-metadata';
import { DIRECT_LIMITS, type DirectSetting, type DirectSettings, USUAL_DIRECT } from '@radiant/core';
import { IsNumber, IsOptional, Max, Min } from 'class-validator';
import { defineSection } from './define.js';
import { fields } from './parts.js';
import { FINITE, words } from './words.js';

/** What each setting is called, and its unit. */
export const DIRECT_WORDS: Readonly<Record<DirectSetting, { readonly words: string; readonly unit: string }>> = {
  shellMm: { words: 'palatal shell', unit: 'mm' },
  enamelMm: { words: 'enamel under the surface', unit: 'mm' },
  lobeMm: { words: 'deeper between the lobes', unit: 'mm' },
  cureMm: { words: 'cured through', unit: 'mm' },
  lampMw: { words: 'lamp', unit: 'mW/cm²' },
  seconds: { words: 'light for each increment', unit: 's' },
  portionMm3: { words: 'one portion', unit: 'mm³' },
};

const Within =
  (name: DirectSetting): PropertyDecorator =>
  (target, key) => {
    const { min, max } = DIRECT_LIMITS[name];
    const told = words(`${DIRECT_WORDS[name].words} lies between ${min} and ${max} ${DIRECT_WORDS[name].unit}.`);
    IsOptional()(target, key);
    IsNumber(FINITE, told)(target, key);
    Min(min, told)(target, key);
    Max(max, told)(target, key);
  };

/** How composite is built up in a case; as is usual where a setting is left out. */
export class DirectSection {
  @Within('shellMm')
  shellMm?: number | null;

  @Within('enamelMm')
  enamelMm?: number | null;

  @Within('lobeMm')
  lobeMm?: number | null;

  @Within('cureMm')
  cureMm?: number | null;

  @Within('lampMw')
  lampMw?: number | null;

  @Within('seconds')
  seconds?: number | null;

  @Within('portionMm3')
  portionMm3?: number | null;
}

/** All settings of a case, each as was said or as is usual. */
export const directSettings = (d: DirectSection): DirectSettings =>
  Object.fromEntries(
    (Object.keys(USUAL_DIRECT) as DirectSetting[]).map((k) => [k, d[k] ?? USUAL_DIRECT[k]]),
  ) as unknown as DirectSettings;

export const direct = defineSection({
  name: 'direct',
  type: DirectSection,
  empty: {},
  writers: [],
  comments: true,
  parts: fields({}),
  labels: Object.fromEntries(
    Object.entries(DIRECT_WORDS).map(([k, { words: w, unit }]) => [k, `${w}, ${unit}`]),
  ) as Readonly<Record<string, string>>,
  since: 10,
});
