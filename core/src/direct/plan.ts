import { turnedOver } from '../contour/arch.js';
import type { PlannedTooth } from '../contour/plan.js';
import { RULE_LIMITS } from '../decide/ids.js';
import { Refusal } from '../errors.js';
import { toLocal } from '../geometry/frame.js';
import { type Mesh, meshInFrame } from '../geometry/mesh.js';
import { type Fdi, isUpper } from '../teeth/notation.js';
import { type Bevelled, bevelled } from './bevel.js';
import { type BreakFace, drawnFace, scannedBreak } from './break-face.js';
import { brokenOff } from './drawn.js';
import { EMERGES, type Emergence, emergenceOf } from './gap.js';
import { type Gauged, gauged } from './gauge.js';
import { compositeLayers, type Increment, incrementsOf, type LayerBody } from './layers.js';
import { columnPlace, type Missing, missingOf, type Stretch } from './missing.js';
import { type NeckDefect, neckDefect } from './neck.js';
import {
  type DirectKind,
  type DirectSettings,
  type DirectWork,
  ENERGY_WANTED,
  type LayerName,
  layerWords,
} from './words.js';
import { TROUGH_WALL_MM, type WornEdge, wornEdge } from './worn.js';

/** One place of a section: how high, and what lies there from front to back, mm in the crown's own frame. */
export interface SectionRow {
  readonly z: number;
  readonly planned?: Stretch;
  readonly tooth?: Stretch;
  readonly layers: readonly { readonly name: LayerName | 'core'; readonly from: number; readonly to: number }[];
}

/** A section from front to back. @see directPlan */
export interface LayersThrough {
  /** Across from the crown's middle, mm. */
  readonly x: number;
  readonly rows: readonly SectionRow[];
}

/** Something that speaks against it, or has to be known. */
export interface DirectNote {
  readonly state: 'stop' | 'look';
  readonly says: string;
}

/** What composite has to fill on one tooth, layer by layer. */
export interface DirectPlan {
  readonly tooth: Fdi;
  readonly kind: DirectKind;
  readonly missingMm3: number;
  /** What of the tooth stands out of the plan and is ground, mm³, and its deepest place, mm. */
  readonly proudMm3: number;
  readonly proudMm: number;
  readonly layers: readonly Omit<LayerBody, 'stretches'>[];
  readonly increments: readonly Increment[];
  /** Portions of each kind of composite: of enamel, and of all that lies under it. */
  readonly portions: { readonly enamel: number; readonly body: number };
  /** What each increment gets of the lamp, J/cm². */
  readonly energy: number;
  /** How much wider it becomes at its widest, to each side, mm. */
  readonly wider: { readonly left: number; readonly right: number };
  /** How much longer, mm. */
  readonly longerMm: number;
  /** Of a broken tooth: the surface of the break, and the bevel. */
  readonly bevel?: Omit<Bevelled, 'missing'> & { readonly breakMm2: number };
  /** Of a worn one: the worn face, the dentin in it, the trough. */
  readonly worn?: Omit<WornEdge, 'grid' | 'trough' | 'facet'>;
  /** Of one with a dent beside the gum. */
  readonly neck?: NeckDefect;
  /** How it leaves the gum where a side is added to. */
  readonly emerges: { readonly left?: Emergence; readonly right?: Emergence };
  /** How deep a probe stands before enamel is laid. */
  readonly gauge: readonly Gauged[];
  readonly notes: readonly DirectNote[];
}

/** Both surfaces in the crown's own frame, and what lies between them. */
export interface DirectBodies extends DirectGround {
  readonly layers: readonly LayerBody[];
  readonly work: DirectWork;
}

