import { readFileSync } from 'node:fs';
import type { Jaw } from '@radiant/core';
import { JAWS } from './jaws.js';
import { type PickTrial, pickTrial } from './pick.js';

/** Both jaws of twenty mouths, four of each kind; five in a row are one jaw of each kind. */
export const PICKS: readonly { readonly seed: number; readonly jaw: Jaw }[] = [301, 306, 311, 316].flatMap((first) =>
  JAWS.flatMap((jaw) => [0, 1, 2, 3, 4].map((i) => ({ seed: first + i, jaw }))),
);

/** Further than this from the true one a place of the neck line counts as off, mm. */
export const NECK_MM = 0.3;

/** What was found of one jaw, as it is kept beside the tests. */
export interface KeptPick {
  readonly seed: number;
  readonly jaw: Jaw;
  readonly kind: string;
  readonly numbersRight: boolean;
  readonly found: number;
  readonly of: number;
  /** Overlaps of the teeth, the smallest first. */
  readonly iou: readonly number[];
  /** Places of the neck lines, and how many of them are off. */
  readonly necks: number;
  readonly neckOff: number;
}

export function kept({ seed, jaw, kind, numbersRight, found, of, iou, necks }: PickTrial): KeptPick {
  const sorted = [...iou].sort((p, q) => p - q).map((v) => Math.round(v * 1000) / 1000);
  return {
    seed,
    jaw,
    kind,
    numbersRight,
    found,
    of,
    iou: sorted,
    necks: necks.length,
    neckOff: necks.filter((mm) => mm > NECK_MM).length,
  };
}

const FILE = new URL('./picks.json', import.meta.url);
export const keptPicks = (): KeptPick[] => JSON.parse(readFileSync(FILE, 'utf8')) as KeptPick[];

/** Tries all of them; what comes out is the text of picks.json. */
export const allPicks = (): string =>
  `[\n${PICKS.map(({ seed, jaw }) => `  ${JSON.stringify(kept(pickTrial(seed, jaw)))}`).join(',\n')}\n]\n`;
