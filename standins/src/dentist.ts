import {
  ask,
  bounds,
  CaseEngine,
  type ContourPlan,
  closestPoints,
  crownZenith,
  type Design,
  type DesignChoice,
  type Fdi,
  gridOver,
  hypot,
  type Mesh,
  neededAt,
  onlyAdded,
  type PlannedTooth,
  readScan,
  restorationOf,
  signedDistances,
  signedField,
  toLocal,
  type Vec3,
} from '@radiant/core';
import { gum } from './gum.js';
import type { Patient } from './patient.js';
import { GUM_REACH_MM, INTRAORAL_SCANNER, type ScannerSetting, scan, scanOf } from './scanner.js';
import { addSolid, surfaceOf, type Volume } from './surface-nets.js';

/** What can go wrong at the chair, each by so many millimetres, or degrees where it says so. */
export const PREP_FAULTS = {
  'edge short': 'the edge is cut too little',
  'flat face': 'the middle of the face is cut too little',
  undercut: 'a wall or the face hollows in near the gum',
  'knife edge': 'the ledge runs out to nothing',
  'sharp corner': 'the corner of face and edge is left sharp',
  'high margin': 'the cut ends too far from the gum',
  tapered: 'the walls lean too much, degrees more on each',
  'tight palatal': 'behind the tooth too little is cut',
  lip: 'the tip of the bur digs in along the end and leaves a lip outside',
  ragged: 'the end of the cut leaps up and down',
} as const;
export type PrepFault = keyof typeof PREP_FAULTS;

/** What a simulated dentist is asked to cut. */
export interface PrepOrder {
  readonly design: Design;
  /** The planned crown in the arch's own frame. */
  readonly planned: PlannedTooth;
  /** Where the cut is to end, in the same frame. */
  readonly finishLine: readonly Vec3[];
  readonly faults?: Readonly<Partial<Record<PrepFault, number>>>;
  /** Between the places of what comes off, mm. */
  readonly stepMm?: number;
}

const STEP_MM = 0.16;
/** So far a chamfer's hollow goes, and a ledge that runs out. */
const LEDGE_MM = { usual: 0.5, knife: 4 } as const;
/** Where a surface begins to face forward, and where it does so fully: share of its normal. */
const FACES = { from: -0.1, full: 0.2 } as const;
const BINS = 180;
/** Over so far to either side, radians. */
const LED_RAD = 0.16;
const ROUND = { usual: 0.45, crown: 0.9, walls: 0.25, sharp: 0.01 } as const;
/** So far inside the end the tip of a bur of a millimetre digs in, mm. */
const DUG_MM = 0.5;
/** Round a crown its tip goes on towards the root from so far under the tooth's surface, mm: a lip stands outside. */
const RIM_MM = { from: 0.2, full: 0.3 } as const;
/** Such a bur is sunk deeper than by half of its end, by so much, mm. */
const SUNK_MM = 0.2;
/** Up and down so often around the tooth. */
const LEAPS = 22;
/** Where a surface does not face forward nothing goes, however far it stands out of the plan, mm. */
const LEFT = -1;
const TAPER_DEG = 6;
/** A wall stands so far in from where the cut ends, as a share of what is needed: the neck falls away there. */
const LEDGE_SHARE = 0.88;
/** Round its sides a wall stands so far in, as a share of what the sides need. */
const WALL_SHARE = 0.78;
const CHAMFER_MM = 0.6;

const ramp = (v: number, from: number, to: number): number => {
  const k = Math.max(0, Math.min(1, (v - from) / (to - from)));
  return k * k * (3 - 2 * k);
};

/** The greater of two fields, rounded where they meet so that more is gone there. */
const rounded = (a: number, b: number, k: number): number => {
  const h = Math.max(k - Math.abs(a - b), 0) / k;
  return Math.max(a, b) + (h * h * k) / 4;
};

/**
 * A tooth as a simulated dentist cuts it: from the planned crown inward, with the faults that are asked for. It shares
 * no form with the target that the program works out: bodies moved inward, and for crowns a cone.
 * @param before closed, in the arch's own frame
 */
export function cutByHand(before: Mesh, order: PrepOrder): Mesh {
  const cut = cutField(order, before);
  const step = order.stepMm ?? STEP_MM;
  const { min, max } = bounds(before);
  const grid = gridOver([min[0] - 1, min[1] - 1], [max[0] + 1, max[1] + 1], step);
  const c0 = min[2] - 1;
  const nc = Math.ceil((max[2] + 1 - c0) / step);
  const v = { grid, c0, nc, d: new Float32Array(grid.na * grid.nb * nc).fill(100) };
  addSolid(v, before, () => undefined, cut);
  return surfaceOf(plain(order.faults?.['sharp corner'] ? v : eased(v)));
}

