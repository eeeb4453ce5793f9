import {
  bounds,
  type Fdi,
  type Frame,
  frameToArch,
  gridOver,
  hypot,
  type Jaw,
  type Mesh,
  meshToArch,
  placeMesh,
  toLocal,
  toParent,
  type Vec3,
} from '@radiant/core';
import { type Body, collar, joined, palate, papilla, type Standing } from './gum-body.js';
import type { Patient, PatientTooth } from './patient.js';
import { type Random, random } from './random.js';
import { roughened, type ScannerSetting } from './scanner.js';
import { addSolid, placeOf, surfaceOf, type Volume } from './surface-nets.js';

/** How a whole jaw is scanned. */
export interface WholeSetting extends ScannerSetting {
  /** Distance of the scan's points, mm. */
  readonly stepMm: number;
  /** Drops of saliva on the surface, and places that the scanner did not see. */
  readonly drops: number;
  readonly holes: number;
  /** Where the scanner's own coordinates have the mouth. */
  readonly placed?: Frame;
}

export const WHOLE_SCANNER: WholeSetting = { noiseMm: 0.025, seed: 91, stepMm: 0.25, drops: 5, holes: 4 };

/** A scan as a real scanner gives it, and what is true of it. */
export interface WholeJaw {
  /** One surface, open at its border, in the scanner's coordinates, mm. */
  readonly mesh: Mesh;
  /** Which tooth each triangle is of, 0 for gum: for checks, not for the file. */
  readonly truth: Uint8Array;
}

/** Gum farther over the necks than this is not scanned, mm. */
const REACH_MM = 5.5;
/** Of the palate this. */
const VAULT_MM = 14;
/** How softly gum flows into gum, mm. */
const SOFT_MM = 0.9;
const VAULT_SOFT_MM = 2.2;

/**
 * Teeth, gum and palate of a jaw as one surface, nothing in it telling them apart, with a scanner's noise, drops of
 * saliva and places that were not seen. Deterministic.
 * @param over crowns that lie over the teeth, as a mock-up does; nothing else is moved by them
 */
export function wholeJaw(
  patient: Patient,
  jaw: Jaw,
  s: WholeSetting = WHOLE_SCANNER,
  over: readonly PatientTooth[] = [],
): WholeJaw {
  const teeth = (jaw === 'upper' ? patient.teeth : patient.lower).map((t) => ({
    tooth: t.tooth,
    crown: t.crown,
    frame: frameToArch(jaw, t.frame),
    mesh: meshToArch(jaw, t.mesh),
    cut: t.cut,
  }));
  teeth.sort((a, b) => a.frame.origin[0] - b.frame.origin[0]);
  const v = emptyVolume(
    teeth.map((t) => t.mesh),
    s.stepMm,
  );
  const owner = new Uint8Array(v.d.length);
  for (const t of teeth)
    addSolid(
      v,
      t.mesh,
      (at) => {
        owner[at] = t.tooth;
      },
      t.cut,
    );
  for (const t of over)
    addSolid(v, meshToArch(jaw, t.mesh), (at) => {
      owner[at] = t.tooth;
    });
  const gum = gumOf(v, teeth, jaw, patient.recipe.gum?.papillaLossMm);
  const r = random(s.seed);
  for (let at = 0; at < v.d.length; at++) {
    const g = gum[at];
    if (g >= v.d[at]) continue;
    v.d[at] = g;
    owner[at] = 0;
  }
  saliva(v, s.drops, r);
  const { mesh, truth } = told(v, surfaceOf(v), owner);
  const seen = inReach(mesh, truth, teeth, jaw, holesOf(mesh, s.holes, r));
  const rough = roughened(seen.mesh, s, jaw === 'upper' ? 7 : 8);
  const mouth = meshToArch(jaw, rough);
  return { mesh: s.placed ? placeMesh(mouth, s.placed) : mouth, truth: seen.truth };
}

const FAR = 100;

function emptyVolume(meshes: readonly Mesh[], step: number): Volume {
  const all = meshes.map(bounds);
  const least = (k: 0 | 1 | 2) => Math.min(...all.map((b) => b.min[k]));
  const most = (k: 0 | 1 | 2) => Math.max(...all.map((b) => b.max[k]));
  const grid = gridOver([least(0) - 3, least(1) - 3], [most(0) + 3, most(1) + 2.5], step);
  const c0 = least(2) - 1;
  const nc = Math.ceil((most(2) + 9 - c0) / step);
  return { grid, c0, nc, d: new Float32Array(grid.na * grid.nb * nc).fill(FAR) };
}

