import 'reflect-metadata';
import { type CutFrom, DESIGN_IDS, type DesignId, PLANNABLE, STRATEGIES, THICKNESS_LIMITS } from '@radiant/core';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsIn,
  IsNumber,
  IsOptional,
  Max,
  Min,
  ValidateNested,
} from 'class-validator';
import { Holds } from '../base/holds.js';
import { defineSection } from './define.js';
import { by, fields, list } from './parts.js';
import { FINITE, words } from './words.js';

/** The design of one tooth where it is another than the case's. */
export class OwnDesign {
  @IsIn(PLANNABLE as number[], words('A design is chosen for front teeth and premolars, 15 to 25 and 35 to 45.'))
  tooth!: number;

  @IsIn(DESIGN_IDS as string[], words('This design is not known.'))
  design!: DesignId;
}

const THICK = `A thickness lies between ${THICKNESS_LIMITS.min} and ${THICKNESS_LIMITS.max} mm.`;

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

  @IsIn(
    STRATEGIES.map((s) => s.id) as string[],
    words(`Grooves are cut ${STRATEGIES.map((s) => s.name).join(' or ')}.`),
  )
  from: CutFrom = STRATEGIES[0].id;
}

export const reduce = defineSection({
  name: 'reduce',
  type: ReduceSection,
  empty: { design: 'graduated', from: STRATEGIES[0].id },
  writers: [],
  comments: true,
  parts: fields({ own: list(by('tooth')), thickness: list(by('design')) }),
  labels: { design: 'design', from: 'grooves cut from', thickness: 'thicknesses' },
});
