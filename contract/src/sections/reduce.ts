import 'reflect-metadata';
import {
  CONTACT_RULES,
  type ContactRule,
  type CutFrom,
  DESIGN_IDS,
  type DesignId,
  ENGAGEMENTS,
  type How,
  MARGIN_LIMITS,
  PLANNABLE,
  STRATEGIES,
  TAPER_LIMITS,
  THICKNESS_LIMITS,
  TOLERANCE_LIMITS,
  ZONES,
  type Zone,
} from '@radiant/core';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsIn,
  IsNumber,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { Holds } from '../base/holds.js';
import { defineSection } from './define.js';
import { by, fields, list } from './parts.js';
import { CanCut, TOLERANCE_WORDS, TrayInput } from './tray.js';
import { FINITE, words } from './words.js';

/** The design of one tooth where it is another than the case's. */
export class OwnDesign {
  @IsIn(PLANNABLE as number[], words('A design is chosen for front teeth and premolars, 15 to 25 and 35 to 45.'))
  tooth!: number;

  @IsIn(DESIGN_IDS as string[], words('This design is not known.'))
  design!: DesignId;
}

export const STRATEGY_WORDS = `A tooth is prepared ${STRATEGIES.map((s) => s.name).join(', or ')}.`;
const THICK = `A thickness lies between ${THICKNESS_LIMITS.min} and ${THICKNESS_LIMITS.max} mm.`;
const TAPER = `A wall leans between ${TAPER_LIMITS.min} and ${TAPER_LIMITS.max} degrees.`;
const MARGIN = `A finish line lies between ${-MARGIN_LIMITS.min} mm above the gum and ${MARGIN_LIMITS.max} mm below it.`;

/** Thicknesses that are wanted of a design instead of its own, mm. */
export class OwnThicknessInput {
  @IsIn(DESIGN_IDS as string[], words('This design is not known.'))
  design!: DesignId;

  @IsNumber(FINITE, words(THICK))
  @Min(THICKNESS_LIMITS.min, words(THICK))
  @Max(THICKNESS_LIMITS.max, words(THICK))
  cervical!: number;

  @IsNumber(FINITE, words(THICK))
  @Min(THICKNESS_LIMITS.min, words(THICK))
  @Max(THICKNESS_LIMITS.max, words(THICK))
  middle!: number;

  @IsNumber(FINITE, words(THICK))
  @Min(THICKNESS_LIMITS.min, words(THICK))
  @Max(THICKNESS_LIMITS.max, words(THICK))
  incisal!: number;

  @IsOptional()
  @IsNumber(FINITE, words(THICK))
  @Min(THICKNESS_LIMITS.min, words(THICK))
  @Max(THICKNESS_LIMITS.max, words(THICK))
  edgeMm?: number | null;

  @IsOptional()
  @IsNumber(FINITE, words(MARGIN))
  @Min(MARGIN_LIMITS.min, words(MARGIN))
  @Max(MARGIN_LIMITS.max, words(MARGIN))
  belowGumMm?: number | null;

  @IsOptional()
  @IsNumber(FINITE, words(THICK))
  @Min(THICKNESS_LIMITS.min, words(THICK))
  @Max(THICKNESS_LIMITS.max, words(THICK))
  sidesMm?: number | null;

  @IsOptional()
  @IsNumber(FINITE, words(THICK))
  @Min(THICKNESS_LIMITS.min, words(THICK))
  @Max(THICKNESS_LIMITS.max, words(THICK))
  palatalMm?: number | null;

  @IsOptional()
  @IsNumber(FINITE, words(TAPER))
  @Min(TAPER_LIMITS.min, words(TAPER))
  @Max(TAPER_LIMITS.max, words(TAPER))
  taperDeg?: number | null;

  @IsOptional()
  @IsIn(CONTACT_RULES as unknown as string[], words(`A design ends at the contacts ${CONTACT_RULES.join(', or ')}.`))
  contact?: ContactRule | null;
}

