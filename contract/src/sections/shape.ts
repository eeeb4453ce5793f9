import 'reflect-metadata';
import { BRUSH_LIMITS, CROWN_CHARACTERS, type CrownCharacter, PLAN_LIMITS, PLANNABLE } from '@radiant/core';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsUUID,
  Max,
  Min,
  ValidateNested,
} from 'class-validator';
import { AreWhole, Holds } from '../base/holds.js';
import { PLAN_FIELDS, planRefusal } from '../base/plan-fields.js';
import { defineSection } from './define.js';
import { by, fields, list } from './parts.js';
import { FINITE, words } from './words.js';

/** One stroke of the brush: the places are numbers of the crown's vertices. */
export class StrokeInput {
  @IsIn(['add', 'remove', 'smooth'], words('The brush adds, removes or smooths.'))
  tool!: 'add' | 'remove' | 'smooth';

  @IsNumber(FINITE, words('The brush’s radius is not a number.'))
  @Min(BRUSH_LIMITS.radiusMm.min, words('The brush’s radius is 0.3 to 4 mm.'))
  @Max(BRUSH_LIMITS.radiusMm.max, words('The brush’s radius is 0.3 to 4 mm.'))
  radiusMm!: number;

  @IsNumber(FINITE, words('The amount of a stroke is not a number.'))
  @Min(BRUSH_LIMITS.amount.min, words('A stroke takes or gives 0.01 to 1 mm.'))
  @Max(BRUSH_LIMITS.amount.max, words('A stroke takes or gives 0.01 to 1 mm.'))
  amount!: number;

  @IsArray(words('The places of a stroke are a list.'))
  @ArrayMinSize(1, words('A stroke has at least one place.'))
  @ArrayMaxSize(BRUSH_LIMITS.places, words('A stroke has at most 400 places.'))
  @AreWhole(0, 20_000, words('A place of a stroke is a number of the crown’s surface.'))
  at!: number[];
}

/** One tooth of the planned contour. What may be left out is checked by the list of fields below the class. */
export class ToothPlanInput {
  @IsIn(PLANNABLE as number[], words('The contour is planned on front teeth and premolars, 15 to 25 and 35 to 45.'))
  tooth!: number;

  lengthMm!: number;
  widthMm!: number;
  facialVolumeMm!: number;
  rotationDeg!: number;
  neckVolumeMm?: number;
  edgeVolumeMm?: number;
  textureShare?: number;
  edgeThicknessMm?: number;
  edgeCurveMm?: number;
  mesialCornerMm?: number;
  distalCornerMm?: number;
  neckWidthMm?: number;
  zenithUpMm?: number;
  zenithDistalMm?: number;
  tipDeg?: number;
  torqueDeg?: number;
  forwardMm?: number;
  distalMm?: number;

  @IsOptional()
  @IsIn(CROWN_CHARACTERS as string[], words('A crown is soft, even or square.'))
  character?: CrownCharacter;

  /** The palatal surface: the tooth's own where it says so, else the form's. */
  @IsOptional()
  @IsIn(['own'], words('The palatal side is the tooth’s own, or the form’s where nothing is said.'))
  palatal?: 'own';

  @IsOptional()
  @IsArray(words('The strokes on a crown are a list.'))
  @ArrayMaxSize(BRUSH_LIMITS.strokes, words('A crown takes at most 200 strokes.'))
  @ValidateNested({ each: true })
  @Holds(() => StrokeInput)
  strokes?: StrokeInput[];
}

const NEEDED: readonly string[] = ['lengthMm', 'widthMm', 'facialVolumeMm', 'rotationDeg'];
for (const field of PLAN_FIELDS) {
  const said = words(planRefusal(field));
  const limit = PLAN_LIMITS[field.key];
  const checks = [IsNumber(FINITE, said), Min(limit.min, said), Max(limit.max, said)];
  if (!NEEDED.includes(field.key)) checks.push(IsOptional());
  for (const check of checks) check(ToothPlanInput.prototype, field.key);
}

/** What a crown was set to when the crowns were set to the proposal. */
export class SetTarget {
  @IsIn(PLANNABLE as number[], words('The contour is planned on front teeth and premolars, 15 to 25 and 35 to 45.'))
  tooth!: number;

