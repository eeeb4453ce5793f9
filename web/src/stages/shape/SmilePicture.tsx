import { type CaseFile, landmarkSet, PHOTO_VIEWS, viewPoints } from '@radiant/contract';
import { type ContourPlan, type Fdi, isUpper, type LaidSmile, LIP_KNOTS, type Px } from '@radiant/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { type LipLines, laySmile } from '../../bench/lay-smile.js';
import { type Rgb, tintOf } from '../../bench/smile-colour.js';
import { useBenchReading } from '../../data/bench-reading.js';
import { useCase } from '../../data/case-context.js';
import { photoUrl } from '../../data/photo-url.js';
import { type Asked, shownOf, useAsked } from '../../engine/use-asked.js';
import { type ContourState, clientOf } from '../../engine/use-contour.js';
import { useSmileColours } from '../../engine/use-smile-colours.js';
import { Empty } from '../../ui/StageLayout.js';

const VIEWS = ['close-smile', 'retracted-front'] as const;
type SmileView = (typeof VIEWS)[number];

/** More than this off the marks and the picture says so, px of a picture 1200 px wide. */
const LOOSE_PX = 4;

/** The planned smile laid into the patient's own photograph: a picture to talk over, not a promise. */
export function SmilePicture({ contour, plan }: { contour: ContourState; plan: ContourPlan }) {
  const [view, setView] = useState<SmileView>('close-smile');
  const [wipe, setWipe] = useState(0.5);
  const { detail } = useCase();
  const reading = useBenchReading(view);
  const { photo } = reading;

  const points = useMemo(() => viewPoints(reading.points), [reading.points]);
  const landmarks = useMemo(() => landmarkSet(reading.landmarks), [reading.landmarks]);
  const { calibration } = reading;
  const width = useMemo(() => {
    if (calibration?.way !== 'tooth' || !calibration.tooth) return undefined;
    const { from, to, tooth } = calibration;
    return {
      tooth,
      ends: [
        [from.x, from.y],
        [to.x, to.y],
      ] as const,
    };
  }, [calibration]);
  const lips = useMemo((): LipLines | undefined | 'missing' => {
    if (view === 'retracted-front') return undefined;
    const of = (id: string): Px | undefined => points[id];
    const knots = (which: string) =>
      Array.from({ length: LIP_KNOTS }, (_, i) => of(`${which}-lip-${i + 1}`)).filter((p) => p !== undefined);
    const [a, b] = [of('corner-right'), of('corner-left')];
    const [upper, lower] = [knots('upper'), knots('lower')];
    return a && b && upper.length === LIP_KNOTS && lower.length === LIP_KNOTS
      ? { corners: a[0] < b[0] ? [a, b] : [b, a], upper, lower }
      : 'missing';
  }, [view, points]);

  const size = useMemo(
    (): Px | undefined => (photo?.width && photo.height ? [photo.width, photo.height] : undefined),
    [photo?.width, photo?.height],
  );
  const input = useMemo(
    () => (size && lips !== 'missing' ? ([{ landmarks, points, size, ...(width && { width }) }] as const) : undefined),
    [size, lips, landmarks, points, width],
  );
  const asked = useAsked(clientOf(contour), plan, 'inPhoto', input);
  const [predicted, setPredicted] = useState(false);
  const looks = useSmileColours(predicted ? clientOf(contour) : undefined, plan);
  const tints = useMemo(() => {
    if (!predicted) return undefined;
    const known = (shownOf(looks) ?? []).flatMap((l) => {
      const tint = tintOf(l);
      return tint ? [[l.tooth, tint] as const] : [];
    });
    return known.length > 0 ? new Map(known) : undefined;
  }, [predicted, looks]);
  const { made, forget } = useLaidPicture(asked, photo, size, lips, tints);
  const laid = photo && made && 'url' in made ? made : undefined;
  const loose = laid && photo?.width ? laid.rmsPx > (LOOSE_PX * photo.width) / 1200 : false;
  return (
    <div className="flex h-full flex-col px-6 pt-14 pb-16">
      {!photo ? (
        <Empty title="No such photograph yet">
          <p>{PHOTO_VIEWS[view]}: take it in at meet and mark the teeth in read.</p>
        </Empty>
      ) : made && 'sentence' in made ? (
        <Empty title="The plan can’t be laid into it yet">
          <p>{made.sentence}</p>
          {made.retry && (
            <button type="button" className="how mt-3" onClick={made.retry}>
              try again
            </button>
          )}
        </Empty>
      ) : (
        <figure className="relative mx-auto flex min-h-0 w-full flex-1 flex-col items-center justify-center">
          <div
            className="relative max-h-full"
            style={{
              aspectRatio: `${photo.width} / ${photo.height}`,
              width: `min(100%, calc(60vh * ${(photo.width ?? 3) / (photo.height ?? 2)}))`,
            }}
          >
            <img
              src={photoUrl(detail.id, photo)}
              alt="As photographed"
              className="absolute inset-0 h-full w-full rounded-lg"
            />
            {laid && (
              <img
                src={laid.url}
                alt="With the planned teeth, a simulation and not a promise"
                data-testid="laid-smile"
                className="absolute inset-0 h-full w-full rounded-lg"
                style={{ clipPath: `inset(0 0 0 ${100 * wipe}%)` }}
              />
            )}
            {laid && <span className="absolute inset-y-0 w-px bg-white/80" style={{ left: `${100 * wipe}%` }} />}
            <input
              type="range"
              aria-label="From as photographed to planned"
              className="absolute inset-0 h-full w-full cursor-ew-resize opacity-0"
              min={0}
              max={1}
              step={0.005}
              value={wipe}
              onChange={(e) => setWipe(Number(e.target.value))}
            />
            <span className="pointer-events-none absolute bottom-2 left-2 rounded bg-ink/70 px-2 py-0.5 text-fine text-white">
              as photographed
            </span>
          </div>
        </figure>
      )}
      <div className="mt-3 flex w-full items-center gap-2 text-note text-white">
        {VIEWS.map((v) => (
          <button
            key={v}
            type="button"
            className="chip"
            aria-pressed={view === v}
            onClick={() => {
              // What was laid into one photograph must not stand over another.
              if (v !== view) forget();
              setView(v);
            }}
          >
            {PHOTO_VIEWS[v]}
          </button>
        ))}
        <button
          type="button"
          className="chip"
          aria-pressed={predicted}
          title="As match predicts them over their stumps, in the light of the photograph"
          onClick={() => setPredicted(!predicted)}
        >
          predicted colour
        </button>
        {laid && (
          <>
            <span className="ml-2">
              laid in to {Math.round(laid.rmsPx * 10) / 10} px
              {loose ? ': more than it should be, look at the marks in read' : ''}
              {Object.keys(plan).some((t) => !isUpper(Number(t))) && ', the upper crowns alone'}
              {predicted &&
                (tints
                  ? `; ${tints.size} ${tints.size === 1 ? 'tooth' : 'teeth'} in predicted colour`
                  : looks.state === 'waiting'
                    ? '; working out the colours'
                    : '; no planned tooth was read in match')}
            </span>
            <a className="chip ml-auto" href={laid.url} download={`${detail.name} simulation.png`}>
              save the picture
            </a>
          </>
        )}
      </div>
    </div>
  );
}