/** A bur and how it is sunk, chosen by hand for a zone of a tooth. */
export class HandGroove {
  @IsIn(PLANNABLE as number[], words('A groove is chosen for front teeth and premolars, 15 to 25 and 35 to 45.'))
  tooth!: number;

  @IsIn(ZONES as string[], words(`A groove is cut in one of ${ZONES.join(', ')}.`))
  zone!: Zone;

  /** Its name in the tray. */
  @IsString(words('A bur is told by its name in the tray.'))
  @MaxLength(60, words('This bur is not known.'))
  bur!: string;

  @IsIn(ENGAGEMENTS as unknown as string[], words('A bur is not sunk like that.'))
  how!: How;
}

/** What the planned teeth are restored with, and the strategy of the preparation. */
export class ReduceSection {
  @IsIn(DESIGN_IDS as string[], words('This design is not known.'))
  design: DesignId = 'graduated';

  /** Teeth that have another. */
  @IsOptional()
  @IsArray(words('The designs of single teeth are a list.'))
  @ArrayMaxSize(PLANNABLE.length, words('A tooth has two designs.'))
  @ArrayUnique((o: OwnDesign) => o.tooth, words('A tooth has two designs.'))
  @ValidateNested({ each: true })
  @Holds(() => OwnDesign)
  own?: OwnDesign[];

  /** Thicknesses of somebody's own; a design's usual ones where it is not named. */
  @IsOptional()
  @IsArray(words('The thicknesses are a list.'))
  @ArrayMaxSize(DESIGN_IDS.length, words('A design has two thicknesses.'))
  @ArrayUnique((t: OwnThicknessInput) => t.design, words('A design has two thicknesses.'))
  @ValidateNested({ each: true })
  @Holds(() => OwnThicknessInput)
  thickness?: OwnThicknessInput[];

  @IsIn(STRATEGIES.map((s) => s.id) as string[], words(STRATEGY_WORDS))
  from: CutFrom = STRATEGIES[0].id;

  /** The burs that it is cut with, as the house had them when they were taken; the first tray where none is. */
  @IsOptional()
  @ValidateNested()
  @CanCut()
  @Holds(() => TrayInput)
  tray?: TrayInput | null;

  /** How near a bur's depth must come to the wanted one, mm. */
  @IsOptional()
  @IsNumber(FINITE, words(TOLERANCE_WORDS))
  @Min(TOLERANCE_LIMITS.min, words(TOLERANCE_WORDS))
  @Max(TOLERANCE_LIMITS.max, words(TOLERANCE_WORDS))
  toleranceMm?: number | null;

  /** Burs chosen by hand. */
  @IsOptional()
  @IsArray(words('The grooves chosen by hand are a list.'))
  @ArrayMaxSize(PLANNABLE.length * ZONES.length, words('A zone has two grooves.'))
  @ArrayUnique((g: HandGroove) => `${g.tooth} ${g.zone}`, words('A zone has two grooves.'))
  @ValidateNested({ each: true })
  @Holds(() => HandGroove)
  grooves?: HandGroove[];
}

/** What was once called *from the tooth* is *margin first*: its grooves are cut into the bare tooth. */
export const strategyNow = (from: unknown): unknown => (from === 'tooth' ? ('margin' satisfies CutFrom) : from);

export const reduce = defineSection({
  name: 'reduce',
  type: ReduceSection,
  empty: { design: 'graduated', from: STRATEGIES[0].id },
  writers: [],
  comments: true,
  parts: fields({ own: list(by('tooth')), thickness: list(by('design')), grooves: list(by('tooth', 'zone')) }),
  labels: {
    design: 'design',
    from: 'strategy',
    thickness: 'thicknesses',
    tray: 'tray',
    toleranceMm: 'tolerance',
    grooves: 'grooves by hand',
  },
  upgraded: (data) => ('from' in data ? { ...data, from: strategyNow(data.from) } : data),
});
