import { MADE, type SegmentedScan, subMesh } from '../contour/scan.js';
import { Refusal } from '../errors.js';
import { adjacencyOf, openLoops } from '../geometry/adjacency.js';
import { type Mesh, pieces, vertexDistance } from '../geometry/mesh.js';
import type { Jaw } from '../teeth/notation.js';
import { partedAtCorners, withCaps } from './repair.js';

/** The triangles of one tooth, or of the gum with 0, as a surface of its own. */
export const partOf = (m: Mesh, tooth: Uint8Array, which: number): Mesh => subMesh(m, tooth, (n) => n === which);

/** A tooth of fewer triangles than this is none: something was clicked that is no crown. */
const LEAST_TRIANGLES = 200;

/** A tooth made closed, and how each of its triangles came: see `MADE`. */
export interface ClosedTooth {
  readonly mesh: Mesh;
  readonly made: Uint8Array;
}

/**
 * A crown's patch made a closed surface: its largest piece, every border closed by a fan, at the neck and where the
 * scanner could not see between neighbours. What a cap adds is not tooth; widths end where the scan ends.
 * @param met whether a place lay where the scan ran on into the tooth beside
 * @throws Refusal `mesh-invalid` when too little of a crown is there
 */
export function closedTooth(patch: Mesh, met: (x: number, y: number, z: number) => boolean = () => false): ClosedTooth {
  const [largest] = pieces(patch);
  if (!largest || largest.triangles.length < 3 * LEAST_TRIANGLES)
    throw new Refusal('mesh-invalid', 'Too little of this crown was picked out of the scan.');
  const parted = partedAtCorners(largest);
  const loops = openLoops(parted, adjacencyOf(parted));
  const mesh = withCaps(parted, loops);
  const [p, seen] = [mesh.positions, parted.triangles.length / 3];
  const meets = (v: number) => v < parted.positions.length / 3 && met(p[3 * v], p[3 * v + 1], p[3 * v + 2]);
  const made = new Uint8Array(mesh.triangles.length / 3);
  for (let t = seen; t < made.length; t++) {
    const corners = [0, 1, 2].filter((c) => meets(mesh.triangles[3 * t + c]));
    made[t] = corners.length >= 2 ? MADE.met : MADE.closed;
  }
  return { mesh, made };
}

/** So far from where two teeth meet lies bridge, not tooth, mm; at least the triangles that meet. House value. */
const BRIDGE_MM = 0.3;
/** Of no tooth and no gum. */
const NEITHER = 255;

/**
 * Which triangles of a tooth lie where it meets its neighbour: scanners bridge what they can't see between two teeth,
 * so what is there is neither's surface.
 */
export function bridges(m: Mesh, tooth: Uint8Array): Uint8Array {
  const own = new Uint8Array(m.positions.length / 3);
  const near = new Uint8Array(own.length);
  for (let t = 0; t < tooth.length; t++) {
    if (tooth[t] === 0) continue;
    for (let c = 0; c < 3; c++) {
      const v = m.triangles[3 * t + c];
      if (own[v] === 0) own[v] = tooth[t];
      else if (own[v] !== tooth[t]) near[v] = 1;
    }
  }
  // From the places where they meet outward, as far as the bridge goes.
  const p = m.positions;
  const far = Float64Array.from(near, (n) => (n ? 0 : Infinity));
  const out = new Uint8Array(tooth.length);
  const at = trianglesAt(m, tooth);
  const reached: number[] = [];
  for (let v = 0; v < near.length; v++) if (near[v]) reached.push(v);
  for (let v = reached.pop(); v !== undefined; v = reached.pop())
    for (let k = at.from[v]; k < at.from[v + 1]; k++) {
      const t = at.triangle[k];
      out[t] = 1;
      for (let c = 0; c < 3; c++) {
        const w = m.triangles[3 * t + c];
        const d = far[v] + vertexDistance(p, v, w);
        if (d >= far[w] || d > BRIDGE_MM) continue;
        far[w] = d;
        reached.push(w);
      }
    }
  return out;
}

/** The triangles of teeth at each vertex: `triangle[from[v]]` to before `from[v + 1]`. */
function trianglesAt(m: Mesh, tooth: Uint8Array): { readonly from: Uint32Array; readonly triangle: Uint32Array } {
  const from = new Uint32Array(m.positions.length / 3 + 1);
  for (let i = 0; i < m.triangles.length; i++)
    if (tooth[Math.floor(i / 3)] !== 0) from[m.triangles[i] + 1] = from[m.triangles[i] + 1] + 1;
  for (let v = 1; v < from.length; v++) from[v] = from[v] + from[v - 1];
  const triangle = new Uint32Array(from[from.length - 1]);
  const next = from.slice();
  for (let i = 0; i < m.triangles.length; i++) {
    const t = Math.floor(i / 3);
    if (tooth[t] === 0) continue;
    const v = m.triangles[i];
    triangle[next[v]] = t;
    next[v] = next[v] + 1;
  }
  return { from, triangle };
}

/** A whole jaw whose triangles are told apart, in the mouth's coordinates, as everything after it wants it. */
export function asSegmented(m: Mesh, tooth: Uint8Array, jaw: Jaw): SegmentedScan {
  const bridge = bridges(m, tooth);
  const seen = tooth.map((n, t) => (bridge[t] ? NEITHER : n));
  const where = new Set<string>();
  for (let t = 0; t < bridge.length; t++)
    if (bridge[t])
      for (let c = 0; c < 3; c++) {
        const v = 3 * m.triangles[3 * t + c];
        where.add(`${m.positions[v]} ${m.positions[v + 1]} ${m.positions[v + 2]}`);
      }
  const met = (x: number, y: number, z: number) => where.has(`${x} ${y} ${z}`);
  const closed = [...new Set(tooth)]
    .filter((n) => n !== 0)
    .sort((p, q) => p - q)
    .map((t) => [t, closedTooth(partOf(m, seen, t), met)] as const);
  return {
    jaw,
    teeth: new Map(closed.map(([t, own]) => [t, own.mesh])),
    rest: partOf(m, tooth, 0),
    made: new Map(closed.map(([t, own]) => [t, own.made])),
  };
}
