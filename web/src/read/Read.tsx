import { LANDMARK_KINDS, type LandmarkKind, UPPER_SIX } from '@radiant/core';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { Mark } from '../bench/Mark.js';
import { PhotoBench } from '../bench/PhotoBench.js';
import { useCase, useSection, useToothLabel } from '../data/case-context.js';
import { useReading } from '../data/reading.js';
import { isTyping } from '../shell/Keys.js';
import { useMayWrite } from '../shell/ReadOnlyNote.js';
import { KeyHint, Stage } from '../shell/Stage.js';
import { CalibrationMarks, CalibrationTool } from './CalibrationTool.js';
import { DrawnMarks } from './DrawnMarks.js';
import { FindingsPanel } from './FindingsPanel.js';
import { AS_TAKEN, filterOf, LightControls } from './LightControls.js';
import { Overlays } from './Overlays.js';
import { NoPhoto, PhotoUpload } from './PhotoUpload.js';

type Mode = 'landmarks' | 'scale' | 'length' | 'angle';
type Place = { readonly tooth: number; readonly kind: LandmarkKind };
const ORDER: readonly Place[] = UPPER_SIX.flatMap((tooth) => LANDMARK_KINDS.map((kind) => ({ tooth, kind })));
const same = (a: Place, b: Place) => a.tooth === b.tooth && a.kind === b.kind;

