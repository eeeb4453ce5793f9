import { archSide, frameToArch, meshToArch, rowOf } from '../../contour/arch.js';
import { toothOf } from '../../contour/fit.js';
import { Refusal } from '../../errors.js';
import { directionToParent, type Frame, toParent, WORLD } from '../../geometry/frame.js';
import { type Mesh, vertexCount } from '../../geometry/mesh.js';
import type { SignedField } from '../../geometry/tree/signed.js';
import { dot, hypot, type Vec3 } from '../../geometry/vec.js';
import { BITE_ZONES } from '../../prep/checks/bite.js';
import { type Checked, scanPlace } from '../../prep/checks/checked.js';
import { finishOf } from '../../prep/checks/finish.js';
import { type BestWay, bestWay, undercutMm2, type WayCone, wayCone } from '../../prep/draw.js';
import { facingTogether, preparedFacing, wellWithin } from '../../prep/facing.js';
import { type PrepFinding, type PrepState, worstState } from '../../prep/finding.js';
import type { FinishByHand } from '../../prep/finish-found.js';
import { type Laid, laidOn } from '../../prep/laid.js';
import { PREP_LIMITS } from '../../prep/limits.js';
import { NO_ZONE, type PrepMap, prepMap } from '../../prep/prep-tooth.js';
import { provisionalOver } from '../../prep/provisional.js';
import { type Recut, recuts } from '../../prep/recut.js';
import { type ZoneRoom, zoneRooms } from '../../prep/room.js';
import { crownOnly, type SeenField, seenDistances } from '../../prep/seen.js';
import { SHELL_LIMITS, type ShellOn, shellOn } from '../../prep/shell.js';
import { verdictOn } from '../../prep/verdict.js';
import { DEPTH_TOLERANCE_MM, FIRST_TRAY } from '../../reduction/burs/tray.js';
import type { Mouth } from '../../reduction/removal.js';
import { ZONE_ORDER } from '../../reduction/target-zones.js';
import { onlyAdded } from '../../restoration/design.js';
import { restorationOf } from '../../restoration/restoration.js';
import { type Fdi, type Jaw, jawOf } from '../../teeth/notation.js';
import type { Bite } from '../bite.js';
import type { CaseEngine, LaterScan } from '../case-engine.js';
import { type CutChoice, surfaceOf } from './reduction.js';

/** What was found on one prepared tooth. */
export interface PrepToothVerdict {
  readonly tooth: Fdi;
  readonly state: PrepState;
  readonly findings: readonly PrepFinding[];
  readonly rooms: readonly ZoneRoom[];
}

/** What can be judged of a jaw by its later scans, before anything is measured on its teeth. */
export interface PrepStanding {
  readonly laid: Laid;
  /** How a scan of the provisionals lies, where there is one; a doubtful one is not judged by. */
  readonly provisional?: Laid;
  /** The teeth that can be judged; none where the scan lies too doubtfully. */
  readonly judged: readonly Fdi[];
  /** Planned teeth that the scan does not have, and those on which nothing was cut yet. */
  readonly missing: readonly Fdi[];
  readonly uncut: readonly Fdi[];
}

/** What was found on all prepared teeth of a jaw. */
export interface PrepVerdict extends PrepStanding {
  readonly teeth: readonly PrepToothVerdict[];
  readonly recuts: readonly Recut[];
}

/** A tooth counts as cut once so much of what is asked is gone somewhere, mm. House value. */
const BEGUN_MM = 0.15;

