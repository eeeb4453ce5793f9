import {
  buildTree,
  type Mesh,
  mergeMeshes,
  type RayCaster,
  rayCaster,
  type Tree,
  triangleCount,
  type Vec3,
  vertexCount,
  vertexNormals,
} from '@radiant/core';
import { type Face, makeFace } from './face.js';
import type { Patient, PatientTooth } from './patient.js';
import { type CameraSetting, SCALE_HEIGHT_MM, SCALE_LENGTH_MM, SCALE_PLANE_Y } from './pose.js';

/** What a triangle belongs to. */
export type Part =
  | { readonly kind: 'tooth'; readonly tooth: PatientTooth }
  | { readonly kind: 'gum' | 'palate' | 'face' | 'inside' | 'behind' | 'scale' };

/** How the mouth is held when the picture is taken. */
export interface Expression {
  /** Lips drawn away by retractors: no face in the picture. */
  readonly retracted: boolean;
  /** 0 at rest … 1 in full smile. */
  readonly smile: number;
  /** Lower jaw dropped, mm. */
  readonly openMm: number;
  /** Which jaws are in the picture. */
  readonly jaws: 'both' | 'upper' | 'lower';
  /** Whether the whole head is in the picture, with hair, neck and a backdrop. */
  readonly head: boolean;
}

/** Everything that stands before the camera. */
export interface Scene {
  readonly patient: Patient;
  readonly mesh: Mesh;
  readonly normals: Float64Array;
  readonly parts: readonly Part[];
  /** For each triangle the number of its part. */
  readonly owner: Int16Array;
  readonly face: Face | undefined;
  /** First vertex of the face in the mesh. */
  readonly faceFrom: number;
  /** Lips shade the side teeth. */
  readonly retracted: boolean;
  /** How open the surroundings of a vertex are, 0–1. */
  open(vertex: number): number;
}

/** @param scaleAt where the scale reference is held, if it is */
export function makeScene(patient: Patient, e: Expression, scaleAt?: CameraSetting['scaleAt']): Scene {
  const parts: Part[] = [];
  const meshes: Mesh[] = [];
  const put = (part: Part, mesh: Mesh) => {
    parts.push(part);
    meshes.push(mesh);
  };
  // Behind lips that are not held away the molars lie in the dark of the corridors.
  if (e.jaws !== 'lower') {
    for (const tooth of [...patient.teeth, ...(e.retracted ? patient.molars : [])])
      put({ kind: 'tooth', tooth }, tooth.mesh);
    put({ kind: 'gum' }, patient.gum);
  }
  if (e.jaws !== 'upper') {
    const down = (m: Mesh) => dropped(m, e.openMm);
    for (const t of [...patient.lower, ...(e.retracted ? patient.lowerMolars : [])])
      put(
        {
          kind: 'tooth',
          tooth: {
            ...t,
            mesh: down(t.mesh),
            frame: { ...t.frame, origin: [t.frame.origin[0], t.frame.origin[1], t.frame.origin[2] - e.openMm] },
          },
        },
        down(t.mesh),
      );
    put({ kind: 'gum' }, down(patient.lowerGum));
  }
  if (e.jaws === 'upper') put({ kind: 'palate' }, patient.vault);
  if (e.jaws === 'lower') put({ kind: 'palate' }, dropped(patient.floor, e.openMm));
  const solid = parts.length;
  const face = e.retracted ? undefined : makeFace(patient.face, e.smile);
  let faceFrom = -1;
  if (face) {
    faceFrom = meshes.reduce((n, m) => n + vertexCount(m), 0);
    put({ kind: 'face' }, face.mesh);
    put({ kind: 'inside' }, sheet(34, [-40, 40], [-22, 26]));
    if (e.head) put({ kind: 'behind' }, sheet(95, [-420, 420], [-330, 420]));
  }
  if (scaleAt)
    put(
      { kind: 'scale' },
      sheet(
        SCALE_PLANE_Y,
        [scaleAt.x - SCALE_BORDER_MM, scaleAt.x + SCALE_LENGTH_MM + SCALE_BORDER_MM],
        [scaleAt.z - SCALE_HEIGHT_MM, scaleAt.z],
      ),
    );
  const mesh = mergeMeshes(meshes);
  const owner = new Int16Array(triangleCount(mesh));
  let at = 0;
  let shading = 0;
  meshes.forEach((m, i) => {
    owner.fill(i, at, at + triangleCount(m));
    at += triangleCount(m);
    if (i < solid || parts[i]?.kind === 'face') shading = at;
  });
  const normals = vertexNormals(mesh);
  return {
    patient,
    mesh,
    normals,
    parts,
    owner,
    face,
    faceFrom,
    retracted: e.retracted,
    open: openness(
      mesh,
      normals,
      shading,
      (v) => face !== undefined && v >= faceFrom && (face.red[v - faceFrom] ?? 1) === 0,
    ),
  };
}

