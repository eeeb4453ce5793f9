import type { PhotoView } from '@radiant/contract';
import type { PhotoOnScan, Px } from '@radiant/core';
import { useCallback, useMemo, useState } from 'react';
import { type BenchMark, type MarkGroup, useBenchMarks } from '../../data/bench-marks.js';
import { useCase } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';

/** The points of a view in their guided order: which is next, and how one goes on from it. */
export function useGuided(
  view: PhotoView,
  group: MarkGroup,
  found: PhotoOnScan | undefined,
  face: ReadonlyMap<string, Px>,
) {
  const { tooth, selectTooth } = useCase();
  const mayWrite = useMayWrite('read');
  const front = view === 'retracted-front';
  const { marks: plain, place, remove, placeAll, placeFromScan } = useBenchMarks(view, group);
  const [skipped, setSkipped] = useState<readonly string[]>([]);
  // Nothing that shows where a point was set before may be seen while it is set again.
  const hinted = found && group !== 'again' ? found : undefined;
  const marks = useMemo(() => {
    if (hinted) return withScan(plain, hinted);
    return group === 'points' && face.size > 0 ? withFace(plain, face) : plain;
  }, [plain, hinted, group, face]);
  const next = nextOf(marks, skipped, front ? tooth : undefined);
  const goOn = useCallback(
    (set: BenchMark) => {
      if (!front) return;
      const rest = marks.filter((m) => m.id !== set.id);
      const following = nextOf(rest, skipped, set.tooth);
      if (following?.tooth ?? set.tooth) selectTooth((following?.tooth ?? set.tooth) as number);
    },
    [front, marks, skipped, selectTooth],
  );
  const takeGuess = () => {
    if (!next?.guess || !mayWrite) return;
    if (next.guessBy === 'scan') placeFromScan?.([{ id: next.id, px: next.guess }]);
    else place(next.id, next.guess[0], next.guess[1]);
    goOn(next);
  };
  const skip = () => next && setSkipped((all) => [...all, next.id]);
  return { marks, place, remove, placeAll, placeFromScan, next, goOn, takeGuess, skip };
}

/** Landmarks that aren't set yet get the scan's place as their suggestion. */
function withScan(marks: readonly BenchMark[], found: PhotoOnScan): readonly BenchMark[] {
  const at = new Map(found.places.map((p) => [`${p.kind}-${p.tooth}`, p.scanPx]));
  return marks.map((m) => {
    const guess = m.at ? undefined : at.get(m.id);
    return guess ? { ...m, guess, guessBy: 'scan' as const } : m;
  });
}

/** Points that aren't set yet get the place where the model of faces sees them. */
const withFace = (marks: readonly BenchMark[], face: ReadonlyMap<string, Px>): readonly BenchMark[] =>
  marks.map((m) => {
    const guess = m.at ? undefined : face.get(m.id);
    return guess ? { ...m, guess, guessBy: 'face' as const } : m;
  });

/** The scan's places of landmarks that nobody has set. */
export function outlinesMissing(
  found: PhotoOnScan | undefined,
  set: readonly { readonly tooth: number; readonly kind: string }[],
) {
  const have = new Set(set.map((m) => `${m.kind}-${m.tooth}`));
  return (found?.places ?? [])
    .map((p) => ({ id: `${p.kind}-${p.tooth}`, px: p.scanPx }))
    .filter((p) => !have.has(p.id));
}

/** The chosen tooth's gaps come first, then the rest in order; what was passed over comes last. */
function nextOf(
  marks: readonly BenchMark[],
  skipped: readonly string[],
  tooth: number | undefined,
): BenchMark | undefined {
  const missing = marks.filter((m) => !m.at);
  const open = missing.filter((m) => !skipped.includes(m.id));
  return (tooth !== undefined ? open.find((m) => m.tooth === tooth) : undefined) ?? open[0];
}
