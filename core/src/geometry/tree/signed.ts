import { acrossOf } from '../adjacency.js';
import { type Bounds, bounds, type Mesh, vertexNormals } from '../mesh.js';
import { buildTree, type Tree } from './build.js';
import { closestPoints } from './closest.js';

/** A closed surface that can say how far a point lies outside (+) or inside (−) it. */
export interface SignedField {
  readonly mesh: Mesh;
  readonly box: Bounds;
  readonly tree: Tree;
  readonly faceNormals: Float64Array;
  readonly vertexNormals: Float64Array;
  /**
   * For the three edges ab, bc, ca of each triangle: the triangle across, or less than 0 where there is not just one.
   */
  readonly across: Int32Array;
}

/**
 * Prepares a closed, outward-oriented mesh for signed distances.
 * The sign comes from angle-weighted pseudonormals, which is right at edges and corners too
 * (Bærentzen & Aanæs 2005, IEEE TVCG 11:243, from memory).
 * @param tree of its triangles, where there is one
 * @throws Refusal `mesh-empty`
 */
export function signedField(mesh: Mesh, tree: Tree = buildTree(mesh)): SignedField {
  return {
    mesh,
    box: bounds(mesh),
    tree,
    faceNormals: faceNormals(mesh),
    vertexNormals: vertexNormals(mesh),
    across: acrossOf(mesh),
  };
}

/**
 * Signed distances in mm, positive outside.
 * @param points x, y, z of each query, mm
 */
export function signedDistances(field: SignedField, points: Float64Array): Float64Array {
  return measured(field, points, true);
}

/** Distances in mm from an open sheet: positive in front of it, where its normals point, negative behind it. */
export function sheetDistances(sheet: SignedField, points: Float64Array): Float64Array {
  return measured(sheet, points, false);
}

function measured(field: SignedField, points: Float64Array, closed: boolean): Float64Array {
  const near = closestPoints(field.tree, points);
  const out = near.distances;
  for (let i = 0; i < out.length; i++) {
    const nx = points[3 * i] - near.points[3 * i];
    const ny = points[3 * i + 1] - near.points[3 * i + 1];
    const nz = points[3 * i + 2] - near.points[3 * i + 2];
    const [px, py, pz] = pseudonormal(field, near.faces[i], near.points, 3 * i);
    if (nx * px + ny * py + nz * pz < 0 && (!closed || out[i] <= wallDistance(field.box, points, 3 * i)))
      out[i] = -out[i];
  }
  return out;
}

/**
 * Least distance from a point to the walls of a box, negative outside it. Nothing inside a surface lies deeper than
 * this: a scan's noise can turn a sliver of a sharp corner inside out, and from afar that sliver would say "inside".
 */
function wallDistance(box: Bounds, p: Float64Array, at: number): number {
  let least = Infinity;
  for (let k = 0; k < 3; k++) {
    const v = p[at + k];
    least = Math.min(least, v - box.min[k as 0], box.max[k as 0] - v);
  }
  return least + 1e-9;
}

/** How near, as a share of the triangle, a point counts as lying on its edge or corner. */
const ON_BORDER = 1e-7;

function pseudonormal(field: SignedField, face: number, at: Float64Array, o: number): [number, number, number] {
  const { mesh, faceNormals: fn, vertexNormals: vn, across } = field;
  const p = mesh.positions;
  const a = 3 * mesh.triangles[3 * face];
  const b = 3 * mesh.triangles[3 * face + 1];
  const c = 3 * mesh.triangles[3 * face + 2];
  const [u, v, w] = barycentric(p, a, b, c, at, o);
  const onBc = u < ON_BORDER;
  const onCa = v < ON_BORDER;
  const onAb = w < ON_BORDER;
  const corner = onCa && onAb ? a : onAb && onBc ? b : onBc && onCa ? c : -1;
  if (corner >= 0) return [vn[corner], vn[corner + 1], vn[corner + 2]];
  let nx = fn[3 * face];
  let ny = fn[3 * face + 1];
  let nz = fn[3 * face + 2];
  const edge = onAb ? 0 : onBc ? 1 : onCa ? 2 : -1;
  const other = edge < 0 ? -1 : across[3 * face + edge];
  if (other >= 0) {
    nx += fn[3 * other];
    ny += fn[3 * other + 1];
    nz += fn[3 * other + 2];
  }
  return [nx, ny, nz];
}

function barycentric(
  p: Float64Array,
  a: number,
  b: number,
  c: number,
  at: Float64Array,
  o: number,
): [number, number, number] {
  const ax = p[a];
  const ay = p[a + 1];
  const az = p[a + 2];
  const ux = p[b] - ax;
  const uy = p[b + 1] - ay;
  const uz = p[b + 2] - az;
  const vx = p[c] - ax;
  const vy = p[c + 1] - ay;
  const vz = p[c + 2] - az;
  const qx = at[o] - ax;
  const qy = at[o + 1] - ay;
  const qz = at[o + 2] - az;
  const uu = ux * ux + uy * uy + uz * uz;
  const uv = ux * vx + uy * vy + uz * vz;
  const vv = vx * vx + vy * vy + vz * vz;
  const qu = qx * ux + qy * uy + qz * uz;
  const qv = qx * vx + qy * vy + qz * vz;
  const k = 1 / (uu * vv - uv * uv || 1);
  const v = (vv * qu - uv * qv) * k;
  const w = (uu * qv - uv * qu) * k;
  return [1 - v - w, v, w];
}

/** Unit normal of each triangle; zero for one without area. */
export function faceNormals(mesh: Mesh): Float64Array {
  const p = mesh.positions;
  const out = new Float64Array(mesh.triangles.length);
  for (let t = 0; t < mesh.triangles.length; t += 3) {
    const a = 3 * mesh.triangles[t];
    const b = 3 * mesh.triangles[t + 1];
    const c = 3 * mesh.triangles[t + 2];
    const ux = p[b] - p[a];
    const uy = p[b + 1] - p[a + 1];
    const uz = p[b + 2] - p[a + 2];
    const vx = p[c] - p[a];
    const vy = p[c + 1] - p[a + 1];
    const vz = p[c + 2] - p[a + 2];
    const nx = uy * vz - uz * vy;
    const ny = uz * vx - ux * vz;
    const nz = ux * vy - uy * vx;
    const l = Math.sqrt(nx * nx + ny * ny + nz * nz) || 1;
    out[t] = nx / l;
    out[t + 1] = ny / l;
    out[t + 2] = nz / l;
  }
  return out;
}
