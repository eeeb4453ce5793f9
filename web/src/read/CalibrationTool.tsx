import { CalibrationInput, check } from '@radiant/contract';
import { useEffect, useId, useState } from 'react';
import { Mark } from '../bench/Mark.js';
import type { BenchView } from '../bench/PhotoBench.js';
import { useSection } from '../data/case-context.js';
import { useReading } from '../data/reading.js';
import { How, Value } from '../shell/How.js';
import { useMayWrite } from '../shell/ReadOnlyNote.js';

/** The scale's millimetres, beside the photograph while the scale is set. */
export function CalibrationTool({ from, clear }: { from: { x: number; y: number } | undefined; clear: () => void }) {
  const { data, set } = useSection('read');
  const { scale } = useReading();
  const mayWrite = useMayWrite('read');
  const id = useId();
  const c = data.calibration;
  const [text, setText] = useState(c ? String(c.mm) : '');
  const [refusal, setRefusal] = useState<string>();
  useEffect(() => {
    if (c) setText(String(c.mm));
  }, [c]);
  const change = (value: string) => {
    setText(value);
    if (!c) return;
    const next = { ...c, mm: Number(value.replace(',', '.')) };
    const { errors } = check(CalibrationInput, next);
    setRefusal(errors[0]?.message);
    if (errors.length === 0) set({ ...data, calibration: next }, 'scale length');
  };
  return (
    <section aria-label="Scale" className="absolute bottom-4 left-4 w-[330px] rounded-xl bg-leaf p-4 shadow-lg">
      <h2 className="subtitle">Scale</h2>
      {!c ? (
        <p className="mt-1 text-ink-2">
          {from ? 'Now click the other end.' : 'Click the two ends of a known length: the scale in the picture, as far apart as it allows.'}
        </p>
      ) : (
        <>
          <div className="mt-2 flex items-center gap-2">
            <label htmlFor={id}>Between the two points</label>
            <input
              id={id}
              className="field w-[84px] text-right"
              inputMode="decimal"
              value={text}
              disabled={!mayWrite}
              aria-invalid={refusal ? true : undefined}
              onChange={(e) => change(e.target.value)}
            />
            mm
          </div>
          {refusal ? (
            <p role="alert" className="mt-1 text-[13px] text-stop">
              {refusal}
            </p>
          ) : (
            scale && (
              <p className="mt-2 text-ink-2">
                <b className="font-semibold text-ink">
                  <Value figure={scale} digits={4} />
                </b>{' '}
                mm a pixel, ±{((100 * scale.pm) / scale.value).toFixed(1)} % <How figure={scale} what="scale" />
              </p>
            )
          )}
          {mayWrite && (
            <button
              type="button"
              className="how mt-2 text-[13px]"
              onClick={() => {
                clear();
                set({ ...data, calibration: null });
              }}
            >
              set it anew
            </button>
          )}
        </>
      )}
    </section>
  );
}

/** The scale's two ends and the line between them. */
export function CalibrationMarks({
  view,
  bounds,
  from,
}: {
  view: BenchView;
  bounds: { width: number; height: number };
  from: { x: number; y: number } | undefined;
}) {
  const { data, set, store } = useSection('read');
  const mayWrite = useMayWrite('read');
  const c = data.calibration;
  const cross = (
    <>
      <path d="M-9 0H9M0-9V9" stroke="#1d2428" strokeOpacity={0.6} strokeWidth={4} />
      <path d="M-9 0H9M0-9V9" stroke="#fff" strokeWidth={1.8} />
    </>
  );
  if (!c) return from ? <g transform={`translate(${from.x} ${from.y}) scale(${1 / view.zoom})`}>{cross}</g> : null;
  const end = (which: 'from' | 'to', label: string) => (
    <Mark
      key={which}
      x={c[which].x}
      y={c[which].y}
      label={label}
      view={view}
      bounds={bounds}
      locked={!mayWrite}
      onMove={(x, y) => {
        const other = c[which === 'from' ? 'to' : 'from'];
        if (Math.hypot(other.x - x, other.y - y) >= 10) set({ ...data, calibration: { ...c, [which]: { x, y } } }, `scale ${which}`);
      }}
      onDone={() => store.endGroup()}
    >
      {cross}
    </Mark>
  );
  return (
    <>
      <path d={`M${c.from.x} ${c.from.y}L${c.to.x} ${c.to.y}`} stroke="#8b3c86" strokeWidth={2 / view.zoom} pointerEvents="none" />
      {end('from', 'one end of the scale')}
      {end('to', 'other end of the scale')}
    </>
  );
}