/** How the scan of the prepared teeth stands to the plan. @throws Refusal `scan-missing` of either scan */
export function prepStanding(engine: CaseEngine, jaw: Jaw, choice: CutChoice): PrepStanding {
  const later = engine.laterScan(jaw);
  const planned = engine.teeth(jaw).filter((t) => !onlyAdded(restorationOf(t, choice).design));
  const missing = planned.filter((t) => !later.tooth(t));
  const there = planned.filter((t) => later.tooth(t));
  const laid = laidFit(engine, later, jaw);
  const proof = engine.provisionalScan(jaw);
  const own = { laid, ...(proof && { provisional: laidFit(engine, proof, jaw) }), missing };
  if (laid.doubtful) return { ...own, judged: [], uncut: [] };
  const uncut = there.filter((t) => isUncut(engine, t, choice));
  return { ...own, judged: there.filter((t) => !uncut.includes(t)), uncut };
}

/** Everything that is checked on one prepared tooth. @throws Refusal `scan-missing`, `tooth-missing` */
export function prepTooth(
  engine: CaseEngine,
  tooth: Fdi,
  choice: CutChoice,
  mouth: Mouth = {},
  lines: readonly FinishByHand[] = [],
): PrepToothVerdict {
  const jaw = jawOf(tooth);
  const own = withLine(checkedTooth(engine, tooth, choice, mouth, laidFit(engine, engine.laterScan(jaw), jaw)), lines);
  const findings = verdictOn(own);
  return { tooth, state: worstState(findings), findings, rooms: zoneRooms(own.map) };
}

/** The verdict on the teeth that were judged so far, with what is still to cut on them. */
export function verdictOf(
  standing: PrepStanding,
  teeth: readonly PrepToothVerdict[],
  { tray, toleranceMm }: Pick<CutChoice, 'tray' | 'toleranceMm'>,
): PrepVerdict {
  const findings = teeth.flatMap((t) => t.findings);
  const given = { burs: (tray ?? FIRST_TRAY).burs, toleranceMm: toleranceMm ?? DEPTH_TOLERANCE_MM };
  return { ...standing, teeth, recuts: recuts(findings, given) };
}

/** Everything that is checked on the prepared teeth of a jaw. @throws Refusal `scan-missing` of either scan */
export function prepVerdict(
  engine: CaseEngine,
  jaw: Jaw,
  choice: CutChoice,
  mouth: Mouth = {},
  lines: readonly FinishByHand[] = [],
): PrepVerdict {
  const standing = prepStanding(engine, jaw, choice);
  return verdictOf(
    standing,
    standing.judged.map((t) => prepTooth(engine, t, choice, mouth, lines)),
    choice,
  );
}

/** How the later scan of a jaw lies, by the teeth for which nothing is planned. */
function laidFit(engine: CaseEngine, later: LaterScan, jaw: Jaw): Laid {
  const planned = engine.teeth(jaw);
  const known = fits.get(later);
  if (known?.planned === planned.join()) return known.laid;
  const laid = laidBy(engine, later, jaw, new Set(planned));
  fits.set(later, { planned: planned.join(), laid });
  return laid;
}

/** How a scan lies, once for the teeth that were planned then. */
const fits = new WeakMap<LaterScan, { readonly planned: string; readonly laid: Laid }>();

function laidBy(engine: CaseEngine, later: LaterScan, jaw: Jaw, planned: ReadonlySet<Fdi>): Laid {
  return laidOn(
    rowOf(jaw).flatMap((tooth) => {
      const [before, after] = [firstSeen(engine, tooth), later.tooth(tooth)];
      if (planned.has(tooth) || !before || !after) return [];
      const crown = crownOnly(before.mesh);
      const at = (v: number) => before.mesh.positions.subarray(3 * v, 3 * v + 3) as unknown as Vec3;
      return [{ before, after, seen: (v: number) => crown(at(v)) }];
    }),
  );
}

/** A tooth of the first scan with what of it was seen, made once for the tooth. */
function firstSeen(engine: CaseEngine, tooth: Fdi): SeenField | undefined {
  const jaw = jawOf(tooth);
  const field = engine.arch(jaw).teeth.get(tooth)?.field;
  const made = engine.scan(jaw).made?.get(tooth);
  if (!field || !made) return field;
  const known = firsts.get(field) ?? { ...field, made };
  firsts.set(field, known);
  return known;
}

