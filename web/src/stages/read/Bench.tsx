import type { PhotoView } from '@radiant/contract';
import type { PhotoOnScan } from '@radiant/core';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { PhotoBench } from '../../bench/PhotoBench.js';
import { type BenchMark, type MarkGroup, useBenchMarks } from '../../data/bench-marks.js';
import { useBenchReading } from '../../data/bench-reading.js';
import { useCase } from '../../data/case-context.js';
import { useEdges } from '../../engine/use-edges.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { useHotkeys } from '../../ui/hotkeys.js';
import { KeyHint, Stage } from '../../ui/StageLayout.js';
import { BenchChips } from './BenchChips.js';
import { CalibrationMarks, CalibrationTool } from './CalibrationTool.js';
import { DrawnMarks } from './DrawnMarks.js';
import { FindingsPanel } from './FindingsPanel.js';
import { AS_TAKEN, filterOf } from './LightControls.js';
import { Overlays } from './Overlays.js';
import { NoPhoto } from './PhotoUpload.js';
import { PointLayer } from './PointLayer.js';
import { ScanInset } from './ScanInset.js';
import { type Mode, useDrawing } from './use-drawing.js';
import { useOverlays } from './use-overlays.js';
import { usePhotoOnScan } from './use-photo-on-scan.js';
import { ViewStrip } from './ViewStrip.js';

/** How far an edge may lie from a click to be snapped to, px of the screen. */
const SNAP_REACH = 9;
const NONE: readonly never[] = [];

