import { type PhotoOnScan, type Px, photoPoint, type Vec3 } from '@radiant/core';
import { X } from 'lucide-react';
import { lazy, Suspense, useCallback, useMemo } from 'react';
import type { Pin } from '../../bench/MarkedScene.js';
import type { BenchMark } from '../../data/bench-marks.js';
import { useLatest } from '../../data/use-latest.js';
import { useContour } from '../../engine/use-contour.js';
import type { PhotoScan } from './use-photo-on-scan.js';

const MarkedScene = lazy(async () => ({ default: (await import('../../bench/MarkedScene.js')).MarkedScene }));

/**
 * The scan beside the photograph: what is marked on the one shows on the other, and the next landmark can be set on
 * either.
 */
export function ScanInset({
  match,
  next,
  tooth,
  mayWrite,
  onPlace,
  onClose,
}: {
  match: PhotoScan;
  next: BenchMark | undefined;
  tooth: number | undefined;
  mayWrite: boolean;
  onPlace: (id: string, px: Px) => void;
  onClose: () => void;
}) {
  const contour = useContour();
  const found = match.state === 'matched' ? match.found : undefined;
  const pins = useMemo(() => (found ? pinsOf(found, tooth) : []), [found, tooth]);
  const acts = useLatest({
    click: (at: Vec3) => {
      if (found && next && mayWrite) onPlace(next.id, photoPoint(found.camera, at));
    },
  });
  const click = useCallback((at: Vec3) => acts.current.click(at), [acts]);
  return (
    <section
      aria-label="The scan beside the photograph"
      className="absolute right-4 bottom-3 h-[264px] w-[430px] overflow-hidden rounded-xl bg-bench-2 shadow-lg"
    >
      {contour.state === 'ready' ? (
        <Suspense fallback={null}>
          <MarkedScene
            label="The scan beside the photograph"
            jaw="upper"
            arch={contour.arch}
            pins={pins}
            onClick={click}
          />
        </Suspense>
      ) : (
        <p className="p-4 text-note text-white">
          {contour.state === 'no-scan' ? 'There is no scan of the upper jaw yet.' : 'The scan is being read …'}
        </p>
      )}
      <p role="status" className="absolute inset-x-0 bottom-0 bg-ink/75 px-3 py-1.5 text-fine text-white">
        {match.state === 'apart'
          ? match.sentence
          : !found
            ? 'Scan and photograph are not matched yet.'
            : next && mayWrite
              ? `Click ${next.name} here or on the photograph`
              : 'Marks of the photograph in plum, the scan’s own places in lilac'}
      </p>
      <button
        type="button"
        aria-label="Close the scan"
        className="absolute top-1.5 right-1.5 flex size-7 items-center justify-center rounded-full bg-ink/60 text-white"
        onClick={onClose}
      >
        <X size={15} aria-hidden="true" />
      </button>
    </section>
  );
}

/** What a hand marked where it lies on the scan, and the scan's own places where nothing is marked. */
function pinsOf(found: PhotoOnScan, tooth: number | undefined): Pin[] {
  return found.places.map((p): Pin => {
    const id = `${p.kind}-${p.tooth}`;
    return { id, at: p.markAt ?? p.scanAt, look: !p.markAt ? 'scan' : p.tooth === tooth ? 'chosen' : 'marked' };
  });
}