/** Corners taken off as a disc does: each distance meant over those beside it. */
function eased(v: Volume): Volume {
  const { na, nb } = v.grid;
  const d = v.d.slice();
  const band = EASED_STEPS * v.grid.step;
  const beside = [1, -1, na, -na, na * nb, -na * nb];
  for (let at = na * nb; at < d.length - na * nb; at++) {
    if (Math.abs(v.d[at]) > band || beside.some((b) => Math.abs(v.d[at + b]) > 2 * band)) continue;
    d[at] = (2 * v.d[at] + beside.reduce((sum, b) => sum + v.d[at + b], 0)) / (2 + beside.length);
  }
  return { ...v, d };
}

/** Pairs of a cell's corners that lie across a face or the cell, and the others of that face. */
const ACROSS: readonly (readonly [number, number, readonly number[]])[] = [
  [0, 3, [1, 2]],
  [1, 2, [0, 3]],
  [4, 7, [5, 6]],
  [5, 6, [4, 7]],
  [0, 5, [1, 4]],
  [1, 4, [0, 5]],
  [2, 7, [3, 6]],
  [3, 6, [2, 7]],
  [0, 6, [2, 4]],
  [2, 4, [0, 6]],
  [1, 7, [3, 5]],
  [3, 5, [1, 7]],
  [0, 7, [1, 2, 3, 4, 5, 6]],
  [1, 6, [0, 2, 3, 4, 5, 7]],
  [2, 5, [0, 1, 3, 4, 6, 7]],
  [3, 4, [0, 1, 2, 5, 6, 7]],
];

/**
 * The same without cells through which two sheets go: where corners across from each other lie inside and all between
 * them outside, or the other way round, one outside them that is nearest to the surface is taken in.
 */
function plain(v: Volume): Volume {
  const { na, nb } = v.grid;
  const d = v.d.slice();
  const corner = [0, 1, na, na + 1, na * nb, na * nb + 1, na * nb + na, na * nb + na + 1];
  for (let round = 0, changed = true; changed && round < 40; round++) {
    changed = false;
    for (let k = 0; k < v.nc - 1; k++)
      for (let j = 0; j < nb - 1; j++)
        for (let i = 0; i < na - 1; i++) {
          const at = i + na * (j + nb * k);
          for (const [a, b, between] of ACROSS) {
            const inside = d[at + corner[a]] < 0;
            if (d[at + corner[b]] < 0 !== inside || between.some((c) => d[at + corner[c]] < 0 === inside)) continue;
            const outside = inside ? between : [a, b];
            const c = outside.reduce((x, y) => (d[at + corner[y]] < d[at + corner[x]] ? y : x));
            d[at + corner[c]] = -1e-4;
            changed = true;
          }
        }
  }
  return { ...v, d };
}

/** Distances are true so far from a surface, in steps of the grid. */
const EASED_STEPS = 1.2;

/** A tooth with a hollow, as a bur beside it leaves it. @param at in its own frame; `deepMm` from the surface inward */
export function nicked(before: Mesh, at: Vec3, deepMm: number, stepMm = STEP_MM): Mesh {
  const { min, max } = bounds(before);
  const grid = gridOver([min[0] - 1, min[1] - 1], [max[0] + 1, max[1] + 1], stepMm);
  const c0 = min[2] - 1;
  const nc = Math.ceil((max[2] + 1 - c0) / stepMm);
  const v = { grid, c0, nc, d: new Float32Array(grid.na * grid.nb * nc).fill(100) };
  const radius = 0.9;
  const field = signedField(before);
  const { points, faces } = closestPoints(field.tree, Float64Array.from(at));
  const n = [0, 1, 2].map((k) => field.faceNormals[3 * faces[0] + k]);
  const middle = [0, 1, 2].map((k) => points[k] + n[k] * (radius - deepMm));
  addSolid(
    v,
    before,
    () => undefined,
    (places) =>
      Float64Array.from(
        { length: places.length / 3 },
        (_, i) => radius - Math.hypot(...[0, 1, 2].map((k) => places[3 * i + k] - middle[k])),
      ),
  );
  return surfaceOf(plain(v));
}

