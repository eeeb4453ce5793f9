import type { CalibrationInput } from '@radiant/contract';
import type { CameraStood, PhotoOnScan, Px } from '@radiant/core';
import { number } from '../../ui/format.js';

/** The scale with how the camera stood, or with the wish that it be left in the measures. */
export function withCamera(
  { camera: _, cameraLeftIn: __, ...rest }: CalibrationInput,
  camera: CameraStood | undefined,
): CalibrationInput {
  return camera ? { ...rest, camera } : { ...rest, cameraLeftIn: true };
}

/** What is kept is set anew once the scan tells it by so much of its own ± otherwise. House value. */
const MOVED = 0.5;
/** Twice what is rounded away when it is kept, degrees. */
const LEAST_DEG = 0.01;

/** Whether the scan now tells how the camera stood and the scale does not have it, or has it otherwise. */
export function cameraIsOld(c: CalibrationInput, stood: CameraStood): boolean {
  if (c.cameraLeftIn) return false;
  if (!c.camera) return true;
  const { camera } = c;
  // A scale from before depths were kept with it.
  if (stood.behind && !camera.behind) return true;
  return (['yaw', 'pitch', 'roll'] as const).some(
    (turn) => Math.abs(camera[`${turn}Deg`] - stood[`${turn}Deg`]) > Math.max(LEAST_DEG, MOVED * stood[`${turn}PmDeg`]),
  );
}

/** How the camera stood, as it is kept: no finer than it is known. */
export function cameraBy(s: CameraStood): CameraStood {
  const round = (v: number) => Math.round(100 * v) / 100;
  return {
    yawDeg: round(s.yawDeg),
    yawPmDeg: round(s.yawPmDeg),
    pitchDeg: round(s.pitchDeg),
    pitchPmDeg: round(s.pitchPmDeg),
    rollDeg: round(s.rollDeg),
    rollPmDeg: round(s.rollPmDeg),
    distanceMm: Math.round(s.distanceMm),
    distancePm: round(s.distancePm),
    ...(s.archPerMm !== undefined && { archPerMm: Math.round(1e4 * s.archPerMm) / 1e4 }),
    ...(s.behind && {
      behind: s.behind.map(({ tooth, zenith, edge, mesial, distal }) => ({
        tooth,
        zenith: round(zenith),
        edge: round(edge),
        mesial: round(mesial),
        distal: round(distal),
      })),
    }),
  };
}

/** By the scan it is known how the camera stood: what it does to levels and widths is taken out then. */
export function CameraByScan({
  kept,
  stood,
  take,
  disabled,
}: {
  kept: CameraStood | undefined;
  stood: CameraStood;
  take: (camera: CameraStood | undefined) => void;
  disabled: boolean;
}) {
  const shown = kept ?? stood;
  const turn = (deg: number, pm: number, one: string, other: string) =>
    `${number(Math.abs(deg), 1)} ±${number(pm, 1)}° ${deg >= 0 ? one : other}`;
  return (
    <p className="mt-1 text-note text-ink-2" data-testid="camera-by-scan">
      By the scan the camera stood{' '}
      {turn(shown.yawDeg, shown.yawPmDeg, 'to the patient’s left', 'to the patient’s right')},{' '}
      {turn(shown.pitchDeg, shown.pitchPmDeg, 'high', 'low')}:{' '}
      {kept ? 'taken out of the measures.' : 'left in the measures.'}{' '}
      <button
        type="button"
        className="how"
        disabled={disabled}
        onClick={() => take(kept ? undefined : cameraBy(stood))}
      >
        {kept ? 'leave it in' : 'take it out'}
      </button>
    </p>
  );
}

/** The scale that a matched scan gives, and how the camera stood. */
export function lengthByScan(
  { from, to, mm, pmMm }: NonNullable<PhotoOnScan['length']>,
  stood?: CameraStood,
): CalibrationInput {
  const round = (v: number) => Math.round(v * 1000) / 1000;
  const point = ([x, y]: Px) => ({ x: round(x), y: round(y) });
  return {
    from: point(from),
    to: point(to),
    mm: Math.round(100 * mm) / 100,
    way: 'scan',
    pmMm: Math.max(0.01, Math.round(100 * pmMm) / 100),
    origin: 'scan',
    ...(stood && { camera: cameraBy(stood) }),
  };
}
