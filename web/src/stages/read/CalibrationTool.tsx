import { CalibrationInput, check, endsOf, knownLength, landmarkSet, type PhotoView, scaleBy } from '@radiant/contract';
import {
  checkScale,
  differs,
  directionDeg,
  type Figure,
  type FoundRuler,
  type PhotoOnScan,
  PUPILS_MM,
  type Px,
  pupils,
  rollOf,
  type ScaleWay,
  scaleDoubts,
  toothWidth,
} from '@radiant/core';
import { useEffect, useId, useRef, useState } from 'react';
import { Mark } from '../../bench/Mark.js';
import type { BenchView } from '../../bench/PhotoBench.js';
import { type BenchReading, useBenchReading } from '../../data/bench-reading.js';
import { useSection, useToothLabel } from '../../data/case-context.js';
import { useKnownWidths } from '../../engine/known-widths.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { number } from '../../ui/format.js';
import { How, Value } from '../../ui/How.js';
import { NumberInput } from '../../ui/NumberInput.js';
import { PALETTE } from '../../ui/palette.js';
import { CameraByScan, lengthByScan, withCamera } from './CameraByScan.js';
import type { KnownEnds } from './use-drawing.js';
import { useRuler } from './use-ruler.js';

type Which = 'scale' | 'check';

const WAYS: Readonly<Record<ScaleWay, string>> = {
  scale: 'a printed scale',
  tooth: 'a tooth’s width',
  pupils: 'the pupils',
  scan: 'the scan it is matched with',
};

/** How the millimetres of the photograph are known, what speaks against them, and a second length to check them by. */
export function CalibrationTool({
  view,
  url,
  which,
  from,
  ends,
  setEnds,
  scanned,
  hasScan,
  clear,
  onWhich,
}: {
  view: PhotoView;
  /** Of the picture. */
  url: string | undefined;
  /** Both ends, while nobody has said how far apart they are. */
  ends: KnownEnds | undefined;
  setEnds: (ends: KnownEnds | undefined) => void;
  which: Which;
  /** The photograph matched with the scan, where it is. */
  scanned: PhotoOnScan | undefined;
  hasScan: boolean;
  from: { x: number; y: number } | undefined;
  clear: () => void;
  onWhich: (w: Which) => void;
}) {
  const reading = useBenchReading(view);
  const mayWrite = useMayWrite('read');
  const kept = which === 'scale' ? reading.calibration : reading.check;
  const c: KnownEnds | null | undefined = kept ?? ends;
  const put = (next: KnownEnds | null, group?: string) => {
    if (next && !isKnown(next)) return setEnds(next);
    setEnds(undefined);
    reading.change(
      { ...(reading.photo && { photoId: reading.photo.id }), [which === 'scale' ? 'calibration' : 'check']: next },
      group,
    );
  };
  const length = scanned?.length;
  const ruler = useRuler(which === 'scale' && !kept && mayWrite && !view.startsWith('portrait') ? url : undefined);
  const onTicks = ruler && ends && c === ends && liesOn(ends, ruler);
  const anew = () => {
    clear();
    setEnds(undefined);
    if (kept) put(null);
  };
  // Nothing lies over what has to be clicked or dragged: a scale lies under the teeth, until its ends say where.
  const middle = c && (c.from.y + c.to.y) / 2;
  const above = middle && reading.photo?.height ? middle > reading.photo.height / 2 : view === 'retracted-front';
  return (
    <section
      aria-label={which === 'scale' ? 'Scale' : 'Second length'}
      className={`absolute left-4 w-[350px] max-w-[calc(100%-2rem)] rounded-xl bg-leaf p-4 shadow-lg ${above ? 'top-14 max-xl:top-[92px]' : 'bottom-3'}`}
    >
      <div className="flex items-baseline justify-between">
        <h2 className="subtitle">{which === 'scale' ? 'Scale' : 'Second length'}</h2>
        {reading.calibration && (
          <button
            type="button"
            className="how text-note"
            onClick={() => onWhich(which === 'scale' ? 'check' : 'scale')}
          >
            {which === 'scale' ? 'check by a second length' : 'back to the scale'}
          </button>
        )}
      </div>
      {!c ? (
        <p className="mt-1 text-ink-2">
          {from
            ? 'Now click the other end.'
            : which === 'check'
              ? 'Click the two ends of another length that you know; it should measure what it is.'
              : view.startsWith('portrait')
                ? 'Click the two pupils, or the ends of a scale in the picture.'
                : 'Click the two ends of a known length: the scale in the picture, as far apart as it allows, or the borders of a tooth.'}
          {ruler && !from && (
            <span className="mt-2 block text-note">
              <button
                type="button"
                className="btn btn-ghost"
                onClick={() => setEnds({ from: pointOf(ruler.from), to: pointOf(ruler.to) })}
              >
                Set them on the ruler that is seen: {ruler.spaces + 1} ticks
              </button>
            </span>
          )}
          {which === 'scale' && view === 'retracted-front' && (
            <span className="mt-2 block text-note">
              {length ? (
                <button
                  type="button"
                  className="btn btn-ghost"
                  disabled={!mayWrite}
                  onClick={() => put(lengthByScan(length, scanned?.stood))}
                >
                  Take it from the scan
                </button>
              ) : (
                hasScan && 'Or mark four places of the teeth first: then the scan gives it.'
              )}
            </span>
          )}
        </p>
      ) : (
        <>
          {!isKnown(c) && <p className="mt-1 text-ink-2">How far apart are they? Type it, or say what it is.</p>}
          {onTicks && (
            <button
              type="button"
              className="how mt-1 block text-note"
              onClick={() => put({ ...ends, mm: ruler.spaces })}
            >
              {ruler.spaces} spaces, each a millimetre: take {number(ruler.spaces, 1)} mm
            </button>
          )}
          <Length calibration={c} put={put} scanned={scanned} view={view} disabled={!mayWrite} />
          {which === 'scale' && reading.scale && (
            <p className="mt-2 text-ink-2">
              <b className="font-semibold text-ink">
                <Value figure={reading.scale} digits={4} />
              </b>{' '}
              mm a pixel, ±{((100 * reading.scale.pm) / reading.scale.value).toFixed(1)} %{' '}
              <How figure={reading.scale} what="scale" />
            </p>
          )}
          {which === 'scale' && scanned?.length && reading.scale && (
            <BesideScan scale={reading.scale} way={c.way ?? 'scale'} length={scanned.length} />
          )}
          {which === 'scale' && scanned && isKnown(c) && (
            <CameraByScan
              kept={c.camera}
              stood={scanned.stood}
              disabled={!mayWrite}
              take={(camera) => put(withCamera(c, camera))}
            />
          )}
          {which === 'check' && <CheckResult reading={reading} />}
          {mayWrite && (
            <button type="button" className="how mt-2 text-note" onClick={anew}>
              set it again
            </button>
          )}
        </>
      )}
      {which === 'scale' && <Doubts reading={reading} />}
    </section>
  );
}

