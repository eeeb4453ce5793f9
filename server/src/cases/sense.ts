import { landmarkSet, PHOTO_VIEWS, type ReadSection } from '@radiant/contract';
import { requireLandmarks, scaleOf } from '@radiant/core';
import { invalid } from '../common/problem.filter.js';

/** Landmarks and scale against the photograph that they stand on. @throws Refusal, ProblemException 422 */
export function checkReadAgainst(data: ReadSection, photo: { width: number; height: number } | undefined): void {
  const drawn = data.drawn ?? [];
  if (!photo && (data.landmarks.length > 0 || data.calibration || drawn.length > 0))
    throw invalid([{ field: 'photoId', message: 'Landmarks, scale and drawn measures need a photograph to stand on.' }]);
  if (!photo) return;
  requireLandmarks(landmarkSet(data.landmarks), photo.width, photo.height);
  for (const m of drawn)
    if (m.points.some((p) => p.x < 0 || p.y < 0 || p.x > photo.width || p.y > photo.height))
      throw invalid([{ field: 'drawn', message: `A point of “${m.name}” lies outside the picture.` }]);
  if (data.calibration) {
    const { from, to, mm } = data.calibration;
    scaleOf({ from: [from.x, from.y], to: [to.x, to.y], mm });
    for (const p of [from, to]) {
      if (p.x < 0 || p.y < 0 || p.x > photo.width || p.y > photo.height)
        throw invalid([{ field: 'calibration', message: 'A point of the scale lies outside the picture.' }]);
    }
  }
}

/** The points of every view against the photograph that they stand on. @throws Refusal, ProblemException 422 */
export function checkViewsAgainst(data: ReadSection, photos: ReadonlyMap<string, { width: number; height: number }>): void {
  for (const v of data.views ?? []) {
    const field = `views.${v.view}`;
    const lengths = [v.calibration, v.check].filter((c) => !!c);
    const places: { x: number; y: number }[] = [...v.points, ...v.drawn.flatMap((m) => m.points), ...lengths.flatMap((c) => [c.from, c.to])];
    if (!v.photoId) {
      if (places.length > 0) throw invalid([{ field, message: 'Points and scale of a view need a photograph to stand on.' }]);
      continue;
    }
    const photo = photos.get(v.photoId);
    if (!photo) throw invalid([{ field, message: 'The photograph of a view does not belong to this case.' }]);
    for (const c of lengths) scaleOf({ from: [c.from.x, c.from.y], to: [c.to.x, c.to.y], mm: c.mm });
    if (places.some((p) => p.x < 0 || p.y < 0 || p.x > photo.width || p.y > photo.height)) {
      throw invalid([{ field, message: `A point of the view “${PHOTO_VIEWS[v.view]}” lies outside the picture.` }]);
    }
  }
  for (const a of data.aligned ?? []) {
    if (!photos.has(a.photoId)) throw invalid([{ field: 'aligned', message: 'A photograph that is aligned does not belong to this case.' }]);
  }
}
