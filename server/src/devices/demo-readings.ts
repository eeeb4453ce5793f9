import type { CalibrationInput, LandmarkInput, PhotoView, ViewReadingInput } from '@radiant/contract';
import { LANDMARK_KINDS, pointSpec, SCANNED_SIZE_PM_MM, toothWidth, type Vec3 } from '@radiant/core';
import {
  type CameraSetting,
  frontRowOf,
  handHeld,
  inMouth,
  outlineIn,
  type Patient,
  type PatientTooth,
  project,
  RETRACTED_FRONT,
  random,
  scalePoints,
  truePoints,
  trueViewPoints,
  VIEWS,
} from '@radiant/standins';

const round = (v: number) => Math.round(v * 10) / 10;

/**
 * Landmarks of the front teeth as a careful hand sets them: the true places, off by a pixel or so.
 */
function frontLandmarks(patient: Patient): LandmarkInput[] {
  const hand = random(5);
  return frontRowOf(patient).flatMap((tooth) => {
    const own = patient.teeth.find((t) => t.tooth === tooth);
    if (!own) return [];
    const points = truePoints(own);
    return LANDMARK_KINDS.map((kind) => {
      const [x, y] = project(RETRACTED_FRONT, points[kind]);
      return { tooth, kind, x: round(x + hand.normal(0.8)), y: round(y + hand.normal(0.8)) };
    });
  });
}

/** The scale reference of the retracted front view. */
function frontScale(): CalibrationInput {
  const { from, to, mm } = scalePoints(RETRACTED_FRONT);
  return { from: { x: round(from[0]), y: round(from[1]) }, to: { x: round(to[0]), y: round(to[1]) }, mm };
}

/**
 * What a careful hand has set on a view: its points, and its scale by a tooth's width from the scan or by the pupils.
 */
export function viewReading(patient: Patient, view: PhotoView, photoId: string): ViewReadingInput | undefined {
  const { camera, expression } = handHeld(patient.recipe, view);
  const truth = trueViewPoints(patient, view, expression);
  const hand = random(17 + Object.keys(VIEWS).indexOf(view));
  const pxPerMm = camera.widthPx / camera.fieldMm;
  const at = (p: Vec3, sdMm: number) => {
    const [x, y] = project(camera, p);
    return { x: round(x + hand.normal(sdMm * pxPerMm * 0.7)), y: round(y + hand.normal(sdMm * pxPerMm * 0.7)) };
  };
  const within = (p: { x: number; y: number }) =>
    p.x >= 0 && p.y >= 0 && p.x <= camera.widthPx && p.y <= camera.heightPx;
  const points = Object.entries(truth)
    .map(([id, p]) => ({ id, ...at(p, pointSpec(view, id)?.sdMm ?? 0.1) }))
    .filter(within);
  if (points.length === 0) return undefined;
  const front = view === 'retracted-front';
  const calibration = front ? frontScale() : scaleOn(patient, view, at);
  return {
    view,
    photoId,
    points,
    drawn: [],
    ...(calibration && { calibration }),
    ...(front && { landmarks: frontLandmarks(patient) }),
    ...(view === 'close-smile' && { lastRight: 15, lastLeft: 25 }),
  };
}

function scaleOn(
  patient: Patient,
  view: PhotoView,
  at: (p: Vec3, sdMm: number) => { x: number; y: number },
): CalibrationInput | undefined {
  if (view.startsWith('portrait')) {
    const truth = trueViewPoints(patient, view, VIEWS[view].expression);
    const [r, l] = [truth['pupil-right'], truth['pupil-left']];
    return (
      r && l && { way: 'pupils', origin: 'typed', mm: patient.face.pupilsMm, pmMm: 1, from: at(r, 0.3), to: at(l, 0.3) }
    );
  }
  const tooth = view === 'retracted-right' ? 14 : view === 'retracted-left' ? 24 : view === 'lower-occlusal' ? 31 : 21;
  const own = [...patient.teeth, ...patient.lower].find((t) => t.tooth === tooth);
  if (!own) return undefined;
  const { widthMm } = own.crown.size;
  const { mm, pmMm } = toothWidth(tooth, widthMm, SCANNED_SIZE_PM_MM, view);
  const [from, to] = bordersIn(own, view, handHeld(patient.recipe, view).camera);
  return {
    way: 'tooth',
    tooth,
    origin: 'scan',
    mm: Math.round(mm * 100) / 100,
    pmMm: Math.round(pmMm * 100) / 100,
    from: at(from, 0.05),
    to: at(to, 0.05),
  };
}

/** Both ends of a tooth's width as a view shows it: from below along the tooth, else from border to border. */
function bordersIn(tooth: PatientTooth, view: PhotoView, camera: CameraSetting): readonly [Vec3, Vec3] {
  const { widthMm } = tooth.crown.size;
  if (view.endsWith('occlusal')) return [inMouth(tooth, [-widthMm / 2, 0, 1.5]), inMouth(tooth, [widthMm / 2, 0, 1.5])];
  if (view.startsWith('retracted')) return outlineIn(tooth, camera);
  const { mesial, distal } = truePoints(tooth);
  return [mesial, distal];
}