/** Read: the photograph on the bench, its scale, the landmarks, and what stands out. */
export default function Read() {
  const { detail, tooth, selectTooth } = useCase();
  const read = useSection('read');
  const { photo } = useReading();
  const mayWrite = useMayWrite('read');
  const name = useToothLabel();
  const [mode, setMode] = useState<Mode>('landmarks');
  const [proportions, setProportions] = useState(false);
  const [magnified, setMagnified] = useState(false);
  const [light, setLight] = useState(AS_TAKEN);
  const [from, setFrom] = useState<{ x: number; y: number }>();
  const [begun, setBegun] = useState<readonly { x: number; y: number }[]>([]);
  const { data, set, store } = read;

  const missing = useMemo(() => ORDER.filter((p) => !data.landmarks.some((m) => same(m, p))), [data.landmarks]);
  // The selected tooth's gaps come first, then the rest in order.
  const next = missing.find((p) => p.tooth === tooth) ?? missing[0];

  const place = useCallback(
    (p: Place, x: number, y: number, group?: string) => {
      const own = { ...p, x: Math.round(x * 10) / 10, y: Math.round(y * 10) / 10 };
      set({ ...data, landmarks: [...data.landmarks.filter((m) => !same(m, p)), own].sort((a, b) => orderOf(a) - orderOf(b)) }, group);
    },
    [data, set],
  );
  const draw = (kind: 'length' | 'angle', x: number, y: number) => {
    const point = { x: Math.round(x * 10) / 10, y: Math.round(y * 10) / 10 };
    if (begun.some((p) => Math.hypot(p.x - point.x, p.y - point.y) < 3)) return;
    const points = [...begun, point];
    if (points.length < (kind === 'angle' ? 3 : 2)) return setBegun(points);
    setBegun([]);
    const count = data.drawn.filter((m) => (m.points.length === 3) === (kind === 'angle')).length;
    set({ ...data, drawn: [...data.drawn, { id: crypto.randomUUID(), name: `${kind} ${count + 1}`, points }] });
  };
  const choose = (m: Mode) => {
    setBegun([]);
    setMode(m);
  };
  const press = (x: number, y: number) => {
    if (!mayWrite) return;
    if (mode === 'scale') {
      if (data.calibration) return;
      const point = { x: Math.round(x * 10) / 10, y: Math.round(y * 10) / 10 };
      if (!from) setFrom(point);
      else if (Math.hypot(point.x - from.x, point.y - from.y) >= 10) {
        set({ ...data, calibration: { from, to: point, mm: 20 } });
        setFrom(undefined);
      }
      return;
    }
    if (mode === 'length' || mode === 'angle') return draw(mode, x, y);
    if (!next) return;
    place(next, x, y);
    const after = missing.filter((p) => !same(p, next));
    const following = after.find((p) => p.tooth === next.tooth) ?? after[0];
    selectTooth(following ? following.tooth : next.tooth);
  };

  useEffect(() => {
    const keys = (e: KeyboardEvent) => {
      if (!isTyping(e) && !e.ctrlKey && !e.metaKey && !e.altKey && e.key.toLowerCase() === 'g') setMagnified((m) => !m);
    };
    window.addEventListener('keydown', keys);
    return () => window.removeEventListener('keydown', keys);
  }, []);

  useEffect(() => {
    if (photo && !data.calibration) setMode('scale');
  }, [photo, data.calibration]);

  const scaled = !!data.calibration;
  return (
    <Stage
      surround="grey"
      bench={
        photo?.width && photo.height ? (
          <>
            <PhotoBench
              src={`/api/cases/${detail.id}/files/${photo.id}`}
              alt={`Photograph ${photo.name}`}
              width={photo.width}
              height={photo.height}
              filter={filterOf(light)}
              magnified={magnified}
              onPress={press}
            >
              {(view) => (
                <>
                  {proportions && <Overlays view={view} width={photo.width as number} />}
                  <DrawnMarks view={view} bounds={{ width: photo.width as number, height: photo.height as number }} begun={begun} />
                  {mode === 'scale' && <CalibrationMarks view={view} bounds={{ width: photo.width as number, height: photo.height as number }} from={from} />}
                  {mode === 'landmarks' &&
                    data.landmarks.map((m) => (
                      <Mark
                        key={`${m.tooth}${m.kind}`}
                        x={m.x}
                        y={m.y}
                        label={`${m.kind} of ${name(m.tooth)}`}
                        view={view}
                        bounds={{ width: photo.width as number, height: photo.height as number }}
                        locked={!mayWrite}
                        onMove={(x, y) => place(m, x, y, `move ${m.tooth} ${m.kind}`)}
                        onDone={() => store.endGroup()}
                        onFocus={() => selectTooth(m.tooth)}
                        onRemove={() => set({ ...data, landmarks: data.landmarks.filter((q) => !same(q, m)) })}
                      >
                        <Dot on={m.tooth === tooth} />
                      </Mark>
                    ))}
                </>
              )}
            </PhotoBench>
            <div className="pointer-events-none absolute inset-x-4 top-3.5 flex flex-wrap items-start gap-2 [&>*]:pointer-events-auto">
              <button type="button" className="chip" aria-pressed={mode === 'landmarks'} onClick={() => choose('landmarks')}>
                landmarks
              </button>
              <button type="button" className="chip" aria-pressed={mode === 'scale'} onClick={() => choose('scale')}>
                scale{scaled ? '' : ': not set'}
              </button>
              {mayWrite && (
                <>
                  <button type="button" className="chip" aria-pressed={mode === 'length'} onClick={() => choose('length')}>
                    length
                  </button>
                  <button type="button" className="chip" aria-pressed={mode === 'angle'} onClick={() => choose('angle')}>
                    angle
                  </button>
                </>
              )}
              <button type="button" className="chip" aria-pressed={proportions} onClick={() => setProportions(!proportions)}>
                levels and axes
              </button>
              <button type="button" className="chip" aria-pressed={magnified} onClick={() => setMagnified(!magnified)}>
                magnifier
              </button>
              <LightControls light={light} onChange={setLight} />
              <span className="flex-1" />
              <PhotoUpload compact />
            </div>
            {mode === 'scale' && <CalibrationTool from={from} clear={() => setFrom(undefined)} />}
          </>
        ) : (
          <NoPhoto />
        )
      }
      panel={<FindingsPanel />}
      foot={
        <>
          <span>{foot(mode, next && { ...next, name: name(next.tooth) }, scaled, from !== undefined, begun.length)}</span>
          <KeyHint keys={['⇥']} does="next point" />
          <KeyHint keys={['←↑→↓']} does="nudge 1 px" />
          <KeyHint keys={['⇧']} does="0.1" />
          <KeyHint keys={['0']} does="whole picture" />
          <KeyHint keys={['?']} does="all keys" />
          <span className="ml-auto">
            {data.landmarks.length} of {ORDER.length} points
          </span>
        </>
      }
    />
  );
}

const orderOf = (p: Place) => ORDER.findIndex((q) => same(p, q));

function foot(mode: Mode, next: (Place & { name: string }) | undefined, scaled: boolean, hasFrom: boolean, begun: number) {
  if (mode === 'length') return begun ? 'click the other end' : 'click the two ends of a length';
  if (mode === 'angle') return ['click the end of one arm', 'click the corner', 'click the end of the other arm'][begun];
  if (mode === 'scale') return scaled ? 'drag the two ends of the scale' : `click the ${hasFrom ? 'other' : 'one'} end of a known length`;
  return next ? (
    <>
      next:{' '}
      <b className="text-ink">
        {next.kind} point of {next.name}
      </b>
    </>
  ) : (
    'all points are set'
  );
}

function Dot({ on }: { on: boolean }) {
  return (
    <>
      <circle className="ring" r={on ? 7 : 4.8} fill="none" stroke="#1d2428" strokeOpacity={0.55} strokeWidth={3.4} />
      <circle r={on ? 7 : 4.8} fill="none" stroke={on ? '#8b3c86' : '#fff'} strokeWidth={2} />
      <circle r={1.3} fill={on ? '#8b3c86' : '#fff'} />
    </>
  );
}
