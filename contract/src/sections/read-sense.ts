import { requireLandmarks, scaleOf } from '@radiant/core';
import { PHOTO_VIEWS } from '../base/records.js';
import type { FieldError } from '../base/validation.js';
import { landmarkSet } from './core-forms.js';
import type { KnownFile } from './define.js';
import type { CalibrationInput } from './places.js';
import type { ReadSection, ViewReadingInput } from './read.js';

interface Size {
  readonly width: number;
  readonly height: number;
}
type Place = { readonly x: number; readonly y: number };

/** Landmarks, scales and points against the photographs that they stand on. @throws Refusal of core */
export function readSense(data: ReadSection, files: ReadonlyMap<string, KnownFile>): readonly FieldError[] {
  const size = (id: string | null | undefined): Size | undefined => {
    const own = id ? files.get(id) : undefined;
    return own?.kind === 'photo' ? { width: own.width ?? 0, height: own.height ?? 0 } : undefined;
  };
  return [
    ...data.views.flatMap((v) => viewSense(v, size(v.photoId))),
    ...data.aligned.flatMap((a) =>
      size(a.photoId)
        ? []
        : [{ field: 'aligned', message: 'A photograph that is aligned does not belong to this case.' }],
    ),
  ];
}

const outside = (p: Place, { width, height }: Size): boolean => p.x < 0 || p.y < 0 || p.x > width || p.y > height;

/** A length of no length, or between points that fall together, is refused by core. */
const requireScale = ({ from, to, mm }: CalibrationInput) => scaleOf({ from: [from.x, from.y], to: [to.x, to.y], mm });

function viewSense(v: ViewReadingInput, photo: Size | undefined): FieldError[] {
  const field = `views.${v.view}`;
  const lengths = [v.calibration, v.check].filter((c) => !!c);
  const landmarks = v.landmarks ?? [];
  const places: Place[] = [...v.points, ...v.drawn.flatMap((m) => m.points), ...lengths.flatMap((c) => [c.from, c.to])];
  if (landmarks.length > 0 && v.view !== 'retracted-front')
    return [{ field, message: 'Outlines of teeth are marked on the retracted front view.' }];
  if (!v.photoId)
    return places.length + landmarks.length > 0
      ? [{ field, message: 'Points, landmarks and scale of a view need a photograph to stand on.' }]
      : [];
  if (!photo) return [{ field, message: 'The photograph of a view does not belong to this case.' }];
  requireLandmarks(landmarkSet(landmarks), photo.width, photo.height);
  const again = landmarks.flatMap((m) => (m.again ? [{ ...m, x: m.again.x, y: m.again.y }] : []));
  requireLandmarks(landmarkSet(again), photo.width, photo.height);
  for (const c of lengths) requireScale(c);
  return places.some((p) => outside(p, photo))
    ? [{ field, message: `A point of the view “${PHOTO_VIEWS[v.view]}” lies outside the picture.` }]
    : [];
}
