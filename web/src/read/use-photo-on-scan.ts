import { landmarkSet, viewPoints } from '@radiant/contract';
import type { PhotoOnScan, Px } from '@radiant/core';
import { useEffect, useMemo, useRef, useState } from 'react';
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
  const size = useMemo((): Px | undefined => (photo?.width && photo.height ? [photo.width, photo.height] : undefined), [photo?.width, photo?.height]);
  /** What is to be matched next; while one is under way only the newest waits. */
  const wish = useRef<(() => Promise<void>) | undefined>(undefined);
  const busy = useRef(false);
  const here = useRef(true);
  useEffect(() => {
    here.current = true;
    return () => {
      here.current = false;
    };
  }, []);
  useEffect(() => {
    wish.current = undefined;
    if (!wanted || !service || !size) return setMatch({ state: contour.state === 'loading' ? 'waiting' : 'none' });
    wish.current = async () => {
      const answer = await service.onPhoto(landmarks, placed, size, fromScan).catch(() => undefined);
      if (!here.current) return;
      setMatch(!answer ? { state: 'none' } : 'sentence' in answer ? { state: 'apart', sentence: answer.sentence } : { state: 'matched', found: answer });
    };
    if (busy.current) return;
    busy.current = true;
    void (async () => {
      for (let next = wish.current; next; next = wish.current) {
        wish.current = undefined;
        await next();
      }
      busy.current = false;
    })();
  }, [wanted, service, contour.state, size, landmarks, fromScan, placed]);
  return match;
}
