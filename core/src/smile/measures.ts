import { type FrontKind, isFrontKind } from '../teeth/norms.js';
import { type Fdi, isUpper, PLANNABLE } from '../teeth/notation.js';
import { frontRow, OWN_ROLES, type Roles, roleOf } from '../teeth/roles.js';
import { COMMON_PRACTICE, DERIVED, type Figure, MEASURED, type Source } from '../working/working.js';
import { LANDMARK_SD_MM, type Px, Z95 } from './calibration.js';
import { type LandmarkSet, levelled, rollOf } from './landmarks.js';

/** What a photograph tells of one tooth; each figure only when its landmarks are set. mm, ratio in %. */
export interface ToothMeasure {
  readonly tooth: Fdi;
  /** Mesial to distal as seen from the front. */
  readonly frontWidth?: Figure;
  /** The crown's own width: the front width divided by the share of it that is seen from the front. */
  readonly width?: Figure;
  readonly length?: Figure;
  readonly ratio?: Figure;
  /** Levels over the lowest central edge, up positive. */
  readonly edgeLevel?: Figure;
  readonly zenithLevel?: Figure;
}

const HOUSE_SHARE: Source = {
  mark: 'house',
  text: 'mean of virtual patients on a medium arch; no published source',
};

/**
 * Share of the crown's width and length that a front view shows, by kind, with half-widths of the 95 % band: teeth turn
 * away round the arch and stand further from the lens. Worked out on virtual patients (see the test of the same name).
 */
export const SEEN_FROM_FRONT: Readonly<
  Record<FrontKind, { width: number; widthPm: number; length: number; lengthPm: number }>
> = {
  central: { width: 0.983, widthPm: 0.02, length: 1.007, lengthPm: 0.02 },
  lateral: { width: 0.865, widthPm: 0.08, length: 1, lengthPm: 0.025 },
  canine: { width: 0.785, widthPm: 0.08, length: 0.95, lengthPm: 0.02 },
};

/**
 * Measures every tooth that has landmarks; the upper teeth that stand in front come first, also
 * where they have none. Crown sizes
 * are told of teeth that stand in the place of an upper front tooth: how much of them the front shows is known of
 * these. Widths run along and lengths across the level line of the picture; its roll is taken out first (see `rollOf`).
 * Errors are first order: landmark repeatability, scale, and the share seen from the front.
 * @param scale mm a pixel, from `scaleOf`
 * @param roles where teeth stand in another's place
 */
export function measureTeeth(set: LandmarkSet, scale: Figure, roles: Roles = OWN_ROLES): ToothMeasure[] {
  const roll = rollOf(set) ?? 0;
  const point = (tooth: Fdi, kind: 'zenith' | 'edge' | 'mesial' | 'distal'): Px | undefined => {
    const p = set[tooth]?.[kind];
    return p && levelled(p, roll);
  };
  const centralEdges = [11, 21].map((t) => point(t, 'edge')?.[1]).filter((y) => y !== undefined);
  const lowest = centralEdges.length > 0 ? Math.max(...centralEdges) : undefined;
  const row = frontRow(roles);
  const others = PLANNABLE.filter((t) => set[t] && !row.includes(t));
  return [...row, ...others].map((tooth): ToothMeasure => {
    const zenith = point(tooth, 'zenith');
    const edge = point(tooth, 'edge');
    const mesial = point(tooth, 'mesial');
    const distal = point(tooth, 'distal');
    const kind = roleOf(roles, tooth);
    const seen = isUpper(tooth) && isFrontKind(kind) ? SEEN_FROM_FRONT[kind] : undefined;
    const levelFrom = isUpper(tooth) ? lowest : undefined;
    const frontWidth =
      mesial && distal
        ? lengthFigure(Math.abs(mesial[0] - distal[0]), scale, 'mesial to distal, along the level line')
        : undefined;
    const frontLength =
      zenith && edge
        ? lengthFigure(Math.abs(edge[1] - zenith[1]), scale, 'zenith to edge, across the level line')
        : undefined;
    const width = frontWidth && seen ? unforeshortened(frontWidth, seen.width, seen.widthPm, 'width') : undefined;
    const length = frontLength && seen ? unforeshortened(frontLength, seen.length, seen.lengthPm, 'length') : undefined;
    return {
      tooth,
      ...(frontWidth && { frontWidth }),
      ...(width && { width }),
      ...(length && { length }),
      ...(width && length && { ratio: ratioFigure(width, length) }),
      ...(edge &&
        levelFrom !== undefined && {
          edgeLevel: lengthFigure(levelFrom - edge[1], scale, 'lowest central edge to this edge'),
        }),
      ...(zenith &&
        levelFrom !== undefined && {
          zenithLevel: lengthFigure(levelFrom - zenith[1], scale, 'lowest central edge to this zenith'),
        }),
    };
  });
}

/** A length between two landmarks, px to mm; the sign is kept. */
function lengthFigure(px: number, scale: Figure, what: string): Figure {
  const value = px * scale.value;
  return {
    value,
    pm: Math.hypot(Z95 * Math.SQRT2 * LANDMARK_SD_MM, px * scale.pm),
    unit: 'mm',
    working: {
      formula: 'length = distance in the picture × scale',
      inputs: [
        { name: what, value: Math.round(px * 10) / 10, unit: 'px', source: MEASURED },
        { name: 'scale', value: scale.value, unit: 'mm/px', source: MEASURED },
        { name: 'repeatability of a point (sd)', value: LANDMARK_SD_MM, unit: 'mm', source: COMMON_PRACTICE },
      ],
    },
  };
}

function unforeshortened(front: Figure, share: number, sharePm: number, what: 'width' | 'length'): Figure {
  const value = front.value / share;
  return {
    value,
    pm: value * Math.hypot(front.pm / front.value, sharePm / share),
    unit: 'mm',
    working: {
      formula: `crown ${what} = ${what} seen from the front ÷ share seen`,
      inputs: [
        { name: `${what} seen from the front`, value: round(front.value), unit: 'mm', source: MEASURED },
        { name: 'share seen', value: `${share} ±${sharePm}`, unit: '', source: HOUSE_SHARE },
        ...front.working.inputs,
      ],
      note: 'Side teeth turn away round the arch, so the front view shows less than the whole crown.',
    },
  };
}

export function ratioFigure(width: Figure, length: Figure): Figure {
  const value = (100 * width.value) / length.value;
  return {
    value,
    pm: value * Math.hypot(width.pm / width.value, length.pm / length.value),
    unit: '%',
    working: {
      formula: 'width ÷ length',
      inputs: [
        { name: 'crown width', value: round(width.value), unit: 'mm', source: DERIVED },
        { name: 'crown length', value: round(length.value), unit: 'mm', source: DERIVED },
      ],
    },
  };
}

const round = (v: number) => Math.round(v * 100) / 100;
