import type { Lab } from '../../colour/lab.js';
import { smoothestSpectrum } from '../../colour/recover.js';
import { meshToArch, rowOf } from '../../contour/arch.js';
import { contactBetween } from '../../contour/contacts.js';
import { toothOf } from '../../contour/fit.js';
import { type PlannedTooth, plannedField } from '../../contour/plan.js';
import { genericShades, type SchoolMix, schools, shadeOfPlate } from '../../direct/colour.js';
import { emergenceOf, matrixFor, papillaFills, USUAL_SOUNDING_MM } from '../../direct/gap.js';
import { bodyOf } from '../../direct/layers.js';
import type { Missing } from '../../direct/missing.js';
import {
  type DirectBodies,
  type DirectPlan,
  directBodies,
  directGround,
  directPlan,
  growth,
  type LayersThrough,
  layersThrough,
  missingTo,
  USUAL_WORK,
} from '../../direct/plan.js';
import { CORE_WORDS, type DirectSettings, type DirectWork, LAYERS, type LayerName } from '../../direct/words.js';
import { troughBody } from '../../direct/worn.js';
import { Refusal } from '../../errors.js';
import { type Mesh, placeMesh } from '../../geometry/mesh.js';
import { signedDistances } from '../../geometry/tree/signed.js';
import { stumpFrom } from '../../material/appearance.js';
import type { MeasuredCeramic } from '../../material/measured.js';
import type { LeadBack } from '../../occlusion/lead-back.js';
import type { FacialThird } from '../../teeth/norms.js';
import { type Fdi, type Jaw, jawOf } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';

/** What composite has to fill on a tooth, with sections at places across. */
export interface DirectTold extends DirectPlan {
  readonly sections: readonly LayersThrough[];
  /** How far the planned edge would stand in the teeth across in the closed bite, mm; 0 where it has room. */
  readonly raisesMm: number;
}

/** Where sections are drawn: at the middle and half way to each side, as shares of half the width. */
const AT = [-0.5, 0, 0.5] as const;
/** Less in the closed bite is no more than two scans are off, mm. House value. */
const RAISES_MM = 0.1;

const missingOn = (engine: CaseEngine, tooth: Fdi): Missing =>
  engine.once(tooth, 'missing', (planned, arch) => missingTo(planned, toothOf(arch, tooth).field.mesh));

function bodiesOn(engine: CaseEngine, tooth: Fdi, s: DirectSettings, work: DirectWork): DirectBodies {
  const planned = engine.crown(tooth);
  const own = toothOf(engine.archOf(tooth), tooth).field.mesh;
  // What is filled stays while thicknesses change: only its layers are told anew.
  const missing = missingOn(engine, tooth);
  const key = JSON.stringify([work, s.bevelMm, s.bevelBehindMm, s.troughMm, s.wallMm]);
  const ground = engine.once(tooth, `ground ${key}`, () => directGround(planned, own, s, work, missing));
  return directBodies(planned, own, s, work, ground);
}

/**
 * The composite of one planned tooth. @throws Refusal `nothing-missing`; of `CaseEngine.crown`
 */
export function direct(
  engine: CaseEngine,
  tooth: Fdi,
  s: DirectSettings,
  ageYears?: number,
  work: DirectWork = USUAL_WORK,
): DirectTold {
  const bodies = bodiesOn(engine, tooth, s, work);
  const { grid } = bodies.missing;
  const half = ((grid.na - 1) * grid.step) / 2;
  const middle = grid.a0 + half;
  const plan = directPlan(engine.crown(tooth), bodies, s, ageYears);
  const raisesMm = raisedBy(engine, tooth);
  return {
    ...plan,
    raisesMm,
    notes:
      raisesMm > RAISES_MM
        ? [
            {
              state: 'stop',
              says: `{${tooth}}: the plan stands ${raisesMm.toFixed(1)} mm in the teeth across: there is no room, and the bite would be raised. Make room in shape, or plan the height of the bite with the whole mouth first.`,
            },
            ...plan.notes,
          ]
        : plan.notes,
    sections: AT.map((share) => layersThrough(bodies, middle + share * half)),
  };
}

