import type { Mesh } from '../../geometry/mesh.js';
import type { IndexGround } from './ground.js';
import { type Slab, STEP_MM, slabOver } from './sheet.js';

/** How a facial index is made, mm. Thickness: common practice, no source; the rest are house values. */
export const INDEX = {
  /** Of its wall, straight to the front. */
  thicknessMm: 5,
  /** Between it and the planned surface, so that it seats. */
  reliefMm: 0.1,
  /** How far it goes up over the gum line, where nothing is cut. */
  overGumMm: 2,
  /** Between its lower border and the edges. */
  shortOfEdgeMm: 0.2,
} as const;
/** Slit between two leaves, mm, and how wide the spine is that holds them at the patient's left end. House values. */
export const LEAVES = { slitMm: 0.6, spineMm: 6 } as const;

/** Which part of the height is covered: all, or one third of each planned tooth. */
export type IndexPart = 'whole' | 'incisal' | 'middle' | 'cervical';

/**
 * A wall in front of the row, closed, in the arch's own frame: its back follows the planned contour and the teeth that
 * stay, its front is smooth. It is put on straight from the front, so that nothing can hang over.
 * @param part of the height; `xs` of the ground, or a stretch of them
 */
export function indexWall(ground: IndexGround, part: IndexPart = 'whole', xs: readonly number[] = ground.xs): Mesh {
  return facialWall(
    ground,
    xs.map((x) => span(ground, part, x)),
    xs,
    INDEX,
  );
}

/** A wall in front of the row from one height to another at each place across. @param heights for each of `xs`, mm */
export function facialWall(
  ground: IndexGround,
  heights: readonly (readonly [number, number])[],
  xs: readonly number[],
  slab: Slab,
): Mesh {
  const count = Math.max(3, Math.round(Math.max(...heights.map(([a, b]) => b - a)) / STEP_MM));
  const rows = count + 1;
  const x = (v: number) => xs[Math.floor(v / rows)] as number;
  const z = (v: number) => {
    const [low, high] = heights[Math.floor(v / rows)] as readonly [number, number];
    return low + ((high - low) * (v % rows)) / count;
  };
  const along = Float64Array.from({ length: xs.length * rows }, (_, v) => ground.surface(x(v), z(v)) ?? Number.NaN);
  return slabOver({ columns: xs.length, rows, along, at: (v, y) => [x(v), y, z(v)] }, slab);
}

/** How wide a sagittal slice is, mm. House value. */
export const SLICE_MM = 2;

/** A slice of an index through the middle of a tooth, to be held against its face by itself. */
export function sagittalSlice(ground: IndexGround, middleX: number): Mesh {
  const count = Math.round(SLICE_MM / STEP_MM);
  const xs = Array.from({ length: count + 1 }, (_, i) => middleX - SLICE_MM / 2 + (SLICE_MM * i) / count);
  return indexWall(ground, 'whole', xs);
}

function span({ edge, zenith }: IndexGround, part: IndexPart, x: number): readonly [number, number] {
  const [e, z] = [edge(x), zenith(x)];
  const low = e + INDEX.shortOfEdgeMm;
  const high = z + INDEX.overGumMm;
  const third = (z - e) / 3;
  const slit = LEAVES.slitMm / 2;
  if (part === 'incisal') return [low, e + third - slit];
  if (part === 'middle') return [e + third + slit, e + 2 * third - slit];
  return part === 'cervical' ? [e + 2 * third + slit, high] : [low, high];
}
