import { PHOTO_VIEWS, viewPoints } from '@radiant/contract';
import { EDGE_LIMITS, type LevelMouth, levelMouth, type Px } from '@radiant/core';
import { type KeyboardEvent, type PointerEvent, useMemo, useRef } from 'react';
import { useBenchReading } from '../../data/bench-reading.js';
import { useCase, useSection, useToothLabel } from '../../data/case-context.js';
import { photoUrl } from '../../data/photo-url.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { number, signed } from '../../ui/format.js';
import { PALETTE } from '../../ui/palette.js';

/** One step of the edge, mm. */
const STEP_MM = 0.1;

/**
 * The planned edge on the photograph: dragged up and down, beside the lip and the edge that is.
 * @param downOf how far the plan sets each tooth's edge down, mm
 */
export function EdgePhoto({ view, downOf }: { view: 'close-rest' | 'close-smile'; downOf: (tooth: number) => number }) {
  const { detail } = useCase();
  const { data, set, store } = useSection('propose');
  const mayWrite = useMayWrite('propose');
  const name = useToothLabel();
  const { photo, points, scale } = useBenchReading(view);
  const mouth = useMemo(() => levelMouth(viewPoints(points)), [points]);
  const svg = useRef<SVGSVGElement>(null);
  const grabbed = useRef<{ y: number; edgeMm: number } | undefined>(undefined);
  if (!photo?.width || !photo.height) return <Missing words={`No photograph of the ${PHOTO_VIEWS[view]} yet.`} />;
  if (!mouth || !scale || mouth.edges.size === 0)
    return (
      <Missing
        words={`Mark corners, both lips and the edges on the ${PHOTO_VIEWS[view]} in read, and set its scale: then the edge can be moved here.`}
      />
    );

  const pxPerMm = 1 / scale.value;
  const edges = [...mouth.edges].sort((a, b) => a[1][0] - b[1][0]);
  const planned = edges.map(([tooth, p]) => [tooth, [p[0], p[1] + downOf(tooth) * pxPerMm] as Px] as const);
  const box = around(mouth, pxPerMm);
  const path = (list: readonly Px[]) => list.map((p, i) => `${i === 0 ? 'M' : 'L'}${at(mouth, p)}`).join('');
  const lip = (of: (x: number) => number) => {
    const [a, b] = mouth.corners;
    return path(
      Array.from({ length: 61 }, (_, i): Px => [a[0] + ((b[0] - a[0]) * i) / 60, of(a[0] + ((b[0] - a[0]) * i) / 60)]),
    );
  };
  const move = (mm: number) => {
    const edgeMm = Math.round(Math.min(EDGE_LIMITS.max, Math.max(EDGE_LIMITS.min, mm)) / STEP_MM) * STEP_MM;
    set({ ...data, edgeMm: Math.round(edgeMm * 10) / 10 }, 'edge');
  };
  const yOf = (e: PointerEvent): number => {
    const m = svg.current?.getScreenCTM()?.inverse();
    if (!m) return 0;
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(m);
    return mouth.level([p.x, p.y])[1];
  };
  const keys = (e: KeyboardEvent) => {
    if (e.key !== 'ArrowUp' && e.key !== 'ArrowDown') return;
    e.preventDefault();
    move(data.edgeMm + (e.key === 'ArrowDown' ? STEP_MM : -STEP_MM));
    store.endGroup();
  };
  const handle = planned[Math.floor((planned.length - 1) / 2)]?.[1] ?? [0, 0];
  const right = planned.at(-1)?.[1] ?? [0, 0];
  const px = box[2] / 900;
  return (
    <svg
      ref={svg}
      viewBox={box.join(' ')}
      className="h-full w-full rounded-lg bg-bench"
      preserveAspectRatio="xMidYMid slice"
      role="img"
      aria-label={`The planned edge on the photograph, ${PHOTO_VIEWS[view]}`}
      onPointerMove={(e) => {
        const g = grabbed.current;
        if (g) move(g.edgeMm + (yOf(e) - g.y) / pxPerMm);
      }}
      onPointerUp={() => {
        if (grabbed.current) store.endGroup();
        grabbed.current = undefined;
      }}
    >
      <image href={photoUrl(detail.id, photo)} width={photo.width} height={photo.height} />
      <path
        d={lip(mouth.lower)}
        fill="none"
        stroke={PALETTE.white}
        strokeOpacity={0.75}
        strokeWidth={1.6 * px}
        strokeDasharray={`${5 * px} ${4 * px}`}
      />
      <path d={path(edges.map(([, p]) => p))} fill="none" stroke={PALETTE.white} strokeWidth={2 * px} />
      <path d={path(planned.map(([, p]) => p))} fill="none" stroke={PALETTE.plum} strokeWidth={3.2 * px} />
      {planned.map(([tooth, p]) => (
        <circle
          key={tooth}
          cx={mouth.back(p)[0]}
          cy={mouth.back(p)[1]}
          r={3.4 * px}
          fill={PALETTE.plum}
          stroke={PALETTE.white}
          strokeWidth={px}
        >
          <title>{name(tooth)}</title>
        </circle>
      ))}
      <text
        {...xy(mouth, [right[0] + 14 * px, right[1]])}
        fontSize={15 * px}
        fontWeight={600}
        fill={PALETTE.white}
        stroke={PALETTE.plum}
        strokeWidth={3.5 * px}
        paintOrder="stroke"
      >
        {data.edgeMm === 0 ? 'as it is' : `${signed(data.edgeMm, 1)} mm`}
      </text>
      {/* The whole planned line can be taken hold of. */}
      <path
        d={path(planned.map(([, p]) => p))}
        fill="none"
        stroke="transparent"
        strokeWidth={34 * px}
        strokeLinejoin="round"
        role="slider"
        tabIndex={mayWrite ? 0 : -1}
        aria-label="Planned edge, up and down"
        aria-orientation="vertical"
        aria-valuemin={EDGE_LIMITS.min}
        aria-valuemax={EDGE_LIMITS.max}
        aria-valuenow={data.edgeMm}
        aria-valuetext={`${number(data.edgeMm, 1)} mm down`}
        className={mayWrite ? 'cursor-ns-resize' : ''}
        onKeyDown={mayWrite ? keys : undefined}
        onPointerDown={(e) => {
          if (!mayWrite) return;
          (e.target as Element).setPointerCapture(e.pointerId);
          grabbed.current = { y: yOf(e), edgeMm: data.edgeMm };
        }}
      />
      <path
        {...arrow(mouth, handle, px)}
        fill="none"
        stroke={PALETTE.white}
        strokeWidth={2 * px}
        pointerEvents="none"
      />
    </svg>
  );
}