const firsts = new WeakMap<SignedField, SeenField>();

function isUncut(engine: CaseEngine, tooth: Fdi, choice: CutChoice): boolean {
  const surface = surfaceOf(engine, tooth, restorationOf(tooth, choice).design);
  const after = engine.laterScan(jawOf(tooth)).tooth(tooth);
  if (!after) return false;
  const asked = Array.from(surface.removedMm.keys()).filter((i) => (surface.removedMm[i] as number) > 2 * BEGUN_MM);
  if (asked.length === 0) return false;
  const points = Float64Array.from(asked.flatMap((i) => [...surface.before.positions.subarray(3 * i, 3 * i + 3)]));
  const gone = seenDistances(after, points)
    .filter((mm) => !Number.isNaN(mm))
    .sort();
  if (gone.length === 0) return false;
  return (gone[Math.floor(0.9 * gone.length)] as number) < BEGUN_MM;
}

/** A prepared tooth measured for its checks; once for a crown, a design and a scan. */
function checkedTooth(engine: CaseEngine, tooth: Fdi, choice: CutChoice, mouth: Mouth, laid: Laid): Checked {
  const { design } = restorationOf(tooth, choice);
  const jaw = jawOf(tooth);
  const later = engine.laterScan(jaw);
  const scan = later.tooth(tooth);
  if (!scan) throw new Refusal('tooth-missing', `The scan of the prepared teeth has no {${tooth}}.`, tooth);
  const surface = surfaceOf(engine, tooth, design);
  const bite = engine.bite();
  const key = `prepared ${later.nth} ${JSON.stringify(design)} ${bite ? 'bite' : ''}`;
  const measured = engine.once(tooth, key, (planned, arch) => {
    const own = {
      tooth,
      design,
      planned,
      target: surface,
      before: firstSeen(engine, tooth) ?? toothOf(arch, tooth).field,
      scan,
    };
    const map = prepMap(own);
    const inMouth = later.scan.teeth.get(tooth) as Mesh;
    const room = bite && biteOver(bite, tooth, inMouth, map, engine);
    return {
      ...own,
      map,
      facing: preparedFacing(scan.mesh, map),
      ...(room && { bite: room }),
    };
  });
  const row = rowOf(jaw);
  const at = row.indexOf(tooth);
  const beside = [row[at - 1], row[at + 1]].flatMap((t) => {
    const [before, after] = t === undefined ? [] : [firstSeen(engine, t), later.tooth(t)];
    return t !== undefined && before && after ? [{ tooth: t, before, after, cut: engine.teeth(jaw).includes(t) }] : [];
  });
  const provisional = proofOver(engine, tooth, key, measured, laid.pmMm);
  const rest = scan.made && later.rest();
  return {
    ...measured,
    distal: archSide(tooth) === 'left' ? 1 : -1,
    pmMm: laid.pmMm,
    mouth,
    ...(choice.cornerMm != null && { cornerMm: choice.cornerMm }),
    beside,
    ...(rest && { rest }),
    ...(provisional && { provisional }),
  };
}

/** The same with the line that somebody has drawn around it. */
function withLine(own: Checked, lines: readonly FinishByHand[]): Checked {
  const drawn = new Map(lines.filter((l) => l.tooth === own.tooth).map((l) => [l.at, l.mm]));
  return drawn.size > 0 ? { ...own, drawn } : own;
}

/** A provisional's scan over a prepared tooth; nothing where there is none, or it lies too doubtfully. */
function proofOver(
  engine: CaseEngine,
  tooth: Fdi,
  key: string,
  own: Pick<Checked, 'scan' | 'planned' | 'map'>,
  laidPmMm: number,
): Checked['provisional'] {
  const jaw = jawOf(tooth);
  const proof = engine.provisionalScan(jaw);
  const field = proof?.tooth(tooth);
  if (!proof || !field) return undefined;
  const { doubtful, pmMm } = laidFit(engine, proof, jaw);
  if (doubtful) return undefined;
  const over = engine.once(tooth, `proof ${proof.nth} ${key}`, () => provisionalOver(own, own.map, field));
  return { ...over, pmMm: hypot(pmMm, laidPmMm) };
}

