import 'reflect-metadata';
import type { CameraStood, ScaleWay, ScannedDepth } from '@radiant/core';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsDefined,
  IsIn,
  IsNumber,
  IsOptional,
  IsPositive,
  IsString,
  IsUUID,
  Length,
  Max,
  Min,
  ValidateNested,
} from 'class-validator';
import { Holds } from '../base/holds.js';
import { ALL_TEETH, FINITE, words } from './words.js';

const SCALE_WAYS: readonly ScaleWay[] = ['scale', 'tooth', 'pupils', 'scan'];

/** A place in a photograph, px from the upright picture's top left corner. */
export class PointPx {
  @IsNumber(FINITE, words('The point’s place across is not a number.'))
  x!: number;

  @IsNumber(FINITE, words('The point’s place down is not a number.'))
  y!: number;
}

const number =
  (what: string, min: number, max: number): PropertyDecorator =>
  (target, key) => {
    IsNumber(FINITE, words(`${what} is not a number.`))(target, key);
    Min(min, words(`${what} is at least ${min}.`))(target, key);
    Max(max, words(`${what} is at most ${max}.`))(target, key);
  };

/** How far the places of a scanned tooth lie behind the middle of the centrals' edges, mm. */
export class ScannedDepthInput implements ScannedDepth {
  @IsIn(ALL_TEETH, words('A depth belongs to a permanent tooth.'))
  tooth!: number;

  @number('The depth of the zenith', -50, 50)
  zenith!: number;

  @number('The depth of the edge', -50, 50)
  edge!: number;

  @number('The depth of the mesial side', -50, 50)
  mesial!: number;

  @number('The depth of the distal side', -50, 50)
  distal!: number;
}

/** How the camera stood to the scanned row when the two were matched. Half-widths of 95 % intervals. */
export class CameraInput implements CameraStood {
  @number('The camera’s turn to the side', -90, 90)
  yawDeg!: number;

  @number('The ± of the camera’s turn to the side', 0, 90)
  yawPmDeg!: number;

  @number('The camera’s turn up', -90, 90)
  pitchDeg!: number;

  @number('The ± of the camera’s turn up', 0, 90)
  pitchPmDeg!: number;

  @number('The camera’s roll', -180, 180)
  rollDeg!: number;

  @number('The ± of the camera’s roll', 0, 180)
  rollPmDeg!: number;

  @number('The camera’s distance', 20, 10_000)
  distanceMm!: number;

  @number('The ± of the camera’s distance', 0, 10)
  distancePm!: number;

  /** How deep the scanned arch is, 1/mm. */
  @IsOptional()
  @number('The depth of the arch', 0, 1)
  archPerMm?: number;

  /** How far back the scan has the places that are marked. */
  @IsOptional()
  @Holds(() => ScannedDepthInput)
  @ValidateNested(words('A depth of the scan is incomplete.'))
  @IsArray(words('The depths of the scan are a list.'))
  @ArrayMaxSize(ALL_TEETH.length, words('A tooth has one depth.'))
  @ArrayUnique((d: ScannedDepthInput) => d.tooth, words('A tooth has one depth.'))
  behind?: readonly ScannedDepthInput[];
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

  /** How the camera stood, where the length was taken by matching with the scan. */
  @IsOptional()
  @ValidateNested()
  @Holds(() => CameraInput)
  camera?: CameraInput;

  /** Someone wants how the camera stood left in the measures, although the scan tells it. */
  @IsOptional()
  @IsBoolean(words('Whether the camera is left in is yes or no.'))
  cameraLeftIn?: boolean;
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