/** By how much more than now a planned tooth stands in those across when the jaws are closed, mm. */
function raisedBy(engine: CaseEngine, tooth: Fdi): number {
  const bite = engine.bite();
  if (!bite) return 0;
  const least = (all: readonly { tooth: Fdi; spaceMm: number }[]) =>
    all.filter((c) => c.tooth === tooth).reduce((n, c) => Math.min(n, c.spaceMm), Infinity);
  const [planned, now] = [least(bite.closed(engine.crowns())), least(bite.closed(undefined))];
  return Number.isFinite(planned) ? Math.max(0, Math.min(0, now) - planned) : 0;
}

/** The layers of a tooth as closed bodies in the mouth's coordinates, in the order in which they are placed. */
export function directLayers(
  engine: CaseEngine,
  tooth: Fdi,
  s: DirectSettings,
  work: DirectWork = USUAL_WORK,
): { readonly name: string; readonly mesh: Mesh }[] {
  const { missing, layers, worn } = bodiesOn(engine, tooth, s, work);
  const placed = (mesh: Mesh) => meshToArch(jawOf(tooth), placeMesh(mesh, engine.crown(tooth).frame));
  const core = worn && worn.trough.size > 0 ? [{ name: CORE_WORDS, mesh: placed(troughBody(worn)) }] : [];
  return [...core, ...layers.map((l) => ({ name: LAYERS[l.name], mesh: placed(bodyOf(l, missing)) }))].filter(
    (b) => b.mesh.triangles.length > 0,
  );
}

/** A space between two neighbours that the plan closes or brings lower, or that stays dark under it. */
export interface ClosedGap {
  readonly right: Fdi;
  readonly left: Fdi;
  /** Least distance of the teeth as they are and as planned, mm; below 0 they press. */
  readonly nowMm: number;
  readonly plannedMm: number;
  /** Added to each at this contact, mm. */
  readonly share: { readonly right: number; readonly left: number };
  /** What width each planned tooth comes to, of its length, %. */
  readonly ratio: { readonly right?: number; readonly left?: number };
  /** From the planned contact's end at the gum to the papilla's tip, mm; below 0 it lies over it. Nothing without gum. */
  readonly openMm?: number;
  /** And to the bone, with what was sounded or is usual over the tip. */
  readonly boneMm?: number;
  readonly sounded: boolean;
  /** How often such a space fills, %. */
  readonly fills?: number;
  /** Which is built first and polished before the other. */
  readonly first: Fdi;
  readonly matrix: { readonly words: string; readonly why: string };
}

/** Nearer than this two teeth touch over an area, mm. House value. */
const TOUCHES_MM = 0.12;
/** So far around a contact gum is looked at, mm. House value. */
const PAPILLA_MM = 1.2;
/** A space under a contact that is open by more than this is seen as a dark triangle, mm. House value. */
const DARK_MM = 1.5;
/** A contact that is changed by less than this is none that composite closes, mm. House value. */
const CHANGES_MM = 0.08;

/**
 * The spaces that a plan closes, and those that stay dark beside it, from right to left in the arch's own frame.
 * @param sounding from the papilla's tip to the bone by contact, `right-left`, where somebody has sounded it, mm
 */
