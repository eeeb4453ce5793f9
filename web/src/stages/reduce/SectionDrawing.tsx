import {
  AT_AXIS,
  isUpper,
  SCAN_PM_MM,
  SECTION_LIMITS,
  type SectionLine,
  type SectionPlace,
  type SectionPoint,
  type ToothReduction,
  type ToothSection,
} from '@radiant/core';
import { useSection, useToothLabel } from '../../data/case-context.js';
import { number } from '../../ui/format.js';
import { PALETTE } from '../../ui/palette.js';

/** What the plan adds to the tooth, and a mock-up of it is. */
const MOCK_UP = '#efe3ea';

/** @param rootward −1 where roots go up in the picture, 1 where they go down */
const linePath = (l: SectionLine, rootward: number) => {
  let d = '';
  for (let i = 0; i < l.points.length; i += 2)
    d += `${i === 0 ? 'M' : 'L'}${(l.points[i] as number).toFixed(3)} ${(rootward * (l.points[i + 1] as number)).toFixed(3)}`;
  return l.closed ? `${d}Z` : d;
};
const pointsPath = (p: readonly SectionPoint[], rootward: number) =>
  p.map(([a, z], i) => `${i === 0 ? 'M' : 'L'}${a.toFixed(3)} ${(rootward * z).toFixed(3)}`).join('');

