import 'reflect-metadata';
import { OPTION_IDS, type OptionId, PLANNABLE, RULE_IDS, type RuleId } from '@radiant/core';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsIn,
  IsOptional,
  IsString,
  MaxLength,
  ValidateNested,
} from 'class-validator';
import { Holds } from '../base/holds.js';
import { defineSection } from './define.js';
import { IsCeramic } from './match.js';
import { by, fields, list, SET } from './parts.js';
import { words } from './words.js';

/** Two plans may stand side by side. */
export const PLAN_NAMES = ['A', 'B'] as const;
export type PlanName = (typeof PLAN_NAMES)[number];

/** What was chosen for a tooth, and why where a rule asked for a reason. */
export class ToothChoice {
  @IsIn(PLANNABLE as number[], words('A choice is made for front teeth and premolars, 15 to 25 and 35 to 45.'))
  tooth!: number;

  @IsIn(OPTION_IDS as unknown as string[], words('This option is not known.'))
  option!: OptionId;

  /** In which of the option's ceramics; the case's where none is named. */
  @IsOptional()
  @IsCeramic()
  ceramic?: string | null;

  @IsOptional()
  @IsString(words('A reason is text.'))
  @MaxLength(500, words('A reason has at most 500 characters.'))
  reason?: string;
}

/** What is done to which tooth, and what was found that bears on it. */
export class DecideSection {
  @IsArray(words('The choices are a list.'))
  @ArrayMaxSize(PLANNABLE.length, words('A tooth has two choices.'))
  @ArrayUnique((c: ToothChoice) => c.tooth, words('A tooth has two choices.'))
  @ValidateNested({ each: true })
  @Holds(() => ToothChoice)
  choices: ToothChoice[] = [];

  /** Whether the field can be kept dry; left out while nobody has tried. */
  @IsOptional()
  @IsBoolean(words('A field can be kept dry or not.'))
  dry?: boolean | null;

  /** Teeth that can't be kept dry though the field can. */
  @IsOptional()
  @IsArray(words('Teeth that can’t be kept dry are a list.'))
  @ArrayMaxSize(PLANNABLE.length, words('A tooth is named twice.'))
  @ArrayUnique(words('A tooth is named twice.'))
  @IsIn(PLANNABLE as number[], {
    each: true,
    message: 'Front teeth and premolars are kept dry, 15 to 25 and 35 to 45.',
  })
  wet?: number[];

  /** Which of two plans `choices` is: that one is followed by all later stages. A while there is no other. */
  @IsOptional()
  @IsIn(PLAN_NAMES as unknown as string[], words('A plan is A or B.'))
  plan?: PlanName | null;

  /** The choices of the other plan, kept; nothing while there is only one. */
  @IsOptional()
  @IsArray(words('The choices of the other plan are a list.'))
  @ArrayMaxSize(PLANNABLE.length, words('A tooth has two choices.'))
  @ArrayUnique((c: ToothChoice) => c.tooth, words('A tooth has two choices.'))
  @ValidateNested({ each: true })
  @Holds(() => ToothChoice)
  other?: ToothChoice[] | null;

  @IsOptional()
  @IsBoolean(words('The patient may bleach later or not.'))
  bleachLater?: boolean | null;

  /** Teeth whose splinted provisional came off. */
  @IsOptional()
  @IsArray(words('Teeth whose provisional came off are a list.'))
  @ArrayMaxSize(PLANNABLE.length, words('A tooth is named twice.'))
  @ArrayUnique(words('A tooth is named twice.'))
  @IsIn(PLANNABLE as number[], { each: true, message: 'A provisional is made for front teeth and premolars.' })
  cameOff?: number[];

  /** Rules that do not speak in this case. */
  @IsOptional()
  @IsArray(words('Rules that are switched off are a list.'))
  @ArrayMaxSize(RULE_IDS.length, words('A rule is switched off twice.'))
  @ArrayUnique(words('A rule is switched off twice.'))
  @IsIn(RULE_IDS as unknown as string[], { each: true, message: 'This rule is not known.' })
  rulesOff?: RuleId[];
}

export const decide = defineSection({
  name: 'decide',
  type: DecideSection,
  empty: { choices: [] },
  writers: [],
  comments: true,
  parts: fields(
    { choices: list(by('tooth')), other: list(by('tooth')), wet: SET, cameOff: SET, rulesOff: SET },
    // Which plan is which goes with both.
    ['plan', 'choices', 'other'],
  ),
  labels: {
    choices: 'choices',
    dry: 'kept dry',
    wet: 'teeth that can’t be kept dry',
    plan: 'the plan that is followed',
    other: 'the other plan',
    bleachLater: 'may bleach later',
    cameOff: 'provisionals that came off',
    rulesOff: 'rules switched off',
    option: 'option',
    ceramic: 'ceramic',
    reason: 'reason',
  },
  since: 6,
});
