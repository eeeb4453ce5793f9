import { type CaseFile, PHOTO_VIEWS } from '@radiant/contract';
import {
  CARD_LIMITS,
  CARD_REFLECTS,
  type Lab,
  nearestShades,
  type PatchRgb,
  type ReadingOf,
  Refusal,
  roughColour,
  screenColour,
} from '@radiant/core';
import { Dialog } from 'radix-ui';
import { type PointerEvent, useMemo, useRef, useState } from 'react';
import { useCase } from '../../data/case-context.js';
import { photoUrl } from '../../data/photo-url.js';
import { number } from '../../ui/format.js';
import { NumberInput } from '../../ui/NumberInput.js';

type Px = readonly [number, number];
const STEPS = ['card', 'tooth'] as const;
const STEP_WORDS = { card: 'Press on the grey card.', tooth: 'Press on the tooth, away from shine.' } as const;
/** Half the side of the patch that is read, as a share of the picture's width. */
const PATCH = 0.006;

/** A rough colour out of a photograph with a grey card in it: to talk by, never to choose a shade by. */
export function RoughColour({
  what,
  of,
  close,
  take,
}: {
  what: string;
  of: ReadingOf;
  close: () => void;
  take: (lab: Lab) => void;
}) {
  const { detail } = useCase();
  const photos = detail.files.filter((f) => f.kind === 'photo');
  const [photo, setPhoto] = useState<CaseFile | undefined>(photos[0]);
  const [spots, setSpots] = useState<Partial<Record<(typeof STEPS)[number], Px>>>({});
  const [patches, setPatches] = useState<Partial<Record<(typeof STEPS)[number], PatchRgb>>>({});
  const [reflects, setReflects] = useState<number>(CARD_REFLECTS);
  const image = useRef<HTMLImageElement>(null);
  const step = STEPS.find((s) => !spots[s]);
  const press = (e: PointerEvent) => {
    const own = image.current;
    if (!own || !step) return;
    const box = own.getBoundingClientRect();
    const at: Px = [(e.clientX - box.left) / box.width, (e.clientY - box.top) / box.height];
    setSpots({ ...spots, [step]: at });
    setPatches({ ...patches, [step]: patchAt(own, at) });
  };
  const told = useMemo(() => {
    if (!patches.card || !patches.tooth) return undefined;
    try {
      return { lab: roughColour(patches.card, patches.tooth, reflects) };
    } catch (error) {
      if (error instanceof Refusal) return { sentence: error.message };
      throw error;
    }
  }, [patches, reflects]);
  const again = () => {
    setSpots({});
    setPatches({});
  };
  const near = told?.lab && nearestShades(told.lab)[0];
  return (
    <Dialog.Root open onOpenChange={(next) => !next && close()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/40" />
        <Dialog.Content
          className="fixed top-1/2 left-1/2 z-40 flex max-h-[92vh] w-[860px] max-w-[96vw] -translate-x-1/2 -translate-y-1/2 flex-col rounded-xl bg-leaf p-5 shadow-xl"
          aria-describedby={undefined}
        >
          <Dialog.Title className="title mb-2 text-figure">Rough colour of {what}</Dialog.Title>
          {photos.length === 0 ? (
            <p>There is no photograph in this case: take one in at meet, with a grey card beside the teeth.</p>
          ) : (
            <>
              <div className="mb-2 flex flex-wrap items-center gap-3 text-note">
                <select
                  aria-label="Photograph"
                  className="field h-8 px-2"
                  value={photo?.id}
                  onChange={(e) => {
                    setPhoto(photos.find((p) => p.id === e.target.value));
                    again();
                  }}
                >
                  {photos.map((p) => (
                    <option key={p.id} value={p.id}>
                      {p.view ? `${PHOTO_VIEWS[p.view]}, ` : ''}
                      {p.name}
                    </option>
                  ))}
                </select>
                <span className="flex items-center gap-1.5">
                  the card turns back
                  <NumberInput
                    label="What the card turns back, %"
                    className="field h-8 w-16 px-2 text-right"
                    value={Math.round(100 * reflects)}
                    min={100 * CARD_LIMITS.min}
                    max={100 * CARD_LIMITS.max}
                    step={1}
                    digits={0}
                    onChange={(v) => v !== null && setReflects(v / 100)}
                  />
                  % of the light
                </span>
                <b className="font-semibold">{step ? STEP_WORDS[step] : ''}</b>
                {Object.keys(spots).length > 0 && (
                  <button type="button" className="how" onClick={again}>
                    begin again
                  </button>
                )}
              </div>
              <div className="relative mx-auto min-h-0 bg-bench">
                {photo && (
                  <img
                    ref={image}
                    src={photoUrl(detail.id, photo, 'preview')}
                    alt={photo.name}
                    className={`max-h-[60vh] max-w-full ${step ? 'cursor-crosshair' : ''}`}
                    draggable={false}
                    onPointerDown={press}
                  />
                )}
                {STEPS.map((s) => {
                  const at = spots[s];
                  return (
                    at && (
                      <span
                        key={s}
                        className="pointer-events-none absolute h-4 w-4 -translate-x-1/2 -translate-y-1/2 rounded-full border-2 border-white shadow-[0_0_0_1px_#000]"
                        style={{ left: `${100 * at[0]}%`, top: `${100 * at[1]}%` }}
                        title={s}
                      />
                    )
                  );
                })}
              </div>
            </>
          )}
          {told?.sentence && (
            <p role="alert" className="finding mt-3 text-note" data-weight="stop">
              {told.sentence}
            </p>
          )}
          {told?.lab && near && (
            <p className="mt-3 flex items-center gap-3 text-note" data-testid="rough-colour">
              <span
                className="h-8 w-8 rounded border border-hair"
                style={{ background: screenColour(told.lab) }}
                aria-hidden="true"
              />
              about L* {number(told.lab.L, 0)}, a* {number(told.lab.a, 0)}, b* {number(told.lab.b, 0)}; near{' '}
              {near.shade.name}
            </p>
          )}
          <p className="mt-2 text-tiny text-ink-2">
            Rough, ±4 and more in each: a camera is no shade meter, and nothing of it is known but the card. It is kept
            as rough and widens every prediction; choose no shade by it.
          </p>
          <div className="mt-3 flex justify-end gap-2">
            <Dialog.Close className="btn btn-ghost">Leave it</Dialog.Close>
            <button type="button" className="btn" disabled={!told?.lab} onClick={() => told?.lab && take(told.lab)}>
              Keep as rough {of === 'stump' ? 'stump' : 'reading'}
            </button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** The mean colour of a patch of a picture. @param at as shares of width and height */
function patchAt(image: HTMLImageElement, [x, y]: Px): PatchRgb {
  const half = Math.max(1, Math.round(PATCH * image.naturalWidth));
  const side = 2 * half + 1;
  const canvas = document.createElement('canvas');
  canvas.width = side;
  canvas.height = side;
  const context = canvas.getContext('2d') as CanvasRenderingContext2D;
  context.drawImage(
    image,
    Math.round(x * image.naturalWidth) - half,
    Math.round(y * image.naturalHeight) - half,
    side,
    side,
    0,
    0,
    side,
    side,
  );
  const { data } = context.getImageData(0, 0, side, side);
  const sum = [0, 0, 0];
  let n = 0;
  for (let i = 0; i < data.length; i += 4) {
    if (data[i + 3] === 0) continue;
    for (let c = 0; c < 3; c++) sum[c] = (sum[c] as number) + (data[i + c] as number);
    n++;
  }
  return sum.map((v) => v / Math.max(1, n)) as unknown as PatchRgb;
}
