import 'reflect-metadata';
import {
  CORNER_LIMITS,
  CUT_WAYS,
  type CutFrom,
  DEPTH_TOLERANCE_MM,
  DESIGN_IDS,
  type DesignId,
  FIRST_TRAY,
  NOTATION_NAMES,
  type Notation,
  OPTION_IDS,
  PLATE_LIMITS,
  RULE_IDS,
  type RuleId,
  SCALE_LIMITS,
  SCHOOLS,
  type SchoolId,
  TOLERANCE_LIMITS,
  TRAY_LIMITS,
} from '@radiant/core';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsDefined,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { Holds } from './base/holds.js';
import { Clinic, FIRST_CLINIC } from './clinic.js';
import { PlateInput, ScaleInput } from './house-colours.js';
import { Fee, RuleLimit } from './house-rules.js';
import { CompositeSettings } from './sections/direct.js';
import { CORNER_WORDS, OwnThicknessInput, STRATEGY_WORDS, strategyNow } from './sections/reduce.js';
import { CONTACT_LIMITS, CONTACT_WORDS } from './sections/shape.js';
import { CanCut, TOLERANCE_WORDS, TrayInput, trayInput } from './sections/tray.js';
import { FINITE, words } from './sections/words.js';
import { STOCK_LIMITS, StockLot } from './stock.js';

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

  /** What planned teeth are restored with until another is chosen in the case. */
  @IsIn(DESIGN_IDS as string[], words('This design is not known.'))
  design!: DesignId;

  /** Grooves are cut so until it is chosen in the case. */
  @IsIn(CUT_WAYS.map((s) => s.id) as string[], words(STRATEGY_WORDS))
  cutFrom!: CutFrom;

  /** Thicknesses of the house's own, design by design; a design's usual ones where it is not named. */
  @IsArray(words('The thicknesses are a list.'))
  @ArrayMaxSize(DESIGN_IDS.length, words('A design has two thicknesses.'))
  @ArrayUnique((t: OwnThicknessInput) => t.design, words('A design has two thicknesses.'))
  @ValidateNested({ each: true })
  @Holds(() => OwnThicknessInput)
  thickness!: OwnThicknessInput[];

  /** The house's trays; a case begins with the first. */
  @IsArray(words('The trays are a list.'))
  @ArrayMinSize(1, words('A house has at least one tray.'))
  @ArrayMaxSize(TRAY_LIMITS.trays, words(`A house has at most ${TRAY_LIMITS.trays} trays.`))
  @ArrayUnique((t: TrayInput) => t.name?.trim(), words('Two trays have the same name.'))
  @ValidateNested({ each: true })
  @CanCut({ each: true })
  @Holds(() => TrayInput)
  trays!: TrayInput[];

  /** How near a bur's depth must come to the wanted one, mm. */
  @IsNumber(FINITE, words(TOLERANCE_WORDS))
  @Min(TOLERANCE_LIMITS.min, words(TOLERANCE_WORDS))
  @Max(TOLERANCE_LIMITS.max, words(TOLERANCE_WORDS))
  toleranceMm!: number;

  /** What the mill's smallest tool can go round, mm of radius: what is sharper is told when a preparation is checked. */
  @IsNumber(FINITE, words(CORNER_WORDS))
  @Min(CORNER_LIMITS.min, words(CORNER_WORDS))
  @Max(CORNER_LIMITS.max, words(CORNER_WORDS))
  cornerMm!: number;

  /** Contacts of a new contour are kept at this tightness, mm, when a number changes; not kept where it is null. */
  @IsOptional()
  @IsNumber({ allowNaN: false, allowInfinity: false }, words(CONTACT_WORDS))
  @Min(CONTACT_LIMITS.min, words(CONTACT_WORDS))
  @Max(CONTACT_LIMITS.max, words(CONTACT_WORDS))
  contactsMm!: number | null;

  /** Scales of shades that the house has read; the letter scale is always there. */
  @IsArray(words('The scales are a list.'))
  @ArrayMaxSize(SCALE_LIMITS.scales, words(`A house has at most ${SCALE_LIMITS.scales} scales.`))
  @ArrayUnique((s: ScaleInput) => s.name?.trim?.(), words('Two scales have the same name.'))
  @ValidateNested({ each: true })
  @Holds(() => ScaleInput)
  scales!: ScaleInput[];

  /** Ceramics of its laboratory, read over black and white. */
  @IsArray(words('The ceramics are a list.'))
  @ArrayMaxSize(PLATE_LIMITS.plates, words(`A house has at most ${PLATE_LIMITS.plates} ceramics of its own.`))
  @ArrayUnique((p: PlateInput) => p.name?.trim?.(), words('Two ceramics have the same name.'))
  @ValidateNested({ each: true })
  @Holds(() => PlateInput)
  plates!: PlateInput[];

  /** Rules of deciding that do not speak in this house. */
  @IsArray(words('Rules that are switched off are a list.'))
  @ArrayMaxSize(RULE_IDS.length, words('A rule is switched off twice.'))
  @ArrayUnique(words('A rule is switched off twice.'))
  @IsIn(RULE_IDS as unknown as string[], { each: true, message: 'This rule is not known.' })
  rulesOff!: RuleId[];

  @IsArray(words('The limits of the rules are a list.'))
  @ArrayMaxSize(RULE_IDS.length, words('A rule has two limits.'))
  @ArrayUnique((l: RuleLimit) => l.rule, words('A rule has two limits.'))
  @ValidateNested({ each: true })
  @Holds(() => RuleLimit)
  ruleLimits!: RuleLimit[];

  /** What the house asks for each option; no price is shown where it is not named. */
  @IsArray(words('The fees are a list.'))
  @ArrayMaxSize(OPTION_IDS.length, words('An option has two fees.'))
  @ArrayUnique((f: Fee) => f.option, words('An option has two fees.'))
  @ValidateNested({ each: true })
  @Holds(() => Fee)
  fees!: Fee[];

  /** As it is written before an amount. */
  @IsString(words('A currency is text.'))
  @MaxLength(8, words('A currency has at most 8 characters.'))
  currency!: string;

  /** When the house and its laboratory work. */
  @IsDefined(words('The hours of the house are missing.'))
  @ValidateNested()
  @Holds(() => Clinic)
  clinic!: Clinic;

  /** How the house builds composite up, for new cases; as is usual where a setting is left out. */
  @IsDefined(words('The settings of composite are missing.'))
  @ValidateNested()
  @Holds(() => CompositeSettings)
  composite!: CompositeSettings;

  /** What lies in the house's cupboards, lot by lot. */
  @IsArray(words('The stock is a list.'))
  @ArrayMaxSize(STOCK_LIMITS.lots, words(`At most ${STOCK_LIMITS.lots} lots are kept.`))
  @ArrayUnique((s: StockLot) => `${s.name?.trim?.()} ${s.lot?.trim?.()}`, words('A lot stands twice.'))
  @ValidateNested({ each: true })
  @Holds(() => StockLot)
  stock!: StockLot[];

  /** How teeth are numbered until a person chooses otherwise in their browser. */
  @IsIn(Object.keys(NOTATION_NAMES), words('Teeth are numbered by FDI or Universal.'))
  notation!: Notation;
}

/** What holds until a practice sets it. A mock-up is worn for a day to a week: common practice, no source. */
export const FIRST_SETTINGS: PracticeSettings = {
  drafts: 'sealed',
  school: SCHOOLS[0].id,
  wearDays: 1,
  design: 'graduated',
  cutFrom: CUT_WAYS[0].id,
  thickness: [],
  trays: [trayInput(FIRST_TRAY)],
  toleranceMm: DEPTH_TOLERANCE_MM,
  cornerMm: CORNER_LIMITS.usual,
  contactsMm: null,
  scales: [],
  plates: [],
  rulesOff: [],
  ruleLimits: [],
  fees: [],
  currency: '',
  clinic: FIRST_CLINIC,
  composite: {},
  stock: [],
  notation: 'fdi',
};

/** Settings as they were written at any time; what newer programs have added is as it is at first. */
export function completedSettings(data: object): PracticeSettings {
  const whole: PracticeSettings = { ...FIRST_SETTINGS, ...data };
  return { ...whole, clinic: { ...FIRST_CLINIC, ...whole.clinic }, cutFrom: strategyNow(whole.cutFrom) as CutFrom };
}

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
