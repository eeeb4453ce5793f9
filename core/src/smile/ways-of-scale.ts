import { hypot } from '../geometry/vec.js';
import { isFrontKind } from '../teeth/norms.js';
import { type Fdi, kindOf } from '../teeth/notation.js';
import { differs, type Figure, MEASURED, published, type WorkingInput } from '../working/working.js';
import { LANDMARK_SD_MM, type Px, scaleOf, Z95 } from './calibration.js';
import { SEEN_FROM_FRONT } from './front-sight.js';
import type { LandmarkSet } from './landmarks.js';
import type { ViewId } from './views.js';

/** How the millimetres of a photograph are known. */
export type ScaleWay = 'scale' | 'tooth' | 'pupils' | 'scan';

/** Distance of the pupils in adults, mm: mean and what 95 in 100 lie within. */
export const PUPILS_MM = { value: 63.4, pm: 7.5, source: published('Dodgson 2004, Proc SPIE 5291:36') } as const;

/** Both ends of a length in a photograph. */
interface Ends {
  readonly from: Px;
  readonly to: Px;
}

/** A known length with its own error. */
export interface KnownLength {
  readonly way: ScaleWay;
  readonly mm: number;
  /** Half-width of the 95 % interval of the length itself; 0 for a printed scale. */
  readonly pmMm: number;
  /** How well its ends are set, one standard deviation, mm. */
  readonly sdMm: number;
}

/** A printed scale. */
export const printed = (mm: number): KnownLength => ({ way: 'scale', mm, pmMm: 0, sdMm: LANDMARK_SD_MM });

/** The pupils: measured on the patient, or, where nobody has, the adults' mean. */
export function pupils(measuredMm?: number): KnownLength {
  return measuredMm
    ? { way: 'pupils', mm: measuredMm, pmMm: 1, sdMm: 0.4 }
    : { way: 'pupils', mm: PUPILS_MM.value, pmMm: PUPILS_MM.pm, sdMm: 0.4 };
}

/**
 * Which share of a crown's width a side view shows, by the place in the row: teeth of the front are seen from their
 * end, and the outline of a round one is as thick as it is wide. On a usual arch, from a camera that cheeks keep a
 * little to the front; house values from virtual patients.
 */
const SEEN_FROM_SIDE: readonly { readonly width: number; readonly widthPm: number }[] = [
  { width: 0.86, widthPm: 0.1 },
  { width: 0.97, widthPm: 0.08 },
  { width: 0.96, widthPm: 0.06 },
  { width: 1.05, widthPm: 0.07 },
  { width: 1.05, widthPm: 0.07 },
];

/** A tooth's crown width, from the scan or another view, as a view shows it; from below it is seen whole. */
export function toothWidth(tooth: Fdi, widthMm: number, pmMm: number, view: ViewId = 'retracted-front'): KnownLength {
  const seen = shareSeen(tooth, view);
  return {
    way: 'tooth',
    mm: widthMm * seen.width,
    pmMm: hypot(pmMm * seen.width, widthMm * seen.widthPm),
    sdMm: LANDMARK_SD_MM,
  };
}

function shareSeen(tooth: Fdi, view: ViewId): { readonly width: number; readonly widthPm: number } {
  if (view.endsWith('occlusal')) return { width: 1, widthPm: 0.015 };
  if (view === 'retracted-right' || view === 'retracted-left')
    return SEEN_FROM_SIDE[Math.min(tooth % 10, SEEN_FROM_SIDE.length) - 1] as (typeof SEEN_FROM_SIDE)[number];
  const kind = kindOf(tooth);
  if (!isFrontKind(kind)) return { width: 0.7, widthPm: 0.12 };
  const { width, widthPm, mouthPm } = SEEN_FROM_FRONT[kind];
  return { width, widthPm: hypot(widthPm, mouthPm) };
}

/** A length by the scan, once the photograph is matched with it: its own error says all. */
export const byScan = (mm: number, pmMm: number): KnownLength => ({ way: 'scan', mm, pmMm, sdMm: 0 });

/**
 * The scale of a photograph from a known length of any kind, mm a pixel, with its error.
 * @throws Refusal as `scaleOf`
 */
export function scaleFrom(ends: Ends, known: KnownLength): Figure {
  const plain = scaleOf({ ...ends, mm: known.mm });
  if (known.way === 'scale') return plain;
  const relative = hypot((Z95 * Math.SQRT2 * known.sdMm) / known.mm, known.pmMm / known.mm);
  const inputs: WorkingInput[] = [
    {
      name: {
        tooth: 'width of the tooth as seen',
        pupils: 'distance of the pupils',
        scan: 'length by the matched scan',
      }[known.way],
      value: `${round(known.mm)} ±${round(known.pmMm)}`,
      unit: 'mm',
      source: known.way === 'pupils' && known.pmMm > 2 ? PUPILS_MM.source : MEASURED,
    },
    ...plain.working.inputs.slice(1, 2),
    // Nobody sets the ends of a length by the scan: the camera puts them.
    ...(known.sdMm > 0 ? [sdInput(known.sdMm, plain)] : []),
  ];
  return {
    ...plain,
    pm: plain.value * relative,
    working: {
      formula: 'scale = known length ÷ distance of its ends',
      inputs,
      note:
        known.way === 'scan'
          ? '± from how well the marked places of the teeth hold the photograph on the scan.'
          : '± from setting the ends and from the length itself, as the root of the squares.',
    },
  };
}

