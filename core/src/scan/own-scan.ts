import { meshToArch } from '../contour/arch.js';
import {
  type Adjacency,
  acrossOf,
  adjacencyOf,
  type Neighbourhood,
  neighbourhoodOf,
  trianglesAround,
} from '../geometry/adjacency.js';
import type { Mesh } from '../geometry/mesh.js';
import type { Vec3 } from '../geometry/vec.js';
import type { Fdi, Jaw } from '../teeth/notation.js';
import { concavityOf, type Smooth, smoothed } from './concavity.js';
import { type Doubt, doubtsOf, rowDoubt } from './doubts.js';
import { type PickedCrown, pickedCrowns } from './picked-crown.js';
import { onRow, type RowCurve, type RowSight, rowCurve, rowSight, type ToothRoom } from './row.js';
import { type KnownPlaces, likeliestRow, type NumberedRow, type Stretch } from './row-path.js';
import { ofTriangles, segmented } from './segment.js';
import { onFine, type Thinned, thinned } from './thinned.js';

/** The whole jaw as it was scanned, in the arch's own frame. */
export interface WholeScan {
  readonly mesh: Mesh;
  readonly neighbourhood: Neighbourhood;
  /** How it was thinned to be looked at, where it is so fine that it was. */
  readonly thinned?: Omit<Thinned, 'mesh'>;
}

/**
 * A whole jaw in its own frame, looked at: its folds, the course of its row and the rooms of its teeth. All but `whole`
 * is of the surface that was looked at: the scan's own, or a thinned one.
 */
export interface LookedAt {
  readonly jaw: Jaw;
  readonly whole: WholeScan;
  /** In the arch's own frame. */
  readonly mesh: Mesh;
  readonly adjacency: Adjacency;
  readonly neighbourhood: Neighbourhood;
  readonly smooth: Smooth;
  readonly concavity: Float32Array;
  readonly row: RowCurve;
  /** Teeth that are known to be missing. */
  readonly missing: ReadonlySet<Fdi>;
  /** What a hand has told of the row. */
  readonly told: Told;
  /** A proposal of the teeth. */
  readonly teeth: ReadonlyMap<Fdi, ToothRoom>;
  /** How unlikely they are, and by how much another numbering is less likely. */
  readonly cost: number;
  readonly sure: number;
  /** How large its teeth are beside the usual ones, and what stands between them without a number. */
  readonly scale: number;
  readonly unnumbered: readonly Stretch[];
}

/** Places that a hand has told, in the arch's own frame. */
export interface Told {
  /** A place on each of some teeth. */
  readonly teeth: ReadonlyMap<Fdi, Vec3>;
  /** Between the centrals. */
  readonly middle?: Vec3;
  /** Stretches along the row, mm, in which no tooth stands. */
  readonly none?: readonly Stretch[];
}
export const NOTHING_TOLD: Told = { teeth: new Map() };

/** What was told, along a row. */
export function knownOn(row: RowCurve, { teeth, middle, none }: Told): KnownPlaces {
  const along = (p: Vec3) => onRow(row, p[0], p[1]).along;
  return {
    teeth: new Map([...teeth].map(([t, p]) => [t, along(p)])),
    ...(middle && { middleMm: along(middle) }),
    ...(none && { none }),
  };
}

/** The likeliest teeth of a row by what was told; where nothing fits to that, by the row alone. */
export function rowAsTold(
  sight: RowSight,
  row: RowCurve,
  jaw: Jaw,
  missing: ReadonlySet<Fdi>,
  told: Told,
): NumberedRow {
  const own = likeliestRow(sight, jaw, missing, knownOn(row, told));
  return own.teeth.size > 0 ? own : likeliestRow(sight, jaw, missing);
}

/**
 * Looks at a repaired jaw in the mouth's coordinates.
 * @param missing teeth that are known to be missing
 * @param told what a hand has told of the row
 */
export function lookAtJaw(
  inMouth: Mesh,
  jaw: Jaw,
  missing: ReadonlySet<Fdi> = new Set(),
  told: Told = NOTHING_TOLD,
): LookedAt {
  const own = meshToArch(jaw, inMouth);
  const around = trianglesAround(own);
  const all = neighbourhoodOf(own, around);
  const fewer = thinned(own, all);
  const mesh = fewer?.mesh ?? own;
  const adjacency = fewer ? adjacencyOf(mesh) : { across: acrossOf(mesh), ...around };
  const neighbourhood = fewer ? neighbourhoodOf(mesh, adjacency) : all;
  const smooth = smoothed(mesh, neighbourhood);
  const row = rowCurve(smooth.mesh);
  const numbered = rowAsTold(rowSight(smooth.mesh, smooth.normals, row), row, jaw, missing, told);
  return {
    jaw,
    whole: {
      mesh: own,
      neighbourhood: all,
      ...(fewer && { thinned: { of: fewer.of, middle: fewer.middle } }),
    },
    mesh,
    adjacency,
    neighbourhood,
    smooth,
    concavity: concavityOf(smooth, neighbourhood),
    row,
    missing,
    told,
    ...numbered,
  };
}

