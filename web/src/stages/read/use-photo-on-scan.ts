import { landmarkSet, viewPoints } from '@radiant/contract';
import { frontRow, type PhotoOnScan, type Px } from '@radiant/core';
import { useMemo } from 'react';
import { useBenchReading } from '../../data/bench-reading.js';
import { useReading } from '../../data/reading.js';
import { shownOf, useAsked } from '../../engine/use-asked.js';
import { clientOf, useContour } from '../../engine/use-contour.js';

/** How the retracted front photograph and the scan belong together. */
export type PhotoScan =
  | { readonly state: 'none' }
  | { readonly state: 'waiting' }
  | { readonly state: 'apart'; readonly sentence: string }
  /** `isNewest` unless marks were set since. */
  | { readonly state: 'matched'; readonly found: PhotoOnScan; readonly isNewest: boolean };

/** Matches the retracted front photograph with the scan, again with every landmark that a hand sets. */
export function usePhotoOnScan(wanted: boolean): PhotoScan {
  const contour = useContour();
  const { photo, points, landmarks: marks } = useBenchReading('retracted-front');
  const { roles } = useReading();
  // What came from the scan would only confirm it.
  const landmarks = useMemo(() => landmarkSet(marks.filter((m) => m.from !== 'scan')), [marks]);
  const fromScan = useMemo(() => landmarkSet(marks.filter((m) => m.from === 'scan')), [marks]);
  const placed = useMemo(() => viewPoints(points), [points]);
  const size = useMemo(
    (): Px | undefined => (photo?.width && photo.height ? [photo.width, photo.height] : undefined),
    [photo?.width, photo?.height],
  );
  const input = useMemo(
    () => (wanted && size ? ([landmarks, placed, size, fromScan, frontRow(roles)] as const) : undefined),
    [wanted, size, landmarks, placed, fromScan, roles],
  );
  const asked = useAsked(clientOf(contour), undefined, 'onPhoto', input);
  return useMemo((): PhotoScan => {
    if (asked.state === 'idle') return { state: input && contour.state === 'loading' ? 'waiting' : 'none' };
    if (asked.state === 'failed') return { state: 'apart', sentence: asked.sentence };
    const found = shownOf(asked);
    return found ? { state: 'matched', found, isNewest: asked.state === 'ready' } : { state: 'none' };
  }, [asked, input, contour.state]);
}
