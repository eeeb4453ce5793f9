import 'reflect-metadata';
import {
  BRUSH_LIMITS,
  CROWN_CHARACTERS,
  CROWN_LIMITS,
  type CrownCharacter,
  type CutFrom,
  DESIGN_IDS,
  type DesignId,
  fromUniversal,
  LANDMARK_KINDS,
  type LandmarkKind,
  PLAN_LIMITS,
  PLANNABLE,
  SCHOOLS,
  type ScaleWay,
  type SchoolId,
  UPPER_SIX,
  VIEW_POINTS,
} from '@radiant/core';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsDefined,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsPositive,
  IsString,
  IsUUID,
  Length,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { AreWhole, Holds, IsDay } from './holds.js';
import { PLAN_FIELDS, planRefusal } from './plan-fields.js';
import { CAUTIONS, type Caution, keysOf, PHOTO_VIEWS, type PhotoView, TOOTH_PAST, type ToothPast, WISH_TAGS, type WishTag } from './records.js';
import type { SectionName } from './role.js';

const ALL_TEETH = Array.from({ length: 32 }, (_, i) => fromUniversal(i + 1));
const SCALE_WAYS: readonly ScaleWay[] = ['scale', 'tooth', 'pupils', 'scan'];
const VIEW_POINT_IDS = [...new Set(Object.values(VIEW_POINTS).flatMap((specs) => specs.map((s) => s.id)))];
/** Upper teeth that can be the last one seen in a smile. */
export const LAST_SEEN = { right: [11, 12, 13, 14, 15, 16, 17, 18], left: [21, 22, 23, 24, 25, 26, 27, 28] } as const;
const FINITE = { allowNaN: false, allowInfinity: false } as const;
const words = (what: string) => ({ message: what });

/** A place in a photograph, px from the upright picture's top left corner. */
export class PointPx {
  @IsNumber(FINITE, words('The point’s place across is not a number.'))
  x!: number;

  @IsNumber(FINITE, words('The point’s place down is not a number.'))
  y!: number;
}

/** Two points on a scale in the photograph and the millimetres between them. */
export class CalibrationInput {
  @IsDefined()
  @ValidateNested()
  @Holds(() => PointPx)
  from!: PointPx;

  @IsDefined()
  @ValidateNested()
  @Holds(() => PointPx)
  to!: PointPx;

  @IsNumber(FINITE, words('The length of the scale is not a number.'))
  @IsPositive(words('The length of the scale must be more than 0 mm.'))
  @Max(500, words('The length of the scale must be at most 500 mm.'))
  mm!: number;

  /** What the length is: a printed scale where nothing is said. */
  @IsOptional()
  @IsIn(SCALE_WAYS as string[], words('A length is known by a scale, a tooth, the pupils or the scan.'))
  way?: ScaleWay;

  /** Half-width of the 95 % interval of the length itself. */
  @IsOptional()
  @IsNumber(FINITE, words('The ± of the length is not a number.'))
  @Min(0, words('The ± of the length is at least 0 mm.'))
  @Max(50, words('The ± of the length is at most 50 mm.'))
  pmMm?: number;

  /** The tooth whose width it is, and where that width comes from. */
  @IsOptional()
  @IsIn(ALL_TEETH, words('The tooth of the scale is not a permanent tooth.'))
  tooth?: number;

  @IsOptional()
  @IsIn(['scan', 'front view', 'typed', 'mean'], words('It is not known where the length comes from.'))
  origin?: 'scan' | 'front view' | 'typed' | 'mean';
}

/** One landmark of one tooth. */
export class LandmarkInput extends PointPx {
  @IsIn(UPPER_SIX as number[], words('Landmarks are set on the six upper front teeth, 13 to 23.'))
  tooth!: number;

  @IsIn(LANDMARK_KINDS as string[], words('A landmark is a zenith, edge, mesial or distal point.'))
  kind!: LandmarkKind;

  /** Where it comes from if not from a hand: taken over from the scan that the photograph is matched with. */
  @IsOptional()
  @IsIn(['scan'], words('A landmark is set by hand or comes from the scan.'))
  from?: 'scan';
}

/** What one tooth has behind it. */
export class ToothHistory {
  @IsIn(ALL_TEETH, words('A tooth of the history is not a permanent tooth.'))
  tooth!: number;

  @IsArray(words('The history of a tooth is a list.'))
  @ArrayMaxSize(keysOf(TOOTH_PAST).length, words('A point of a tooth’s history is named twice.'))
  @ArrayUnique(words('A point of a tooth’s history is named twice.'))
  @IsIn(keysOf(TOOTH_PAST), { each: true, message: 'A point of a tooth’s history is not known.' })
  past: ToothPast[] = [];

  @IsOptional()
  @IsString(words('The note on a tooth is text.'))
  @MaxLength(300, words('The note on a tooth has at most 300 characters.'))
  note?: string;
}

