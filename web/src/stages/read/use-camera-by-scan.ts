import { useEffect, useRef } from 'react';
import type { useBenchReading } from '../../data/bench-reading.js';
import { cameraBy, cameraIsOld, withCamera } from './CameraByScan.js';
import type { PhotoScan } from './use-photo-on-scan.js';

/**
 * Where photograph and scan are matched, how the camera stood is taken out of the measures together with the marks
 * that tell it. Opening a case changes nothing, nor does any other edit; who wants it left in is asked no more.
 */
export function useCameraByScan(match: PhotoScan, reading: ReturnType<typeof useBenchReading>): void {
  const { calibration, landmarks, amend } = reading;
  const marks = JSON.stringify(landmarks);
  const opened = useRef(marks);
  useEffect(() => {
    if (match.state !== 'matched' || !match.isNewest || !calibration || !amend || marks === opened.current) return;
    const { stood } = match.found;
    if (cameraIsOld(calibration, stood)) amend({ calibration: withCamera(calibration, cameraBy(stood)) });
  }, [match, calibration, amend, marks]);
}
