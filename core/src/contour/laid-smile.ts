import type { ExistingArch } from '../contour/fit.js';
import { type MarkedWidth, photoMarks } from '../contour/photo-marks.js';
import type { PlannedTooth } from '../contour/plan.js';
import { toLocal } from '../geometry/frame.js';
import { type Mesh, vertexNormals } from '../geometry/mesh.js';
import type { Px } from '../smile/calibration.js';
import { cameraAxes, matchCamera, type PhotoCamera, photoProjector } from '../smile/camera-match.js';
import type { LandmarkSet } from '../smile/landmarks.js';
import type { ViewPoints } from '../smile/views.js';
import type { Fdi } from '../teeth/notation.js';

/** What is marked of the teeth on a photograph. */
export interface PhotoWish {
  readonly landmarks: LandmarkSet;
  readonly points: ViewPoints;
  /** The tooth by whose width it is scaled. */
  readonly width?: MarkedWidth;
  readonly size: Px;
}

/** A tooth laid into the photograph: where its vertices fall, how light they are, how high on the crown. */
export interface LaidTooth {
  readonly tooth: Fdi;
  /** px across, px down, depth in mm. */
  readonly places: Float32Array;
  /** Share of the light of a surface that faces the lens, 1, and of shine on top of it. */
  readonly light: Float32Array;
  readonly shine: Float32Array;
  /** 0 at the edge to 1 at the zenith. */
  readonly height: Float32Array;
  /** Faces the lens and the front of the mouth, so that its colour in the photograph is the tooth's. */
  readonly seen: Uint8Array;
  readonly triangles: Uint32Array;
}

/**
 * Something that hides what lies behind it and is seen in the photograph already: gum, and teeth that stay as they are.
 */
export interface Hiding {
  readonly places: Float32Array;
  readonly triangles: Uint32Array;
}

export interface LaidSmile {
  readonly camera: PhotoCamera;
  readonly rmsPx: number;
  readonly planned: readonly LaidTooth[];
  readonly existing: readonly LaidTooth[];
  readonly hiding: readonly Hiding[];
}

/**
 * The planned and the scanned teeth laid into a photograph by the places marked on it. @throws Refusal of `matchCamera`
 */
export function laidSmile(
  arch: ExistingArch,
  gum: Mesh,
  planned: ReadonlyMap<Fdi, PlannedTooth>,
  zenithUp: ReadonlyMap<Fdi, number>,
  wish: PhotoWish,
): LaidSmile {
  const { camera, rmsPx } = matchCamera(photoMarks(arch, wish.landmarks, wish.points, wish.width), wish.size);
  const existing = [...arch.teeth].map(([tooth, t]) => laid(tooth, t.field.mesh, camera, (p) => toLocal(t.frame, p)));
  const own = [...planned.values()].map((t) => laid(t.tooth, t.mesh, camera, (p) => toLocal(t.frame, p)));
  const stays = [...arch.teeth].filter(([tooth]) => !planned.has(tooth)).map(([, t]) => t.field.mesh);
  const moved = gumMoved(gum, arch, zenithUp);
  return { camera, rmsPx, planned: own, existing, hiding: [moved, ...stays].map((m) => projected(m, camera)) };
}

/** The gum moved up with the zeniths, fading from tooth to tooth. */
function gumMoved(gum: Mesh, arch: ExistingArch, zenithUp: ReadonlyMap<Fdi, number>): Mesh {
  if ([...zenithUp.values()].every((mm) => mm === 0)) return gum;
  const row = [...arch.teeth]
    .map(([tooth, t]) => ({ x: t.frame.origin[0], up: zenithUp.get(tooth) ?? 0 }))
    .sort((a, b) => a.x - b.x);
  const upAt = (x: number): number => {
    const i = row.findIndex((t) => t.x >= x);
    const [a, b] = [row[i - 1] ?? row[0], row[i] ?? row.at(-1)];
    if (!a || !b) return 0;
    const k = b.x > a.x ? Math.min(1, Math.max(0, (x - a.x) / (b.x - a.x))) : 0;
    return a.up + (b.up - a.up) * k;
  };
  const positions = gum.positions.slice();
  for (let v = 0; v < positions.length; v += 3) positions[v + 2] = positions[v + 2] + upAt(positions[v]);
  return { positions, triangles: gum.triangles };
}

function projected(mesh: Mesh, camera: PhotoCamera): Hiding {
  const project = photoProjector(camera);
  const out = new Float64Array(3);
  const places = new Float32Array(mesh.positions.length);
  for (let v = 0; v < places.length; v += 3) {
    project(mesh.positions[v], mesh.positions[v + 1], mesh.positions[v + 2], out);
    places.set(out, v);
  }
  return { places, triangles: mesh.triangles.slice() };
}

/** Two flashes beside the lens: across, up, towards the eye; and how strong. */
const FLASHES = [
  { to: unit([-0.5, 0.18, 0.85]), strength: 0.55 },
  { to: unit([0.5, 0.18, 0.85]), strength: 0.45 },
] as const;
const AMBIENT = 0.34;
const HARDNESS = 60;

function laid(
  tooth: Fdi,
  mesh: Mesh,
  camera: PhotoCamera,
  local: (p: readonly [number, number, number]) => readonly [number, number, number],
): LaidTooth {
  const n = mesh.positions.length / 3;
  const normals = vertexNormals(mesh);
  const { right, up, forward } = cameraAxes(camera);
  const project = photoProjector(camera);
  const out = new Float64Array(3);
  const places = new Float32Array(3 * n);
  const [light, shine, height] = [new Float32Array(n), new Float32Array(n), new Float32Array(n)];
  const seen = new Uint8Array(n);
  const facing = AMBIENT + FLASHES.reduce((s, f) => s + f.strength * f.to[2], 0);
  for (let v = 0; v < n; v++) {
    const p = [mesh.positions[3 * v], mesh.positions[3 * v + 1], mesh.positions[3 * v + 2]] as const;
    project(p[0], p[1], p[2], out);
    places.set(out, 3 * v);
    const along = (axis: readonly [number, number, number]) =>
      normals[3 * v] * axis[0] + normals[3 * v + 1] * axis[1] + normals[3 * v + 2] * axis[2];
    const [x, y, z] = [along(right), along(up), -along(forward)];
    let sum = AMBIENT;
    let gleam = 0;
    for (const f of FLASHES) {
      sum += f.strength * Math.max(0, x * f.to[0] + y * f.to[1] + z * f.to[2]);
      const half = unit([f.to[0], f.to[1], f.to[2] + 1]);
      gleam += f.strength * Math.max(0, x * half[0] + y * half[1] + z * half[2]) ** HARDNESS;
    }
    light[v] = sum / facing;
    shine[v] = gleam;
    const q = local(p);
    height[v] = q[2];
    seen[v] = z > 0.55 && q[1] < 0 ? 1 : 0;
  }
  // Heights become shares of the crown, from its edge to its zenith.
  const zenith = height.reduce((most, z) => Math.max(most, z), 0) || 1;
  for (let v = 0; v < n; v++) height[v] = Math.min(1, Math.max(0, height[v] / zenith));
  return { tooth, places, light, shine, height, seen, triangles: mesh.triangles.slice() };
}

function unit(v: readonly [number, number, number]): readonly [number, number, number] {
  const l = Math.hypot(...v);
  return [v[0] / l, v[1] / l, v[2] / l];
}