/** Who, what they want, by when, what to beware of, what the teeth have behind them. */
export class MeetSection {
  @IsOptional()
  @IsInt(words('The age is a whole number of years.'))
  @Min(0, words('The age must lie between 0 and 120 years.'))
  @Max(120, words('The age must lie between 0 and 120 years.'))
  ageYears?: number | null;

  /** For norms that need it, nothing else. */
  @IsOptional()
  @IsIn(['female', 'male'], words('The sex at birth is female or male, or left open.'))
  sexAtBirth?: 'female' | 'male' | null;

  @IsString(words('The wish is text.'))
  @MaxLength(500, words('The wish has at most 500 characters.'))
  wish: string = '';

  @IsArray(words('The tags of the wish are a list.'))
  @ArrayMaxSize(keysOf(WISH_TAGS).length, words('A tag is set twice.'))
  @ArrayUnique(words('A tag is set twice.'))
  @IsIn(keysOf(WISH_TAGS), { each: true, message: 'A tag of the wish is not known.' })
  wishTags: WishTag[] = [];

  @IsOptional()
  @IsDay(words('The date to finish by is a calendar date.'))
  finishBy?: string | null;

  @IsArray(words('The cautions are a list.'))
  @ArrayMaxSize(keysOf(CAUTIONS).length, words('A caution is set twice.'))
  @ArrayUnique(words('A caution is set twice.'))
  @IsIn(keysOf(CAUTIONS), { each: true, message: 'A caution is not known.' })
  cautions: Caution[] = [];

  @IsString(words('The note on cautions is text.'))
  @MaxLength(500, words('The note on cautions has at most 500 characters.'))
  cautionNote: string = '';

  @IsArray(words('The history of the teeth is a list.'))
  @ArrayMaxSize(ALL_TEETH.length, words('A tooth stands in the history twice.'))
  @ArrayUnique((t: ToothHistory) => t.tooth, words('A tooth stands in the history twice.'))
  @ValidateNested({ each: true })
  @Holds(() => ToothHistory)
  teeth: ToothHistory[] = [];
}

/** A length (two points) or an angle (three, its corner in the middle) that a person draws and names. */
export class FreeMeasure {
  @IsUUID(undefined, words('A drawn measure’s number is broken.'))
  id!: string;

  @IsString(words('The name of a measure is text.'))
  @Length(1, 60, words('The name of a measure has 1 to 60 characters.'))
  name!: string;

  @IsArray(words('The points of a measure are a list.'))
  @ArrayMinSize(2, words('A measure has two points, an angle three.'))
  @ArrayMaxSize(3, words('A measure has two points, an angle three.'))
  @ValidateNested({ each: true })
  @Holds(() => PointPx)
  points!: PointPx[];
}

/** What the dentist makes of a finding. */
export class FindingVerdict {
  @IsString(words('A finding is named by its id.'))
  @MaxLength(60, words('A finding’s id has at most 60 characters.'))
  id!: string;

  @IsIn(['accepted', 'dismissed'], words('A finding is accepted or dismissed.'))
  verdict!: 'accepted' | 'dismissed';

  @IsOptional()
  @IsString(words('The word on a finding is text.'))
  @MaxLength(200, words('The word on a finding has at most 200 characters.'))
  word?: string;
}

/** A point of a view beside the tooth landmarks, by its id. */
export class ViewPointInput extends PointPx {
  @IsIn(VIEW_POINT_IDS as string[], words('A point of a view is not known.'))
  id!: string;
}

/** What one photograph of a standard view holds for measuring. */
export class ViewReadingInput {
  @IsIn(keysOf(PHOTO_VIEWS), words('This view is not known.'))
  view!: PhotoView;

  @IsOptional()
  @IsUUID(undefined, words('The photograph’s number is broken.'))
  photoId?: string | null;

  @IsOptional()
  @ValidateNested()
  @Holds(() => CalibrationInput)
  calibration?: CalibrationInput | null;

  /** A second known length, to check the scale by. */
  @IsOptional()
  @ValidateNested()
  @Holds(() => CalibrationInput)
  check?: CalibrationInput | null;

  /** Of a smile: the last upper tooth that is seen on each side. */
  @IsOptional()
  @IsIn(LAST_SEEN.right as unknown as number[], words('The last tooth seen on the right is one of 11 to 18.'))
  lastRight?: number | null;

  @IsOptional()
  @IsIn(LAST_SEEN.left as unknown as number[], words('The last tooth seen on the left is one of 21 to 28.'))
  lastLeft?: number | null;

  @IsArray(words('The points of a view are a list.'))
  @ArrayMaxSize(120, words('A view has at most 120 points.'))
  @ArrayUnique((p: ViewPointInput) => p.id, words('A point of a view is set twice.'))
  @ValidateNested({ each: true })
  @Holds(() => ViewPointInput)
  points: ViewPointInput[] = [];