/** Facio-palatal section at the axis, to scale: tooth, planned contour, target, and the dimensions between them. */
export function SectionDrawing({
  section,
  reductions,
  own,
  place,
  setPlace,
}: {
  section: ToothSection;
  reductions: readonly ToothReduction[];
  own: ToothReduction;
  place: SectionPlace;
  setPlace: (place: SectionPlace) => void;
}) {
  const name = useToothLabel();
  const shape = useSection('shape');
  const { data } = useSection('reduce');
  const bounds = boundsOf(section);
  const edge = own.zones.find((z) => z.zone === 'edge');
  const atAxis = place.turnDeg === 0 && place.besideMm === 0;
  const rootward = isUpper(own.tooth) ? -1 : 1;
  const at = (z: number) => rootward * z;
  const view = {
    x: bounds.x0 - 5.2,
    y: rootward === -1 ? -bounds.z1 - 0.5 : bounds.z0 - 2.1,
    w: bounds.x1 - bounds.x0 + 11.5,
    h: bounds.z1 - bounds.z0 + 2.6,
  };
  const removed = reductions.reduce((n, r) => n + r.volumeMm3, 0);
  const bare = reductions.reduce((n, r) => n + r.unplannedMm3, 0);
  return (
    <section
      aria-label={`Section through ${name(own.tooth)}`}
      className="flex min-h-0 flex-1 flex-col gap-4 min-[1180px]:grid min-[1180px]:grid-cols-[minmax(0,1fr)_250px]"
    >
      <div className="flex min-h-0 flex-1 flex-col">
        <h2 className="subtitle text-lead">Section through {name(own.tooth)}</h2>
        <div className="flex flex-wrap items-center gap-x-4 gap-y-1 text-note text-ink-2">
          <span>facial left, {atAxis ? 'at the axis' : placeWords(place, rootward === -1)}; mm</span>
          <Slider
            label="turned"
            unit="°"
            most={SECTION_LIMITS.turnDeg}
            step={5}
            value={place.turnDeg}
            set={(turnDeg) => setPlace({ ...place, turnDeg })}
          />
          <Slider
            label="beside"
            unit="mm"
            most={SECTION_LIMITS.besideMm}
            step={0.5}
            value={place.besideMm}
            set={(besideMm) => setPlace({ ...place, besideMm })}
          />
          {!atAxis && (
            <button type="button" className="how" onClick={() => setPlace(AT_AXIS)}>
              back to the axis
            </button>
          )}
        </div>
        <svg
          viewBox={`${view.x} ${view.y} ${view.w} ${view.h}`}
          className="min-h-0 w-full flex-1"
          role="img"
          aria-label="Existing, planned and target lines with dimensions"
        >
          <clipPath id="near-the-section">
            <rect x={view.x} y={view.y} width={view.w} height={view.h} />
          </clipPath>
          <g fill="none" strokeLinejoin="round">
            <g clipPath="url(#near-the-section)">
              {section.across.map((l, i) => (
                <path key={`x${i}`} d={linePath(l, rootward)} fill="#eef0f0" stroke="#8d9499" strokeWidth={0.05} />
              ))}
            </g>
            {section.planned.map((l, i) => (
              <path key={`m${i}`} d={linePath(l, rootward)} fill={MOCK_UP} />
            ))}
            {section.existing.map((l, i) => (
              <path key={`e${i}`} d={linePath(l, rootward)} fill="#efe9dd" stroke={PALETTE.ink} strokeWidth={0.07} />
            ))}
            <path
              d={pointsPath(section.enamelEnds, rootward)}
              stroke="#a8966f"
              strokeWidth={0.06}
              strokeDasharray="0.1 0.14"
            />
            {section.planned.map((l, i) => (
              <path key={`p${i}`} d={linePath(l, rootward)} stroke={PALETTE.plum} strokeWidth={0.1} />
            ))}
            {section.aligned.map((l, i) => (
              <path
                key={`a${i}`}
                d={linePath(l, rootward)}
                stroke={PALETTE.removed}
                strokeWidth={0.06}
                strokeDasharray="0.08 0.12"
              />
            ))}
            {section.target.map((l, i) => (
              <path
                key={`t${i}`}
                d={linePath(l, rootward)}
                stroke={PALETTE.removed}
                strokeWidth={0.1}
                strokeDasharray="0.34 0.2"
              />
            ))}
          </g>
          <g fontSize={0.62} fill={PALETTE.ink}>
            {section.dimensions.map((d) => {
              const z = own.zones.find((q) => q.zone === d.third);
              // At the axis a third is told as everywhere, by the middle of its face; elsewhere by the section itself.
              const mm = atAxis ? z?.removal?.remove.value : d.removedMm;
              const gap = atAxis ? z?.removal?.gap : d.gapMm;
              const x = bounds.x0 - 4.6;
              return (
                <g key={d.third}>
                  <path
                    d={`M${bounds.x0 - 2.2} ${at(d.z)}H${Math.min(d.existing, d.planned) - 0.1}`}
                    stroke="#8d9499"
                    strokeWidth={0.04}
                  />
                  <path d={`M${d.existing} ${at(d.z)}H${d.target}`} stroke={PALETTE.removed} strokeWidth={0.14} />
                  <text x={x} y={at(d.z) + 0.05}>
                    <tspan fontWeight={650}>{mm === undefined ? '–' : mm === 0 ? 'none' : mm.toFixed(2)}</tspan>
                  </text>
                  <text x={x} y={at(d.z) + 0.72} fontSize={0.52} fill={PALETTE.ink2}>
                    gap {gap === undefined ? '–' : number(gap, 2)}
                  </text>
                </g>
              );
            })}
            <path
              d={`M${bounds.x1 * 0.25 + 0.3} ${at(section.edge.existing)}H${bounds.x1 + 1.4}`}
              stroke={PALETTE.ink}
              strokeWidth={0.04}
            />
            <path d={`M${bounds.x1 * 0.25 + 0.3} 0H${bounds.x1 + 1.4}`} stroke={PALETTE.plum} strokeWidth={0.04} />
            <path
              d={`M${bounds.x1 * 0.25 + 0.3} ${at(section.edge.target)}H${bounds.x1 + 1.4}`}
              stroke={PALETTE.removed}
              strokeWidth={0.05}
            />
            <text x={bounds.x1 + 1.6} y={at(section.edge.target) - 0.1} fill={PALETTE.removedInk}>
              target
            </text>
            <text x={bounds.x1 + 1.6} y={0.45} fill={PALETTE.plum}>
              plan
            </text>
            <text x={bounds.x0 - 4.6} y={rootward === -1 ? 1.4 : -1}>
              edge:{' '}
              <tspan fontWeight={650}>
                {edge?.removal
                  ? edge.removal.remove.value === 0
                    ? 'none'
                    : edge.removal.remove.value.toFixed(2)
                  : 'flatten only'}
              </tspan>
              {edge?.removal && (
                <tspan fill={PALETTE.ink2}> of tooth; {edge.removal.needed.toFixed(1)} from the plan</tspan>
              )}
            </text>
            <g transform={`translate(${bounds.x1 + 0.6} ${view.y + 1.4})`}>
              <path d="M0 0V0.25M5 0V0.25M0 0.125H5" stroke={PALETTE.ink2} strokeWidth={0.05} />
              <text x={2.5} y={-0.15} textAnchor="middle" fontSize={0.55} fill={PALETTE.ink2}>
                5 mm
              </text>
            </g>
          </g>
        </svg>
      </div>
      <div className="text-note max-[1179px]:flex max-[1179px]:items-start max-[1179px]:gap-6 max-[1179px]:text-fine">
        <ul className="mb-5 mt-1 space-y-2 max-[1179px]:mb-0 max-[1179px]:space-y-0.5">
          <Line colour={PALETTE.ink} word={`tooth as scanned, ±${SCAN_PM_MM.toFixed(2)}`} />
          <Line colour={PALETTE.plum} word={`contour no. ${shape.version}`} thick />
          <li className="flex items-center gap-3">
            <span className="h-3 w-[34px] shrink-0 border border-hair" style={{ background: MOCK_UP }} />
            what the mock-up adds
          </li>
          <Line colour={PALETTE.removed} word="target of the preparation" dash="7 4" thick />
          {section.aligned.length > 0 && <Line colour={PALETTE.removed} word="brought into line first" dash="2 2" />}
          {section.across.length > 0 && <Line colour="#8d9499" word="teeth across, closed" />}
          <Line colour="#a8966f" word="enamel ends, middle of the norm" dash="2 3" />
        </ul>
        <div>
          <h3 className="font-[650]">
            {reductions.length === 1 ? 'One tooth' : `${reductions.length} teeth`}, removed in all
          </h3>
          <p className="mt-1">
            <b className="text-figure font-[650]">{removed.toFixed(0)}</b> mm³ with this plan
          </p>
          {bare > removed + 1 && (
            <p className="text-ink-2">
              <span className="text-figure">{bare.toFixed(0)}</span> mm³ if the same thickness were cut from the bare
              teeth
            </p>
          )}
          {data.from !== 'mock-up' && (
            <p className="mt-2 text-ink-2">Without a mock-up only the depth of the tooth itself is cut.</p>
          )}
        </div>
      </div>
    </section>
  );
}

