import { type ExistingArch, type ExistingTooth, toothOf } from '../contour/fit.js';
import { type ContourPlan, crownZenith, type PlannedTooth, plannedTooth } from '../contour/plan.js';
import { toLocal } from '../geometry/frame.js';
import { type SignedField } from '../geometry/tree/signed.js';
import type { Vec3 } from '../geometry/vec.js';
import { type Design, onlyAdded } from '../restoration/design.js';
import { designOf } from '../restoration/designs.js';
import { neededAt, THIRDS, thirdAt } from '../restoration/thickness.js';
import type { FacialThird } from '../teeth/norms.js';
import { type Fdi, kindOf } from '../teeth/notation.js';
import { SCAN_PM_MM } from '../working/accuracy.js';
import { median } from '../working/middle.js';
import { type Figure, MEASURED } from '../working/working.js';
import { chooseGrooves, type Groove, type GrooveWish, type HandChoice, type TrayChoice } from './burs/choose.js';
import { edgeGap, type FacialPlace, facialPlaces, MIDDLE } from './facial-places.js';
import { noPrepSentence } from './no-prep.js';
import {
  type EnamelLeft,
  type EnamelState,
  enamelLeft,
  enamelNormAt,
  type Mouth,
  NOTHING_MM,
  type Removal,
  removalBy,
} from './removal.js';
import { strategyOf } from './strategies/index.js';
import type { CutFrom } from './strategies/words.js';
import { type CrownSpan, spanOf, type TargetSurface, targetBetween } from './target.js';
import { TARGET_PLACES } from './target-grid.js';
import { areasBefore, halfWidth } from './target-zones.js';
import type { Zone } from './zones.js';

/** Target of one zone. mm. */
export interface ZoneTarget {
  readonly zone: Zone;
  /** Undefined where the edge is only flattened or the zone has no tooth under it. */
  readonly removal?: Removal;
  /** Smallest and largest gap met in the zone. */
  readonly gapRange?: readonly [number, number];
  /** How many places of the surface the gap is taken from. */
  readonly places: number;
  /** What 95 % of the zone's face stays under, line angles among it, mm. */
  readonly deepest?: Figure;
  /** How far it stands in front of the plan where it does so most, but for the worst twentieth, mm; 0 where nowhere. */
  readonly proud?: Figure;
  /** Where least would be left, but for the worst twentieth: a middle that keeps its enamel says nothing of a line angle. */
  readonly enamel?: EnamelLeft;
  readonly groove: Groove;
  /** What must be said here; `{11}` stands for a tooth number. */
  readonly sentence?: { readonly weight: 'stop' | 'watch' | 'good'; readonly text: string };
}

export interface ToothReduction {
  readonly tooth: Fdi;
  readonly zones: readonly ZoneTarget[];
  /** Tooth that the target preparation takes, mm³. */
  readonly volumeMm3: number;
  /** What the same thicknesses would remove if cut from the bare tooth without a plan, mm³. */
  readonly unplannedMm3: number;
}

/** A zone is read within so much of the crown's height above and below its middle. House value. */
const BAND = 1 / 24;
/** How thick an edge is made where somebody clenches or grinds, mm. Common practice, no source. */
const GRINDING_EDGE_MM = 2;
/** Of a zone's face so much stays under what is called its deepest. House value. */
const DEEP_SHARE = 0.95;

/** Reduction targets of one tooth under a contour plan, its grooves chosen for it alone. */
export function toothReduction(
  arch: ExistingArch,
  plan: ContourPlan,
  tooth: Fdi,
  design: Design,
  from: CutFrom,
  mouth: Mouth = {},
): ToothReduction {
  return reductionOf(toothOf(arch, tooth), plannedTooth(arch, plan, tooth), design, from, mouth);
}

/** Reduction targets of a tooth that stands in a scan, under its planned crown. */
export function reductionOf(
  there: ExistingTooth,
  planned: PlannedTooth,
  design: Design,
  from: CutFrom,
  mouth: Mouth = {},
): ToothReduction {
  return reductionBetween(there.field, planned, design, from, spanOf(there, planned), mouth);
}