export function directGaps(engine: CaseEngine, jaw: Jaw, sounding: Readonly<Record<string, number>> = {}): ClosedGap[] {
  const { teeth } = engine.arch(jaw);
  const row = rowOf(jaw).filter((t) => teeth.has(t));
  const crowns = engine.crowns();
  const gum = meshToArch(jaw, engine.scan(jaw).rest).positions;
  return row.slice(0, -1).flatMap((right, i): ClosedGap[] => {
    const left = row[i + 1] as Fdi;
    const [p, q] = [crowns.get(right), crowns.get(left)];
    if (!p && !q) return [];
    const [a, b] = [toothOf(engine.arch(jaw), right).field, toothOf(engine.arch(jaw), left).field];
    const nowMm = contactBetween(a.mesh.positions, b).gapMm;
    const surface = p?.mesh.positions ?? a.mesh.positions;
    const field = q ? plannedField(q) : b;
    const met = contactBetween(surface, field);
    const grown = (tooth: Fdi, planned: boolean, side: 'left' | 'right') =>
      planned ? sideGrown(engine, tooth, side) : { mm: 0, deg: 0 };
    const [r, l] = [grown(right, p !== undefined, 'left'), grown(left, q !== undefined, 'right')];
    // Where the two touch over an area its end at the gum counts.
    const around = nearPlaces(surface, met.at);
    const apart = signedDistances(field, around);
    let contactZ = met.at[2];
    apart.forEach((d, k) => {
      if (d < TOUCHES_MM) contactZ = Math.max(contactZ, around[3 * k + 2] as number);
    });
    let tipZ = Infinity;
    for (let v = 0; v < gum.length; v += 3)
      if (Math.hypot((gum[v] as number) - met.at[0], (gum[v + 1] as number) - met.at[1]) < PAPILLA_MM)
        tipZ = Math.min(tipZ, gum[v + 2] as number);
    const own = sounding[`${right}-${left}`];
    const openMm = Number.isFinite(tipZ) ? tipZ - contactZ : undefined;
    const changes = nowMm - met.gapMm >= CHANGES_MM || r.mm + l.mm >= CHANGES_MM;
    if (!changes && !(openMm !== undefined && openMm > DARK_MM)) return [];
    const boneMm = openMm === undefined ? undefined : openMm + (own ?? USUAL_SOUNDING_MM);
    return [
      {
        right,
        left,
        nowMm,
        plannedMm: met.gapMm,
        share: { right: r.mm, left: l.mm },
        ratio: { ...(p && { right: ratioOf(p) }), ...(q && { left: ratioOf(q) }) },
        ...(openMm !== undefined && { openMm }),
        ...(boneMm !== undefined && { boneMm, fills: papillaFills(boneMm) }),
        sounded: own !== undefined,
        first: r.mm >= l.mm ? right : left,
        matrix: matrixFor(Math.max(r.mm, l.mm), Math.max(r.deg, l.deg)),
      },
    ];
  });
}

const ratioOf = ({ crown }: PlannedTooth): number => (100 * crown.size.widthMm) / crown.size.lengthMm;

/** By how much a tooth becomes wider on one side, and how it leaves the gum there. */
function sideGrown(engine: CaseEngine, tooth: Fdi, side: 'left' | 'right'): { mm: number; deg: number } {
  try {
    const missing = missingOn(engine, tooth);
    return { mm: growth(missing).wider[side], deg: emergenceOf(missing, side === 'left' ? 1 : -1)?.deg ?? 0 };
  } catch (error) {
    // A tooth to which the plan adds nothing grows to no side.
    if (error instanceof Refusal && error.code === 'nothing-missing') return { mm: 0, deg: 0 };
    throw error;
  }
}

/** So far around a contact its area is looked for, mm. */
const AREA_MM = 5;

const nearPlaces = (positions: Float64Array, at: readonly [number, number, number]): Float64Array => {
  const out: number[] = [];
  for (let v = 0; v < positions.length; v += 3)
    if ([0, 1, 2].every((k) => Math.abs((positions[v + k] as number) - (at[k as 0] as number)) < AREA_MM))
      out.push(positions[v] as number, positions[v + 1] as number, positions[v + 2] as number);
  return Float64Array.from(out);
};

/** What a side needs, and how much each of its canines has lost at the tip, as the form that fits best says, mm. */
export interface CanineLead extends LeadBack {
  readonly upperWearMm?: number;
  readonly lowerWearMm?: number;
}

/** What the canines of each side need to lead again, as they are and as planned; nothing without a lower jaw. */
export function directLead(
  engine: CaseEngine,
  partMm: number,
): { readonly now: readonly CanineLead[]; readonly planned: readonly CanineLead[] } | undefined {
  const bite = engine.bite();
  if (!bite) return undefined;
  const wear = (tooth: Fdi) => engine.archOf(tooth).teeth.get(tooth)?.wearMm;
  const worn = (all: readonly LeadBack[]) =>
    all.map((l): CanineLead => {
      const [upperWearMm, lowerWearMm] = [wear(l.upper), wear(l.lower)];
      return {
        ...l,
        ...(upperWearMm !== undefined && { upperWearMm }),
        ...(lowerWearMm !== undefined && { lowerWearMm }),
      };
    });
  return { now: worn(bite.leadBack(partMm, undefined)), planned: worn(bite.leadBack(partMm, engine.crowns())) };
}

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