  @IsNumber(FINITE, words('A target’s length is not a number.'))
  @Min(0, words('A target’s length is at least 0 mm.'))
  @Max(40, words('A target’s length is at most 40 mm.'))
  lengthMm!: number;

  @IsNumber(FINITE, words('A target’s width is not a number.'))
  @Min(0, words('A target’s width is at least 0 mm.'))
  @Max(40, words('A target’s width is at most 40 mm.'))
  widthMm!: number;

  /** How far its zenith goes up. */
  @IsNumber(FINITE, words('A target’s zenith is not a number.'))
  @Min(-40, words('A target’s zenith goes at most 40 mm down.'))
  @Max(40, words('A target’s zenith goes at most 40 mm up.'))
  zenithUpMm!: number;
}

/** Tightness at which contacts are kept, mm; below 0 they stand open. House limits. */
export const CONTACT_LIMITS = { min: -0.5, max: 0.1 } as const;
export const CONTACT_WORDS = 'Contacts are kept between 0.5 mm open and 0.1 mm tight.';

/** The planned contour. */
export class ShapeSection {
  @IsOptional()
  @IsUUID(undefined, words('The scan’s number is broken.'))
  scanId?: string | null;

  /** Version of `propose` to which the crowns were set. */
  @IsOptional()
  @IsInt()
  @Min(0)
  proposalVersion?: number | null;

  /** The proposal's targets then, for telling what of them has changed since. Older contours don't say. */
  @IsOptional()
  @IsArray(words('What the crowns were set to is a list.'))
  @ArrayMaxSize(PLANNABLE.length, words('A tooth has two targets.'))
  @ArrayUnique((t: SetTarget) => t.tooth, words('A tooth has two targets.'))
  @ValidateNested({ each: true })
  @Holds(() => SetTarget)
  setTo?: SetTarget[];

  /** Contacts are kept at this tightness, mm, after each change of a number; not kept where nothing is said. */
  @IsOptional()
  @IsNumber(FINITE, words('The tightness of contacts is not a number.'))
  @Min(CONTACT_LIMITS.min, words(CONTACT_WORDS))
  @Max(CONTACT_LIMITS.max, words(CONTACT_WORDS))
  contactsMm?: number | null;

  @IsArray(words('The planned teeth are a list.'))
  @ArrayMaxSize(PLANNABLE.length, words('A tooth is planned twice.'))
  @ArrayUnique((t: ToothPlanInput) => t.tooth, words('A tooth is planned twice.'))
  @ValidateNested({ each: true })
  @Holds(() => ToothPlanInput)
  teeth: ToothPlanInput[] = [];
}

export const shape = defineSection({
  name: 'shape',
  type: ShapeSection,
  empty: { teeth: [] },
  writers: [],
  comments: true,
  // A contour is laid out on its scan.
  parts: fields({ teeth: list(by('tooth'), fields({})) }, ['scanId', 'teeth']),
  labels: {
    scanId: 'scan',
    proposalVersion: 'set to proposal',
    setTo: 'targets it was set to',
    contactsMm: 'contacts kept, mm',
    character: 'character',
    palatal: 'palatal side',
    strokes: 'strokes of the brush',
    ...Object.fromEntries(PLAN_FIELDS.map((f) => [f.key, `${f.label.toLowerCase()}, ${f.unit}`])),
  },
  files: ({ scanId }) =>
    scanId
      ? [
          {
            id: scanId,
            kind: 'scan' as const,
            sentence: 'The contour stands on this scan; choose another in shape first.',
          },
        ]
      : [],
  withFiles: ({ scanId, ...data }, numberOf) => ({ ...data, ...(scanId && { scanId: numberOf(scanId) ?? null }) }),
  sense: ({ scanId }, files) => {
    if (!scanId) return [];
    const scan = files.get(scanId);
    if (scan?.kind !== 'scan') return [{ field: 'scanId', message: 'The scan does not belong to this case.' }];
    return scan.role === 'working' && scan.jaw === 'upper'
      ? []
      : [{ field: 'scanId', message: 'A contour stands on a scan of the upper jaw whose teeth are told apart.' }];
  },
});