/** Less than this is nothing to build, mm³. House value. */
const LEAST_MM3 = 0.3;
/** Standing out of the plan by more than this it has to be cut, mm³. House value. */
const PROUD_MM3 = 1;
/** And nowhere by more than this it is what two surfaces of a scan are off, mm. House value. */
const PROUD_MM = 0.15;
/** Where more than this of the plan has no tooth in it at all, something is built and not only laid on, mm². House value. */
const BUILT_MM2 = 2;
/** Added to one side of one tooth beyond this, a gap is wider than composite closes well, mm. Common practice, no source. */
const WIDE_MM = 1.5;
/** A wall that is thinner by less than this is as thick as wished, mm: a column's width. */
const WALL_MM = 0.1;
/** Beside the gum a dent deeper than this is near the pulp, mm. Common practice, no source. */
const NEAR_PULP_MM = 2;
/** Nearer to where the crown ends than this its side at the gum has no enamel, mm. Common practice, no source. */
const ON_ROOT_MM = 0.7;
/** Under this age pulps are wide, years: where deciding speaks of a child too. */
const CHILD_YEARS = RULE_LIMITS.child.value;

/** What a tooth lacks to its planned crown. @throws Refusal `nothing-missing` where the plan adds nothing to it */
export function missingTo(planned: PlannedTooth, tooth: Mesh): Missing {
  const missing = missingOf(meshInFrame(planned.mesh, planned.frame), meshInFrame(tooth, planned.frame));
  if (missing.missingMm3 < LEAST_MM3)
    throw new Refusal(
      'nothing-missing',
      `The plan adds nothing to {${planned.tooth}}: there is nothing to fill.`,
      planned.tooth,
    );
  return missing;
}

/** What is usual where nobody has said what composite is to do. */
export const USUAL_WORK: DirectWork = { kind: 'addition' };

/** What is filled on a tooth, before it is known in which thicknesses. */
export interface DirectGround {
  readonly missing: Missing;
  readonly bevel?: Omit<Bevelled, 'missing'>;
  readonly face?: BreakFace;
  readonly worn?: WornEdge;
  readonly neck?: NeckDefect;
  /** The columns of the dent beside the gum. */
  readonly dent?: ReadonlySet<number>;
}

/**
 * What a tooth lacks, with the bevel of a broken one, the trough of a worn one, the dent beside the gum.
 * @param missing as `missingTo` gives it
 * @param face as `breakOf` gives it
 */
export function directGround(
  planned: PlannedTooth,
  tooth: Mesh,
  s: DirectSettings,
  work: DirectWork,
  missing: Missing,
  face = breakOf(planned, tooth, work, missing),
): DirectGround {
  if (work.kind === 'worn') {
    const marked = work.island?.map((p): [number, number] => {
      const [x, y] = toLocal(planned.frame, isUpper(planned.tooth) ? p : turnedOver(p));
      return [x, y];
    });
    return { missing, worn: wornEdge(meshInFrame(tooth, planned.frame), s, marked) };
  }
  if (work.kind === 'neck') {
    const found = neckDefect(missing, s);
    return found ? { missing: found.missing, neck: found.defect, dent: found.columns } : { missing };
  }
  if (work.kind !== 'corner') return { missing };
  const { missing: filled, ...bevel } = bevelled(
    work.broken ? brokenOff(missing, work.broken, mesialX(planned)) : missing,
    s,
  );
  return { missing: filled, bevel, ...(face && { face }) };
}

/** Where a tooth is broken, as the scan shows it or as it is drawn; nothing for another kind of work. */
export function breakOf(
  planned: PlannedTooth,
  tooth: Mesh,
  { kind, broken }: DirectWork,
  missing: Missing,
): BreakFace | undefined {
  if (kind !== 'corner') return undefined;
  return broken
    ? drawnFace(missing, broken, mesialX(planned))
    : scannedBreak(meshInFrame(tooth, planned.frame), missing);
}

/** A dent in the face has nothing behind it that a shell would carry, no free side and no lobes. */
const layersBy = (s: DirectSettings, { kind }: DirectWork): DirectSettings =>
  kind === 'neck' ? { ...s, shellMm: 0, sideMm: 0, lobeMm: 0 } : s;

