import type { Rgb } from '@radiant/contract';
import { type Frame, type Mesh, toLocal, type Vec3, vertexNormals } from '@radiant/core';
import sharp from 'sharp';

/** From where a tooth is looked at. */
export type ToothSide = 'front' | 'behind';

/** A picture of a tooth along its own axes, and where its places lie in it. */
export interface ToothPicture {
  readonly png: Buffer;
  /** mm. */
  readonly width: number;
  readonly height: number;
  /** A place of the mouth in the picture, mm from its left and top, and whether it is seen there. */
  at(place: Vec3): { readonly x: number; readonly y: number; readonly seen: boolean };
}

const PX_A_MM = 24;
const ROOM_MM = 0.6;
/** A place counts as seen when nothing lies further in front of it, mm. */
const SEEN_MM = 0.4;

/**
 * Draws a tooth from the front or from behind, its edge as it stands in the mouth, without a lens; coloured vertex by
 * vertex and shaded by where it looks. There is no graphics card on a server, so that it is filled pixel by pixel.
 * @param frame the tooth's own, in the coordinates of the mesh
 * @param edgeDown whether the edge is at the foot of the picture, as with upper teeth
 */
export async function toothPicture(
  mesh: Mesh,
  frame: Frame,
  side: ToothSide,
  edgeDown: boolean,
  colourOf: (vertex: number) => Rgb,
): Promise<ToothPicture> {
  const n = mesh.positions.length / 3;
  const turn = (side === 'front' ? 1 : -1) * (edgeDown ? 1 : -1);
  const place = (p: Vec3): Vec3 => {
    const [x, y, z] = toLocal(frame, p);
    return [turn * x, (edgeDown ? -1 : 1) * z, (side === 'front' ? 1 : -1) * y];
  };
  const [normals, at] = [vertexNormals(mesh), new Float64Array(3 * n)];
  const vec = (of: ArrayLike<number>, v: number): Vec3 => [of[3 * v]!, of[3 * v + 1]!, of[3 * v + 2]!];
  let [left, right, top, foot] = [Infinity, -Infinity, Infinity, -Infinity];
  for (let v = 0; v < n; v++) {
    const p = place(vec(mesh.positions, v));
    at.set(p, 3 * v);
    [left, right, top, foot] = [Math.min(left, p[0]), Math.max(right, p[0]), Math.min(top, p[1]), Math.max(foot, p[1])];
  }
  const [width, height] = [right - left + 2 * ROOM_MM, foot - top + 2 * ROOM_MM];
  const [w, h] = [Math.ceil(width * PX_A_MM), Math.ceil(height * PX_A_MM)];
  const [x0, y0] = [left - ROOM_MM, top - ROOM_MM];
  const look = side === 'front' ? -1 : 1;
  const shade = (v: number) => {
    const d = vec(normals, v);
    const facing = look * (d[0] * frame.y[0] + d[1] * frame.y[1] + d[2] * frame.y[2]);
    return 0.55 + 0.45 * Math.max(0, facing);
  };
  const colours = Array.from({ length: n }, (_, v) => colourOf(v).map((c) => 255 * c * shade(v)));
  const depth = new Float32Array(w * h).fill(Infinity);
  const rgba = Buffer.alloc(4 * w * h);
  const { triangles } = mesh;
  for (let t = 0; t < triangles.length; t += 3) {
    const own = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!] as const;
    const px = (v: number): Vec3 => [(at[3 * v]! - x0) * PX_A_MM, (at[3 * v + 1]! - y0) * PX_A_MM, at[3 * v + 2]!];
    const [a, b, c] = [px(own[0]), px(own[1]), px(own[2])];
    const area = (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
    if (area === 0) continue;
    const bound = (k: 0 | 1, most: number) =>
      [
        Math.max(0, Math.ceil(Math.min(a[k], b[k], c[k]) - 0.5)),
        Math.min(most - 1, Math.floor(Math.max(a[k], b[k], c[k]) - 0.5)),
      ] as const;
    const [fromX, toX] = bound(0, w);
    const [fromY, toY] = bound(1, h);
    for (let y = fromY; y <= toY; y++)
      for (let x = fromX; x <= toX; x++) {
        const [u, v] = [x + 0.5, y + 0.5];
        const wa = ((b[0] - u) * (c[1] - v) - (b[1] - v) * (c[0] - u)) / area;
        const wb = ((c[0] - u) * (a[1] - v) - (c[1] - v) * (a[0] - u)) / area;
        const wc = 1 - wa - wb;
        if (wa < 0 || wb < 0 || wc < 0) continue;
        const deep = wa * a[2] + wb * b[2] + wc * c[2];
        const i = y * w + x;
        if (deep >= depth[i]!) continue;
        depth[i] = deep;
        for (let k = 0; k < 3; k++)
          rgba[4 * i + k] = wa * colours[own[0]]![k]! + wb * colours[own[1]]![k]! + wc * colours[own[2]]![k]!;
        rgba[4 * i + 3] = 255;
      }
  }
  return {
    png: await sharp(rgba, { raw: { width: w, height: h, channels: 4 } })
      .png()
      .toBuffer(),
    width,
    height,
    at: (p) => {
      const [x, y, d] = place(p);
      const i = Math.floor((y - y0) * PX_A_MM) * w + Math.floor((x - x0) * PX_A_MM);
      return { x: x - x0, y: y - y0, seen: d <= (depth[i] ?? -Infinity) + SEEN_MM };
    },
  };
}