const tenth = (v: number) => Math.round(10 * v) / 10;
const pointOf = ([x, y]: Px) => ({ x: tenth(x), y: tenth(y) });

/** Whether two ends stand on the first and the last tick, as they were put there. */
const liesOn = ({ from, to }: KnownEnds, ruler: FoundRuler): boolean =>
  [
    [from, pointOf(ruler.from)],
    [to, pointOf(ruler.to)],
  ].every(([a, b]) => a && b && Math.hypot(a.x - b.x, a.y - b.y) < 2);

/** Lengths between two points that a photograph can hold, mm. */
const LENGTH_MM = { min: 0.1, max: 500 } as const;

/** What the length is and how many millimetres it has. */
const isKnown = (c: KnownEnds): c is CalibrationInput => c.mm !== undefined;

function Length({
  calibration: c,
  put,
  scanned,
  view,
  disabled,
}: {
  calibration: KnownEnds;
  put: (c: KnownEnds, group?: string) => void;
  scanned: PhotoOnScan | undefined;
  view: PhotoView;
  disabled: boolean;
}) {
  const id = useId();
  const length = scanned?.length;
  const [refusal, setRefusal] = useState<string>();
  const name = useToothLabel();
  const widths = useKnownWidths();
  const way = c.way ?? 'scale';
  // What is asked for is where the hand goes next.
  const asked = useRef(!isKnown(c));
  useEffect(() => {
    if (asked.current) document.getElementById(id)?.focus();
  }, [id]);
  const type = (mm: number) => {
    const { origin: _, pmMm: __, ...rest } = c;
    // A length that somebody types was measured on the patient.
    const next: CalibrationInput = {
      ...rest,
      mm,
      ...(way !== 'scale' && { origin: 'typed' as const, pmMm: way === 'pupils' ? 1 : 0.2 }),
    };
    const { errors } = check(CalibrationInput, next);
    setRefusal(errors[0]?.message);
    if (errors.length === 0) put(next, 'scale length');
  };
  const choose = (next: ScaleWay) => {
    const { way: _, tooth: __, origin: ___, pmMm: ____, ...ends } = c;
    if (next === 'scale') return put({ ...ends });
    if (next === 'scan') return length && put(lengthByScan(length, scanned.stood));
    if (next === 'pupils') {
      const mean = pupils();
      return put({ ...ends, way: next, mm: mean.mm, pmMm: mean.pmMm, origin: 'mean' });
    }
    const first = widths[0];
    put(first ? byTooth(ends, first, view) : { ...ends, way: next, tooth: 11, pmMm: 0.2, origin: 'typed' });
  };
  return (
    <>
      <label className="mt-2 flex items-center gap-2">
        <span className="w-[92px] shrink-0">known by</span>
        <select className="field" value={way} disabled={disabled} onChange={(e) => choose(e.target.value as ScaleWay)}>
          {(Object.keys(WAYS) as ScaleWay[]).map((w) => (
            <option key={w} value={w} disabled={w === 'scan' && !length && way !== 'scan'}>
              {WAYS[w]}
            </option>
          ))}
        </select>
      </label>
      {way === 'tooth' && (
        <label className="mt-2 flex items-center gap-2">
          <span className="w-[92px] shrink-0">tooth</span>
          <select
            className="field"
            value={`${c.tooth} ${c.origin}`}
            disabled={disabled}
            onChange={(e) => {
              const own = widths.find((w) => `${w.tooth} ${w.origin}` === e.target.value);
              if (own) put(byTooth({ from: c.from, to: c.to }, own, view));
            }}
          >
            {!widths.some((w) => w.tooth === c.tooth && w.origin === c.origin) && (
              <option value={`${c.tooth} ${c.origin}`}>{name(c.tooth ?? 11)}, typed</option>
            )}
            {widths.map((w) => (
              <option key={`${w.tooth} ${w.origin}`} value={`${w.tooth} ${w.origin}`}>
                {name(w.tooth)}: {number(w.widthMm, 1)} mm, from the {w.origin}
              </option>
            ))}
          </select>
        </label>
      )}
      <div className="mt-2 flex items-center gap-2">
        <label htmlFor={id}>Between the two points</label>
        <NumberInput
          id={id}
          className="field w-[76px] text-right"
          value={c.mm ?? null}
          min={LENGTH_MM.min}
          max={LENGTH_MM.max}
          step={0.1}
          digits={1}
          unit="mm"
          disabled={disabled || way === 'scan'}
          onChange={(mm) => mm !== null && type(mm)}
        />
        mm{c.pmMm ? <span className="pm"> ±{number(c.pmMm, 1)}</span> : ''}
      </div>
      {way === 'scan' && (
        <p className="mt-1 text-fine text-ink-2">
          across the centrals, in their plane; it stays as it was taken
          {length && (
            <button
              type="button"
              className="how ml-2"
              disabled={disabled}
              onClick={() => put(lengthByScan(length, scanned?.stood))}
            >
              take it again
            </button>
          )}
        </p>
      )}
      {way === 'tooth' && (
        <p className="mt-1 text-fine text-ink-2">as this view shows it: teeth turn away round the arch</p>
      )}
      {way === 'pupils' && c.origin === 'mean' && (
        <p className="mt-1 text-fine text-ink-2">
          The adults’ mean; measure this patient’s for a surer scale. {PUPILS_MM.source.text}
        </p>
      )}
      {refusal && (
        <p role="alert" className="mt-1 text-note text-stop">
          {refusal}
        </p>
      )}
    </>
  );
}