/**
 * The same from any existing surface and a planned crown.
 * @param own where the tooth's own crown lies; as the planned one where left out
 */
export function reductionBetween(
  existing: SignedField,
  planned: PlannedTooth,
  design: Design,
  from: CutFrom,
  own: CrownSpan = { edge: 0, zenith: crownZenith(planned.crown)[2] },
  mouth: Mouth = {},
): ToothReduction {
  const target = targetBetween(existing, planned, design, own);
  const wished = reductionUnder(target, existing, planned, design, own, mouth);
  return withGrooves([wished], from)[0] as ToothReduction;
}

/** Zones of a tooth before burs are chosen for them. */
export interface UngroovedReduction extends Omit<ToothReduction, 'zones'> {
  readonly zones: readonly Omit<ZoneTarget, 'groove'>[];
}

/** What goes of a tooth zone by zone, read from its target preparation. */
export function reductionUnder(
  target: TargetSurface,
  existing: SignedField,
  planned: PlannedTooth,
  design: Design,
  own: CrownSpan,
  mouth: Mouth = {},
): UngroovedReduction {
  const places = facialPlaces(existing, planned, design, own);
  const cuts = facialCuts(target);
  const thirds = (['cervical', 'middle', 'incisal'] as const).map((third) =>
    thirdTarget(
      third,
      places.filter((p) => thirdAt(p.share) === third),
      cuts.filter((c) => thirdAt(c.share) === third),
      planned.tooth,
      design,
      mouth,
    ),
  );
  const edge = edgeTarget(edgeGap(existing, planned), target, planned.tooth, design, mouth);
  return {
    tooth: planned.tooth,
    zones: [...thirds, edge],
    volumeMm3: target.removedMm3,
    unplannedMm3: target.bareMm3,
  };
}

/** The face as it stands beside a plan, where nothing is cut for a restoration: what bringing it into line takes. */
export function proudFace(
  existing: SignedField,
  planned: PlannedTooth,
): { readonly proudMm: number; readonly enamel: EnamelState } {
  const places = facialPlaces(existing, planned, designOf('direct'));
  const thirds = (['cervical', 'middle', 'incisal'] as const)
    .map((third) => places.filter((p) => thirdAt(p.share) === third))
    .filter((own) => own.length >= 4);
  const states = thirds.map((own) => {
    const asCuts = own.map((p) => ({ ...p, removedMm: Math.max(0, -p.gapMm) }));
    return enamelAt(thinnestOf(asCuts, {}), {}).state;
  });
  const rank: readonly EnamelState[] = ['kept', 'doubtful', 'gone'];
  return {
    proudMm: Math.max(0, ...thirds.map((own) => proudOf(own).value)),
    enamel: states.reduce<EnamelState>((worst, s) => (rank.indexOf(s) > rank.indexOf(worst) ? s : worst), 'kept'),
  };
}

/** The grooves of a case's teeth: what its strategy asks for, with the burs that are chosen for all of them together. */
export function withGrooves(
  teeth: readonly UngroovedReduction[],
  from: CutFrom,
  tray?: TrayChoice,
  byHand?: (tooth: Fdi, zone: Zone) => HandChoice | undefined,
): ToothReduction[] {
  const { wish } = strategyOf(from);
  const zones = teeth.flatMap((t) => t.zones.map((z) => ({ tooth: t.tooth, z })));
  const grooves = chooseGrooves(
    zones.map(({ z }): GrooveWish => (z.removal ? wish(z.removal, z.zone) : { kind: 'none', why: whyNone(z) })),
    tray,
    zones.map(({ tooth, z }) => byHand?.(tooth, z.zone)),
  );
  let at = 0;
  return teeth.map((t) => ({ ...t, zones: t.zones.map((z) => ({ ...z, groove: grooves[at++] as Groove })) }));
}

