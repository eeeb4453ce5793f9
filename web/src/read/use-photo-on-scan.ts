import { landmarkSet, viewPoints } from '@radiant/contract';
import type { PhotoOnScan } from '@radiant/core';
import { useEffect, useMemo, useState } from 'react';
import { useBenchReading } from '../data/bench-reading.js';
import { useSection } from '../data/case-context.js';
import { useContour } from '../workers/use-contour.js';

/** How the retracted front photograph and the scan belong together. */
export type PhotoScan =
  | { readonly state: 'none' }
  | { readonly state: 'waiting' }
  | { readonly state: 'apart'; readonly sentence: string }
  | { readonly state: 'matched'; readonly found: PhotoOnScan };

/** Matches the retracted front photograph with the scan, again with every landmark that a hand sets. */
export function usePhotoOnScan(wanted: boolean): PhotoScan {
  const contour = useContour();
  const { data } = useSection('read');
  const { photo, points } = useBenchReading('retracted-front');
  const [match, setMatch] = useState<PhotoScan>({ state: 'none' });
  const service = contour.state === 'ready' ? contour.service : undefined;
  // What came from the scan would only confirm it.
  const landmarks = useMemo(() => landmarkSet(data.landmarks.filter((m) => m.from !== 'scan')), [data.landmarks]);
  const fromScan = useMemo(() => landmarkSet(data.landmarks.filter((m) => m.from === 'scan')), [data.landmarks]);
  const placed = useMemo(() => viewPoints(points), [points]);
  useEffect(() => {
    if (!wanted || !service || !photo?.width || !photo.height) return setMatch({ state: contour.state === 'loading' ? 'waiting' : 'none' });
    let gone = false;
    service.onPhoto(landmarks, placed, [photo.width, photo.height], fromScan).then(
      (answer) => !gone && setMatch('sentence' in answer ? { state: 'apart', sentence: answer.sentence } : { state: 'matched', found: answer }),
      () => !gone && setMatch({ state: 'none' }),
    );
    return () => {
      gone = true;
    };
  }, [wanted, service, contour.state, photo, landmarks, fromScan, placed]);
  return match;
}