/** What the matched scan says of a scale that is known in another way. */
function BesideScan({
  scale,
  way,
  length,
}: {
  scale: Figure;
  way: ScaleWay;
  length: NonNullable<PhotoOnScan['length']>;
}) {
  if (way === 'scan') return null;
  const own = scaleBy(lengthByScan(length)) as Figure;
  const percent = 100 * (own.value / scale.value - 1);
  const apart = differs(own, scale);
  return (
    <p className={`mt-1 text-note ${apart ? 'text-removed-ink' : 'text-ink-2'}`} data-testid="scale-by-scan">
      By the scan <Value figure={own} digits={4} /> mm a pixel, {Math.abs(percent).toFixed(1)} %{' '}
      {percent >= 0 ? 'more' : 'less'}: {apart ? 'further apart than both errors' : 'agrees within the errors'}{' '}
      <How figure={own} what="scale by the scan" />
    </p>
  );
}

function byTooth(
  ends: Pick<CalibrationInput, 'from' | 'to'>,
  w: { tooth: number; widthMm: number; pmMm: number; origin: 'scan' | 'front view' },
  view: PhotoView,
): CalibrationInput {
  const seen = toothWidth(w.tooth, w.widthMm, w.pmMm, view);
  const round = (v: number) => Math.round(v * 100) / 100;
  return { ...ends, way: 'tooth', tooth: w.tooth, origin: w.origin, mm: round(seen.mm), pmMm: round(seen.pmMm) };
}