/** One view on the bench: points in a guided order, scale, drawn measures, overlays. */
export function Bench({ view, onView }: { view: PhotoView; onView: (v: PhotoView) => void }) {
  const { detail, tooth, selectTooth } = useCase();
  const reading = useBenchReading(view);
  const { photo, calibration, landmarks } = reading;
  const mayWrite = useMayWrite('read');
  const front = view === 'retracted-front';
  const [mode, setMode] = useState<Mode>(front ? 'landmarks' : 'points');
  const [overlays, toggleOverlay] = useOverlays(view);
  const [magnified, setMagnified] = useState(false);
  const [snapping, setSnapping] = useState(false);
  const [light, setLight] = useState(AS_TAKEN);
  const { from, setFrom, begun, setBegun, draw, scale } = useDrawing(reading);
  const [skipped, setSkipped] = useState<readonly string[]>([]);
  const group: MarkGroup = mode === 'landmarks' || (mode !== 'points' && front) ? 'landmarks' : 'points';
  const { marks: plain, place, remove, placeFromScan } = useBenchMarks(view, group);
  const match = usePhotoOnScan(front);
  const [beside, setBeside] = useState(false);
  const found = match.state === 'matched' ? match.found : undefined;
  const marks = useMemo(() => (found ? withScan(plain, found) : plain), [plain, found]);
  const url = photo && `/api/cases/${detail.id}/files/${photo.id}`;
  const snap = useEdges(snapping ? url : undefined);
  const next = nextOf(marks, skipped, front ? tooth : undefined);
  const missing = useMemo(() => outlinesMissing(found, landmarks), [found, landmarks]);

  const goOn = useCallback(
    (set: BenchMark) => {
      if (!front) return;
      const rest = marks.filter((m) => m.id !== set.id);
      const following = nextOf(rest, skipped, set.tooth);
      if (following?.tooth ?? set.tooth) selectTooth((following?.tooth ?? set.tooth) as number);
    },
    [front, marks, skipped, selectTooth],
  );
  const choose = (m: Mode) => {
    setBegun([]);
    setFrom(undefined);
    setMode(m);
  };
  const press = async (x: number, y: number, zoom: number) => {
    if (!mayWrite || !photo) return;
    if (mode === 'scale' || mode === 'check') return scale(mode, x, y);
    if (mode === 'length' || mode === 'angle') return draw(mode, x, y);
    if (!next) return;
    const found = snapping && next.onEdge ? await snap([x, y], SNAP_REACH / zoom) : undefined;
    place(next.id, found?.[0] ?? x, found?.[1] ?? y);
    goOn(next);
  };

  useHotkeys('stage', [
    { keys: 'click', does: 'set the point that is next' },
    { keys: 'Tab', does: 'next landmark' },
    { keys: '← ↑ → ↓', does: 'nudge the landmark 1 px' },
    { keys: 'Shift ← ↑ → ↓', does: 'nudge 0.1 px' },
    { keys: 'Delete', does: 'take the landmark away' },
    { keys: 'G', does: 'magnifier', on: ['g'], run: () => setMagnified((m) => !m) },
    { keys: 'E', does: 'snap to the strongest edge near the click', on: ['e'], run: () => setSnapping((s) => !s) },
    {
      keys: 'M',
      does: 'take the scan’s place, or the one that mirrors the other side',
      on: ['m'],
      run: () => {
        if (!next?.guess || !mayWrite) return;
        if (next.guessBy === 'scan') placeFromScan?.([{ id: next.id, px: next.guess }]);
        else place(next.id, next.guess[0], next.guess[1]);
        goOn(next);
      },
    },
    { keys: 'B', does: 'the scan beside the photograph', on: ['b'], off: !front, run: () => setBeside((b) => !b) },
    {
      keys: 'X',
      does: 'point not seen: go on to the next',
      on: ['x'],
      run: () => next && setSkipped((all) => [...all, next.id]),
    },
    { keys: 'drag', does: 'pan; a landmark: move it' },
  ]);

  useEffect(() => {
    if (photo && !calibration && front) setMode('scale');
  }, [photo, calibration, front]);

  const bounds = { width: photo?.width ?? 0, height: photo?.height ?? 0 };
  const pointing = mode === 'landmarks' || mode === 'points';
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
                  preview={`${url}/preview`}
                  alt={`Photograph ${photo.name}`}
                  width={bounds.width}
                  height={bounds.height}
                  filter={filterOf(light)}
                  magnified={magnified}
                  onPress={(x, y, zoom) => void press(x, y, zoom)}
                >
                  {(v) => (
                    <>
                      <Overlays view={view} on={overlays} bench={v} width={bounds.width} scanned={found} />
                      <DrawnMarks reading={reading} view={v} bounds={bounds} begun={begun} />
                      {(mode === 'scale' || mode === 'check') && (
                        <CalibrationMarks reading={reading} which={mode} view={v} bounds={bounds} from={from} />
                      )}
                      {pointing && (
                        <PointLayer
                          marks={marks}
                          next={mayWrite ? next : undefined}
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
                  )}
                </PhotoBench>
                <BenchChips
                  view={view}
                  mode={mode}
                  choose={choose}
                  scaled={!!calibration}
                  snapping={[snapping, setSnapping]}
                  magnified={[magnified, setMagnified]}
                  beside={[beside, setBeside]}
                  overlays={[overlays, toggleOverlay]}
                  light={[light, setLight]}
                />
                {(mode === 'scale' || mode === 'check') && (
                  <CalibrationTool
                    view={view}
                    which={mode}
                    from={from}
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
      panel={
        <FindingsPanel
          view={view}
          onView={onView}
          match={match}
          missing={front ? missing : NONE}
          onTakeAll={placeFromScan}
        />
      }
      foot={
        <>
          <span>
            {foot(
              mode,
              next,
              !!calibration,
              from !== undefined,
              begun.length,
              front && mode === 'landmarks',
              marks.length,
            )}
          </span>
          {pointing && next?.guess && mayWrite && (
            <KeyHint
              keys={['M']}
              does={next.guessBy === 'scan' ? 'take the scan’s place' : 'take the mirrored place'}
            />
          )}
          {pointing && next && mayWrite && mode === 'points' && <KeyHint keys={['X']} does="not seen, go on" />}
          <KeyHint keys={['⇥']} does="next point" />
          <KeyHint keys={['←↑→↓']} does="nudge 1 px" />
          <KeyHint keys={['0']} does="whole picture" />
          <KeyHint keys={['?']} does="all keys" />
          <span className="ml-auto">
            {marks.filter((m) => m.at).length} of {marks.length} points
          </span>
        </>
      }
    />
  );
}

/** Landmarks that aren't set yet get the scan's place as their suggestion. */
function withScan(marks: readonly BenchMark[], found: PhotoOnScan): readonly BenchMark[] {
  const at = new Map(found.places.map((p) => [`${p.kind}-${p.tooth}`, p.scanPx]));
  return marks.map((m) => {
    const guess = m.at ? undefined : at.get(m.id);
    return guess ? { ...m, guess, guessBy: 'scan' as const } : m;
  });
}

/** The scan's places of landmarks that nobody has set. */
function outlinesMissing(
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

function foot(
  mode: Mode,
  next: BenchMark | undefined,
  scaled: boolean,
  hasFrom: boolean,
  begun: number,
  outline: boolean,
  count: number,
) {
  if (mode === 'length') return begun ? 'click the other end' : 'click the two ends of a length';
  if (mode === 'angle')
    return ['click the end of one arm', 'click the corner', 'click the end of the other arm'][begun];
  if (mode === 'scale')
    return scaled ? 'drag the two ends of the scale' : `click the ${hasFrom ? 'other' : 'one'} end of a known length`;
  if (mode === 'check') return `click the ${hasFrom ? 'other' : 'one'} end of a second known length`;
  if (count === 0) return 'nothing is marked on this view; draw lengths and angles';
  return next ? (
    <>
      next: <b className="text-ink">{outline ? next.name.replace(' of ', ' point of ') : next.name}</b>
    </>
  ) : (
    'all points are set'
  );
}
