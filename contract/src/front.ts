import {
  archFromBelow,
  CLOSED_GAP_MM,
  type Fdi,
  type Figure,
  type FrontSeen,
  gapsBetween,
  isFrontKind,
  isUpper,
  type LengthWish,
  levelOfPupils,
  MEASURED,
  type Mouth,
  measureCantOfCanines,
  measureTeeth,
  neighbourGap,
  type Repeat,
  type Roles,
  roleOf,
  rolesOf,
  type ScannedTooth,
  spreadLearned,
  standOf,
  type ToothMeasure,
  UPPER_TEN,
  usedMeasures,
} from '@radiant/core';
import { frontLandmarks, frontScale, landmarkSet, readingOf, viewReadingOf } from './sections/core-forms.js';
import type { MeetSection } from './sections/meet.js';
import type { ReadSection } from './sections/read.js';

/** The upper front of a case as planning goes by it. */
export interface Front {
  readonly roles: Roles;
  /** Of each length and width the one that is used: the scan's wherever there is one. */
  readonly measures: readonly ToothMeasure[];
  /** Sum of the gaps along the row. */
  readonly gaps: Figure;
}

/**
 * A gap that is read off a scan is known to about this, half-width of the 95 % interval, mm; a smaller one is none.
 * House value.
 */
const SCANNED_GAP_PM_MM = 0.3;

/** What of the record changes what is safe to cut. */
export const mouthOf = ({
  cautions,
  ageYears,
  teeth,
}: Pick<MeetSection, 'cautions' | 'ageYears' | 'teeth'>): Mouth => ({
  acid: cautions.includes('acid'),
  grinding: cautions.includes('grinding'),
  ageYears,
  cores: teeth.filter((t) => t.past.includes('post')).map((t) => t.tooth),
});

/** What is wished of the length of the teeth; nothing where both or neither is. */
export function lengthWish({ wishTags }: Pick<MeetSection, 'wishTags'>): LengthWish | undefined {
  const [longer, shorter] = [wishTags.includes('longer'), wishTags.includes('shorter')];
  return longer === shorter ? undefined : longer ? 'longer' : 'shorter';
}

/** How sure an arch's depth is that was read off a scan or a view from below, as a share. House value. */
const ARCH_KNOWN_PM = 0.12;

/**
 * What the other views and the scan say of how the retracted front view was taken: which line is level, how the camera
 * stood, how deep the arch is.
 */
export function frontSeen(read: Pick<ReadSection, 'views'>): FrontSeen {
  const set = landmarkSet(frontLandmarks(read));
  const scale = frontScale(read);
  const camera = readingOf(read, 'retracted-front').calibration?.camera;
  const level =
    (scale && levelOfPupils(set, scale, viewReadingOf(read, 'portrait-smile'))) ??
    (camera && { by: 'scan' as const, rollDeg: camera.rollDeg, pmDeg: camera.rollPmDeg });
  const repeats = repeatsOf(read);
  const below = viewReadingOf(read, 'upper-occlusal');
  const perMm = camera?.archPerMm ?? (below && archFromBelow(below));
  return {
    ...(level && { level }),
    ...(scale && repeats.length > 0 && { spread: spreadLearned(repeats, scale.value) }),
    ...(camera && { stand: standOf(camera) }),
    ...(camera?.behind && { behind: camera.behind }),
    ...(perMm && { arch: { perMm, pm: ARCH_KNOWN_PM } }),
  };
}

/** Landmarks of the retracted front view that were set twice. */
export const repeatsOf = (read: Pick<ReadSection, 'views'>): Repeat[] =>
  frontLandmarks(read).flatMap(({ kind, x, y, again }) =>
    again ? [{ kind, first: [x, y] as const, second: [again.x, again.y] as const }] : [],
  );

/** The upper teeth as the retracted front view shows them: the one answer for screen, documents and plans. */
export function photographed(read: Pick<ReadSection, 'views'>, roles: Roles): ToothMeasure[] {
  const scale = frontScale(read);
  return scale ? measureTeeth(landmarkSet(frontLandmarks(read)), scale, roles, frontSeen(read)) : [];
}

/** How the line of the canines' tips lies against the pupils by the portrait in smile, where it is marked. */
export function cantOf(read: Pick<ReadSection, 'views'>): Figure | undefined {
  const portrait = viewReadingOf(read, 'portrait-smile');
  return portrait && measureCantOfCanines(portrait);
}

/**
 * What record, front photograph and scan together tell of the upper front: the one answer for screen, documents and
 * demo.
 */
export function frontOf(
  read: Pick<ReadSection, 'views'>,
  meet: Pick<MeetSection, 'teeth'>,
  scan: readonly ScannedTooth[],
): Front {
  const set = landmarkSet(frontLandmarks(read));
  const scale = frontScale(read);
  const missing = new Set(meet.teeth.filter((t) => t.past.includes('missing')).map((t) => t.tooth));
  const gapBehind = (tooth: Fdi): number | undefined => {
    const [inner, outer] = besides(tooth, missing);
    if (inner === undefined || outer === undefined) return undefined;
    const seen =
      scale && isUpper(tooth)
        ? neighbourGap(set, scale, tooth < 20 ? outer : inner, tooth < 20 ? inner : outer)
        : undefined;
    return seen ?? scan.find((s) => s.tooth === outer)?.gapMesialMm;
  };
  const roles = rolesOf(missing, (t) => (gapBehind(t) ?? Number.POSITIVE_INFINITY) < CLOSED_GAP_MM);
  const row = UPPER_TEN.filter((t) => !missing.has(t) && isFrontKind(roleOf(roles, t)));
  return {
    roles,
    measures: usedMeasures(photographed(read, roles), scan, cantOf(read)),
    gaps: scale ? gapsBetween(set, scale, row, roles, frontSeen(read)) : scannedGaps(scan, row),
  };
}

/** The teeth that stand beside the place of a missing one: towards the midline, and away from it. */
function besides(tooth: Fdi, missing: ReadonlySet<Fdi>): readonly [Fdi | undefined, Fdi | undefined] {
  const quadrant = tooth - (tooth % 10);
  const places = [1, 2, 3, 4, 5].map((p) => quadrant + p).filter((t) => !missing.has(t));
  const across = tooth < 20 ? 21 : 11;
  const inner = places.filter((t) => t < tooth).at(-1) ?? (missing.has(across) ? undefined : across);
  return [inner, places.find((t) => t > tooth)];
}

function scannedGaps(scan: readonly ScannedTooth[], row: readonly Fdi[]): Figure {
  // The gap of the outermost tooth of each side towards the midline is within the row; that of 11 is told at 21.
  const found = scan.flatMap((s) =>
    row.includes(s.tooth) && (s.gapMesialMm ?? 0) > SCANNED_GAP_PM_MM ? [s.gapMesialMm as number] : [],
  );
  return {
    value: found.reduce((a, b) => a + b, 0),
    pm: Math.sqrt(found.length) * SCANNED_GAP_PM_MM,
    unit: 'mm',
    working: {
      formula: 'gaps = distances between the middles of neighbouring teeth on the scan − half of both widths',
      inputs: [{ name: 'gaps found', value: found.length, unit: '', source: MEASURED }],
    },
  };
}
