import 'reflect-metadata';
import {
  CONTACT_RULES,
  CORNER_LIMITS,
  type ContactRule,
  CUT_WAYS,
  type CutFrom,
  DESIGN_IDS,
  type DesignId,
  ENGAGEMENTS,
  type How,
  MARGIN_LIMITS,
  PLANNABLE,
  ROOM_LIMITS,
  ROOM_PLACES,
  type RoomPlace,
  SLOPE_LIMITS,
  TAPER_LIMITS,
  THICKNESS_LIMITS,
  TOLERANCE_LIMITS,
  WAY_LIMITS,
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

export const STRATEGY_WORDS = `A tooth is prepared ${CUT_WAYS.map((s) => s.name).join(', or ')}.`;
const THICK = `A thickness lies between ${THICKNESS_LIMITS.min} and ${THICKNESS_LIMITS.max} mm.`;
export const CORNER_WORDS = `A mill goes round corners of ${CORNER_LIMITS.min} to ${CORNER_LIMITS.max} mm of radius.`;
const TAPER = `A wall leans between ${TAPER_LIMITS.min} and ${TAPER_LIMITS.max} degrees.`;
const SLOPE = `A cut edge rises between ${SLOPE_LIMITS.min} and ${SLOPE_LIMITS.max} degrees behind its facial corner.`;
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
  @IsNumber(FINITE, words(SLOPE))
  @Min(SLOPE_LIMITS.min, words(SLOPE))
  @Max(SLOPE_LIMITS.max, words(SLOPE))
  edgeSlopeDeg?: number | null;

  @IsOptional()
  @IsIn(CONTACT_RULES as unknown as string[], words(`A design ends at the contacts ${CONTACT_RULES.join(', or ')}.`))
  contact?: ContactRule | null;
}

const DOWN = `A way out goes between ${WAY_LIMITS.downDeg.min} and ${WAY_LIMITS.downDeg.max} degrees down to the edge.`;
const TURN = `A way out is turned by ${WAY_LIMITS.turnDeg.max} degrees at most, to the mesial side below 0.`;

/** How the restoration of a tooth is to come off, set by hand. */
export class ToothWayInput {
  @IsIn(PLANNABLE as number[], words('A way out is set for front teeth and premolars, 15 to 25 and 35 to 45.'))
  tooth!: number;

  /** From straight to the front down to the edge. */
  @IsNumber(FINITE, words(DOWN))
  @Min(WAY_LIMITS.downDeg.min, words(DOWN))
  @Max(WAY_LIMITS.downDeg.max, words(DOWN))
  downDeg!: number;

  /** To the distal side. */
  @IsNumber(FINITE, words(TURN))
  @Min(WAY_LIMITS.turnDeg.min, words(TURN))
  @Max(WAY_LIMITS.turnDeg.max, words(TURN))
  turnDeg!: number;
}

const ROOM = `For the bite ${ROOM_LIMITS.min} to ${ROOM_LIMITS.max} mm more are cut.`;

/** How much more is cut of a tooth than the material needs, for room in the bite. */
export class MoreForBiteInput {
  @IsIn(PLANNABLE as number[], words('Room in the bite is cut on front teeth and premolars, 15 to 25 and 35 to 45.'))
  tooth!: number;

  @IsIn(ROOM_PLACES as unknown as string[], words(`Room in the bite is cut at the ${ROOM_PLACES.join(' or ')}.`))
  place!: RoomPlace;

  @IsNumber(FINITE, words(ROOM))
  @Min(ROOM_LIMITS.min, words(ROOM))
  @Max(ROOM_LIMITS.max, words(ROOM))
  moreMm!: number;
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

  @IsIn(CUT_WAYS.map((s) => s.id) as string[], words(STRATEGY_WORDS))
  from: CutFrom = CUT_WAYS[0].id;

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

  /** What the house's mill can go round, mm of radius. */
  @IsOptional()
  @IsNumber(FINITE, words(CORNER_WORDS))
  @Min(CORNER_LIMITS.min, words(CORNER_WORDS))
  @Max(CORNER_LIMITS.max, words(CORNER_WORDS))
  cornerMm?: number | null;

  /** Ways out that are set by hand; the others are looked for. */
  @IsOptional()
  @IsArray(words('The ways out are a list.'))
  @ArrayMaxSize(PLANNABLE.length, words('A tooth has two ways out.'))
  @ArrayUnique((w: ToothWayInput) => w.tooth, words('A tooth has two ways out.'))
  @ValidateNested({ each: true })
  @Holds(() => ToothWayInput)
  ways?: ToothWayInput[];

  /** What is cut for the bite beside what the material needs. */
  @IsOptional()
  @IsArray(words('What is cut for the bite is a list.'))
  @ArrayMaxSize(PLANNABLE.length * ROOM_PLACES.length, words('A place has two amounts for the bite.'))
  @ArrayUnique((r: MoreForBiteInput) => `${r.tooth} ${r.place}`, words('A place has two amounts for the bite.'))
  @ValidateNested({ each: true })
  @Holds(() => MoreForBiteInput)
  room?: MoreForBiteInput[];

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
  empty: { design: 'graduated', from: CUT_WAYS[0].id },
  writers: [],
  comments: true,
  parts: fields({
    own: list(by('tooth')),
    thickness: list(by('design')),
    ways: list(by('tooth')),
    room: list(by('tooth', 'place')),
    grooves: list(by('tooth', 'zone')),
  }),
  labels: {
    design: 'design',
    from: 'strategy',
    thickness: 'thicknesses',
    ways: 'ways out',
    room: 'cut for the bite',
    tray: 'tray',
    toleranceMm: 'tolerance',
    cornerMm: 'smallest radius that the mill can go round',
    grooves: 'grooves by hand',
  },
  upgraded: (data) => ('from' in data ? { ...data, from: strategyNow(data.from) } : data),
});