const whyNone = (z: Omit<ZoneTarget, 'groove'>): string =>
  z.zone === 'edge' && z.places > 0 ? 'This design takes no depth from the edge.' : 'Nothing to cut.';

/** A place of the target's face: what goes there. */
interface FacialCut {
  readonly share: number;
  readonly toothShare: number;
  readonly areaMm2: number;
  readonly removedMm: number;
  readonly alignMm: number;
  readonly middle: boolean;
}

/** The places of a target's face, whether something goes there or not. */
function facialCuts(t: TargetSurface): FacialCut[] {
  const areas = areasBefore(t);
  const half = halfWidth(t);
  const out: FacialCut[] = [];
  for (let i = 0; i < t.covered.length; i++) {
    if (TARGET_PLACES[t.covered[i] as number] !== 'facial') continue;
    const [x] = toLocal(t.frame, t.before.positions.subarray(3 * i, 3 * i + 3) as unknown as Vec3);
    out.push({
      share: t.share[i] as number,
      toothShare: t.toothShare[i] as number,
      areaMm2: areas[i] as number,
      removedMm: t.removedMm[i] as number,
      alignMm: t.alignMm[i] as number,
      middle: Math.abs(x) <= MIDDLE.width * half,
    });
  }
  return out;
}

function thirdTarget(
  third: FacialThird,
  places: readonly FacialPlace[],
  cuts: readonly FacialCut[],
  tooth: Fdi,
  design: Design,
  mouth: Mouth,
): Omit<ZoneTarget, 'groove'> {
  const within = <P extends { readonly share: number; readonly middle: boolean }>(all: readonly P[]): P[] => {
    const middle = all.filter((p) => p.middle);
    const band = middle.filter((p) => Math.abs(p.share - THIRDS[third].middle) <= BAND);
    return band.length >= 4 ? band : middle;
  };
  const [here, cut] = [within(places), within(cuts)];
  if (here.length < 4 || cut.length < 4) {
    return {
      zone: third,
      places: here.length,
      sentence: { weight: 'good', text: `{${tooth}}, ${third}: no tooth under the plan here, only added.` },
    };
  }
  const gaps = here.map((p) => p.gapMm);
  // A zone is told by its middle: the thickness needed there, the median of its gaps, and what goes there.
  const r = removalBy(neededAt(design, THIRDS[third].middle), median(gaps), halfUnder(cut), design.source);
  const deepest = deepestOf(cuts);
  const enamel = enamelAt(thinnestOf(cuts, mouth), mouth);
  const rooted = areaOf(cuts.filter((p) => p.toothShare > 1)) > areaOf(cuts) / 2;
  const sentence =
    design.kind === 'veneer' && onlyAdded(design)
      ? noPrepOf(tooth, third, places, design)
      : sentenceFor(tooth, third, r, deepest.value, enamel, rooted, mouth);
  return {
    zone: third,
    removal: r,
    gapRange: [Math.min(...gaps), Math.max(...gaps)],
    places: here.length,
    deepest,
    proud: proudOf(places),
    enamel,
    ...(sentence && { sentence }),
  };
}

/** Right at the gum, as a share of the crown's height. */
const AT_GUM = 0.93;

/** What a veneer comes to in a third for which nothing is cut. */
function noPrepOf(tooth: Fdi, third: FacialThird, places: readonly FacialPlace[], design: Design) {
  const gap = (p: FacialPlace) => p.gapMm;
  const room = { thin: gap(placeAt(places, gap, 1 - DEEP_SHARE)), middle: gap(placeAt(places, gap, 0.5)) };
  const last = places.filter((p) => p.share > AT_GUM);
  const stepMm = third === 'cervical' && last.length > 0 ? median(last.map(gap)) : undefined;
  return noPrepSentence(tooth, third, design, room, stepMm);
}

/**
 * What half of some places, by area, stay under, the part of it that only brings them into line, and what all but a
 * twentieth of them exceed.
 */