function cutField({ design, planned, finishLine, faults = {} }: PrepOrder, before: Mesh) {
  const whole = faults.lip ? signedField(before) : undefined;
  const field = signedField(planned.mesh);
  const zenith = crownZenith(planned.crown)[2];
  const edgeMm = design.edge.kind === 'thickness' ? design.edge.mm - (faults['edge short'] ?? 0) : undefined;
  const own = finishLine.map((p) => toLocal(planned.frame, p));
  // A die is turned about its own middle, which is not where the crown's axis goes through.
  const [cx, cy] = [0, 1].map((k) => {
    const all = own.map((p) => p[k as 0]);
    return (Math.min(...all) + Math.max(...all)) / 2;
  }) as [number, number];
  const line = finishAround(own.map(([x, y, z]): Vec3 => [x - cx, y - cy, z]));
  const ledge = faults['knife edge'] ? LEDGE_MM.knife : LEDGE_MM.usual;

  const crown = design.kind === 'crown' && design.around;
  const round = faults['sharp corner'] ? ROUND.sharp : crown ? ROUND.crown : ROUND.usual;
  const lean = Math.tan((((design.taperDeg ?? TAPER_DEG) + (faults.tapered ?? 0)) * Math.PI) / 180);
  return (places: Float64Array): Float64Array => {
    const outside = signedDistances(field, places);
    const { faces } = closestPoints(field.tree, places);
    const under = whole && signedDistances(whole, places);
    return outside.map((off, i) => {
      const [x, y, z] = toLocal(planned.frame, [places[3 * i], places[3 * i + 1], places[3 * i + 2]]);
      const [, v, w] = toLocal({ ...planned.frame, origin: [0, 0, 0] }, [
        field.faceNormals[3 * faces[i]],
        field.faceNormals[3 * faces[i] + 1],
        field.faceNormals[3 * faces[i] + 2],
      ]);
      const turn = Math.atan2(y - cy, x - cx);
      const end = line(turn);
      const leap = (faults.ragged ?? 0) * Math.sign(Math.sin(LEAPS * turn));
      const over = end.z - (faults['high margin'] ?? 0) - leap - z;
      const share = z / zenith;
      const hollow = faults.undercut ?? 0;
      const near = hollow * Math.exp(-(((over - 1.6) / 0.5) ** 2));
      const flat = (faults['flat face'] ?? 0) * Math.exp(-(((share - 0.5) / 0.13) ** 2));
      const facial = ramp(-v, FACES.from, FACES.full);
      const profile = over <= 0 ? 0 : crown ? Math.min(1, Math.sqrt(over / ledge)) : ramp(over, -0.05, ledge);
      let body: number;
      if (crown) {
        const front = Math.max(0, -v) ** 2;
        const behind = Math.max(0, v) ** 2;
        const side = Math.max(0, 1 - front - behind - w * w);
        const whole = front + behind + side || 1;
        const tight = faults['tight palatal'] ?? 0;
        const need =
          (front * (neededAt(design, share) - flat) + behind * (crown.palatalMm - tight) + side * crown.proximalMm) /
            whole +
          (behind > 0.6 ? near : 0);
        const out = hypot(x - cx, y - cy);
        const past = over + (faults.lip ?? 0) * ramp(-(under?.[i] ?? 0), RIM_MM.from, RIM_MM.full);
        // A ledge with a rounded inner angle, or one that runs out.
        const run = Math.max(0, Math.min(1, past / (faults['knife edge'] ? ledge : CHAMFER_MM)));
        const sunk = faults.lip ? SUNK_MM * (1 - ramp(over, CHAMFER_MM, 2.5 * CHAMFER_MM)) : 0;
        const full = need * (LEDGE_SHARE + (1 - LEDGE_SHARE) * ramp(over, CHAMFER_MM, 2.5 * CHAMFER_MM)) + sunk;
        const deep = full * (faults['knife edge'] ? run : Math.sqrt(1 - (1 - run) ** 2));
        // Seen from the end of the cut a wall leans inward at least by its taper.
        const wall =
          out -
          (end.r -
            sunk -
            WALL_SHARE * crown.proximalMm * (faults['knife edge'] ? 0.2 : 1) -
            lean * Math.max(0, over - 0.3));
        body =
          past <= 0 ? LEFT : rounded(off + deep, hollow > 0 && behind > 0.6 ? LEFT : Math.min(wall, past), ROUND.walls);
      } else {
        const need = neededAt(design, share) - flat + near * facial;
        const dug = (faults.lip ?? 0) * Math.exp(-(((over - DUG_MM) / DUG_MM) ** 2) * 2);
        body = over <= 0 ? LEFT : (off + need * profile + dug) * facial + LEFT * (1 - facial);
      }
      return edgeMm === undefined ? body : rounded(body, edgeMm - z, round);
    });
  };

  /** Where the cut ends in a direction about the axis: its height, and how far out the tooth is there. */
  function finishAround(own: readonly Vec3[]): (turn: number) => { z: number; r: number } {
    const all = own.map(([x, y, z]) => ({ turn: Math.atan2(y, x), z, r: hypot(x, y) }));
    // A hand leads the bur evenly around: the line is meant over some degrees.
    const even = Array.from({ length: BINS }, (_, k) => {
      const turn = (2 * Math.PI * k) / BINS;
      let [sum, z, r] = [0, 0, 0];
      for (const p of all) {
        const away = Math.atan2(Math.sin(p.turn - turn), Math.cos(p.turn - turn));
        const weight = Math.exp(-((away / LED_RAD) ** 2));
        [sum, z, r] = [sum + weight, z + weight * p.z, r + weight * p.r];
      }
      return { z: z / sum, r: r / sum };
    });
    return (turn) => {
      const at = (((turn / (2 * Math.PI)) * BINS) % BINS) + BINS;
      const [p, q, t] = [even[Math.floor(at) % BINS], even[(Math.floor(at) + 1) % BINS], at - Math.floor(at)] as const;
      return { z: p.z + t * (q.z - p.z), r: p.r + t * (q.r - p.r) };
    };
  }
}