  @IsArray(words('The drawn measures of a view are a list.'))
  @ArrayMaxSize(60, words('At most 60 measures are drawn on one photograph.'))
  @ArrayUnique((m: FreeMeasure) => m.id, words('A drawn measure is held twice.'))
  @ValidateNested({ each: true })
  @Holds(() => FreeMeasure)
  drawn: FreeMeasure[] = [];
}

/** Two places of a photograph by which it is laid over another. */
export class PhotoAlignment {
  @IsUUID(undefined, words('The photograph’s number is broken.'))
  photoId!: string;

  @IsDefined()
  @ValidateNested()
  @Holds(() => PointPx)
  first!: PointPx;

  @IsDefined()
  @ValidateNested()
  @Holds(() => PointPx)
  second!: PointPx;
}

/** The photographs on the bench, their scales and points, and what the dentist makes of the findings. The retracted front view's scale,
 * outline landmarks and drawn measures stand at the top; everything else by view. */
export class ReadSection {
  @IsOptional()
  @IsUUID(undefined, words('The photograph’s number is broken.'))
  photoId?: string | null;

  @IsOptional()
  @ValidateNested()
  @Holds(() => CalibrationInput)
  calibration?: CalibrationInput | null;

  @IsArray(words('The landmarks are a list.'))
  @ArrayMaxSize(24, words('At most 24 landmarks are set.'))
  @ArrayUnique((m: LandmarkInput) => `${m.tooth} ${m.kind}`, words('A landmark is set twice.'))
  @ValidateNested({ each: true })
  @Holds(() => LandmarkInput)
  landmarks: LandmarkInput[] = [];

  @IsArray(words('The judged findings are a list.'))
  @ArrayMaxSize(200, words('At most 200 findings are judged.'))
  @ArrayUnique((v: FindingVerdict) => v.id, words('A finding is judged twice.'))
  @ValidateNested({ each: true })
  @Holds(() => FindingVerdict)
  verdicts: FindingVerdict[] = [];

  @IsArray(words('The drawn measures are a list.'))
  @ArrayMaxSize(60, words('At most 60 measures are drawn on one photograph.'))
  @ArrayUnique((m: FreeMeasure) => m.id, words('A drawn measure is held twice.'))
  @ValidateNested({ each: true })
  @Holds(() => FreeMeasure)
  drawn: FreeMeasure[] = [];

  @IsArray(words('The views are a list.'))
  @ArrayMaxSize(10, words('There are ten standard views.'))
  @ArrayUnique((v: ViewReadingInput) => v.view, words('A view is read twice.'))
  @ValidateNested({ each: true })
  @Holds(() => ViewReadingInput)
  views: ViewReadingInput[] = [];

  @IsArray(words('The alignments are a list.'))
  @ArrayMaxSize(100, words('At most 100 photographs are aligned.'))
  @ArrayUnique((a: PhotoAlignment) => a.photoId, words('A photograph is aligned twice.'))
  @ValidateNested({ each: true })
  @Holds(() => PhotoAlignment)
  aligned: PhotoAlignment[] = [];
}

/** A width that is set by hand. */
export class LockedWidth {
  @IsIn(UPPER_SIX as number[], words('Widths are set on the six upper front teeth.'))
  tooth!: number;

  @IsNumber(FINITE, words('The width is not a number.'))
  @Min(CROWN_LIMITS.widthMm.min, words('The width must be at least 3 mm.'))
  @Max(CROWN_LIMITS.widthMm.max, words('The width must be at most 14 mm.'))
  widthMm!: number;
}

/** Front-view widths of a smile that the patient likes, each over the tooth before it. */
export class LikedSmile {
  @IsNumber(FINITE, words('The lateral’s share is not a number.'))
  @Min(0.3, words('A lateral is between 0.3 and 1.2 of its central.'))
  @Max(1.2, words('A lateral is between 0.3 and 1.2 of its central.'))
  lateral!: number;

  @IsNumber(FINITE, words('The canine’s share is not a number.'))
  @Min(0.3, words('A canine is between 0.3 and 1.5 of its lateral.'))
  @Max(1.5, words('A canine is between 0.3 and 1.5 of its lateral.'))
  canine!: number;
}

/** First premolars that share the space, by their widths. */
export class SharingPremolars {
  @IsNumber(FINITE, words('The width of the right first premolar is not a number.'))
  @Min(3, words('A premolar is 3 to 14 mm wide.'))
  @Max(14, words('A premolar is 3 to 14 mm wide.'))
  right!: number;

  @IsNumber(FINITE, words('The width of the left first premolar is not a number.'))
  @Min(3, words('A premolar is 3 to 14 mm wide.'))
  @Max(14, words('A premolar is 3 to 14 mm wide.'))
  left!: number;
}