function halfUnder(cuts: readonly FacialCut[]): Parameters<typeof removalBy>[2] {
  const under = (measure: (c: FacialCut) => number, share = 0.5) => measure(placeAt(cuts, measure, share));
  const few = 1 - DEEP_SHARE;
  return {
    removedMm: under((c) => c.removedMm),
    alignMm: under((c) => c.alignMm),
    least: {
      removedMm: under((c) => c.removedMm, few),
      inLineMm: under((c) => c.removedMm - c.alignMm, few),
    },
  };
}

/** What goes of an edge's height: the middle one of three places across, and the least of them. */
function edgeCut(t: TargetSurface): { middle: number; least: number } {
  const half = halfWidth(t);
  const most = [0, 0, 0];
  for (let i = 0; i < t.place.length; i++) {
    if (TARGET_PLACES[t.place[i] as number] !== 'edge') continue;
    const [x] = toLocal(t.frame, t.before.positions.subarray(3 * i, 3 * i + 3) as unknown as Vec3);
    const slab = Math.round((x / half) * 2.5) + 1;
    if (slab >= 0 && slab <= 2) most[slab] = Math.max(most[slab] as number, t.removedMm[i] as number);
  }
  return { middle: median(most), least: Math.min(...most) };
}

function edgeTarget(
  gap: number | undefined,
  target: TargetSurface,
  tooth: Fdi,
  design: Design,
  mouth: Mouth,
): Omit<ZoneTarget, 'groove'> {
  if (gap === undefined) return { zone: 'edge', places: 0 };
  if (design.edge.kind === 'flatten') {
    const text =
      gap > NOTHING_MM
        ? `{${tooth}}, edge: flatten only; the plan lengthens by ${gap.toFixed(2)} mm.`
        : `{${tooth}}, edge: left as it is; the plan does not lengthen.`;
    return { zone: 'edge', places: 3, sentence: { weight: 'good', text } };
  }
  const needs = design.edge.kind === 'thickness' ? design.edge.mm : 0;
  const { middle, least } = edgeCut(target);
  const alignMm = Math.max(0, -gap);
  const inLineMm = Math.max(0, least - alignMm);
  const r = removalBy(needs, gap, { removedMm: middle, alignMm, least: { removedMm: least, inLineMm } }, design.source);
  const thin = mouth.grinding && needs > 0 && needs < GRINDING_EDGE_MM;
  return {
    zone: 'edge',
    removal: r,
    places: 3,
    ...(thin && {
      sentence: {
        weight: 'watch' as const,
        text: `{${tooth}}, edge: clenches or grinds; ${needs.toFixed(1)} mm is thin for that, ${GRINDING_EDGE_MM.toFixed(1)} mm and a guard at night are usual.`,
      },
    }),
    ...(r.remove.value === 0 && {
      sentence: {
        weight: 'good' as const,
        text: `{${tooth}}, edge: nothing to cut; the plan adds ${gap.toFixed(2)} mm.`,
      },
    }),
  };
}

interface Area {
  readonly areaMm2: number;
}
const areaOf = (places: readonly Area[]) => places.reduce((n, p) => n + p.areaMm2, 0);

/** The place that so much of a face, by its area, does not exceed. */
function placeAt<P extends Area>(places: readonly P[], measure: (p: P) => number, share = DEEP_SHARE): P {
  // Each place is measured once, not at every comparison.
  const values = Float64Array.from(places, measure);
  const sorted = Uint32Array.from(places.keys()).sort((a, b) => (values[a] as number) - (values[b] as number));
  const whole = areaOf(places);
  let under = 0;
  const at = sorted.find((i) => {
    under += (places[i] as P).areaMm2;
    return under >= share * whole;
  });
  return places[at ?? (sorted.at(-1) as number)] as P;
}

/** Where of all but the worst twentieth of the face the least enamel would be left, by the thin end of the norm. */
const thinnestOf = (cuts: readonly Enamelled[], mouth: Mouth): Enamelled =>
  placeAt(cuts, (p) => p.removedMm - enamelNormAt(p.toothShare, mouth).from);

