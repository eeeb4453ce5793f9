import type { PhotoView } from '@radiant/contract';
import { frontLandmarks } from '@radiant/contract';
import { fitArchCurve, LOWER_TEN, type PhotoOnScan, type Px, UPPER_TEN } from '@radiant/core';
import type { BenchView } from '../../bench/PhotoBench.js';
import { useBenchReading } from '../../data/bench-reading.js';
import { useSection } from '../../data/case-context.js';
import { useReading } from '../../data/reading.js';
import { number } from '../../ui/format.js';
import { PALETTE } from '../../ui/palette.js';
import type { OverlayId } from './use-overlays.js';

/** Lines over the photograph, each switched on by itself. */
export function Overlays({
  view,
  on,
  bench,
  width,
  scanned,
}: {
  view: PhotoView;
  on: ReadonlySet<OverlayId>;
  bench: BenchView;
  width: number;
  /** The photograph matched with the scan, where it is. */
  scanned: PhotoOnScan | undefined;
}) {
  const { points } = useBenchReading(view);
  const at = (id: string): Px | undefined => {
    const p = points.find((q) => q.id === id);
    return p && [p.x, p.y];
  };
  const px = 1 / bench.zoom;
  return (
    <g pointerEvents="none">
      {view === 'retracted-front' && <FrontLines on={on} px={px} width={width} at={at} />}
      {view === 'retracted-front' && on.has('scan-places') && scanned && <ScanPlaces scanned={scanned} px={px} />}
      {view.startsWith('portrait') && <FaceLines on={on} px={px} at={at} />}
      {view.startsWith('close') && <LipLines on={on} px={px} at={at} />}
      {view.endsWith('occlusal') && on.has('arch') && <Arch upper={view === 'upper-occlusal'} px={px} at={at} />}
      {on.has('plane') && <Line a={at('plane-back')} b={at('plane-front')} px={px} over={0.4} />}
    </g>
  );
}

/** Marks closer to the scan's place than this hide it, mm. */
const TOGETHER_MM = 0.25;

/** Where the scan has its landmarks, of those that nobody marked or that were marked elsewhere. */
function ScanPlaces({ scanned, px }: { scanned: PhotoOnScan; px: number }) {
  const { data } = useSection('read');
  return scanned.places.map(({ tooth, kind, scanPx: [x, y], offMm }) => {
    const mark = frontLandmarks(data).find((m) => m.tooth === tooth && m.kind === kind);
    if (mark && (offMm === undefined || offMm < TOGETHER_MM)) return null;
    return (
      <g key={`${kind} ${tooth}`} data-testid={`scan-place-${kind}-${tooth}`}>
        {mark && <path d={`M${mark.x} ${mark.y}L${x} ${y}`} stroke={PALETTE.white} strokeWidth={1.2 * px} />}
        <path
          d={`M${x} ${y - 5 * px}L${x + 5 * px} ${y}L${x} ${y + 5 * px}L${x - 5 * px} ${y}Z`}
          fill="#e3b4dd"
          fillOpacity={0.35}
          stroke={PALETTE.ink}
          strokeOpacity={0.6}
          strokeWidth={1.2 * px}
        />
      </g>
    );
  });
}

type At = (id: string) => Px | undefined;

/** A white line on a dark seam; longer than its points by a share at both ends. */
function Line({
  a,
  b,
  px,
  over = 0,
  dashed = false,
}: {
  a: Px | undefined;
  b: Px | undefined;
  px: number;
  over?: number;
  dashed?: boolean;
}) {
  if (!a || !b) return null;
  const [dx, dy] = [(b[0] - a[0]) * over, (b[1] - a[1]) * over];
  const d = `M${a[0] - dx} ${a[1] - dy}L${b[0] + dx} ${b[1] + dy}`;
  return (
    <>
      <path d={d} stroke={PALETTE.ink} strokeOpacity={0.4} strokeWidth={3.4 * px} />
      <path
        d={d}
        stroke={PALETTE.white}
        strokeWidth={1.4 * px}
        {...(dashed && { strokeDasharray: `${8 * px} ${5 * px}` })}
      />
    </>
  );
}