/**
 * The layers of what a tooth lacks.
 * @param ground as `directGround` gives it, where it is known
 */
export function directBodies(
  planned: PlannedTooth,
  tooth: Mesh,
  s: DirectSettings,
  work: DirectWork = USUAL_WORK,
  ground = directGround(planned, tooth, s, work, missingTo(planned, tooth)),
): DirectBodies {
  return { ...ground, layers: compositeLayers(ground.missing, layersBy(s, work)), work };
}

/** 1 where a crown's x goes to its mesial side, which looks to the arch's middle. */
const mesialX = ({ frame }: PlannedTooth): 1 | -1 => (frame.origin[0] * frame.x[0] > 0 ? -1 : 1);

/** Everything that is told of the composite on one tooth. */
export function directPlan(
  planned: PlannedTooth,
  { missing, layers, work, bevel, face, worn, neck }: DirectBodies,
  s: DirectSettings,
  ageYears?: number,
): DirectPlan {
  const core = coreOf(worn, s);
  const increments = [...core, ...incrementsOf(layers, s.cureMm)];
  const mm3 = (enamel: boolean) =>
    layers.filter((l) => (l.name === 'enamel') === enamel).reduce((sum, l) => sum + l.mm3, 0);
  const grown = growth(missing);
  const [left, right] = [emergenceOf(missing, 1), emergenceOf(missing, -1)];
  const emerges = { ...(left && { left }), ...(right && { right }) };
  const { grid: _, trough: _1, facet: _2, ...wornTold } = worn ?? {};
  return {
    tooth: planned.tooth,
    kind: work.kind,
    missingMm3: missing.missingMm3,
    proudMm3: missing.proudMm3,
    proudMm: missing.proudMm,
    layers: layers.map(({ stretches: _, ...told }) => told),
    increments,
    portions: {
      enamel: Math.ceil(mm3(true) / s.portionMm3),
      body: Math.ceil((mm3(false) + (worn?.troughMm3 ?? 0)) / s.portionMm3),
    },
    energy: (s.lampMw * s.seconds) / 1000,
    ...grown,
    ...(bevel && { bevel: { ...bevel, breakMm2: face?.mm2 ?? 0 } }),
    ...(neck && { neck }),
    ...(worn && { worn: wornTold as Omit<WornEdge, 'grid' | 'trough' | 'facet'> }),
    emerges,
    gauge: gauged(missing, layers),
    notes: [
      ...notesOn(planned.tooth, missing, layers, layersBy(s, work), grown, ageYears),
      ...kindNotes(
        planned.tooth,
        { work, emerges, ...(face && { face }), ...(worn && { worn }), ...(neck && { neck }) },
        s,
      ),
    ],
  };
}

/** The trough of a worn edge is filled first, with what is strong. */
function coreOf(worn: WornEdge | undefined, s: DirectSettings): Increment[] {
  if (!worn || worn.troughMm3 === 0) return [];
  const deep = [...worn.trough.values()].reduce((a, t) => Math.max(a, t.to - t.from), 0);
  const of = Math.max(1, Math.ceil(deep / s.cureMm - 1e-9));
  return Array.from({ length: of }, (_, k) => ({
    layer: 'core' as const,
    nth: k + 1,
    of,
    mm3: worn.troughMm3 / of,
    thickestMm: deep / of,
  }));
}

