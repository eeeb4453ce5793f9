import {
  type ContourPlan,
  type CutView,
  type Fdi,
  type Frame,
  frameFrom,
  type Jaw,
  jawOf,
  toParent,
  turn,
  type Vec3,
} from '@radiant/core';
import { useMemo } from 'react';
import type { CutAt } from '../../bench/ArchScene.js';
import { type Asked, shownOf, useAsked } from '../../engine/use-asked.js';
import { type ContourState, clientOf } from '../../engine/use-contour.js';
import { PALETTE } from '../../ui/palette.js';

/** How a plane lies in the chosen tooth. */
export interface CutSetting {
  readonly kind: 'through' | 'level' | 'frontal';
  /** Along the plane's own normal. */
  readonly offsetMm: number;
  readonly turnDeg: number;
  readonly tiltDeg: number;
}

export const FIRST_CUT: CutSetting = { kind: 'through', offsetMm: 0, turnDeg: 0, tiltDeg: 0 };

/** Middle of the crown over its edge, about which planes turn, mm. */
const MIDDLE_MM = 4.5;

/**
 * The plane of a setting in a tooth's frame: its x and y span the drawing, z is its normal. Front to back it is drawn
 * with the facial side at the left and up at the top; level it is seen from the edge; frontal from in front. A lower
 * tooth's own frame has its z pointing down.
 */
export function planeOf(own: Frame, s: CutSetting, jaw: Jaw = 'upper'): Frame {
  const origin = toParent(own, [0, 0, MIDDLE_MM]);
  const tooth = jaw === 'upper' ? own : { ...own, x: neg(own.x), z: neg(own.z) };
  const upright: Frame =
    s.kind === 'through'
      ? { origin, x: tooth.y, y: tooth.z, z: tooth.x }
      : s.kind === 'level'
        ? { origin, x: tooth.x, y: tooth.y, z: neg(tooth.z) }
        : frameFrom(origin, neg(tooth.y), tooth.x);
  const leant = turn(turn(upright, 'y', s.turnDeg), 'x', s.tiltDeg);
  return { ...leant, origin: toParent(leant, [0, 0, s.offsetMm]) };
}

const neg = (v: Vec3): Vec3 => [-v[0], -v[1], -v[2]];

/** The plane of a setting in the chosen tooth, and everything that it meets. */
export function useCut(
  contour: ContourState,
  plan: ContourPlan,
  tooth: Fdi,
  setting: CutSetting | undefined,
): { readonly asked: Asked<CutView>; readonly at: CutAt | undefined } {
  const client = clientOf(contour);
  const whose = useMemo(() => [tooth] as const, [tooth]);
  const frame = shownOf(useAsked(client, plan, 'frameOf', setting && whose));
  const plane = useMemo(() => setting && frame && planeOf(frame, setting, jawOf(tooth)), [setting, frame, tooth]);
  const input = useMemo(() => plane && ([plane] as const), [plane]);
  const asked = useAsked(client, plan, 'cut', input);
  const view = shownOf(asked);
  const at = useMemo(
    (): CutAt | undefined =>
      plane &&
      view && {
        plane,
        lines: [
          { colour: PALETTE.ink, of: view.existing },
          { colour: PALETTE.plum, of: view.planned },
        ],
      },
    [plane, view],
  );
  return { asked, at };
}