function Word({
  at,
  px,
  children,
  anchor = 'middle',
}: {
  at: Px;
  px: number;
  children: string;
  anchor?: 'start' | 'middle' | 'end';
}) {
  return (
    <text
      x={at[0]}
      y={at[1]}
      fontSize={13 * px}
      fontWeight={650}
      textAnchor={anchor}
      fill={PALETTE.white}
      stroke={PALETTE.ink}
      strokeWidth={3 * px}
      paintOrder="stroke"
    >
      {children}
    </text>
  );
}

function FrontLines({ on, px, width, at }: { on: ReadonlySet<OverlayId>; px: number; width: number; at: At }) {
  const { data } = useSection('read');
  const { measures } = useReading();
  const mark = (tooth: number, kind: string): Px | undefined => {
    const m = frontLandmarks(data).find((q) => q.tooth === tooth && q.kind === kind);
    return m && [m.x, m.y];
  };
  const edges = [11, 21].flatMap((t) => mark(t, 'edge')?.[1] ?? []);
  const zeniths = UPPER_TEN.flatMap((t) => mark(t, 'zenith')?.join(' ') ?? []);
  return (
    <>
      {on.has('edge-level') && edges.length > 0 && (
        <Line a={[0, Math.max(...edges)]} b={[width, Math.max(...edges)]} px={px} dashed />
      )}
      {on.has('gum-line') && zeniths.length > 1 && (
        <path
          d={`M${zeniths.join('L')}`}
          fill="none"
          stroke={PALETTE.white}
          strokeWidth={1.4 * px}
          strokeDasharray={`${8 * px} ${5 * px}`}
        />
      )}
      {on.has('axes') &&
        UPPER_TEN.map((t) => {
          const [m, d] = [mark(t, 'mesial'), mark(t, 'distal')];
          const middle: Px | undefined = m && d && [(m[0] + d[0]) / 2, (m[1] + d[1]) / 2];
          return <Line key={t} a={middle} b={at(`neck-${t}`) ?? mark(t, 'zenith')} px={px} over={0.5} />;
        })}
      {on.has('widths') &&
        measures.map((m) => {
          const [a, b, e] = [mark(m.tooth, 'mesial'), mark(m.tooth, 'distal'), mark(m.tooth, 'edge')];
          if (!a || !b || !e || !m.frontWidth) return null;
          const y = e[1] + 16 * px;
          return (
            <g key={m.tooth}>
              <Line a={[a[0], y]} b={[b[0], y]} px={px} />
              <Word at={[(a[0] + b[0]) / 2, y + 16 * px]} px={px}>
                {number(m.frontWidth.value, 1)}
              </Word>
            </g>
          );
        })}
    </>
  );
}

function FaceLines({ on, px, at }: { on: ReadonlySet<OverlayId>; px: number; at: At }) {
  const [brow, nose] = [at('glabella'), at('nose-base')];
  return (
    <>
      {on.has('pupils') && <Line a={at('pupil-right')} b={at('pupil-left')} px={px} over={0.5} />}
      {on.has('midline') && brow && nose && (
        <Line
          a={brow}
          b={[nose[0] + (nose[0] - brow[0]) * 0.9, nose[1] + (nose[1] - brow[1]) * 0.9]}
          px={px}
          over={0.1}
        />
      )}
      {on.has('cants') && (
        <>
          <Line a={at('corner-right')} b={at('corner-left')} px={px} over={0.2} dashed />
          <Line a={at('canine-right')} b={at('canine-left')} px={px} over={0.25} />
        </>
      )}
    </>
  );
}