/** What speaks against a kind of work, or has to be known of it. */
function kindNotes(
  tooth: Fdi,
  {
    work,
    face,
    worn,
    neck,
    emerges,
  }: Pick<DirectBodies, 'work' | 'face' | 'worn' | 'neck'> & Pick<DirectPlan, 'emerges'>,
  s: DirectSettings,
): DirectNote[] {
  const out: DirectNote[] = [];
  if (work.kind === 'corner' && face && face.mm2 === 0)
    out.push({
      state: 'look',
      says: `{${tooth}}: no break is found between the scan and the plan. Draw it on the crown, or scan the tooth as it is.`,
    });
  if (work.kind === 'worn' && worn && worn.troughMm3 === 0)
    out.push({
      state: 'stop',
      says: worn.marked
        ? `{${tooth}}: what is marked as dentin lies beside the worn face, or is smaller than half a square millimetre. Mark it round again.`
        : `{${tooth}}: the edge is ${worn.edgeMm.toFixed(1)} mm thick: a trough would break through walls of ${s.wallMm.toFixed(1)} mm. Keep it shallow, or leave it out and bond to the edge as it is.`,
    });
  if (worn?.wallMm !== undefined && worn.wallMm < TROUGH_WALL_MM)
    out.push({
      state: 'stop',
      says: `{${tooth}}: walls of ${worn.wallMm.toFixed(1)} mm break; ${TROUGH_WALL_MM} mm are the least. A trough of all the dentin would break through: make it shallower, or leave dentin at the wall.`,
    });
  else if (worn?.wallMm !== undefined && worn.wallMm < s.wallMm - WALL_MM)
    out.push({
      state: 'look',
      says: `{${tooth}}: the dentin as it is marked leaves a wall of ${worn.wallMm.toFixed(1)} mm, less than the ${s.wallMm.toFixed(1)} mm that are to stay.`,
    });
  if (work.kind === 'neck' && !neck)
    out.push({
      state: 'look',
      says: `{${tooth}}: no dent beside the gum is found between the scan and the plan. Plan the whole face in shape, or scan the tooth as it is.`,
    });
  if (neck && neck.deepMm > NEAR_PULP_MM)
    out.push({
      state: 'look',
      says: `{${tooth}}: ${neck.deepMm.toFixed(1)} mm deep beside the gum the pulp is near: protect it. The treating clinician decides.`,
    });
  if (neck && neck.toNeckMm < ON_ROOT_MM)
    out.push({
      state: 'look',
      says: `{${tooth}}: its side at the gum ends at the root, where bonding is weaker. Keep it dry with a cord or a clamp; glass-ionomer under the composite, or in its place, is the other school.`,
    });
  for (const own of [emerges.left, emerges.right])
    if (own && own.deg > EMERGES.mostDeg)
      out.push({
        state: 'look',
        says: `{${tooth}}: it leaves the gum ${own.deg.toFixed(0)}° steeper than the tooth: over ${EMERGES.mostDeg}° it overhangs and can’t be kept clean. Begin it deeper, or add less.`,
      });
  return out;
}

/** How far the plan reaches beyond the tooth: to the sides below the tooth's own edge, and over that edge. */
export function growth(m: Missing): Pick<DirectPlan, 'wider' | 'longerMm'> {
  const { columns, reach } = m;
  let [left, right, longerMm] = [0, 0, 0];
  if (!reach) return { wider: { left, right }, longerMm };
  for (const { column, whole } of columns) {
    if (!whole) continue;
    const [x, z] = columnPlace(m, column);
    longerMm = Math.max(longerMm, reach.edge - z);
    if (z <= reach.edge) continue;
    [left, right] = [Math.max(left, x - reach.most), Math.max(right, reach.least - x)];
  }
  return { wider: { left, right }, longerMm };
}

