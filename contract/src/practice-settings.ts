import 'reflect-metadata';
import { SCHOOLS, type SchoolId } from '@radiant/core';
import { IsDefined, IsIn, IsInt, Max, Min, ValidateNested } from 'class-validator';
import { Holds } from './base/holds.js';

const words = (what: string) => ({ message: what });

/** What becomes of edits that have not reached the server when somebody signs out. */
export const DRAFT_KEEPING = ['sealed', 'removed'] as const;
export type DraftKeeping = (typeof DRAFT_KEEPING)[number];

/** What a practice has set for itself. A new setting is a field here, with what holds until it is set below. */
export class PracticeSettings {
  @IsIn(DRAFT_KEEPING as unknown as string[], words('Edits that were not sent stay sealed or are removed.'))
  drafts!: DraftKeeping;

  /** The school that a case is proposed by until another is chosen in it. */
  @IsIn(SCHOOLS.map((s) => s.id) as string[], words('This school is not known.'))
  school!: SchoolId;

  /** So many days a mock-up is worn at least before the patient approves the contour. */
  @IsInt(words('The days that a mock-up is worn are a whole number.'))
  @Min(0, words('A mock-up is worn for 0 to 60 days.'))
  @Max(60, words('A mock-up is worn for 0 to 60 days.'))
  wearDays!: number;
}

/** What holds until a practice sets it. A mock-up is worn for a day to a week: common practice, no source. */
export const FIRST_SETTINGS: PracticeSettings = { drafts: 'sealed', school: SCHOOLS[0].id, wearDays: 1 };

/** Settings as they were written at any time; what newer programs have added is as it is at first. */
export const completedSettings = (data: object): PracticeSettings => ({ ...FIRST_SETTINGS, ...data });

/** A change of the settings: the version they were read at, and all of them. */
export class PracticeSettingsChange {
  @IsInt(words('The version is a whole number.'))
  @Min(0, words('The version is a whole number from 0.'))
  version!: number;

  @IsDefined(words('The settings are missing.'))
  @ValidateNested()
  @Holds(() => PracticeSettings)
  data!: PracticeSettings;
}

/** The settings as the server keeps them. Version 0 has never been set. */
export interface PracticeSettingsState {
  readonly version: number;
  readonly data: PracticeSettings;
  readonly by: string | null;
  readonly at: string | null;
}
