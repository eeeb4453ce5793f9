import type { ViewId } from '@radiant/core';
import { RETRACTED, RETRACTED_FRONT } from './camera.js';
import type { PatientRecipe } from './patient.js';
import type { CameraSetting } from './pose.js';
import { random } from './random.js';
import type { Expression } from './scene.js';

/** The ten views that a practice takes, as the simulated camera takes them. */
export type ViewName = ViewId;

export interface ViewSetup {
  readonly camera: CameraSetting;
  readonly expression: Expression;
}

const FACE: Expression = { retracted: false, smile: 0, openMm: 2.5, jaws: 'both', head: true };
const PORTRAIT: CameraSetting = {
  widthPx: 900,
  heightPx: 1200,
  distanceMm: 1500,
  fieldMm: 212,
  centreX: 0,
  centreY: 0,
  centreZ: 42,
};
const LIPS: Expression = { ...FACE, head: false };
const CLOSE: CameraSetting = { widthPx: 1200, heightPx: 800, distanceMm: 420, fieldMm: 78, centreZ: 3.5 };
const SIDE: CameraSetting = {
  widthPx: 1200,
  heightPx: 800,
  distanceMm: 420,
  fieldMm: 56,
  centreX: 0,
  centreY: 8,
  centreZ: 1.2,
};
const OCCLUSAL: CameraSetting = {
  widthPx: 1200,
  heightPx: 800,
  distanceMm: 420,
  fieldMm: 66,
  centreX: 0,
  centreY: 7,
  centreZ: 0,
};

export const VIEWS: Readonly<Record<ViewName, ViewSetup>> = {
  'portrait-rest': { camera: PORTRAIT, expression: FACE },
  'portrait-smile': { camera: PORTRAIT, expression: { ...FACE, smile: 1, openMm: 0.8 } },
  'close-rest': { camera: CLOSE, expression: LIPS },
  'close-smile': { camera: CLOSE, expression: { ...LIPS, smile: 1, openMm: 0.8 } },
  'retracted-front': { camera: RETRACTED_FRONT, expression: RETRACTED },
  'retracted-right': { camera: { ...SIDE, yawDeg: -82 }, expression: RETRACTED },
  'retracted-left': { camera: { ...SIDE, yawDeg: 82 }, expression: RETRACTED },
  'upper-occlusal': { camera: { ...OCCLUSAL, pitchDeg: -90 }, expression: { ...RETRACTED, jaws: 'upper' } },
  'lower-occlusal': { camera: { ...OCCLUSAL, centreY: 9, pitchDeg: 90 }, expression: { ...RETRACTED, jaws: 'lower' } },
  // Taken over the head of the reclined patient, along the forehead: the chin is at the top of the picture.
  'twelve-oclock': {
    camera: { ...CLOSE, centreY: 0, centreZ: 2, pitchDeg: 37, rollDeg: 180 },
    expression: { ...LIPS, smile: 1, openMm: 0.8 },
  },
};

/**
 * The view as a hand holds the camera for a patient: rolled a little, turned a little, through a lens that bends a
 * little. The retracted front view is taken from a stand and straight. The same each time for the same patient and
 * view.
 */
export function handHeld(recipe: PatientRecipe, view: ViewName): ViewSetup {
  const setup = VIEWS[view];
  if (view === 'retracted-front') return setup;
  const r = random(recipe.seed * 31 + Object.keys(VIEWS).indexOf(view));
  const { rollDeg = 0, pitchDeg = 0 } = setup.camera;
  const camera = {
    ...setup.camera,
    rollDeg: rollDeg + r.normal(1.1),
    pitchDeg: pitchDeg + r.normal(0.5),
    distortion: -0.006,
    exposure: 1 + r.normal(0.04),
  };
  return { ...setup, camera };
}