/** What a whole row was asked for and how it went: faults by tooth, and neighbours that a bur has met. */
export interface RowOrder {
  readonly plan: ContourPlan;
  readonly choice: DesignChoice;
  readonly faults?: Readonly<Partial<Record<Fdi, PrepOrder['faults']>>>;
  /** How deep, mm. */
  readonly nicked?: Readonly<Partial<Record<Fdi, number>>>;
}

/**
 * The upper teeth of a patient as a simulated dentist has cut them under a plan that stands on a scan of theirs. Teeth
 * for which nothing is cut stay as they are.
 */
export function cutRow(patient: Patient, { plan, choice, faults = {}, nicked: met = {} }: RowOrder): Map<Fdi, Mesh> {
  const engine = new CaseEngine();
  engine.take(readScan(scan(patient, INTRAORAL_SCANNER)));
  engine.setPlan(plan);
  const cut = new Set(engine.teeth('upper').filter((t) => !onlyAdded(restorationOf(t, choice).design)));
  return new Map(
    patient.teeth.map(({ tooth, mesh }): [Fdi, Mesh] => {
      if (cut.has(tooth)) {
        const { finishLine } = ask(engine, 'target', tooth, choice).surface;
        const { design } = restorationOf(tooth, choice);
        const own = faults[tooth];
        return [
          tooth,
          cutByHand(mesh, { design, planned: engine.crown(tooth), finishLine, ...(own && { faults: own }) }),
        ];
      }
      const deep = met[tooth];
      return [tooth, deep ? nicked(mesh, towardsMiddle(mesh), deep) : mesh];
    }),
  );
}

/** The place of a tooth that looks most to the midline, a third up from its edge. */
function towardsMiddle(mesh: Mesh): Vec3 {
  const { min, max } = bounds(mesh);
  const level = min[2] + 0.3 * (max[2] - min[2]);
  let best: Vec3 = [0, 0, 0];
  let least = Infinity;
  for (let i = 0; i < mesh.positions.length; i += 3) {
    const x = mesh.positions[i];
    const y = mesh.positions[i + 1];
    const z = mesh.positions[i + 2];
    if (Math.abs(z - level) > 0.4) continue;
    const away = Math.abs(x) + 0.3 * y;
    if (away < least) [best, least] = [[x, y, z], away];
  }
  return best;
}

/** The same as the simulated scanner gives it: teeth numbered, in the closed bite. */
export function scanOfCut(patient: Patient, order: RowOrder, s: ScannerSetting): Uint8Array {
  const cut = cutRow(patient, order);
  const teeth = patient.teeth.map((t) => ({ ...t, mesh: cut.get(t.tooth) ?? t.mesh }));
  return scanOf(teeth, gum(patient.teeth, patient.recipe.gum, GUM_REACH_MM), s);
}
