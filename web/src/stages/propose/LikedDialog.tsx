import { type FrontSeries, LIKED_BORDERS, likedSeries, type Px, Refusal } from '@radiant/core';
import { Dialog } from 'radix-ui';
import { type PointerEvent, useEffect, useRef, useState } from 'react';
import { number } from '../../ui/format.js';
import { PALETTE } from '../../ui/palette.js';

interface Picture {
  readonly url: string;
  readonly width: number;
  readonly height: number;
}

/**
 * Measures a picture of a smile that the patient likes. The picture stays in this browser; only its proportions are
 * kept.
 */
export function LikedDialog({ onClose, onTake }: { onClose: () => void; onTake: (s: FrontSeries) => void }) {
  const [picture, setPicture] = useState<Picture>();
  const [borders, setBorders] = useState<readonly Px[]>([]);
  const [trouble, setTrouble] = useState<string>();
  const svg = useRef<SVGSVGElement>(null);
  useEffect(
    () => () => {
      if (picture) URL.revokeObjectURL(picture.url);
    },
    [picture],
  );
  const take = async (file: File | undefined) => {
    if (!file) return;
    const url = URL.createObjectURL(file);
    const image = new Image();
    image.src = url;
    try {
      await image.decode();
      setPicture({ url, width: image.naturalWidth, height: image.naturalHeight });
      setBorders([]);
      setTrouble(undefined);
    } catch {
      URL.revokeObjectURL(url);
      setTrouble('This is not a picture that can be read.');
    }
  };
  const place = (e: PointerEvent) => {
    const m = svg.current?.getScreenCTM()?.inverse();
    if (!m || borders.length >= LIKED_BORDERS.length) return;
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(m);
    setBorders([...borders, [p.x, p.y]]);
  };
  const series = measured(borders);
  const px = picture ? picture.width / 900 : 1;
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/40" />
        <Dialog.Content
          className="fixed top-1/2 left-1/2 z-40 w-[760px] -translate-x-1/2 -translate-y-1/2 rounded-xl bg-leaf p-6 shadow-xl"
          aria-describedby={undefined}
        >
          <Dialog.Title className="title mb-3 text-figure">A smile that is liked</Dialog.Title>
          <label className="btn btn-ghost mb-3">
            Choose a picture
            <input
              type="file"
              accept="image/jpeg,image/png,image/webp"
              className="sr-only"
              aria-label="Picture of a smile that is liked"
              onChange={(e) => void take(e.target.files?.[0])}
            />
          </label>
          <span className="ml-3 text-note text-ink-2">
            From the front. It stays in this browser; only its proportions are kept.
          </span>
          {picture && (
            <>
              <svg
                ref={svg}
                viewBox={`0 0 ${picture.width} ${picture.height}`}
                className="max-h-[46vh] w-full cursor-crosshair rounded-lg bg-bench"
                role="img"
                aria-label="The picture: set the borders between the teeth from left to right"
                onPointerDown={place}
              >
                <image href={picture.url} width={picture.width} height={picture.height} />
                {borders.map((p) => (
                  <path
                    key={`${p[0]} ${p[1]}`}
                    d={`M${p[0]} ${p[1] - 26 * px}V${p[1] + 26 * px}`}
                    stroke={PALETTE.plum}
                    strokeWidth={2.4 * px}
                  />
                ))}
              </svg>
              <p className="mt-2 flex items-baseline gap-3 text-body" aria-live="polite">
                {borders.length < LIKED_BORDERS.length ? (
                  <span>
                    {borders.length + 1} of {LIKED_BORDERS.length}:{' '}
                    <b className="font-semibold">{LIKED_BORDERS[borders.length]}</b>
                  </span>
                ) : 'sentence' in series ? (
                  <span className="text-stop">{series.sentence}</span>
                ) : (
                  <span>
                    lateral <b className="font-semibold">{number(series.lateral * 100, 0)} %</b> of the central, canine{' '}
                    <b className="font-semibold">{number(series.canine * 100, 0)} %</b> of the lateral
                  </span>
                )}
                {borders.length > 0 && (
                  <button type="button" className="how ml-auto" onClick={() => setBorders(borders.slice(0, -1))}>
                    take the last one back
                  </button>
                )}
              </p>
            </>
          )}
          {trouble && (
            <p role="alert" className="text-stop">
              {trouble}
            </p>
          )}
          <div className="mt-5 flex justify-end gap-3">
            <Dialog.Close className="btn btn-ghost">Close</Dialog.Close>
            <button
              type="button"
              className="btn"
              disabled={'sentence' in series}
              onClick={() => {
                if ('sentence' in series) return;
                onTake(series);
                onClose();
              }}
            >
              Carry its proportions over
            </button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function measured(borders: readonly Px[]): FrontSeries | { readonly sentence: string } {
  try {
    return likedSeries(borders);
  } catch (error) {
    if (error instanceof Refusal) return { sentence: error.message };
    throw error;
  }
}
