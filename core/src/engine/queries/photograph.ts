import { type LaidSmile, laidSmile, type PhotoWish } from '../../contour/laid-smile.js';
import { type PhotoOnScan, photoOnScan } from '../../contour/photo-on-scan.js';
import type { Px } from '../../smile/calibration.js';
import type { LandmarkSet } from '../../smile/landmarks.js';
import type { ViewPoints } from '../../smile/views.js';
import type { Fdi } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';

/** The upper plan laid into a photograph. @throws Refusal of `matchCamera` where too little is marked */
export function inPhoto(engine: CaseEngine, wish: PhotoWish): LaidSmile {
  const teeth = engine.teeth('upper');
  const crowns = new Map(teeth.map((t) => [t, engine.crown(t)] as const));
  const zenithUp = new Map(teeth.map((t) => [t, engine.contour[t]?.zenithUpMm ?? 0] as const));
  return laidSmile(engine.arch('upper'), engine.scan('upper').rest, crowns, zenithUp, wish);
}

/** A photograph matched with the upper scan. @throws Refusal of `matchCamera` where too little is marked */
export const onPhoto = (
  engine: CaseEngine,
  landmarks: LandmarkSet,
  points: ViewPoints,
  size: Px,
  fromScan: LandmarkSet,
  row: readonly Fdi[],
): PhotoOnScan => photoOnScan(engine.arch('upper'), landmarks, points, size, fromScan, row);