const at = (m: LevelMouth, p: Px): string => {
  const q = m.back(p);
  return `${q[0].toFixed(1)} ${q[1].toFixed(1)}`;
};
const xy = (m: LevelMouth, p: Px) => ({ x: m.back(p)[0], y: m.back(p)[1] });

/** A small double arrow beside the middle of the line: it goes up and down. */
function arrow(m: LevelMouth, p: Px, px: number): { d: string } {
  const [x, y] = m.back([p[0], p[1]]);
  const s = 5 * px;
  const up = y - 9 * px;
  const down = y + 9 * px;
  return {
    d: `M${x - s} ${up + s}L${x} ${up}L${x + s} ${up + s}M${x - s} ${down - s}L${x} ${down}L${x + s} ${down - s}`,
  };
}

/** The part of the picture around the mouth, px: x, y, width, height. */
function around(m: LevelMouth, pxPerMm: number): readonly [number, number, number, number] {
  const [a, b] = [m.back(m.corners[0]), m.back(m.corners[1])];
  const ys = [...m.edges.values()].map((p) => m.back(p)[1]);
  const low = m.back([(m.corners[0][0] + m.corners[1][0]) / 2, m.lower((m.corners[0][0] + m.corners[1][0]) / 2)])[1];
  const x0 = Math.min(a[0], b[0]) - 2 * pxPerMm;
  const x1 = Math.max(a[0], b[0]) + 2 * pxPerMm;
  const y0 = Math.min(...ys) - 11 * pxPerMm;
  const y1 = Math.max(low, ...ys) + 6 * pxPerMm;
  return [x0, y0, x1 - x0, y1 - y0];
}

function Missing({ words }: { words: string }) {
  return (
    <div className="flex h-full items-center justify-center rounded-lg bg-porcelain px-10 text-center text-ink-2">
      <p className="max-w-[46ch]">{words}</p>
    </div>
  );
}