function gumOf(v: Volume, teeth: readonly Standing[], jaw: Jaw, lostMm = 0): Float32Array {
  const out = new Float32Array(v.d.length).fill(FAR);
  const { grid, c0, nc } = v;
  const add = (body: Body, from: Vec3, to: Vec3, soft: number) => {
    const range = (k: 0 | 1 | 2, zero: number, n: number): [number, number] => [
      Math.max(0, Math.floor((from[k] - zero) / grid.step)),
      Math.min(n - 1, Math.ceil((to[k] - zero) / grid.step)),
    ];
    const [i0, i1] = range(0, grid.a0, grid.na);
    const [j0, j1] = range(1, grid.b0, grid.nb);
    const [k0, k1] = range(2, c0, nc);
    for (let k = k0; k <= k1; k++)
      for (let j = j0; j <= j1; j++)
        for (let i = i0; i <= i1; i++) {
          const d = body(grid.a0 + i * grid.step, grid.b0 + j * grid.step, c0 + k * grid.step);
          if (d === undefined) continue;
          const at = placeOf(v, i, j, k);
          out[at] = joined(out[at], d, soft);
        }
  };
  const around = (p: Vec3, by: Vec3): [Vec3, Vec3] => [
    [p[0] - by[0], p[1] - by[1], p[2] - by[2]],
    [p[0] + by[0], p[1] + by[1], p[2] + by[2]],
  ];
  for (const t of teeth) add(collar(t), ...around(toParent(t.frame, [0, 0, 10]), [10, 10, 14]), SOFT_MM);
  for (let i = 1; i < teeth.length; i++) {
    const [a, b] = [teeth[i - 1] as Standing, teeth[i] as Standing];
    const [p, q] = [toParent(a.frame, [0, 0, 8]), toParent(b.frame, [0, 0, 8])];
    add(
      papilla(a, b, lostMm),
      ...around([(p[0] + q[0]) / 2, (p[1] + q[1]) / 2, (p[2] + q[2]) / 2], [9, 9, 9]),
      SOFT_MM,
    );
  }
  if (jaw === 'upper') {
    const necks = teeth.map((t) => toParent(t.frame, [0, 3, neckMm(t) - 1.5]));
    const level = necks.reduce((n, p) => n + p[2], 0) / necks.length;
    const frontY = Math.min(...necks.map((p) => p[1])) + 1;
    const half = (y: number) => {
      // Between the two sides' necks at this depth, the nearest above and below.
      const side = (sign: 1 | -1) => {
        const own = necks.filter((p) => p[0] * sign > 0).sort((p, q) => p[1] - q[1]);
        const after = own.findIndex((p) => p[1] >= y);
        const [p, q] = after <= 0 ? [own.at(after), own.at(after)] : [own[after - 1], own[after]];
        if (!p || !q) return 0;
        const t = q[1] > p[1] ? (y - p[1]) / (q[1] - p[1]) : 0;
        return Math.abs(p[0] + (q[0] - p[0]) * Math.min(1, t));
      };
      return Math.min(side(1), side(-1)) + 1.5;
    };
    add(palate(frontY, level, half), [-40, frontY, -20], [40, 60, 60], VAULT_SOFT_MM);
  }
  return out;
}

/** Length of the crown along its axis, roughly. */
const neckMm = (t: Standing): number => bounds(t.crown.mesh).max[2];

/** Drops: small caps that fill the surface where they lie. */
function saliva(v: Volume, drops: number, r: Random): void {
  const { grid, d } = v;
  for (let n = 0; n < drops; n++) {
    // A place on the surface, found by trying.
    let at = -1;
    for (let k = 0; k < 100_000 && at < 0; k++) {
      const some = Math.floor(r.next() * d.length);
      if (Math.abs(d[some]) < grid.step * 0.5) at = some;
    }
    if (at < 0) continue;
    const [i, j, k] = [at % grid.na, Math.floor(at / grid.na) % grid.nb, Math.floor(at / (grid.na * grid.nb))];
    const radius = 0.4 + 0.5 * r.next();
    const reach = Math.ceil(radius / grid.step) + 1;
    for (let c = Math.max(0, k - reach); c <= Math.min(v.nc - 1, k + reach); c++)
      for (let b = Math.max(0, j - reach); b <= Math.min(grid.nb - 1, j + reach); b++)
        for (let a = Math.max(0, i - reach); a <= Math.min(grid.na - 1, i + reach); a++) {
          const p = placeOf(v, a, b, c);
          const far = hypot(a - i, b - j, (c - k) * 1.4) * grid.step - radius;
          d[p] = joined(d[p], far, 0.35);
        }
  }
}