function notesOn(
  tooth: Fdi,
  m: Missing,
  layers: readonly LayerBody[],
  s: DirectSettings,
  { wider }: Pick<DirectPlan, 'wider'>,
  ageYears: number | undefined,
): DirectNote[] {
  const whole = m.columns.filter((c) => c.whole);
  // A film all over a tooth is no body that a shell carries.
  const isBuilt = whole.length * m.grid.step ** 2 > BUILT_MM2;
  const thin = whole.filter((c) => c.planned.to - c.planned.from < s.shellMm + s.enamelMm);
  const energy = (s.lampMw * s.seconds) / 1000;
  const side = Math.max(wider.left, wider.right);
  const notes: (DirectNote | false)[] = [
    m.proudMm3 > PROUD_MM3 &&
      m.proudMm > PROUD_MM && {
        state: 'look',
        says: `{${tooth}}: ${m.proudMm3.toFixed(1)} mm³ of the tooth stand out of the plan, ${m.proudMm.toFixed(1)} mm at most: composite only adds, so that has to be ground, or the plan go round it.`,
      },
    isBuilt &&
      thin.length > whole.length / 2 && {
        state: 'look',
        says: `{${tooth}}: shell and enamel together are thicker than most of what is missing: no dentin is left, and it will look grey. Make the shell thinner, or the enamel.`,
      },
    isBuilt &&
      s.shellMm > 0 &&
      layers.some((l) => l.name === 'shell') &&
      !layers.some((l) => l.name === 'dentin') && {
        state: 'stop',
        says: `{${tooth}}: the shell is thicker than the body that it is to carry.`,
      },
    side > WIDE_MM && {
      state: 'look',
      says: `{${tooth}}: ${side.toFixed(1)} mm are added to one side: beyond ${WIDE_MM} mm the neck overhangs. Moving teeth with braces first is the other way.`,
    },
    energy < ENERGY_WANTED && {
      state: 'stop',
      says: `An increment gets ${energy.toFixed(0)} J/cm² of this lamp in ${s.seconds} s; about ${ENERGY_WANTED} are wanted: light it longer.`,
    },
    ageYears !== undefined &&
      ageYears < CHILD_YEARS && {
        state: 'look',
        says: `At ${ageYears} the pulp is wide: bevel in enamel alone, and protect what is near it. The treating clinician decides.`,
      },
  ];
  return notes.filter((n) => n !== false);
}

/** The trough at a place across, from front to back at each height. */
function coreThrough({ grid, trough }: WornEdge, x: number): (z: number) => Stretch | undefined {
  const { na, step, a0, b0 } = grid;
  const i = Math.round((x - a0) / step);
  const own = [...trough].filter(([c]) => c % na === i);
  return (z) => {
    const rows = own.filter(([, t]) => z >= t.from && z <= t.to).map(([c]) => b0 + Math.floor(c / na) * step);
    if (rows.length === 0) return undefined;
    return { from: Math.min(...rows) - step / 2, to: Math.max(...rows) + step / 2 };
  };
}

/** A section of the layers at a place across. */
export function layersThrough(
  { missing, layers, worn }: Pick<DirectBodies, 'missing' | 'layers' | 'worn'>,
  x: number,
): LayersThrough {
  const { na, step, a0, b0 } = missing.grid;
  const i = Math.max(0, Math.min(na - 1, Math.round((x - a0) / step)));
  const own = new Set([...missing.wants.keys(), ...missing.stands.keys()].filter((c) => c % na === i));
  const core = worn ? coreThrough(worn, a0 + i * step) : () => undefined;
  const rows = [...own]
    .map((column): SectionRow => {
      const [planned, tooth] = [missing.wants.get(column), missing.stands.get(column)];
      const z = b0 + Math.floor(column / na) * step;
      const filled = core(z);
      return {
        z,
        ...(planned && { planned }),
        ...(tooth && { tooth }),
        layers: [
          ...(filled ? [{ name: 'core' as const, ...filled }] : []),
          ...layers.flatMap((l) => {
            const at = l.stretches.get(column);
            return at ? [{ name: l.name, ...at }] : [];
          }),
        ],
      };
    })
    .sort((a, b) => a.z - b.z);
  return { x: a0 + i * step, rows };
}

/** The steps in which composite is placed, as one says them. */
export const placing = (plan: DirectPlan): string[] =>
  plan.increments.map(
    (i) =>
      `{${plan.tooth}} ${layerWords(i.layer)}${i.of > 1 ? `, ${i.nth} of ${i.of}` : ''}: ${i.mm3.toFixed(1)} mm³, ${i.thickestMm.toFixed(1)} mm at its thickest`,
  );
