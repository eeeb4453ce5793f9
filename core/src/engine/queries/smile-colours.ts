import type { Lab } from '../../colour/lab.js';
import { screenRgb } from '../../colour/screen.js';
import { crownZenith } from '../../contour/plan.js';
import { signedDistances, signedField } from '../../geometry/tree/signed.js';
import { CERAMIC_CLASSES, ceramicOfClass } from '../../material/ceramics.js';
import { lookedUp, type Through, throughCeramic } from '../../material/match.js';
import { ceramicOfPlate, type MeasuredCeramic } from '../../material/measured.js';
import type { Mouth } from '../../reduction/removal.js';
import { type DesignChoice, restorationOf } from '../../restoration/restoration.js';
import { THIRDS } from '../../restoration/thickness.js';
import type { FacialThird } from '../../teeth/norms.js';
import type { Fdi } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';
import { questionOf, type ReadColour } from './match.js';
import { surfaceOf } from './reduction.js';

/** What was read of a tooth, third by third; where one is missing the middle stands for it. */
export interface ToothRead {
  readonly tooth: Fdi;
  readonly ceramic: string;
  readonly colours: Readonly<Partial<Record<FacialThird, ReadColour>>>;
}

/** A planned crown as it will look, on the vertices of its planned surface. */
export interface ToothLook {
  readonly tooth: Fdi;
  /** As a screen shows it, sRGB 0 to 1, three a vertex. */
  readonly rgb: Float32Array;
  /** How much of the stump is seen through, ΔE00; NaN where no ceramic lies. */
  readonly showsDE: Float32Array;
  /** The predicted colour of each third, as thick as it is planned there, and what was read of the tooth. */
  readonly thirds: readonly {
    readonly third: FacialThird;
    readonly lab: Lab;
    readonly before?: Lab | undefined;
    readonly shows: number;
  }[];
}

/** Less than this is no ceramic, mm: within what a scan tells. House value. */
const NO_CERAMIC_MM = 0.05;
const ORDER: readonly FacialThird[] = ['incisal', 'middle', 'cervical'];

/**
 * The planned teeth as they will look under the plan as it stands: at each place as thick as the ceramic is there, over
 * what the cut leaves. Teeth without a reading are left out.
 * @throws Refusal of `CaseEngine.crown`, `spectrum-wrong`
 */
export function smileColours(
  engine: CaseEngine,
  teeth: readonly ToothRead[],
  choice: DesignChoice,
  plates: readonly MeasuredCeramic[] = [],
  mouth: Mouth = {},
): ToothLook[] {
  return teeth.flatMap((t): ToothLook[] => {
    const own = lookOf(engine, t, choice, plates, mouth);
    return own ? [own] : [];
  });
}

function lookOf(
  engine: CaseEngine,
  { tooth, ceramic, colours }: ToothRead,
  choice: DesignChoice,
  plates: readonly MeasuredCeramic[],
  mouth: Mouth,
): ToothLook | undefined {
  const all = [...CERAMIC_CLASSES.map(ceramicOfClass), ...plates.map(ceramicOfPlate)];
  const material = all.find((c) => c.id === ceramic) ?? (all[0] as (typeof all)[number]);
  const found = ORDER.flatMap((third) => {
    const colour = colours[third] ?? colours.middle ?? Object.values(colours)[0];
    const q = colour && questionOf(engine, tooth, choice, third, colour, mouth);
    if (!q) return [];
    const through = throughCeramic(q, material);
    return [{ third, through, before: q.tooth, ...lookedUp(through, q.ceramicMm) }];
  });
  if (found.length === 0) return undefined;
  const curves = found.map(({ third, through }) => ({ at: THIRDS[third].middle, through }));
  const planned = engine.crown(tooth);
  const { mesh } = surfaceOf(engine, tooth, restorationOf(tooth, choice).design);
  const { positions } = planned.mesh;
  const zenith = crownZenith(planned.crown)[2];
  const thick = signedDistances(signedField(mesh), positions);
  const n = positions.length / 3;
  const [rgb, showsDE] = [new Float32Array(3 * n), new Float32Array(n)];
  for (let v = 0; v < n; v++) {
    const mm = Math.max(0, thick[v] as number);
    const { lab, shows } = between(curves, (positions[3 * v + 2] as number) / zenith, mm);
    rgb.set(screenRgb(lab), 3 * v);
    showsDE[v] = mm < NO_CERAMIC_MM ? Number.NaN : shows;
  }
  return { tooth, rgb, showsDE, thirds: found.map(({ third, lab, before, shows }) => ({ third, lab, before, shows })) };
}

/** The look at a height between the thirds that were worked out. @param curves from the edge to the neck */
function between(
  curves: readonly { readonly at: number; readonly through: Through }[],
  share: number,
  mm: number,
): { lab: Lab; shows: number } {
  const after = curves.findIndex((c) => c.at >= share);
  const next = curves[after < 0 ? curves.length - 1 : after] as (typeof curves)[number];
  const before = curves[after <= 0 ? (after < 0 ? curves.length - 1 : 0) : after - 1] as (typeof curves)[number];
  const q = lookedUp(next.through, mm);
  if (before === next) return q;
  const p = lookedUp(before.through, mm);
  const k = (share - before.at) / (next.at - before.at);
  const mix = (a: number, b: number) => a + (b - a) * k;
  return {
    lab: { L: mix(p.lab.L, q.lab.L), a: mix(p.lab.a, q.lab.a), b: mix(p.lab.b, q.lab.b) },
    shows: mix(p.shows, q.shows),
  };
}
