import type { Lab } from '../../colour/lab.js';
import { smoothestSpectrum } from '../../colour/recover.js';
import { genericShades, type SchoolMix, schools, shadeOfPlate } from '../../direct/colour.js';
import type { DirectBodies } from '../../direct/plan.js';
import type { DirectSettings, DirectWork, LayerName } from '../../direct/words.js';
import { stumpFrom } from '../../material/appearance.js';
import type { MeasuredCeramic } from '../../material/measured.js';
import type { FacialThird } from '../../teeth/norms.js';
import type { Fdi } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';
import { bodiesOn } from './direct.js';

/** What is known of the colours of a tooth's thirds, and of what stands there. */
export interface DirectColours {
  /** What each third is to look like. */
  readonly wanted: Readonly<Partial<Record<FacialThird, Lab>>>;
  /** What the tooth that stays looks like there, wet. */
  readonly tooth: Readonly<Partial<Record<FacialThird, Lab>>>;
  /** A house's own composites. */
  readonly plates?: readonly MeasuredCeramic[];
}

/** The layers of a third of a tooth as they are seen from the front, mm. */
export interface ThirdLayers {
  readonly third: FacialThird;
  readonly enamelMm: number;
  readonly bodyMm: number;
  /** Whether the mouth's dark is behind, and no tooth. */
  readonly open: boolean;
}

/**
 * What composites of the house's list come nearest in each third that composite covers, in both schools.
 * @throws Refusal `shade-without-data` where a plate of the house's tells nothing; `nothing-missing`
 */
export function directColours(
  engine: CaseEngine,
  tooth: Fdi,
  s: DirectSettings,
  work: DirectWork,
  { wanted, tooth: stands, plates = [] }: DirectColours,
): {
  readonly thirds: readonly ThirdLayers[];
  readonly schools: readonly SchoolMix[];
  readonly names: Readonly<Record<string, string>>;
} {
  const bodies = bodiesOn(engine, tooth, s, work);
  const thirds = thirdLayers(bodies);
  const own = plates.flatMap((p) => shadeOfPlate(p) ?? []);
  // Where the house has read its own of a kind, the generic ones of it stand back.
  const shades = [...own, ...genericShades().filter((g) => !own.some((o) => o.use === g.use))];
  const zones = thirds.flatMap((t) => {
    const lab = wanted[t.third];
    if (!lab) return [];
    const seen = stands[t.third] ?? lab;
    const spectrum = t.open ? undefined : smoothestSpectrum(seen);
    return [
      {
        zone: t.third,
        wanted: lab,
        layers: {
          enamelMm: t.enamelMm,
          bodyMm: t.bodyMm,
          shellMm: t.open ? s.shellMm : 0,
          ...(spectrum && { behind: stumpFrom(spectrum) }),
        },
      },
    ];
  });
  return { thirds, schools: schools(zones, shades), names: Object.fromEntries(shades.map((x) => [x.id, x.name])) };
}

/** So much of a third has to be covered to speak of its colour: share of its columns. House value. */
const COVERED = 0.15;

/** Thicker than this something is built up, mm, and of a third it counts from this share on. House values. */
const BUILT_MM = 0.7;
const BUILT_SHARE = 0.05;

function thirdLayers({ missing, layers }: DirectBodies): ThirdLayers[] {
  const { na, step, b0 } = missing.grid;
  const heights = [...missing.wants.keys()].map((c) => b0 + Math.floor(c / na) * step);
  const [edge, neck] = [
    heights.reduce((a, b) => Math.min(a, b), Infinity),
    heights.reduce((a, b) => Math.max(a, b), -Infinity),
  ];
  const of = (name: LayerName) => layers.find((l) => l.name === name)?.stretches;
  const [enamel, dentin] = [of('enamel'), of('dentin')];
  const long = (t: { from: number; to: number } | undefined) => (t ? t.to - t.from : 0);
  return (['incisal', 'middle', 'cervical'] as const).flatMap((third, i): ThirdLayers[] => {
    const inThird = (column: number) =>
      Math.min(2, Math.floor((3 * (b0 + Math.floor(column / na) * step - edge)) / (neck - edge))) === i;
    const all = [...missing.wants.keys()].filter(inThird).length;
    const covered = missing.columns.filter((c) => inThird(c.column) && enamel?.has(c.column));
    const built = covered.filter(({ column }) => long(enamel?.get(column)) + long(dentin?.get(column)) > BUILT_MM);
    // Where a part of it is built up, its colour is what counts, and not that of a film around it.
    const own = built.length >= BUILT_SHARE * all ? built : covered;
    if (own !== built && own.length < COVERED * all) return [];
    const middle = (v: number[]) => v.sort((a, b) => a - b)[v.length >> 1] ?? 0;
    return [
      {
        third,
        enamelMm: middle(own.map((c) => long(enamel?.get(c.column)))),
        bodyMm: middle(own.map((c) => long(dentin?.get(c.column)))),
        open: own.filter((c) => c.whole).length > own.length / 2,
      },
    ];
  });
}
