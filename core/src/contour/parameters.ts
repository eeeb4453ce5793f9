/**
 * From round outlines with soft line angles to straight ones with marked ones. House names for the trade's range of
 * forms.
 */
export type CrownCharacter = 'soft' | 'even' | 'square';
export const CROWN_CHARACTERS: readonly CrownCharacter[] = ['soft', 'even', 'square'];

/** What is set on one crown beside its size; 0 is the library form, mm unless the name says otherwise. */
export interface CrownShape {
  /** `even` where nothing is said. */
  readonly character?: CrownCharacter;
  /** Facial surface fuller (+) or flatter (−) in the cervical third and in the incisal third alone. */
  readonly neckVolumeMm?: number;
  readonly edgeVolumeMm?: number;
  /** Edge thicker (+) or thinner (−), on the palatal side. */
  readonly edgeThicknessMm?: number;
  /** How far the edge rises in a curve from its middle to both borders. */
  readonly edgeCurveMm?: number;
  /** Corners rounder (+) or sharper (−): the incisal embrasures. */
  readonly mesialCornerMm?: number;
  readonly distalCornerMm?: number;
  /** Neck wider (+) or narrower (−): the gingival embrasures. */
  readonly neckWidthMm?: number;
  /** Zenith distal (+) or mesial (−) of the library form's. */
  readonly zenithDistalMm?: number;
  /** Lobes and fine ripples: 0 smooth, 1 the library form, 2 strong. 1 where nothing is said. */
  readonly textureShare?: number;
}

/** How the crown stands, against the arch. */
export interface CrownStand {
  /** Positive mesial edge forward. */
  readonly rotationDeg: number;
  /** Edge towards the midline (+), and edge forward (+), turned about the zenith. */
  readonly tipDeg?: number;
  readonly torqueDeg?: number;
  /** The whole crown forward (+) of the arch, and away from the midline (+) along it. */
  readonly forwardMm?: number;
  readonly distalMm?: number;
  /** Zenith above (+) the one that is there: the gum is moved up with it. */
  readonly zenithUpMm?: number;
}

export interface Limit {
  readonly min: number;
  readonly max: number;
}

/** Limits of what makes a planned crown; the same the fields and the server keep. House limits. */
const SIZE_LIMITS = {
  lengthMm: { min: 5, max: 16 },
  widthMm: { min: 3, max: 14 },
  facialVolumeMm: { min: -2, max: 2 },
  neckVolumeMm: { min: -0.6, max: 0.8 },
  edgeVolumeMm: { min: -0.4, max: 1 },
  edgeThicknessMm: { min: -0.3, max: 1 },
  edgeCurveMm: { min: 0, max: 1 },
  mesialCornerMm: { min: -0.3, max: 1.2 },
  distalCornerMm: { min: -0.3, max: 1.2 },
  neckWidthMm: { min: -0.8, max: 1.2 },
  zenithDistalMm: { min: -1, max: 1 },
  textureShare: { min: 0, max: 2 },
} as const satisfies Record<string, Limit>;

/** Limits of a crown's numbers. */
export const CROWN_LIMITS = { ...SIZE_LIMITS, wearMm: { min: 0, max: 4 } } as const satisfies Record<string, Limit>;

/** Limits of a plan's numbers. */
export const PLAN_LIMITS = {
  ...SIZE_LIMITS,
  rotationDeg: { min: -30, max: 30 },
  tipDeg: { min: -15, max: 15 },
  torqueDeg: { min: -20, max: 20 },
  forwardMm: { min: -2, max: 3 },
  distalMm: { min: -2, max: 2 },
  zenithUpMm: { min: -1, max: 5 },
} as const satisfies Record<string, Limit>;

/** Numbers of a plan that may be left out, and what they are then. */
export const PLAN_DEFAULTS = {
  neckVolumeMm: 0,
  edgeVolumeMm: 0,
  edgeThicknessMm: 0,
  edgeCurveMm: 0,
  mesialCornerMm: 0,
  distalCornerMm: 0,
  neckWidthMm: 0,
  zenithDistalMm: 0,
  textureShare: 1,
  tipDeg: 0,
  torqueDeg: 0,
  forwardMm: 0,
  distalMm: 0,
  zenithUpMm: 0,
} as const;

export type PlanExtra = keyof typeof PLAN_DEFAULTS;
export type PlanNumber = PlanExtra | 'lengthMm' | 'widthMm' | 'facialVolumeMm' | 'rotationDeg';