/** Which tooth each triangle of the surface is of. */
function told(v: Volume, mesh: Mesh, owner: Uint8Array): { mesh: Mesh; truth: Uint8Array } {
  const { grid, c0 } = v;
  const p = mesh.positions;
  const of = (vertex: number): number => {
    const [i, j, k] = [
      Math.round((p[3 * vertex] - grid.a0) / grid.step),
      Math.round((p[3 * vertex + 1] - grid.b0) / grid.step),
      Math.round((p[3 * vertex + 2] - c0) / grid.step),
    ];
    return owner[placeOf(v, i, j, k)];
  };
  const truth = new Uint8Array(mesh.triangles.length / 3);
  for (let t = 0; t < truth.length; t++) {
    const [a, b, c] = [of(mesh.triangles[3 * t]), of(mesh.triangles[3 * t + 1]), of(mesh.triangles[3 * t + 2])];
    truth[t] = b === c ? b : a;
  }
  return { mesh, truth };
}

/** Places that were not seen: the middle of each and how far it goes, mm. */
function holesOf(mesh: Mesh, holes: number, r: Random): { at: Vec3; radius: number }[] {
  return Array.from({ length: holes }, () => {
    const at = 3 * Math.floor(r.next() * (mesh.positions.length / 3));
    return {
      at: [mesh.positions[at], mesh.positions[at + 1], mesh.positions[at + 2]] as Vec3,
      radius: 0.4 + 0.7 * r.next(),
    };
  });
}

/** What the scanner saw: not what lies deep in the folds, and not the places that it missed. */
function inReach(
  mesh: Mesh,
  truth: Uint8Array,
  teeth: readonly Standing[],
  jaw: Jaw,
  holes: readonly { at: Vec3; radius: number }[],
): { mesh: Mesh; truth: Uint8Array } {
  const p = mesh.positions;
  const necks = teeth.map((t) => ({ frame: t.frame, neck: toParent(t.frame, [0, 0, neckMm(t)]) }));
  const keep = new Uint8Array(p.length / 3);
  for (let v = 0; v < keep.length; v++) {
    const at: Vec3 = [p[3 * v], p[3 * v + 1], p[3 * v + 2]];
    let near = necks[0] as (typeof necks)[number];
    let least = Infinity;
    for (const n of necks) {
      const d = (n.neck[0] - at[0]) ** 2 + (n.neck[1] - at[1]) ** 2;
      if (d < least) {
        least = d;
        near = n;
      }
    }
    // On the palate the scan goes on; over the roots it ends, and what closes the gum body there is no surface.
    const overRoot = jaw === 'lower' || toLocal(near.frame, at)[1] < 7.5;
    const deep = at[2] > near.neck[2] + (overRoot ? REACH_MM : VAULT_MM);
    const missed = holes.some((h) => hypot(at[0] - h.at[0], at[1] - h.at[1], at[2] - h.at[2]) < h.radius);
    keep[v] = deep || missed ? 0 : 1;
  }
  // What hangs together with the rest alone: a scanner puts loose pieces away itself.
  return largest(compact(mesh, truth, keep));
}

/** The largest connected part. */
function largest({ mesh, truth }: { mesh: Mesh; truth: Uint8Array }): { mesh: Mesh; truth: Uint8Array } {
  const root = new Int32Array(mesh.positions.length / 3).map((_, i) => i);
  const find = (v: number): number => {
    let r = v;
    while (root[r] !== r) r = root[r];
    while (root[v] !== r) [root[v], v] = [r, root[v]];
    return r;
  };
  const { triangles: t } = mesh;
  for (let k = 0; k < t.length; k++) root[find(t[k])] = find(t[k - (k % 3)]);
  const count = new Int32Array(root.length);
  let best = 0;
  for (let k = 0; k < t.length; k += 3) {
    const r = find(t[k]);
    count[r] = count[r] + 1;
    if (count[r] > count[best]) best = r;
  }
  return compact(
    mesh,
    truth,
    new Uint8Array(root.length).map((_, v) => (find(v) === best ? 1 : 0)),
  );
}

function compact(mesh: Mesh, truth: Uint8Array, keep: Uint8Array): { mesh: Mesh; truth: Uint8Array } {
  const map = new Int32Array(keep.length).fill(-1);
  const positions: number[] = [];
  const triangles: number[] = [];
  const own: number[] = [];
  for (let t = 0; t < truth.length; t++) {
    const corners = [0, 1, 2].map((c) => mesh.triangles[3 * t + c]);
    if (corners.some((c) => !keep[c])) continue;
    own.push(truth[t] as Fdi);
    for (const c of corners) {
      if (map[c] < 0) {
        map[c] = positions.length / 3;
        for (let k = 0; k < 3; k++) positions.push(mesh.positions[3 * c + k]);
      }
      triangles.push(map[c]);
    }
  }
  return {
    mesh: { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) },
    truth: Uint8Array.from(own),
  };
}
