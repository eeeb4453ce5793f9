import { meshToArch } from '../contour/arch.js';
import { type Adjacency, adjacencyOf, type Neighbourhood, neighbourhoodOf } from '../geometry/adjacency.js';
import type { Mesh } from '../geometry/mesh.js';
import type { Fdi, Jaw } from '../teeth/notation.js';
import { concavityOf, type Smooth, smoothed } from './concavity.js';
import { numbered, onRow, type RowCurve, rowCurve, type ToothRoom, toothRooms } from './row.js';
import { ofTriangles, segmented } from './segment.js';

/** A whole jaw in its own frame, looked at: its folds, the course of its row and the rooms of its teeth. */
export interface LookedAt {
  readonly jaw: Jaw;
  /** In the arch's own frame. */
  readonly mesh: Mesh;
  readonly adjacency: Adjacency;
  readonly neighbourhood: Neighbourhood;
  readonly smooth: Smooth;
  readonly concavity: Float32Array;
  readonly row: RowCurve;
  /** Teeth that are known to be missing. */
  readonly missing: ReadonlySet<Fdi>;
  /** A proposal of the teeth. */
  readonly teeth: ReadonlyMap<Fdi, ToothRoom>;
}

/** Looks at a repaired jaw in the mouth's coordinates. @param missing teeth that are known to be missing */
export function lookAtJaw(inMouth: Mesh, jaw: Jaw, missing: ReadonlySet<Fdi> = new Set()): LookedAt {
  const mesh = meshToArch(jaw, inMouth);
  const adjacency = adjacencyOf(mesh);
  const neighbourhood = neighbourhoodOf(mesh, adjacency);
  const smooth = smoothed(mesh, neighbourhood);
  const row = rowCurve(smooth.mesh);
  return {
    jaw,
    mesh,
    adjacency,
    neighbourhood,
    smooth,
    concavity: concavityOf(smooth, neighbourhood),
    row,
    missing,
    teeth: numbered(toothRooms(smooth.mesh, smooth.normals, row), jaw, missing),
  };
}

/** Room that a tooth takes where a click is all that is known of it, to each side, mm. House value. */
const CLICKED_HALF_MM = 3.4;

/** The room of the tooth at a vertex: the one found there, or about the place where nothing was found. */
export function placeAtVertex(look: LookedAt, v: number): { tooth?: Fdi; place: ToothRoom } {
  const p = look.mesh.positions;
  const { along } = onRow(look.row, p[3 * v] as number, p[3 * v + 1] as number);
  for (const [tooth, place] of look.teeth) if (along >= place.from && along < place.to) return { tooth, place };
  let edgeMm = Infinity;
  for (let w = 0; w < p.length; w += 3) {
    const at = onRow(look.row, p[w] as number, p[w + 1] as number);
    if (Math.abs(at.along - along) < 1.5 && Math.abs(at.out) < 5) edgeMm = Math.min(edgeMm, p[w + 2] as number);
  }
  return { place: { from: along - CLICKED_HALF_MM, to: along + CLICKED_HALF_MM, edgeMm } };
}

/** Something about a picked tooth that wants looking at. */
export interface Doubt {
  readonly tooth: Fdi;
  readonly sentence: string;
}

export interface Picked {
  /** The tooth of each vertex and of each triangle, 0 for gum. */
  readonly vertices: Uint8Array;
  readonly triangles: Uint8Array;
  readonly doubts: readonly Doubt[];
}

/**
 * Picks teeth out of a jaw.
 * @param painted vertices that a hand has given to a tooth or to the gum (0); they stay what they were made
 */
export function pickTeeth(look: LookedAt, teeth: ReadonlyMap<Fdi, ToothRoom>, painted: ReadonlyMap<number, Fdi> = new Map()): Picked {
  const seeds = [...teeth].map(([tooth, place]) => ({ tooth, place }));
  return pickedAs(look, segmented(look.smooth.mesh, look.adjacency, look.neighbourhood, look.concavity, look.row, seeds, painted), teeth);
}

/** What is picked once the tooth of each vertex is known. */
export function pickedAs(look: LookedAt, vertices: Uint8Array, teeth: ReadonlyMap<Fdi, ToothRoom>): Picked {
  const triangles = ofTriangles(look.mesh, vertices);
  return { vertices, triangles, doubts: doubtsOf(look, triangles, teeth) };
}

/** A border that folds less than this is hardly seen, 1/mm. House limit. */
const FAINT_FOLD = 0.8;
/** A border of which so much is faint is told. House limit. */
const FAINT_SHARE = 0.3;

/** What can't be told apart surely: borders along which the surface does not fold. */
function doubtsOf(look: LookedAt, tooth: Uint8Array, teeth: ReadonlyMap<Fdi, ToothRoom>): Doubt[] {
  const { across } = look.adjacency;
  const toGum = new Map<Fdi, [number, number]>();
  const toTooth = new Map<string, [number, number]>();
  const count = <K>(m: Map<K, [number, number]>, key: K, faint: boolean) => {
    const own = m.get(key) ?? [0, 0];
    own[0]++;
    if (faint) own[1]++;
    m.set(key, own);
  };
  for (let k = 0; k < across.length; k++) {
    const [t, other] = [(k / 3) | 0, across[k] as number];
    if (other <= t || tooth[t] === tooth[other]) continue;
    const v = look.mesh.triangles[k] as number;
    const w = look.mesh.triangles[3 * t + ((k + 1) % 3)] as number;
    const faint = Math.max(look.concavity[v] as number, look.concavity[w] as number) < FAINT_FOLD;
    const [a, b] = [tooth[t] as number, tooth[other] as number];
    if (a === 0 || b === 0) count(toGum, a || b, faint);
    else count(toTooth, `${Math.min(a, b)} ${Math.max(a, b)}`, faint);
  }
  const doubts: Doubt[] = [];
  for (const t of teeth.keys()) {
    const own = toGum.get(t);
    if (!own) doubts.push({ tooth: t, sentence: 'no border to the gum was found' });
    else if (own[1] > FAINT_SHARE * own[0])
      doubts.push({ tooth: t, sentence: `${Math.round((100 * own[1]) / own[0])} % of its border to the gum is hardly seen` });
  }
  for (const [pair, own] of toTooth) {
    const [a, b] = pair.split(' ').map(Number) as [number, number];
    if (own[0] > 12 && own[1] > FAINT_SHARE * own[0]) doubts.push({ tooth: a, sentence: `can hardly be told from ${b} where they touch` });
  }
  return doubts.sort((p, q) => p.tooth - q.tooth);
}
