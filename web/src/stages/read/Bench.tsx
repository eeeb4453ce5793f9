import type { PhotoView } from '@radiant/contract';
import type { PhotoOnScan } from '@radiant/core';
import { type ReactNode, useEffect, useMemo, useState } from 'react';
import { type BenchView, PhotoBench } from '../../bench/PhotoBench.js';
import { type BenchMark, type MarkGroup } from '../../data/bench-marks.js';
import { useBenchReading } from '../../data/bench-reading.js';
import { useCase } from '../../data/case-context.js';
import { photoUrl } from '../../data/photo-url.js';
import { useEdges } from '../../engine/use-edges.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { KeyHint, Stage } from '../../ui/StageLayout.js';
import { BenchChips } from './BenchChips.js';
import { CalibrationMarks, CalibrationTool } from './CalibrationTool.js';
import { DrawnMarks } from './DrawnMarks.js';
import { FaceSuggestions } from './FaceSuggestions.js';
import { FindingsPanel } from './FindingsPanel.js';
import { AS_TAKEN, filterOf } from './LightControls.js';
import { NextPoint, PatientSides } from './NextPoint.js';
import { Overlays } from './Overlays.js';
import { NoPhoto } from './PhotoUpload.js';
import { PointLayer } from './PointLayer.js';
import { ScanInset } from './ScanInset.js';
import { useBenchKeys } from './use-bench-keys.js';
import { useBoxes } from './use-boxes.js';
import { useCameraByScan } from './use-camera-by-scan.js';
import { type Mode, useDrawing } from './use-drawing.js';
import { useFace } from './use-face.js';
import { outlinesMissing, useGuided } from './use-guided.js';
import { useOverlays } from './use-overlays.js';
import { usePhotoOnScan } from './use-photo-on-scan.js';
import { ViewStrip } from './ViewStrip.js';

/** How far an edge may lie from a click to be snapped to, px of the screen. */
const SNAP_REACH = 9;
const NONE: readonly never[] = [];

