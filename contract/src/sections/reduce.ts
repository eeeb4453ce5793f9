import 'reflect-metadata';
import { type CutFrom, DESIGN_IDS, type DesignId, PLANNABLE, STRATEGIES } from '@radiant/core';
import { ArrayMaxSize, ArrayUnique, IsArray, IsIn, IsOptional, ValidateNested } from 'class-validator';
import { Holds } from '../base/holds.js';
import { defineSection } from './define.js';
import { by, fields, list } from './parts.js';
import { words } from './words.js';

/** The design of one tooth where it is another than the case's. */
export class OwnDesign {
  @IsIn(PLANNABLE as number[], words('A design is chosen for front teeth and premolars, 15 to 25 and 35 to 45.'))
  tooth!: number;

  @IsIn(DESIGN_IDS as string[], words('This design is not known.'))
  design!: DesignId;
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
  parts: fields({ own: list(by('tooth')) }),
  labels: { design: 'design', from: 'grooves cut from' },
});
