import { isUpper, type MarginPlace } from '@radiant/core';
import { useCase } from '../../data/case-context.js';
import { number } from '../../ui/format.js';
import { PALETTE } from '../../ui/palette.js';

/** The four sides at which the level is told, degrees from the front. */
const SIDES = [
  ['mesial', -80],
  ['facial', 0],
  ['distal', 80],
  ['palatal', 180],
] as const;
/** Less than this is at the gum, mm: what a scan does not tell. */
const AT_GUM_MM = 0.05;
/** Drawing units a millimetre of height and a degree. */
const PX_MM = 13;
const PX_DEG = 0.72;

/** The finish line unrolled from mesial to distal, and behind where it goes all round, with its level to the gum. */
export function FinishCourse({ margin }: { margin: readonly MarginPlace[] }) {
  const { tooth } = useCase();
  if (margin.length < 2) return null;
  const rootward = isUpper(tooth) ? -1 : 1;
  const heights = margin.flatMap((p) => [p.heightMm, p.gumMm, p.gumMm + p.wishedMm]);
  const [low, high] = [Math.min(...heights) - 0.3, Math.max(...heights) + 0.5];
  const [from, to] = [margin[0]?.turnDeg ?? 0, margin.at(-1)?.turnDeg ?? 0];
  const x = (deg: number) => (deg - from) * PX_DEG;
  const y = (mm: number) => (rootward === -1 ? high - mm : mm - low) * PX_MM;
  const path = (height: (p: MarginPlace) => number) =>
    margin.map((p, i) => `${i === 0 ? 'M' : 'L'}${x(p.turnDeg).toFixed(1)} ${y(height(p)).toFixed(1)}`).join('');
  const [width, tall] = [(to - from) * PX_DEG, (high - low) * PX_MM];
  const rim = y(rootward === -1 ? high : high);
  const short = margin.some((p) => Math.abs(p.heightMm - p.gumMm - p.wishedMm) > AT_GUM_MM);
  const told = SIDES.flatMap(([side, deg]) => {
    const p = margin.reduce((a, b) => (off(b, deg) < off(a, deg) ? b : a));
    return off(p, deg) < 25 ? [{ side, p }] : [];
  });
  return (
    <figure className="mt-4" aria-label="Finish line">
      <h3 className="subtitle">Finish line</h3>
      <svg
        viewBox={`-4 -4 ${width + 8} ${tall + 8}`}
        className="mt-1 w-full"
        role="img"
        aria-label={`Level to the gum: ${told.map(({ side, p }) => `${side} ${levelWords(p)}`).join(', ')}`}
      >
        <path d={`${path((p) => p.gumMm)}L${x(to)} ${rim}L${x(from)} ${rim}Z`} fill="#f1dcd8" />
        <path d={path((p) => p.gumMm)} fill="none" stroke="#c08a84" strokeWidth={1} />
        {short && (
          <path
            d={path((p) => p.gumMm + p.wishedMm)}
            fill="none"
            stroke={PALETTE.plum}
            strokeWidth={1}
            strokeDasharray="2 3"
          />
        )}
        <path d={path((p) => p.heightMm)} fill="none" stroke={PALETTE.plum} strokeWidth={1.8} />
      </svg>
      <figcaption>
        <dl className="flex justify-between gap-2 text-tiny">
          {told.map(({ side, p }) => (
            <div key={side}>
              <dt className="text-ink-2">{side}</dt>
              <dd className="font-semibold">{levelWords(p)}</dd>
            </div>
          ))}
        </dl>
        {short && (
          <p className="mt-1 text-tiny text-ink-2">
            Dashed: where the design wishes it. The scan shows no tooth there; the line is drawn as far as it does.
          </p>
        )}
      </figcaption>
    </figure>
  );
}

/** How far a place looks from a direction, degrees. */
const off = (p: MarginPlace, deg: number): number => {
  const d = Math.abs(p.turnDeg - deg) % 360;
  return Math.min(d, 360 - d);
};

function levelWords(p: MarginPlace): string {
  const below = p.heightMm - p.gumMm;
  if (Math.abs(below) < AT_GUM_MM) return 'at the gum';
  return `${number(Math.abs(below), 1)} ${below > 0 ? 'below' : 'above'}`;
}