function dropped(m: Mesh, mm: number): Mesh {
  const positions = m.positions.slice();
  for (let i = 2; i < positions.length; i += 3) positions[i] = positions[i] - mm;
  return { positions, triangles: m.triangles };
}

/** A grid in a plane across the line of sight. */
function sheet(y: number, [x0, x1]: readonly [number, number], [z0, z1]: readonly [number, number]): Mesh {
  return grid(40, 40, (u, v) => [x0 + (x1 - x0) * u, y, z0 + (z1 - z0) * v]);
}

function grid(nu: number, nv: number, at: (u: number, v: number) => Vec3): Mesh {
  const positions = new Float64Array(3 * (nu + 1) * (nv + 1));
  const triangles: number[] = [];
  for (let j = 0; j <= nv; j++) {
    for (let i = 0; i <= nu; i++) {
      positions.set(at(i / nu, j / nv), 3 * (j * (nu + 1) + i));
      if (i === nu || j === nv) continue;
      const a = j * (nu + 1) + i;
      triangles.push(a, a + 1, a + nu + 2, a, a + nu + 2, a + nu + 1);
    }
  }
  return { positions, triangles: Uint32Array.from(triangles) };
}

/** The scale's paper goes on beyond its first and last tick. */
const SCALE_BORDER_MM = 1.6;

const REACH_MM = 7;
const RAYS = 8;

/** Share of the half-space over a vertex that is open within 7 mm, from a few rays; worked out when first asked for.
 * @param isFree vertices that nothing stands near, the skin's */
function openness(
  mesh: Mesh,
  normals: Float64Array,
  shadingTriangles: number,
  isFree: (vertex: number) => boolean,
): (vertex: number) => number {
  const known = new Float32Array(vertexCount(mesh)).fill(-1);
  let caster: RayCaster | undefined;
  let tree: Tree | undefined;
  const dirs = Array.from({ length: RAYS }, (_, i) => {
    const t = Math.acos(Math.sqrt((i + 0.5) / RAYS));
    const f = i * 2.399963;
    return [Math.sin(t) * Math.cos(f), Math.sin(t) * Math.sin(f), Math.cos(t)] as const;
  });
  return (v) => {
    const before = known[v];
    if (before >= 0) return before;
    if (isFree(v)) return 1;
    tree ??= buildTree({ positions: mesh.positions, triangles: mesh.triangles.slice(0, 3 * shadingTriangles) });
    caster ??= rayCaster(tree);
    const n: Vec3 = [normals[3 * v], normals[3 * v + 1], normals[3 * v + 2]];
    // Sheets are seen from in front; the half-space is the observer's.
    const side: Vec3 = Math.abs(n[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0];
    const tx: Vec3 = [
      side[1] * n[2] - side[2] * n[1],
      side[2] * n[0] - side[0] * n[2],
      side[0] * n[1] - side[1] * n[0],
    ];
    const l = Math.hypot(...tx) || 1;
    const ex: Vec3 = [tx[0] / l, tx[1] / l, tx[2] / l];
    const ey: Vec3 = [n[1] * ex[2] - n[2] * ex[1], n[2] * ex[0] - n[0] * ex[2], n[0] * ex[1] - n[1] * ex[0]];
    const from: Vec3 = [
      mesh.positions[3 * v] + n[0] * 0.04,
      mesh.positions[3 * v + 1] + n[1] * 0.04,
      mesh.positions[3 * v + 2] + n[2] * 0.04,
    ];
    let sum = 0;
    for (const [a, b, c] of dirs) {
      const hit = caster.first(
        from,
        [ex[0] * a + ey[0] * b + n[0] * c, ex[1] * a + ey[1] * b + n[1] * c, ex[2] * a + ey[2] * b + n[2] * c],
        REACH_MM,
      );
      sum += hit ? Math.min(1, hit.distance / REACH_MM) ** 2 : 1;
    }
    known[v] = sum / RAYS;
    return sum / RAYS;
  };
}