function checkOf(reading: BenchReading) {
  return reading.scale && reading.check
    ? checkScale(reading.scale, endsOf(reading.check), knownLength(reading.check))
    : undefined;
}

function CheckResult({ reading }: { reading: BenchReading }) {
  const result = checkOf(reading);
  if (!result) return null;
  return (
    <p className={`mt-2 ${result.agrees ? 'text-ink-2' : 'text-stop'}`}>
      measures{' '}
      <b className="font-semibold">
        <Value figure={result.measured} digits={1} />
      </b>{' '}
      mm: {result.agrees ? 'agrees within the errors' : 'does not agree'}{' '}
      <How figure={result.measured} what="second length" />
    </p>
  );
}

/** What speaks against the scale. */
function Doubts({ reading }: { reading: BenchReading }) {
  const { calibration: c, scale, view } = reading;
  if (!c || !scale) return null;
  const front = view === 'retracted-front';
  const at = (id: string) => reading.points.find((p) => p.id === id);
  const [right, left] = [at('pupil-right') ?? at('corner-right'), at('pupil-left') ?? at('corner-left')];
  const brow = at('glabella');
  const halves =
    right && left && brow && view.startsWith('portrait')
      ? { right: Math.hypot(brow.x - right.x, brow.y - right.y), left: Math.hypot(left.x - brow.x, left.y - brow.y) }
      : undefined;
  const roll = front
    ? rollOf(landmarkSet(reading.landmarks))
    : right && left
      ? directionDeg([right.x, right.y], [left.x, left.y])
      : undefined;
  const doubts = scaleDoubts({
    scale,
    ends: endsOf(c),
    way: c.way ?? 'scale',
    // A tooth's own outline and a length of the scan may lean; only a printed scale and the pupils must lie level.
    rollDeg: c.way === 'tooth' || c.way === 'scan' ? undefined : roll,
    ...(front && { landmarks: landmarkSet(reading.landmarks) }),
    halves,
    check: checkOf(reading),
  });
  if (doubts.length === 0) return null;
  return (
    <ul className="mt-2 border-t border-hair pt-2 text-note text-removed-ink">
      {doubts.map((d) => (
        <li key={d}>{d}</li>
      ))}
    </ul>
  );
}

/** The ends of a known length and the line between them. */
export function CalibrationMarks({
  reading,
  which,
  view,
  bounds,
  from,
  ends,
  setEnds,
}: {
  ends: KnownEnds | undefined;
  setEnds: (ends: KnownEnds | undefined) => void;
  reading: ReturnType<typeof useBenchReading>;
  which: Which;
  view: BenchView;
  bounds: { width: number; height: number };
  from: { x: number; y: number } | undefined;
}) {
  const { store } = useSection('read');
  const mayWrite = useMayWrite('read');
  const kept = which === 'scale' ? reading.calibration : reading.check;
  const c: KnownEnds | null | undefined = kept ?? ends;
  const cross = (
    <>
      <path d="M-9 0H9M0-9V9" stroke={PALETTE.ink} strokeOpacity={0.6} strokeWidth={4} />
      <path d="M-9 0H9M0-9V9" stroke={PALETTE.white} strokeWidth={1.8} />
    </>
  );
  if (!c) return from ? <g transform={`translate(${from.x} ${from.y}) scale(${1 / view.zoom})`}>{cross}</g> : null;
  const what = which === 'scale' ? 'scale' : 'second length';
  const end = (key: 'from' | 'to', label: string) => (
    <Mark
      key={key}
      x={c[key].x}
      y={c[key].y}
      label={label}
      view={view}
      bounds={bounds}
      // What the scan gives nobody moves.
      locked={!mayWrite || c.way === 'scan'}
      onMove={(x, y) => {
        const other = c[key === 'from' ? 'to' : 'from'];
        if (Math.hypot(other.x - x, other.y - y) < 10) return;
        if (!kept) setEnds({ ...c, [key]: { x, y } });
        else
          reading.change(
            { [which === 'scale' ? 'calibration' : 'check']: { ...kept, [key]: { x, y } } },
            `${what} ${key}`,
          );
      }}
      onDone={() => store.endGroup()}
    >
      {cross}
    </Mark>
  );
  return (
    <>
      <path
        d={`M${c.from.x} ${c.from.y}L${c.to.x} ${c.to.y}`}
        stroke="#8b3c86"
        strokeWidth={2 / view.zoom}
        pointerEvents="none"
      />
      {end('from', `one end of the ${what}`)}
      {end('to', `other end of the ${what}`)}
    </>
  );
}