function LipLines({ on, px, at }: { on: ReadonlySet<OverlayId>; px: number; at: At }) {
  const { figures } = useReading();
  const share = (id: string) => figures['close-smile']?.find((f) => f.id === id)?.figure;
  const edges = UPPER_TEN.flatMap((t) => at(`edge-${t}`)?.join(' ') ?? []);
  return (
    <>
      {on.has('edge-level') && edges.length > 1 && (
        <path
          d={`M${edges.join('L')}`}
          fill="none"
          stroke={PALETTE.white}
          strokeWidth={1.4 * px}
          strokeDasharray={`${8 * px} ${5 * px}`}
        />
      )}
      {on.has('corridor') &&
        (['right', 'left'] as const).map((side) => {
          const [corner, outer] = [at(`corner-${side}`), at(`outer-${side}`)];
          const figure = share(`corridor-${side}`);
          if (!corner || !outer) return null;
          const top = Math.min(corner[1], outer[1]) - 46 * px;
          return (
            <g key={side}>
              <Line a={[corner[0], corner[1] - 8 * px]} b={[corner[0], top]} px={px} />
              <Line a={[outer[0], outer[1] - 8 * px]} b={[outer[0], top]} px={px} />
              <Line a={[corner[0], top + 6 * px]} b={[outer[0], top + 6 * px]} px={px} />
              {figure && (
                <Word at={[(corner[0] + outer[0]) / 2, top - 4 * px]} px={px}>
                  {`${number(figure.value, 0)} %`}
                </Word>
              )}
            </g>
          );
        })}
    </>
  );
}

/** The arch through the facial edges, and each tooth that stands off it. */
function Arch({ upper, px, at }: { upper: boolean; px: number; at: At }) {
  const { figures } = useReading();
  const teeth = (upper ? UPPER_TEN : LOWER_TEN).flatMap((t) => {
    const p = at(`facial-${t}`);
    return p ? [{ t, p }] : [];
  });
  if (teeth.length < 6) return null;
  const flip = (p: Px): Px => [p[0], upper ? p[1] : -p[1]];
  const curve = fitArchCurve(teeth.map(({ p }) => flip(p)));
  const feet = teeth.map(({ p }): Px => {
    const { offset, tangentDeg } = curve.at(flip(p));
    const t = (tangentDeg * Math.PI) / 180;
    // The facial normal, back onto the curve.
    const foot: Px = [flip(p)[0] - Math.sin(t) * offset, flip(p)[1] + Math.cos(t) * offset];
    return flip(foot);
  });
  const own = figures[upper ? 'upper-occlusal' : 'lower-occlusal'] ?? [];
  return (
    <>
      <path d={smooth(feet)} fill="none" stroke={PALETTE.ink} strokeOpacity={0.4} strokeWidth={3.4 * px} />
      <path d={smooth(feet)} fill="none" stroke={PALETTE.white} strokeWidth={1.5 * px} />
      {teeth.map(({ t, p }) => {
        const turned = own.find((f) => f.id === `rotation-${t}`)?.figure;
        const off = own.find((f) => f.id === `offset-${t}`)?.figure;
        const words = [
          off && Math.abs(off.value) > off.pm ? `${number(off.value, 1)} mm` : '',
          turned && Math.abs(turned.value) > turned.pm ? `${number(turned.value, 0)}°` : '',
        ].filter(Boolean);
        return (
          <g key={t}>
            <Line a={at(`mesial-${t}`)} b={at(`distal-${t}`)} px={px} />
            {words.length > 0 && (
              <Word at={[p[0], p[1] + (upper ? -16 : 26) * px]} px={px}>
                {words.join(', ')}
              </Word>
            )}
          </g>
        );
      })}
    </>
  );
}

/** A soft line through points: cubic pieces with tangents from the neighbours. */
function smooth(p: readonly Px[]): string {
  const at = (i: number) => p[Math.min(p.length - 1, Math.max(0, i))] as Px;
  return p
    .slice(1)
    .reduce(
      (d, q, k) =>
        `${d}C${at(k)[0] + (at(k + 1)[0] - at(k - 1)[0]) / 6} ${at(k)[1] + (at(k + 1)[1] - at(k - 1)[1]) / 6} ${q[0] - (at(k + 2)[0] - at(k)[0]) / 6} ${q[1] - (at(k + 2)[1] - at(k)[1]) / 6} ${q[0]} ${q[1]}`,
      `M${at(0)[0]} ${at(0)[1]}`,
    );
}