/** The unit normal of each vertex of the whole scan, as smooth as it was looked at. */
export function wholeNormals({ whole, smooth }: LookedAt): Float64Array {
  const of = whole.thinned?.of;
  if (!of) return smooth.normals;
  const out = new Float64Array(3 * of.length);
  for (let v = 0; v < of.length; v++) out.set(smooth.normals.subarray(3 * of[v], 3 * of[v] + 3), 3 * v);
  return out;
}

/**
 * The jaw with its row numbered anew by what a hand has told of it.
 * @param told places on teeth, and the middle
 * @param missing teeth that are not there
 */
export function lookedAsTold(look: LookedAt, told: Told, missing: ReadonlySet<Fdi>): LookedAt {
  const sight = rowSight(look.smooth.mesh, look.smooth.normals, look.row);
  return { ...look, told, missing, ...rowAsTold(sight, look.row, look.jaw, missing, told) };
}

/** Room that a tooth takes where a click is all that is known of it, to each side, mm. House value. */
const CLICKED_HALF_MM = 3.4;

/** The room of the tooth at a vertex of the whole: the one found there, or about the place where nothing was found. */
export function placeAtVertex(look: LookedAt, v: number): { tooth?: Fdi; place: ToothRoom } {
  const p = look.whole.mesh.positions;
  const { along } = onRow(look.row, p[3 * v], p[3 * v + 1]);
  for (const [tooth, place] of look.teeth) if (along >= place.from && along < place.to) return { tooth, place };
  let edgeMm = Infinity;
  for (let w = 0; w < p.length; w += 3) {
    const at = onRow(look.row, p[w], p[w + 1]);
    if (Math.abs(at.along - along) < 1.5 && Math.abs(at.out) < 5) edgeMm = Math.min(edgeMm, p[w + 2]);
  }
  return { place: { from: along - CLICKED_HALF_MM, to: along + CLICKED_HALF_MM, edgeMm } };
}

export interface Picked {
  /** The tooth of each vertex and of each triangle of the whole scan, 0 for gum. */
  readonly vertices: Uint8Array;
  readonly triangles: Uint8Array;
  /** Of the surface that was looked at. */
  readonly crowns: ReadonlyMap<Fdi, PickedCrown>;
  readonly doubts: readonly Doubt[];
  /** Why this may be no row of teeth to plan on. */
  readonly doubt?: string;
}

/**
 * Picks teeth out of a jaw.
 * @param painted vertices of the whole that a hand has given to a tooth or to the gum (0); they stay what they were made
 */
export function pickTeeth(
  look: LookedAt,
  teeth: ReadonlyMap<Fdi, ToothRoom>,
  painted: ReadonlyMap<number, Fdi> = new Map(),
): Picked {
  const seeds = [...teeth].map(([tooth, place]) => ({ tooth, place }));
  const { thinned } = look.whole;
  const fixed = thinned ? new Map([...painted].map(([v, tooth]) => [thinned.of[v], tooth])) : painted;
  const own = segmented(look.smooth.mesh, look.adjacency, look.neighbourhood, look.concavity, look.row, seeds, fixed);
  return pickedFrom(look, own, thinned ? onFine(own, thinned, painted) : own, teeth);
}

/** What is picked once the tooth of each vertex of the whole scan is known. */
export function pickedAs(look: LookedAt, vertices: Uint8Array, teeth: ReadonlyMap<Fdi, ToothRoom>): Picked {
  const { thinned } = look.whole;
  return pickedFrom(look, thinned ? Uint8Array.from(thinned.middle, (v) => vertices[v]) : vertices, vertices, teeth);
}

function eachOf(values: Float32Array, of: Uint32Array): Float32Array {
  const out = new Float32Array(of.length);
  for (let v = 0; v < of.length; v++) out[v] = values[of[v]];
  return out;
}

/** @param own the tooth of each vertex of the surface that was looked at, `vertices` of the whole scan's */
function pickedFrom(look: LookedAt, own: Uint8Array, vertices: Uint8Array, teeth: ReadonlyMap<Fdi, ToothRoom>): Picked {
  const { whole, concavity } = look;
  const seen = ofTriangles(look.mesh, own, look.neighbourhood, concavity);
  const triangles = whole.thinned
    ? ofTriangles(whole.mesh, vertices, whole.neighbourhood, eachOf(concavity, whole.thinned.of))
    : seen;
  const crowns = pickedCrowns(look, own, seen);
  const doubts = doubtsOf(look, seen, crowns, teeth);
  const doubt = rowDoubt(
    [...crowns.keys()],
    doubts,
    [...teeth.keys()].every((t) => look.teeth.has(t)) ? look.sure : Infinity,
    look.missing,
  );
  return { vertices, triangles, crowns, doubts, ...(doubt && { doubt }) };
}