type Made =
  | { readonly url: string; readonly rmsPx: number }
  | { readonly sentence: string; readonly retry?: () => void };

/** The photograph with the plan laid into it, as a picture; or why there is none. */
function useLaidPicture(
  asked: Asked<LaidSmile>,
  photo: CaseFile | undefined,
  size: Px | undefined,
  lips: LipLines | undefined | 'missing',
  tints: ReadonlyMap<Fdi, readonly Rgb[]> | undefined,
) {
  const { detail } = useCase();
  const [made, setMade] = useState<Made>();
  const shown = useRef<string | undefined>(undefined);
  useEffect(() => {
    if (lips === 'missing')
      return setMade({
        sentence: 'The lips are not marked on this photograph yet: mark both borders and corners in read.',
      });
    if (asked.state === 'failed') return setMade(asked);
    if (asked.state !== 'ready' || !photo || !size) return;
    const laid = asked.value;
    let gone = false;
    void (async () => {
      const image = new Image();
      image.src = photoUrl(detail.id, photo);
      await image.decode();
      if (gone) return;
      const canvas = laySmile(image, size, laid, lips, tints);
      canvas.toBlob((blob) => {
        if (gone || !blob) return;
        const url = URL.createObjectURL(blob);
        if (shown.current) URL.revokeObjectURL(shown.current);
        shown.current = url;
        setMade({ url, rmsPx: laid.rmsPx });
      }, 'image/png');
    })().catch(() => !gone && setMade({ sentence: 'The photograph can’t be loaded.' }));
    return () => {
      gone = true;
    };
  }, [asked, photo, size, lips, tints, detail.id]);
  useEffect(
    () => () => {
      if (shown.current) URL.revokeObjectURL(shown.current);
    },
    [],
  );
  return { made, forget: () => setMade(undefined) };
}