/** How targets are set. */
export class ProposeSection {
  @IsIn(SCHOOLS.map((s) => s.id) as string[], words('This school of proportion is not known.'))
  school: SchoolId = 'ratio';

  @IsIn(UPPER_SIX as number[], words('The reference tooth is one of the six upper front teeth.'))
  referenceTooth: number = 11;

  @IsNumber(FINITE, words('The edge level is not a number.'))
  @Min(-3, words('The edge can be set at most 3 mm up.'))
  @Max(4, words('The edge can be set at most 4 mm down.'))
  edgeMm: number = 0;

  /** Gum line of the six teeth moved up. */
  @IsOptional()
  @IsNumber(FINITE, words('The gum level is not a number.'))
  @Min(0, words('The gum is moved up by 0 to 4 mm.'))
  @Max(4, words('The gum is moved up by 0 to 4 mm.'))
  gumMm?: number;

  /** Ratio of the recurring school. */
  @IsOptional()
  @IsNumber(FINITE, words('The recurring ratio is not a number.'))
  @Min(0.5, words('The recurring ratio lies between 0.5 and 1.'))
  @Max(1, words('The recurring ratio lies between 0.5 and 1.'))
  ratio?: number;

  @IsOptional()
  @ValidateNested()
  @Holds(() => LikedSmile)
  liked?: LikedSmile | null;

  @IsOptional()
  @IsIn(['close', 'keep'], words('Gaps are closed or kept.'))
  gaps?: 'close' | 'keep';

  /** The room goes from first premolar to first premolar; from canine to canine where nothing is said. */
  @IsOptional()
  @ValidateNested()
  @Holds(() => SharingPremolars)
  premolars?: SharingPremolars | null;

  /** Left and right alike; so where nothing is said. */
  @IsOptional()
  @IsBoolean(words('Whether left and right are alike is yes or no.'))
  alike?: boolean;

  @IsOptional()
  @IsArray(words('The widths set by hand are a list.'))
  @ArrayMaxSize(UPPER_SIX.length, words('A width is set twice.'))
  @ArrayUnique((l: LockedWidth) => l.tooth, words('A width is set twice.'))
  @ValidateNested({ each: true })
  @Holds(() => LockedWidth)
  locked?: LockedWidth[];
}

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

/** The planned contour. */
export class ShapeSection {
  @IsOptional()
  @IsUUID(undefined, words('The scan’s number is broken.'))
  scanId?: string | null;

  /** Version of `propose` to which the crowns were set, for telling when it is stale. */
  @IsOptional()
  @IsInt()
  @Min(0)
  proposalVersion?: number | null;

  /** Contacts are kept at this tightness, mm, after each change of a number; not kept where nothing is said. */
  @IsOptional()
  @IsNumber(FINITE, words('The tightness of contacts is not a number.'))
  @Min(-0.5, words('Contacts are kept between 0.5 mm open and 0.1 mm tight.'))
  @Max(0.1, words('Contacts are kept between 0.5 mm open and 0.1 mm tight.'))
  contactsMm?: number | null;

  @IsArray(words('The planned teeth are a list.'))
  @ArrayMaxSize(PLANNABLE.length, words('A tooth is planned twice.'))
  @ArrayUnique((t: ToothPlanInput) => t.tooth, words('A tooth is planned twice.'))
  @ValidateNested({ each: true })
  @Holds(() => ToothPlanInput)
  teeth: ToothPlanInput[] = [];
}

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

  @IsIn(['mock-up', 'tooth'], words('Grooves are cut through the mock-up or from the tooth.'))
  from: CutFrom = 'mock-up';
}

/** The class of each section. */
export const SECTION_CLASSES = { meet: MeetSection, read: ReadSection, propose: ProposeSection, shape: ShapeSection, reduce: ReduceSection } as const;

export interface SectionData {
  meet: MeetSection;
  read: ReadSection;
  propose: ProposeSection;
  shape: ShapeSection;
  reduce: ReduceSection;
}

/** What a section holds before anyone has written it. */
export const EMPTY_SECTIONS: { readonly [K in SectionName]: SectionData[K] } = {
  meet: { wish: '', wishTags: [], cautions: [], cautionNote: '', teeth: [] },
  read: { landmarks: [], verdicts: [], drawn: [], views: [], aligned: [] },
  propose: { school: 'ratio', referenceTooth: 11, edgeMm: 0 },
  shape: { teeth: [] },
  reduce: { design: 'graduated', from: 'mock-up' },
};

/** A section as it was written, with what newer versions of its class have added left empty. */
export function completed<N extends SectionName>(name: N, data: object): SectionData[N] {
  return { ...EMPTY_SECTIONS[name], ...data } as SectionData[N];
}