const sdInput = (sdMm: number, plain: Figure): WorkingInput => ({
  name: 'repeatability of a point (sd)',
  value: sdMm,
  unit: 'mm',
  source: plain.working.inputs[2]?.source ?? MEASURED,
});

/** What a second known length says of the scale: its length measured with it, and what it should be. */
export interface ScaleCheck {
  readonly measured: Figure;
  readonly known: { readonly value: number; readonly pm: number };
  readonly agrees: boolean;
}

/**
 * Measures a second known length with the scale. Two lengths that differ by more than their errors speak of tilt or a
 * wrong length.
 */
export function checkScale(scale: Figure, second: Ends, known: KnownLength): ScaleCheck {
  const px = hypot(second.to[0] - second.from[0], second.to[1] - second.from[1]);
  const value = px * scale.value;
  const measured: Figure = {
    value,
    pm: hypot(Z95 * Math.SQRT2 * known.sdMm, px * scale.pm),
    unit: 'mm',
    working: {
      formula: 'second length = distance in the picture × scale',
      inputs: [
        { name: 'distance in the picture', value: round(px), unit: 'px', source: MEASURED },
        { name: 'scale', value: scale.value, unit: 'mm/px', source: MEASURED },
      ],
    },
  };
  const own = { value: known.mm, pm: known.pmMm };
  return { measured, known: own, agrees: !differs(measured, own) };
}

/** Reasons to doubt a scale. House preference; no source. */
const DOUBT = { rollDeg: 8, sidesPercent: 7, halvesPercent: 12, shortPercent: 5, distancePercent: 4 } as const;

/**
 * Sentences on why the scale, and what is measured with it, may be off: a scale held askew, a head turned to one side,
 * a length that is too short or too unsure to carry others. Empty where nothing speaks against it.
 */
export function scaleDoubts(c: {
  scale: Figure;
  ends: Ends;
  way: ScaleWay;
  rollDeg?: number | undefined;
  landmarks?: LandmarkSet;
  /** Of a portrait: from each pupil to the middle between the brows, px. */
  halves?: { readonly right: number; readonly left: number } | undefined;
  check?: ScaleCheck | undefined;
}): string[] {
  const out: string[] = [];
  const lies = ((Math.atan2(c.ends.to[1] - c.ends.from[1], c.ends.to[0] - c.ends.from[0]) * 180) / Math.PI + 540) % 180;
  const slope = Math.min(lies, 180 - lies);
  const roll = Math.abs(((((c.rollDeg ?? 0) % 180) + 270) % 180) - 90);
  if (c.rollDeg !== undefined && Math.abs(slope - roll) > DOUBT.rollDeg)
    out.push(
      'The known length lies askew to the teeth: it may also lean towards or away from the lens, which makes everything look larger than it is.',
    );
  const sides = c.landmarks ? unlikeSides(c.landmarks) : undefined;
  if (sides !== undefined && Math.abs(sides) > DOUBT.sidesPercent) {
    out.push(
      `The ${sides > 0 ? 'right' : 'left'} side looks ${Math.abs(sides).toFixed(0)} % wider than the other: the head or the camera may be turned. Compare sides with care.`,
    );
  }
  const halves = c.halves && (200 * (c.halves.right - c.halves.left)) / (c.halves.right + c.halves.left);
  if (halves !== undefined && Math.abs(halves) > DOUBT.halvesPercent) {
    out.push(
      `The ${halves > 0 ? 'right' : 'left'} half of the face looks ${Math.abs(halves).toFixed(0)} % wider than the other: the head may be turned, and midlines shift with it.`,
    );
  }
  const relative = (100 * c.scale.pm) / c.scale.value;
  if (relative > DOUBT.shortPercent)
    out.push(
      `The scale is only known to ±${relative.toFixed(0)} %: set a longer or better known length before lengths are planned from this picture.`,
    );
  if (c.check && !c.check.agrees) {
    out.push(
      `The second length measures ${c.check.measured.value.toFixed(1)} mm and should be ${c.check.known.value.toFixed(1)}: the picture is tilted, or one of the two lengths is wrong.`,
    );
  }
  return out;
}

/** How much wider the right three teeth look together than the left three, %, once both are marked. */
function unlikeSides(set: LandmarkSet): number | undefined {
  const reach = (canine: Fdi, central: Fdi) => {
    const a = set[canine]?.distal;
    const b = set[central]?.mesial;
    return a && b && hypot(a[0] - b[0], a[1] - b[1]);
  };
  const right = reach(13, 11);
  const left = reach(23, 21);
  return right && left ? (200 * (right - left)) / (right + left) : undefined;
}

const round = (v: number) => Math.round(v * 100) / 100;
