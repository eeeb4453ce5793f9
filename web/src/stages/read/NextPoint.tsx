import { isUpper, type LandmarkKind, sideOf } from '@radiant/core';
import { toothOutline } from '../../bench/tooth-outline.js';
import type { BenchMark } from '../../data/bench-marks.js';
import { useToothLabel } from '../../data/case-context.js';
import { PALETTE } from '../../ui/palette.js';

const WIDTH_MM = 8.5;
const LENGTH_MM = 10.5;

/** Where a landmark lies on a tooth seen from the front: x of its width towards the picture's right, y of its length. */
function placeOn(kind: LandmarkKind, right: boolean): readonly [number, number] {
  if (kind === 'zenith') return [0, -1];
  if (kind === 'edge') return [0, 0];
  // The middle of the mouth lies to the picture's right of a tooth on the patient's right.
  const towardsMiddle = right ? 1 : -1;
  return [(kind === 'mesial' ? towardsMiddle : -towardsMiddle) * 0.5, -0.4];
}

/** The tooth and the place on it that a click sets now, as a small picture: it goes with the pointer. */
export function NextPoint({ mark, boxed }: { mark: BenchMark | undefined; boxed: boolean }) {
  const name = useToothLabel();
  if (!mark) return null;
  const kind = mark.id.split('-')[0] as LandmarkKind;
  if (!mark.tooth || !['zenith', 'edge', 'mesial', 'distal'].includes(kind)) return null;
  const right = sideOf(mark.tooth) === 'right';
  const [x, y] = placeOn(kind, right);
  const { path } = toothOutline(mark.tooth, { widthMm: WIDTH_MM, lengthMm: LENGTH_MM, facialVolumeMm: 0 });
  return (
    <div className="flex items-center gap-2 rounded-lg bg-ink/80 py-1 pr-2.5 pl-1.5 text-tiny leading-tight text-white">
      <svg width={26} height={32} viewBox="-6 -12 12 14.5" aria-hidden="true">
        <path
          d={path}
          {...(!isUpper(mark.tooth) && { transform: `translate(0 ${-LENGTH_MM}) rotate(180)` })}
          fill="none"
          stroke={PALETTE.white}
          strokeWidth={0.7}
        />
        {boxed ? (
          <rect x={-4.9} y={-11.2} width={9.8} height={12} fill="none" stroke="#e3b4dd" strokeWidth={0.9} />
        ) : (
          <circle cx={x * WIDTH_MM} cy={y * LENGTH_MM} r={1.5} fill="#e3b4dd" />
        )}
      </svg>
      <span>
        <b className="font-semibold">{name(mark.tooth)}</b> {boxed ? 'drag a box over it' : kind}
        <span className="block opacity-80">patient’s {right ? 'right' : 'left'}</span>
      </span>
    </div>
  );
}

/** On which side of the picture the patient's right and left are. */
export function PatientSides() {
  const side =
    'pointer-events-none absolute top-1/2 -translate-y-1/2 rounded bg-ink/55 px-1.5 py-0.5 text-tiny text-white';
  return (
    <>
      <span className={`${side} left-2`}>patient’s right</span>
      <span className={`${side} right-2`}>patient’s left</span>
    </>
  );
}
