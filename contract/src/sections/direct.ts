import 'reflect-metadata';
import {
  BREAK_LIMITS,
  DIRECT_KINDS,
  DIRECT_LIMITS,
  type DirectKind,
  type DirectSetting,
  type DirectSettings,
  type DirectWork,
  type Fdi,
  ISLAND_POINTS,
  PLANNABLE,
  SOUNDING_LIMITS,
  USUAL_DIRECT,
  USUAL_WORK,
} from '@radiant/core';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsIn,
  IsNumber,
  IsOptional,
  Matches,
  Max,
  Min,
  ValidateNested,
} from 'class-validator';
import { Holds } from '../base/holds.js';
import { defineSection } from './define.js';
import { by, fields, list } from './parts.js';
import { FINITE, words } from './words.js';

/** What each setting is called, and its unit. */
export const DIRECT_WORDS: Readonly<Record<DirectSetting, { readonly words: string; readonly unit: string }>> = {
  shellMm: { words: 'palatal shell', unit: 'mm' },
  sideMm: { words: 'side wall', unit: 'mm' },
  enamelMm: { words: 'enamel under the surface', unit: 'mm' },
  lobeMm: { words: 'deeper between the lobes', unit: 'mm' },
  cureMm: { words: 'cured through', unit: 'mm' },
  bevelMm: { words: 'facial bevel of a large break', unit: 'mm' },
  bevelBehindMm: { words: 'bevel behind', unit: 'mm' },
  troughMm: { words: 'trough into worn dentin', unit: 'mm' },
  wallMm: { words: 'enamel walls around it', unit: 'mm' },
  partMm: { words: 'back teeth part to the side', unit: 'mm' },
  keyFrontMm: { words: 'palatal key, over the edges to the front', unit: 'mm' },
  keyUpMm: { words: 'palatal key, up behind the edges', unit: 'mm' },
  lampMw: { words: 'lamp', unit: 'mW/cm²' },
  seconds: { words: 'light for each increment', unit: 's' },
  portionMm3: { words: 'one portion', unit: 'mm³' },
};

const Within =
  (name: DirectSetting): PropertyDecorator =>
  (target, key) => {
    const { min, max } = DIRECT_LIMITS[name];
    const told = words(`${DIRECT_WORDS[name].words} lies between ${min} and ${max} ${DIRECT_WORDS[name].unit}.`);
    IsOptional()(target, key);
    IsNumber(FINITE, told)(target, key);
    Min(min, told)(target, key);
    Max(max, told)(target, key);
  };

/** A break that is drawn on the planned crown. */
export class DrawnBreakInput {
  @IsIn(['mesial', 'distal'], words('A break goes from the mesial or the distal corner.'))
  corner!: 'mesial' | 'distal';

  @IsNumber(FINITE, words('A break has a height in mm.'))
  @Min(
    BREAK_LIMITS.heightMm.min,
    words(`A break is ${BREAK_LIMITS.heightMm.min} to ${BREAK_LIMITS.heightMm.max} mm high.`),
  )
  @Max(
    BREAK_LIMITS.heightMm.max,
    words(`A break is ${BREAK_LIMITS.heightMm.min} to ${BREAK_LIMITS.heightMm.max} mm high.`),
  )
  heightMm!: number;

  @IsNumber(FINITE, words('A break has a width in mm.'))
  @Min(
    BREAK_LIMITS.widthMm.min,
    words(`A break is ${BREAK_LIMITS.widthMm.min} to ${BREAK_LIMITS.widthMm.max} mm wide.`),
  )
  @Max(
    BREAK_LIMITS.widthMm.max,
    words(`A break is ${BREAK_LIMITS.widthMm.min} to ${BREAK_LIMITS.widthMm.max} mm wide.`),
  )
  widthMm!: number;
}

const A_PLACE = words('A place has three coordinates within 200 mm.');
const Coordinate: PropertyDecorator = (target, key) => {
  IsNumber(FINITE, A_PLACE)(target, key);
  Min(-200, A_PLACE)(target, key);
  Max(200, A_PLACE)(target, key);
};

/** A place of the scan in the mouth's frame, mm. */
export class PlaceMm {
  @Coordinate
  x!: number;

  @Coordinate
  y!: number;

  @Coordinate
  z!: number;
}

/** What composite is to do on one tooth. */
export class DirectWorkInput {
  @IsIn(PLANNABLE, words('Composite is planned on teeth that can be planned.'))
  tooth!: Fdi;

  @IsIn(Object.keys(DIRECT_KINDS), words('This kind of composite work is not known.'))
  kind!: DirectKind;

  @IsOptional()
  @Holds(() => DrawnBreakInput)
  @ValidateNested(words('This break is incomplete.'))
  broken?: DrawnBreakInput | null;

  /** The dentin on a worn edge, marked round on the scan. */
  @IsOptional()
  @IsArray(words('An island is marked with places.'))
  @ArrayMinSize(ISLAND_POINTS.min, words(`An island is marked with at least ${ISLAND_POINTS.min} places.`))
  @ArrayMaxSize(ISLAND_POINTS.max, words(`An island is marked with at most ${ISLAND_POINTS.max} places.`))
  @Holds(() => PlaceMm)
  @ValidateNested(words('A place of the island is incomplete.'))
  island?: PlaceMm[] | null;
}

