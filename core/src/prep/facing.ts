import { type Mesh, triangleArea, vertexAreas, vertexDistance, vertexNormals } from '../geometry/mesh.js';
import { faceNormals } from '../geometry/tree/signed.js';
import { hypot } from '../geometry/vec.js';
import type { Facing } from './draw.js';
import { hoodOf } from './hood.js';
import { NO_ZONE, type PrepMap } from './prep-tooth.js';

/** A scan's own roughness goes out of the normals where they are meant over so much of the surface, mm. House value. */
const MEANT_MM = 0.45;

/** Normals of the places on which a restoration lies, each meant over those beside it, and where they stand. */
export interface Placed extends Facing {
  /** Of each piece the vertex that it is of. */
  readonly vertex: Uint32Array;
}

/** How the prepared part of a tooth's scan faces: places whose neighbours are all prepared too. */
export function preparedFacing(scan: Mesh, map: PrepMap): Placed {
  const hood = hoodOf(scan);
  const on = (v: number) => map.zone[v] !== NO_ZONE;
  let normals = vertexNormals(scan);
  let [sum, count] = [0, 0];
  for (let v = 0; v + 1 < hood.from.length; v++) {
    if (!on(v)) continue;
    for (let i = hood.from[v] as number; i < (hood.from[v + 1] as number); i++, count++)
      sum += vertexDistance(scan.positions, v, hood.beside[i] as number);
  }
  const edgeMm = sum / Math.max(1, count) || MEANT_MM;
  const rounds = Math.max(1, Math.min(8, Math.round((MEANT_MM / edgeMm) ** 2)));
  for (let r = 0; r < rounds; r++) {
    const next = normals.slice();
    for (let v = 0; v + 1 < hood.from.length; v++) {
      if (!on(v)) continue;
      let [x, y, z] = [normals[3 * v]!, normals[3 * v + 1]!, normals[3 * v + 2]!];
      for (let i = hood.from[v] as number; i < (hood.from[v + 1] as number); i++) {
        const w = hood.beside[i] as number;
        if (!on(w)) continue;
        x += normals[3 * w]!;
        y += normals[3 * w + 1]!;
        z += normals[3 * w + 2]!;
      }
      const l = hypot(x, y, z) || 1;
      next[3 * v] = x / l;
      next[3 * v + 1] = y / l;
      next[3 * v + 2] = z / l;
    }
    normals = next;
  }
  const inner: number[] = [];
  for (let v = 0; v + 1 < hood.from.length; v++) {
    if (!on(v)) continue;
    let all = true;
    for (let i = hood.from[v] as number; all && i < (hood.from[v + 1] as number); i++)
      all = on(hood.beside[i] as number);
    if (all) inner.push(v);
  }
  return {
    vertex: Uint32Array.from(inner),
    normals: Float64Array.from(
      { length: 3 * inner.length },
      (_, i) => normals[3 * inner[Math.floor(i / 3)]! + (i % 3)]!,
    ),
    areaMm2: Float64Array.from(inner, (v) => map.areaMm2[v] as number),
  };
}

/** How a smooth surface faces at the vertices that count. */
export function facingWhere(m: Mesh, on: (v: number) => boolean): Placed {
  const [normals, areas] = [vertexNormals(m), vertexAreas(m)];
  const vertex = Uint32Array.from(Array.from(areas.keys()).filter(on));
  return {
    vertex,
    normals: Float64Array.from(
      { length: 3 * vertex.length },
      (_, i) => normals[3 * vertex[Math.floor(i / 3)]! + (i % 3)]!,
    ),
    areaMm2: Float64Array.from(vertex, (v) => areas[v]!),
  };
}

/** How the triangles of a surface face, as they are. */
export const facingOf = (m: Mesh): Facing => ({
  normals: faceNormals(m),
  areaMm2: Float64Array.from({ length: m.triangles.length / 3 }, (_, t) => triangleArea(m, 3 * t)),
});

/** Several that must come off together. */
export function facingTogether(all: readonly Facing[]): Facing {
  const of = (key: keyof Facing) => {
    const out = new Float64Array(all.reduce((n, f) => n + f[key].length, 0));
    let at = 0;
    for (const f of all) {
      out.set(f[key], at);
      at += f[key].length;
    }
    return out;
  };
  return { normals: of('normals'), areaMm2: of('areaMm2') };
}

/** So far from where the cut ends a place is none of the finish line's own, mm. House value. */
const OFF_END_MM = 0.45;

/** The prepared places that lie well within the cut. */
export function wellWithin({ positions }: Mesh, map: PrepMap, facing: Placed): number[] {
  const within = new Set(facing.vertex);
  const ends = Array.from(map.zone.keys()).filter((v) => map.zone[v] !== NO_ZONE && !within.has(v));
  const cells = new Map<string, number[]>();
  const key = (v: number, d: readonly number[]) =>
    [0, 1, 2].map((k) => Math.floor(positions[3 * v + k]! / OFF_END_MM) + d[k]!).join(' ');
  for (const v of ends) {
    const at = key(v, [0, 0, 0]);
    const own = cells.get(at);
    if (own) own.push(v);
    else cells.set(at, [v]);
  }
  return [...within].filter((v) =>
    AROUND.every((d) =>
      (cells.get(key(v, d)) ?? []).every(
        (w) => Math.hypot(...[0, 1, 2].map((k) => positions[3 * v + k]! - positions[3 * w + k]!)) > OFF_END_MM,
      ),
    ),
  );
}

const AROUND = [-1, 0, 1].flatMap((a) => [-1, 0, 1].flatMap((b) => [-1, 0, 1].map((d) => [a, b, d] as const)));