type Enamelled = Pick<FacialCut, 'areaMm2' | 'removedMm' | 'toothShare'>;

const enamelAt = (p: Enamelled, mouth: Mouth): EnamelLeft => {
  const cut = p.removedMm;
  return enamelLeft(enamelNormAt(p.toothShare, mouth), cut, cut > NOTHING_MM ? SCAN_PM_MM : 0);
};

/** What a zone stands proud of the plan, but for a twentieth of its face. */
function proudOf(places: readonly FacialPlace[]): Figure {
  const most = -placeAt(places, (p) => -p.gapMm).gapMm;
  const value = most > NOTHING_MM ? most : 0;
  return {
    value,
    pm: value === 0 ? 0 : SCAN_PM_MM,
    unit: 'mm',
    working: {
      formula: `proud = how far the tooth stands in front of the planned contour, on all but ${100 - 100 * DEEP_SHARE} % of the zone’s face`,
      inputs: [{ name: 'places', value: places.length, unit: '', source: MEASURED }],
      note: 'A mock-up of the plan does not cover it: it is cut back into line with the plan first.',
    },
  };
}

/** What the removal stays under on so much of a zone's face, by area. */
function deepestOf(places: readonly FacialCut[]): Figure {
  const cut = placeAt(places, (p) => p.removedMm).removedMm;
  const whole = areaOf(places);
  const value = cut > NOTHING_MM ? cut : 0;
  return {
    value,
    pm: value === 0 ? 0 : SCAN_PM_MM,
    unit: 'mm',
    working: {
      formula: `deepest = the removal that ${100 * DEEP_SHARE} % of the zone’s face stays under, line angles among it`,
      inputs: [
        { name: 'places', value: places.length, unit: '', source: MEASURED },
        { name: 'face of the zone', value: Math.round(whole * 10) / 10, unit: 'mm²', source: MEASURED },
      ],
    },
  };
}

function sentenceFor(
  tooth: Fdi,
  third: FacialThird,
  r: Removal,
  deepestMm: number,
  enamel: EnamelLeft,
  rooted: boolean,
  mouth: Mouth,
): ZoneTarget['sentence'] | undefined {
  const cut = deepestMm;
  if (cut === 0)
    return { weight: 'good', text: `{${tooth}}, ${third}: nothing to cut; the plan adds ${r.gap.toFixed(2)} mm.` };
  if (rooted)
    return {
      weight: 'stop',
      text: `{${tooth}}, ${third}: most of it lies over the root, which has no enamel; up to ${cut.toFixed(2)} mm would be cut there.`,
    };
  const norm = kindOf(tooth) === 'canine' ? 'the norm of incisors (none known for canines)' : 'the norm';
  const basis = mouth.acid ? `${norm}, its thin end halved for acid,` : norm;
  if (enamel.state === 'gone') {
    return {
      weight: 'stop',
      text: `{${tooth}}, ${third}: up to ${cut.toFixed(2)} mm, which goes through the enamel by ${basis}. ${more(enamel)} more volume there keeps some.`,
    };
  }
  if (enamel.state === 'doubtful') {
    return {
      weight: 'watch',
      text: `{${tooth}}, ${third}: up to ${cut.toFixed(2)} mm, which may reach dentin; ${basis} leaves ${Math.max(0, enamel.from).toFixed(2)} to ${enamel.to.toFixed(2)} mm at the thinnest. ${more(enamel)} more volume there keeps enamel.`,
    };
  }
  if (r.remove.value === 0)
    return {
      weight: 'good',
      text: `{${tooth}}, ${third}: nothing to cut in the middle, where the plan adds ${r.gap.toFixed(2)} mm; up to ${cut.toFixed(2)} mm beside it.`,
    };
  return undefined;
}

/** How much more planned volume would leave at least a tenth of a millimetre of the thin end of the norm. */
const more = (e: EnamelLeft) => `${(Math.ceil((0.1 - e.from) * 20) / 20).toFixed(2)} mm`;