/** From the tip of a papilla to the bone, as a probe has sounded it. */
export class SoundingInput {
  /** The two teeth in the order of the row: `11-21`. */
  @Matches(/^[1-4][1-8]-[1-4][1-8]$/, words('A papilla stands between two teeth.'))
  between!: string;

  @IsNumber(FINITE, words('A sounding is in mm.'))
  @Min(SOUNDING_LIMITS.min, words(`Bone is sounded ${SOUNDING_LIMITS.min} to ${SOUNDING_LIMITS.max} mm deep.`))
  @Max(SOUNDING_LIMITS.max, words(`Bone is sounded ${SOUNDING_LIMITS.min} to ${SOUNDING_LIMITS.max} mm deep.`))
  mm!: number;
}

/** How composite is built up; as is usual where a setting is left out. */
export class CompositeSettings {
  @Within('shellMm')
  shellMm?: number | null;

  @Within('sideMm')
  sideMm?: number | null;

  @Within('enamelMm')
  enamelMm?: number | null;

  @Within('lobeMm')
  lobeMm?: number | null;

  @Within('cureMm')
  cureMm?: number | null;

  @Within('bevelMm')
  bevelMm?: number | null;

  @Within('bevelBehindMm')
  bevelBehindMm?: number | null;

  @Within('troughMm')
  troughMm?: number | null;

  @Within('wallMm')
  wallMm?: number | null;

  @Within('partMm')
  partMm?: number | null;

  @Within('keyFrontMm')
  keyFrontMm?: number | null;

  @Within('keyUpMm')
  keyUpMm?: number | null;

  @Within('lampMw')
  lampMw?: number | null;

  @Within('seconds')
  seconds?: number | null;

  @Within('portionMm3')
  portionMm3?: number | null;
}

/** How composite is built up in a case. */
export class DirectSection extends CompositeSettings {
  /** What composite is to do, tooth by tooth; an addition where nothing is said. */
  @Holds(() => DirectWorkInput)
  @ValidateNested(words('This work is incomplete.'))
  @IsArray(words('The works are a list.'))
  @ArrayMaxSize(PLANNABLE.length, words('A tooth has one kind of work.'))
  @ArrayUnique((w: DirectWorkInput) => w.tooth, words('A tooth has one kind of work.'))
  works: DirectWorkInput[] = [];

  /** Sounded from the tip of a papilla to the bone. */
  @Holds(() => SoundingInput)
  @ValidateNested(words('This sounding is incomplete.'))
  @IsArray(words('The soundings are a list.'))
  @ArrayMaxSize(PLANNABLE.length, words('A papilla is sounded once.'))
  @ArrayUnique((w: SoundingInput) => w.between, words('A papilla is sounded once.'))
  soundings: SoundingInput[] = [];
}

/** All settings of a case, each as was said or as is usual. */
export const directSettings = (d: CompositeSettings): DirectSettings =>
  Object.fromEntries(
    (Object.keys(USUAL_DIRECT) as DirectSetting[]).map((k) => [k, d[k] ?? USUAL_DIRECT[k]]),
  ) as unknown as DirectSettings;

/** What composite is to do on a tooth. */
export const workOn = ({ works }: Pick<DirectSection, 'works'>, tooth: Fdi): DirectWork => {
  const own = works.find((w) => w.tooth === tooth);
  return own
    ? {
        kind: own.kind,
        ...(own.broken && { broken: own.broken }),
        ...(own.island && { island: own.island.map((p) => [p.x, p.y, p.z] as const) }),
      }
    : USUAL_WORK;
};

/** What composite is to do on a tooth, as it is kept. */
export const workKept = (tooth: Fdi, { kind, broken, island }: DirectWork): DirectWorkInput => ({
  tooth,
  kind,
  ...(broken && { broken }),
  ...(island && { island: island.map(([x, y, z]) => ({ x: hundredth(x), y: hundredth(y), z: hundredth(z) })) }),
});
const hundredth = (mm: number): number => Math.round(100 * mm) / 100;

/** What was sounded, by the two teeth. */
export const soundingsOf = ({ soundings }: Pick<DirectSection, 'soundings'>): Readonly<Record<string, number>> =>
  Object.fromEntries(soundings.map((s) => [s.between, s.mm]));

export const direct = defineSection({
  name: 'direct',
  type: DirectSection,
  empty: { works: [], soundings: [] },
  writers: [],
  comments: true,
  parts: fields({ works: list(by('tooth')), soundings: list(by('between')) }),
  labels: {
    ...Object.fromEntries(Object.entries(DIRECT_WORDS).map(([k, { words: w, unit }]) => [k, `${w}, ${unit}`])),
    works: 'what composite is to do',
    soundings: 'bone sounded',
  } as Readonly<Record<string, string>>,
  since: 10,
});
