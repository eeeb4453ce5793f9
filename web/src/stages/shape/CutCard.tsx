import type { CutView, SectionLine } from '@radiant/core';
import { type PointerEvent, useRef, useState } from 'react';
import { type Asked, shownOf } from '../../engine/use-asked.js';
import { number, signed } from '../../ui/format.js';
import { PALETTE } from '../../ui/palette.js';
import type { CutSetting } from './use-cut.js';

const KINDS: readonly (readonly [CutSetting['kind'], string])[] = [
  ['through', 'front to back'],
  ['level', 'level'],
  ['frontal', 'frontal'],
];

/** Half the width and height of the drawing, mm. */
const HALF = { a: 11, b: 9.5 } as const;

/** A plane through the chosen tooth: how it lies, its lines to scale, and distances between two places. */
export function CutCard({
  setting,
  set,
  asked,
}: {
  setting: CutSetting;
  set: (s: CutSetting) => void;
  asked: Asked<CutView>;
}) {
  const view = shownOf(asked);
  const [ends, setEnds] = useState<readonly (readonly [number, number])[]>([]);
  const [at, setAt] = useState<readonly [number, number]>();
  const svg = useRef<SVGSVGElement>(null);
  const place = (e: PointerEvent): readonly [number, number] => {
    const m = svg.current?.getScreenCTM()?.inverse();
    if (!m) return [0, 0];
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(m);
    return [p.x, -p.y];
  };
  const shown =
    ends.length === 1 && at ? [ends[0] as readonly [number, number], at] : ends.length === 2 ? ends : undefined;
  return (
    <section aria-label="Section" className="text-note">
      <div className="mb-2 flex gap-1">
        {KINDS.map(([kind, word]) => (
          <button
            key={kind}
            type="button"
            className="chip chip-flat"
            aria-pressed={setting.kind === kind}
            onClick={() => set({ ...setting, kind })}
          >
            {word}
          </button>
        ))}
      </div>
      <Slide
        label="moved"
        unit="mm"
        value={setting.offsetMm}
        min={-8}
        max={8}
        step={0.1}
        set={(offsetMm) => set({ ...setting, offsetMm })}
      />
      <Slide
        label="turned"
        unit="°"
        value={setting.turnDeg}
        min={-90}
        max={90}
        step={1}
        set={(turnDeg) => set({ ...setting, turnDeg })}
      />
      <Slide
        label="tilted"
        unit="°"
        value={setting.tiltDeg}
        min={-90}
        max={90}
        step={1}
        set={(tiltDeg) => set({ ...setting, tiltDeg })}
      />
      <svg
        ref={svg}
        viewBox={`${-HALF.a} ${-HALF.b} ${2 * HALF.a} ${2 * HALF.b}`}
        className="mt-2 h-[250px] w-full cursor-crosshair rounded-lg bg-white"
        role="img"
        aria-label="Lines of the section, a square is one millimetre"
        onPointerMove={(e) => setAt(place(e))}
        onPointerLeave={() => setAt(undefined)}
        onPointerDown={(e) => setEnds(ends.length === 1 ? [...ends, place(e)] : [place(e)])}
      >
        <defs>
          <pattern id="mm" width="1" height="1" patternUnits="userSpaceOnUse">
            <path d="M1 0H0V1" fill="none" stroke={PALETTE.hair} strokeWidth={0.03} />
          </pattern>
        </defs>
        <rect x={-HALF.a} y={-HALF.b} width={2 * HALF.a} height={2 * HALF.b} fill="url(#mm)" />
        {view?.lower.map((l, i) => (
          <path
            key={`l${i.toString()}`}
            d={path(l)}
            fill={PALETTE.ink3}
            fillOpacity={0.09}
            stroke={PALETTE.ink3}
            strokeWidth={0.07}
          />
        ))}
        {view?.existing.map((l, i) => (
          <path
            key={`e${i.toString()}`}
            d={path(l)}
            fill={PALETTE.ink}
            fillOpacity={0.06}
            stroke={PALETTE.ink}
            strokeWidth={0.08}
          />
        ))}
        {view?.planned.map((l, i) => (
          <path key={`p${i.toString()}`} d={path(l)} fill="none" stroke={PALETTE.plum} strokeWidth={0.11} />
        ))}
        {shown && <Span from={shown[0] as readonly [number, number]} to={shown[1] as readonly [number, number]} />}
      </svg>
      <p className="mt-1.5 flex gap-3 text-tiny">
        <span>
          <span className="mr-1 inline-block w-4 border-t-2 border-ink align-middle" />
          as scanned
        </span>
        <span className="text-plum">
          <span className="mr-1 inline-block w-4 border-t-2 border-plum align-middle" />
          planned
        </span>
        <span className="ml-auto text-ink-2">two clicks measure</span>
      </p>
    </section>
  );
}

function path(l: SectionLine): string {
  let d = '';
  for (let i = 0; i < l.points.length; i += 2)
    d += `${i === 0 ? 'M' : 'L'}${(l.points[i] as number).toFixed(2)} ${(-(l.points[i + 1] as number)).toFixed(2)}`;
  return l.closed ? `${d}Z` : d;
}

function Span({ from, to }: { from: readonly [number, number]; to: readonly [number, number] }) {
  const mm = Math.hypot(to[0] - from[0], to[1] - from[1]);
  return (
    <g>
      <path d={`M${from[0]} ${-from[1]}L${to[0]} ${-to[1]}`} stroke={PALETTE.stop} strokeWidth={0.09} />
      {[from, to].map((p) => (
        <circle key={`${p[0]} ${p[1]}`} cx={p[0]} cy={-p[1]} r={0.16} fill={PALETTE.stop} />
      ))}
      <text
        x={(from[0] + to[0]) / 2 + 0.3}
        y={-(from[1] + to[1]) / 2 - 0.3}
        fontSize={0.95}
        fontWeight={600}
        fill={PALETTE.stop}
        stroke={PALETTE.white}
        strokeWidth={0.25}
        paintOrder="stroke"
      >
        {number(mm, 2)} mm
      </text>
    </g>
  );
}

function Slide({
  label,
  unit,
  value,
  min,
  max,
  step,
  set,
}: {
  label: string;
  unit: string;
  value: number;
  min: number;
  max: number;
  step: number;
  set: (v: number) => void;
}) {
  return (
    <label className="flex h-[26px] items-center gap-2">
      <span className="w-[48px]">{label}</span>
      <input
        type="range"
        className="min-w-0 flex-1 accent-plum"
        min={min}
        max={max}
        step={step}
        value={value}
        onChange={(e) => set(Number(e.target.value))}
      />
      <output className="w-[62px] text-right font-semibold">
        {signed(value, unit === 'mm' ? 1 : 0)} {unit}
      </output>
    </label>
  );
}