/** Faces are no question of the bite. */
const asksBite = (zone: number): boolean => BITE_ZONES.some((z) => ZONE_ORDER[zone] === z);

/** The bite over the prepared places of a tooth that are asked about; elsewhere it is Infinity. */
function biteOver(
  bite: Bite,
  tooth: Fdi,
  { positions }: Mesh,
  { zone }: PrepMap,
  engine: CaseEngine,
): { closed: Float32Array; moved: Float32Array } {
  const own = Array.from(zone.keys()).filter((v) => asksBite(zone[v] as number));
  const places = Float64Array.from(
    { length: 3 * own.length },
    (_, i) => positions[3 * (own[Math.floor(i / 3)] as number) + (i % 3)] as number,
  );
  const near = bite.room(tooth, { positions: places, triangles: new Uint32Array() }, engine.crowns());
  const all = (of: Float32Array) => {
    const out = new Float32Array(zone.length).fill(Infinity);
    own.forEach((v, i) => {
      out[v] = of[i] as number;
    });
    return out;
  };
  return { closed: all(near.closed), moved: all(near.moved) };
}

/** A prepared tooth to be looked at, in the mouth's coordinates. */
export interface PreparedView {
  readonly tooth: Fdi;
  readonly mesh: Mesh;
  /** The tooth's own: −y to the front, −z to the edge. */
  readonly frame: Frame;
  /** Of each vertex, mm: what is still to cut, below 0 where too much is gone; NaN where nothing was to be cut. */
  readonly shortMm: Float64Array;
  readonly roomMm: Float64Array;
  /** Where the cut was to end and where it ends, in the same order. */
  readonly finish: readonly {
    readonly at: number;
    readonly wished: Vec3;
    readonly found?: Vec3;
    readonly highMm?: number;
  }[];
  /** Places of the findings that have one, in the order of the verdict. */
  readonly marks: readonly { readonly at: Vec3; readonly finding: number }[];
  /** The ways on which it comes off: what hangs on the planned one, the best, and how far from that one may lean. */
  readonly draw: {
    readonly plannedMm2: number;
    readonly best: BestWay;
    readonly cone: WayCone;
    readonly planned: Vec3;
  };
}

/** One prepared tooth to be looked at. @throws Refusal `scan-missing`, `tooth-missing` */
export function preparedView(
  engine: CaseEngine,
  tooth: Fdi,
  choice: CutChoice,
  mouth: Mouth = {},
  lines: readonly FinishByHand[] = [],
): PreparedView {
  const jaw = jawOf(tooth);
  const own = withLine(checkedTooth(engine, tooth, choice, mouth, laidFit(engine, engine.laterScan(jaw), jaw)), lines);
  const mouthFrame: Frame = frameToArch(jaw, WORLD);
  const out = (p: Vec3): Vec3 => (jaw === 'upper' ? p : toParent(mouthFrame, p));
  const mesh = jaw === 'upper' ? own.scan.mesh : meshToArch(jaw, own.scan.mesh);
  const nothing = (values: Float64Array) =>
    Float64Array.from({ length: vertexCount(mesh) }, (_, v) =>
      own.map.zone[v] === NO_ZONE ? Number.NaN : (values[v] as number),
    );
  const planned = directionToParent(own.target.frame, own.target.way);
  const best = bestWay(own.facing, planned);
  const plannedMm2 = undercutMm2(own.facing, planned);
  const allowed = Math.max(PREP_LIMITS.undercut.value, best.undercutMm2);
  return {
    tooth,
    mesh,
    frame: frameToArch(jaw, own.target.frame),
    shortMm: nothing(own.map.shortMm),
    roomMm: nothing(own.map.roomMm),
    finish: finishOf(own).map(({ at, wished, found, highMm }) => ({
      at,
      wished: out(wished),
      ...(found && { found: out(found) }),
      ...(highMm !== undefined && { highMm }),
    })),
    marks: verdictOn(own).flatMap((f, finding) => (f.at ? [{ at: out(f.at), finding }] : [])),
    draw: {
      plannedMm2,
      best,
      planned,
      cone: wayCone(
        own.facing,
        plannedMm2 <= allowed ? planned : best.way,
        directionToParent(own.target.frame, [0, -1, 0]),
        allowed,
      ),
    },
  };
}

