import 'reflect-metadata';
import { LANDMARK_KINDS, type LandmarkKind, PLANNABLE, VIEW_POINT_IDS } from '@radiant/core';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsDefined,
  IsIn,
  IsOptional,
  IsString,
  IsUUID,
  MaxLength,
  ValidateNested,
} from 'class-validator';
import { Holds } from '../base/holds.js';
import { keysOf, PHOTO_VIEWS, type PhotoView } from '../base/records.js';
import { defineSection } from './define.js';
import { by, fields, list } from './parts.js';
import { CalibrationInput, FreeMeasure, PointPx } from './places.js';
import { readSense } from './read-sense.js';
import { words } from './words.js';

/** Upper teeth that can be the last one seen in a smile. */
export const LAST_SEEN = { right: [11, 12, 13, 14, 15, 16, 17, 18], left: [21, 22, 23, 24, 25, 26, 27, 28] } as const;

/** One landmark of one tooth. */
export class LandmarkInput extends PointPx {
  @IsIn(PLANNABLE as number[], words('Landmarks are set on front teeth and premolars, 15 to 25 and 35 to 45.'))
  tooth!: number;

  @IsIn(LANDMARK_KINDS as string[], words('A landmark is a zenith, edge, mesial or distal point.'))
  kind!: LandmarkKind;

  /** Where it comes from if not from a hand: taken over from the scan that the photograph is matched with. */
  @IsOptional()
  @IsIn(['scan'], words('A landmark is set by hand or comes from the scan.'))
  from?: 'scan';

  /** Where the same hand set it a second time without seeing the first: it tells how well it sets such points. */
  @IsOptional()
  @ValidateNested()
  @Holds(() => PointPx)
  again?: PointPx;
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
  @IsIn([...VIEW_POINT_IDS], words('A point of a view is not known.'))
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

  /** Of the retracted front view: the outlines of teeth. */
  @IsOptional()
  @IsArray(words('The landmarks are a list.'))
  @ArrayMaxSize(4 * PLANNABLE.length, words(`At most ${4 * PLANNABLE.length} landmarks are set.`))
  @ArrayUnique((m: LandmarkInput) => `${m.tooth} ${m.kind}`, words('A landmark is set twice.'))
  @ValidateNested({ each: true })
  @Holds(() => LandmarkInput)
  landmarks?: LandmarkInput[];

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

/** The views that were read, and what the dentist makes of the findings. */
export class ReadSection {
  @IsArray(words('The judged findings are a list.'))
  @ArrayMaxSize(200, words('At most 200 findings are judged.'))
  @ArrayUnique((v: FindingVerdict) => v.id, words('A finding is judged twice.'))
  @ValidateNested({ each: true })
  @Holds(() => FindingVerdict)
  verdicts: FindingVerdict[] = [];

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

/** Content in which the retracted front view stood at the top, beside the other views. */
interface FrontAtTop {
  readonly photoId?: string | null;
  readonly calibration?: unknown;
  readonly landmarks?: readonly unknown[];
  readonly drawn?: readonly unknown[];
  readonly views?: readonly ({ readonly view?: unknown; readonly photoId?: unknown } | null)[];
}

/** Content of before the retracted front view became a view like the others. */
function frontAmongViews(data: object): object {
  if (!['photoId', 'calibration', 'landmarks', 'drawn'].some((key) => key in data)) return data;
  const { photoId, calibration, landmarks = [], drawn = [], views = [], ...rest } = data as FrontAtTop;
  // What never was a section is left to the check, which tells it.
  if (![landmarks, drawn, views].every(Array.isArray)) return data;
  const own = views.find((v) => v?.view === 'retracted-front');
  if (!own && !photoId && !calibration && landmarks.length === 0 && drawn.length === 0) return { ...rest, views };
  const front = {
    view: 'retracted-front',
    points: [],
    ...own,
    photoId: photoId ?? own?.photoId ?? null,
    ...(calibration !== undefined && { calibration }),
    landmarks,
    drawn,
  };
  return { ...rest, views: own ? views.map((v) => (v === own ? front : v)) : [front, ...views] };
}

/** What stands on a photograph goes with it: points of one picture mean nothing on another. */
const ON_PHOTO = ['photoId', 'calibration', 'check', 'landmarks', 'points', 'drawn'];

const MEASURED_ON = 'Measures stand on this photograph; choose another in read first.';
const LAID_OVER = 'This photograph is laid over another; take it off there first.';

export const read = defineSection({
  name: 'read',
  type: ReadSection,
  empty: { verdicts: [], views: [], aligned: [] },
  writers: ['assistant'],
  comments: false,
  parts: fields({
    verdicts: list(by('id')),
    views: list(
      by('view'),
      fields({ landmarks: list(by('tooth', 'kind')), points: list(by('id')), drawn: list(by('id')) }, ON_PHOTO),
    ),
    aligned: list(by('photoId')),
  }),
  labels: {
    photoId: 'photograph',
    calibration: 'scale',
    check: 'second length',
    lastRight: 'last tooth seen on the right',
    lastLeft: 'last tooth seen on the left',
  },
  files: (data) => [
    ...data.views.flatMap(({ photoId: id }) => (id ? [{ id, kind: 'photo' as const, sentence: MEASURED_ON }] : [])),
    ...data.aligned.map((a) => ({ id: a.photoId, kind: 'photo' as const, sentence: LAID_OVER })),
  ],
  withFiles: (data, numberOf) => ({
    ...data,
    views: data.views.map(({ photoId: own, ...v }) => ({ ...v, ...(own && { photoId: numberOf(own) ?? null }) })),
    aligned: data.aligned.flatMap((a) => {
      const id = numberOf(a.photoId);
      return id ? [{ ...a, photoId: id }] : [];
    }),
  }),
  sense: readSense,
  upgraded: frontAmongViews,
});