/** One view on the bench: points in a guided order, scale, drawn measures, overlays. */
export function Bench({ view, onView }: { view: PhotoView; onView: (v: PhotoView) => void }) {
  const { detail, tooth } = useCase();
  const reading = useBenchReading(view);
  const { photo, calibration, landmarks } = reading;
  const mayWrite = useMayWrite('read');
  const front = view === 'retracted-front';
  const [mode, setMode] = useState<Mode>(front ? 'landmarks' : 'points');
  const [overlays, toggleOverlay] = useOverlays(view);
  const [magnified, setMagnified] = useState(false);
  const [snapping, setSnapping] = useState(false);
  const [light, setLight] = useState(AS_TAKEN);
  const { from, setFrom, ends, setEnds, begun, setBegun, draw, scale } = useDrawing(reading);
  const group: MarkGroup =
    mode === 'again' ? 'again' : mode === 'landmarks' || (mode !== 'points' && front) ? 'landmarks' : 'points';
  const match = usePhotoOnScan(front);
  useCameraByScan(match, reading);
  const [beside, setBeside] = useState(false);
  const found = match.state === 'matched' ? match.found : undefined;
  const url = photo && photoUrl(detail.id, photo);
  const face = useFace(view, url);
  const guided = useGuided(view, group, found, face.places);
  const { marks, place, remove, placeFromScan, next, goOn, takeGuess, skip } = guided;
  const boxes = useBoxes(front && mode === 'landmarks' && mayWrite, guided);
  const edges = useEdges(snapping || boxes.on ? url : undefined);
  const missing = useMemo(() => (front ? outlinesMissing(found, landmarks) : NONE), [front, found, landmarks]);

  const choose = (m: Mode) => {
    setBegun([]);
    setFrom(undefined);
    setEnds(undefined);
    setMode(m);
  };
  const press = async (x: number, y: number, zoom: number) => {
    if (!mayWrite || !photo) return;
    if (mode === 'scale' || mode === 'check') return scale(mode, x, y);
    if (mode === 'length' || mode === 'angle') return draw(mode, x, y);
    if (!next) return;
    const found = snapping && next.onEdge ? await edges.snap([x, y], SNAP_REACH / zoom) : undefined;
    place(next.id, found?.[0] ?? x, found?.[1] ?? y);
    goOn(next);
  };

  useBenchKeys({
    front,
    box: boxes.toggle,
    takeGuess,
    skip,
    magnify: () => setMagnified((m) => !m),
    snap: () => setSnapping((on) => !on),
    scanBeside: () => setBeside((b) => !b),
    takeBack:
      from || ends || begun.length > 0
        ? () => {
            setBegun([]);
            setFrom(undefined);
            setEnds(undefined);
          }
        : undefined,
    putAway:
      mode === 'landmarks' || mode === 'points' || mode === 'again'
        ? undefined
        : () => choose(front ? 'landmarks' : 'points'),
  });

  useEffect(() => {
    if (photo && !calibration && front) setMode('scale');
  }, [photo, calibration, front]);

  const bounds = { width: photo?.width ?? 0, height: photo?.height ?? 0 };
  return (
    <Stage
      surround="grey"
      bench={
        <>
          <div className="absolute inset-x-0 bottom-[74px] top-0">
            {photo && url ? (
              <>
                <PhotoBench
                  src={url}
                  preview={photoUrl(detail.id, photo, 'preview')}
                  alt={`Photograph ${photo.name}`}
                  width={bounds.width}
                  height={bounds.height}
                  filter={filterOf(light)}
                  magnified={magnified}
                  onPress={(x, y, zoom) => void press(x, y, zoom)}
                  onBox={boxes.on ? (box) => void boxes.take(box, edges) : undefined}
                  hint={<NextPoint mark={mayWrite && mode === 'landmarks' ? next : undefined} boxed={boxes.on} />}
                >
                  {(v) => (
                    <Marked
                      view={view}
                      reading={reading}
                      mode={mode}
                      overlays={overlays}
                      scanned={found}
                      bench={v}
                      drawn={{ from, begun, ends, setEnds }}
                      marks={marks}
                      next={mayWrite ? next : undefined}
                      place={place}
                      remove={remove}
                    />
                  )}
                </PhotoBench>
                {front && <PatientSides />}
                {face.can && mayWrite && mode === 'points' && <FaceSuggestions face={face} guided={guided} />}
                <BenchChips
                  view={view}
                  mode={mode}
                  choose={choose}
                  scaled={!!calibration}
                  snapping={[snapping, setSnapping]}
                  boxing={[boxes.wanted, boxes.toggle]}
                  magnified={[magnified, setMagnified]}
                  beside={[beside, setBeside]}
                  overlays={[overlays, toggleOverlay]}
                  light={[light, setLight]}
                />
                {(mode === 'scale' || mode === 'check') && (
                  <CalibrationTool
                    view={view}
                    url={url}
                    which={mode}
                    from={from}
                    ends={ends}
                    setEnds={setEnds}
                    scanned={found}
                    hasScan={match.state !== 'none'}
                    clear={() => setFrom(undefined)}
                    onWhich={(m) => choose(m)}
                  />
                )}
                {front && beside && (
                  <ScanInset
                    match={match}
                    next={mode === 'landmarks' ? next : undefined}
                    tooth={tooth}
                    mayWrite={mayWrite}
                    onPlace={(id, px) => {
                      placeFromScan?.([{ id, px }]);
                      if (next) goOn(next);
                    }}
                    onClose={() => setBeside(false)}
                  />
                )}
              </>
            ) : (
              <NoPhoto view={view} />
            )}
          </div>
          <ViewStrip view={view} onChange={onView} />
        </>
      }
      panel={<FindingsPanel view={view} onView={onView} match={match} missing={missing} onTakeAll={placeFromScan} />}
      foot={
        <Foot
          words={foot(
            mode,
            next,
            !!calibration,
            ends ? 'both' : from ? 'one' : 'none',
            begun.length,
            front && mode === 'landmarks',
            marks.length,
          )}
          mode={mode}
          next={mayWrite ? next : undefined}
          marks={marks}
        />
      }
    />
  );
}