const placeWords = ({ turnDeg, besideMm }: SectionPlace, upper: boolean): string =>
  [
    turnDeg === 0 ? '' : `turned ${number(turnDeg, 0)}°`,
    besideMm === 0
      ? ''
      : `${Math.abs(besideMm).toFixed(1)} mm to the patient’s ${besideMm > 0 === upper ? 'left' : 'right'}`,
  ]
    .filter(Boolean)
    .join(', ');

function Slider({
  label,
  unit,
  most,
  step,
  value,
  set,
}: {
  label: string;
  unit: string;
  most: number;
  step: number;
  value: number;
  set: (value: number) => void;
}) {
  return (
    <label className="flex items-center gap-1.5 text-tiny">
      {label}
      <input
        type="range"
        className="h-6 w-[92px] accent-plum"
        aria-label={`Section ${label}, ${unit}`}
        min={-most}
        max={most}
        step={step}
        value={value}
        onChange={(e) => set(Number(e.target.value))}
      />
    </label>
  );
}

function Line({ colour, word, dash, thick = false }: { colour: string; word: string; dash?: string; thick?: boolean }) {
  return (
    <li className="flex items-center gap-3">
      <svg width="34" height="6" aria-hidden="true">
        <path d="M0 3H34" stroke={colour} strokeWidth={thick ? 2.4 : 1.6} {...(dash && { strokeDasharray: dash })} />
      </svg>
      {word}
    </li>
  );
}

function boundsOf(s: ToothSection) {
  let x0 = Infinity;
  let x1 = -Infinity;
  let z0 = Infinity;
  let z1 = -Infinity;
  for (const l of [...s.existing, ...s.planned]) {
    for (let i = 0; i < l.points.length; i += 2) {
      x0 = Math.min(x0, l.points[i] as number);
      x1 = Math.max(x1, l.points[i] as number);
      z0 = Math.min(z0, l.points[i + 1] as number);
      z1 = Math.max(z1, l.points[i + 1] as number);
    }
  }
  return { x0, x1, z0, z1 };
}
