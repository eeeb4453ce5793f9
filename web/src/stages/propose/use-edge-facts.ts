import { lengthWish, viewPoints } from '@radiant/contract';
import { displayAtRest, type EdgeCurve, type EdgeFacts, levelMouth, roomToLowerLip } from '@radiant/core';
import { useMemo } from 'react';
import { useBenchReading } from '../../data/bench-reading.js';
import { useSection } from '../../data/case-context.js';
import { useReading } from '../../data/reading.js';

/** What the record and the photographs tell of where the upper edge could stand. */
export function useEdgeFacts(): EdgeFacts {
  const meet = useSection('meet').data;
  const { teeth } = useSection('shape').data;
  const { figures } = useReading();
  const smile = useBenchReading('close-smile');
  return useMemo(() => {
    const shown = [11, 21].flatMap(
      (t) => figures['close-rest']?.find((f) => f.id === `display-${t}`)?.figure.value ?? [],
    );
    const lipMm = figures['close-rest']?.find((f) => f.id === 'lip-length')?.figure.value;
    const mouth = levelMouth(viewPoints(smile.points));
    const roomPx = mouth && roomToLowerLip(mouth);
    const overbiteMm = figures['retracted-front']?.find((f) => f.id === 'overbite')?.figure.value;
    const overjetMm = figures['retracted-right']?.find((f) => f.id === 'overjet')?.figure.value;
    // Of the centrals, whose edges the lip meets: thicker on either side.
    const thickerMm = Math.max(
      0,
      ...teeth
        .filter((t) => t.tooth === 11 || t.tooth === 21)
        .map((t) => (t.edgeThicknessMm ?? 0) + (t.edgeVolumeMm ?? 0)),
    );
    const curve = figures['close-smile']?.find((f) => f.id === 'edge-curve')?.word;
    return {
      norms: displayAtRest({
        ageYears: meet.ageYears ?? null,
        sex: meet.sexAtBirth ?? null,
        ...(lipMm !== undefined && { lipMm }),
      }),
      ...(shown.length > 0 && { restMm: Math.max(...shown) }),
      ...(roomPx !== undefined && smile.scale && { roomMm: roomPx * smile.scale.value }),
      ...(overbiteMm !== undefined && { overbiteMm }),
      ...(overjetMm !== undefined && { overjetMm }),
      ...(thickerMm > 0 && { thickerMm }),
      wish: lengthWish(meet),
      ...((curve === 'parallel' || curve === 'straight' || curve === 'reverse') && { curve: curve as EdgeCurve }),
    };
  }, [figures, meet, smile.points, smile.scale, teeth]);
}