function foot(
  mode: Mode,
  next: BenchMark | undefined,
  scaled: boolean,
  ends: 'none' | 'one' | 'both',
  begun: number,
  outline: boolean,
  count: number,
) {
  if (mode === 'length') return begun ? 'click the other end' : 'click the two ends of a length';
  if (mode === 'angle')
    return ['click the end of one arm', 'click the corner', 'click the end of the other arm'][begun];
  if ((mode === 'scale' || mode === 'check') && ends === 'both') return 'type how far apart the two ends are';
  if (mode === 'scale')
    return scaled
      ? 'drag the two ends of the scale'
      : `click the ${ends === 'one' ? 'other' : 'one'} end of a known length`;
  if (mode === 'check') return `click the ${ends === 'one' ? 'other' : 'one'} end of a second known length`;
  if (count === 0) return 'nothing is marked on this view; draw lengths and angles';
  return next ? (
    <>
      next: <b className="text-ink">{outline ? next.name.replace(' of ', ' point of ') : next.name}</b>
    </>
  ) : (
    'all points are set'
  );
}

const GUESSES = {
  scan: 'take the scan’s place',
  mirror: 'take the mirrored place',
  face: 'take the suggested place',
} as const;

/** What the hand is to do next, and the keys for it. */
function Foot({
  words,
  mode,
  next,
  marks,
}: {
  words: ReactNode;
  mode: Mode;
  /** Nothing where it can't be set. */
  next: BenchMark | undefined;
  marks: readonly BenchMark[];
}) {
  const pointing = mode === 'landmarks' || mode === 'again' || mode === 'points';
  return (
    <>
      <span>{words}</span>
      {pointing && next?.guess && <KeyHint keys={['M']} does={GUESSES[next.guessBy ?? 'mirror']} />}
      {pointing && next && mode === 'points' && <KeyHint keys={['X']} does="not seen, go on" />}
      <KeyHint keys={['⇥']} does="next point" />
      <KeyHint keys={['←↑→↓']} does="nudge 1 px" />
      <KeyHint keys={['0']} does="whole picture" />
      <KeyHint keys={['?']} does="all keys" />
      <span className="ml-auto">
        {marks.filter((m) => m.at).length} of {marks.length} points
      </span>
    </>
  );
}

/** What lies over the photograph: overlays, drawn measures, the scale's ends, points. */
function Marked({
  view,
  reading,
  mode,
  overlays,
  scanned,
  bench: v,
  drawn,
  marks,
  next,
  place,
  remove,
}: {
  view: PhotoView;
  reading: ReturnType<typeof useBenchReading>;
  mode: Mode;
  overlays: ReturnType<typeof useOverlays>[0];
  scanned: PhotoOnScan | undefined;
  bench: BenchView;
  drawn: Pick<ReturnType<typeof useDrawing>, 'from' | 'begun' | 'ends' | 'setEnds'>;
  marks: readonly BenchMark[];
  next: BenchMark | undefined;
  place: (id: string, x: number, y: number, group?: string) => void;
  remove: (id: string) => void;
}) {
  const { tooth, selectTooth } = useCase();
  const { photo } = reading;
  const front = view === 'retracted-front';
  const bounds = { width: photo?.width ?? 0, height: photo?.height ?? 0 };
  const pointing = mode === 'landmarks' || mode === 'again' || mode === 'points';
  const blind = mode === 'again';
  return (
    <>
      {!blind && <Overlays view={view} on={overlays} bench={v} width={bounds.width} scanned={scanned} />}
      {!blind && <DrawnMarks reading={reading} view={v} bounds={bounds} begun={drawn.begun} />}
      {(mode === 'scale' || mode === 'check') && (
        <CalibrationMarks reading={reading} which={mode} view={v} bounds={bounds} {...drawn} />
      )}
      {pointing && (
        <PointLayer
          marks={marks}
          next={next}
          tooth={front ? tooth : undefined}
          view={v}
          bounds={bounds}
          names={overlays.has('names')}
          onPlace={place}
          onRemove={remove}
          onFocus={(m) => m.tooth && selectTooth(m.tooth)}
        />
      )}
    </>
  );
}