/** A preformed provisional tried on one prepared tooth, its places in the mouth's coordinates. */
export interface ShellTried extends ShellOn {
  readonly tooth: Fdi;
  readonly wallMm: number;
  readonly places: readonly Vec3[];
}

/**
 * Tries a shell on a prepared tooth: the planned contour less a wall.
 * @throws Refusal `scan-missing`, `tooth-missing`; `number-invalid` for a wall that can't be
 */
export function shellTried(engine: CaseEngine, tooth: Fdi, choice: CutChoice, wallMm: number): ShellTried {
  if (!(wallMm >= SHELL_LIMITS.min && wallMm <= SHELL_LIMITS.max))
    throw new Refusal(
      'number-invalid',
      `A shell’s wall is ${SHELL_LIMITS.min} to ${SHELL_LIMITS.max} mm thick.`,
      wallMm,
    );
  const jaw = jawOf(tooth);
  const own = checkedTooth(engine, tooth, choice, {}, laidFit(engine, engine.laterScan(jaw), jaw));
  // At its edge a shell is trimmed, and at the sides a veneer's runs out.
  const within = wellWithin(own.scan.mesh, own.map, own.facing).filter(
    (v) => own.design.around || !ZONE_ORDER[own.map.zone[v] as number]?.endsWith('side'),
  );
  const on = shellOn(own.map, own.facing, within, directionToParent(own.target.frame, own.target.way), wallMm);
  const out = (p: Vec3): Vec3 => (jaw === 'upper' ? p : toParent(frameToArch(jaw, WORLD), p));
  return { ...on, tooth, wallMm, places: on.binds.map((b) => out(scanPlace(own, b.at))) };
}

/** The way on which several prepared teeth come off together, as splinted provisionals and bridges must. */
export interface CommonWay {
  readonly teeth: readonly Fdi[];
  readonly best: BestWay;
  /** Of each tooth, what hangs on it, mm². */
  readonly hanging: readonly (readonly [Fdi, number])[];
  /** How far each tooth's own planned way lies from it, degrees. */
  readonly fromOwnDeg: readonly (readonly [Fdi, number])[];
}

/** The common way out of teeth that must come off together. @throws Refusal `scan-missing`, `tooth-missing` */
export function commonWay(engine: CaseEngine, teeth: readonly Fdi[], choice: CutChoice, mouth: Mouth = {}): CommonWay {
  const all = teeth.map((t) =>
    checkedTooth(engine, t, choice, mouth, laidFit(engine, engine.laterScan(jawOf(t)), jawOf(t))),
  );
  const ways = all.map((c) => directionToParent(c.target.frame, c.target.way));
  const mean = ways.reduce<Vec3>((a, w) => [a[0] + w[0], a[1] + w[1], a[2] + w[2]], [0, 0, 0]);
  const l = Math.hypot(...mean) || 1;
  const best = bestWay(facingTogether(all.map((c) => c.facing)), [mean[0] / l, mean[1] / l, mean[2] / l]);
  return {
    teeth,
    best,
    hanging: all.map((c) => [c.tooth, undercutMm2(c.facing, best.way)] as const),
    fromOwnDeg: all.map(
      (c, i) => [c.tooth, (Math.acos(Math.min(1, dot(ways[i] as Vec3, best.way))) * 180) / Math.PI] as const,
    ),
  };
}
