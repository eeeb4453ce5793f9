import { type Crown, crown, type Fdi, ringVertex, section } from '@radiant/core';

/**
 * Crown dimensions of a textbook, mm: rounded means of carved models (Wheeler, Dental Anatomy, from memory). Length,
 * mesiodistal width and the same at the neck, facio-oral depth and the same at the neck, rise of the cement line on the
 * mesial and the distal side.
 */
export const TEXTBOOK: Readonly<
  Record<string, readonly [Fdi, number, number, number, number, number, number, number]>
> = {
  'upper central': [11, 10.5, 8.5, 7, 7, 6, 3.5, 2.5],
  'upper lateral': [12, 9, 6.5, 5, 6, 5, 3, 2],
  'upper canine': [13, 10, 7.5, 5.5, 8, 7, 2.5, 1.5],
  'upper first premolar': [14, 8.5, 7, 5, 9, 8, 1, 0],
  'upper second premolar': [15, 8.5, 7, 5, 9, 8, 1, 0],
  'upper first molar': [16, 7.5, 10, 8, 11, 10, 1, 0],
  'upper second molar': [17, 7, 9, 7, 11, 10, 1, 0],
  'lower central': [41, 9, 5, 3.5, 6, 5.3, 3, 2],
  'lower lateral': [42, 9.5, 5.5, 4, 6.5, 5.8, 3, 2],
  'lower canine': [43, 11, 7, 5.5, 7.5, 7, 2.5, 1],
  'lower first premolar': [44, 8.5, 7, 5, 7.5, 6.5, 1, 0],
  'lower second premolar': [45, 8, 7, 5, 8, 7, 1, 0],
  'lower first molar': [46, 7.5, 11, 9, 10.5, 9, 1, 0],
  'lower second molar': [47, 7, 10.5, 8, 10, 9, 1, 0],
};

export interface Anatomy {
  readonly depth: number;
  readonly neckDepth: number;
  readonly neckWidth: number;
  readonly mesialRise: number;
  readonly distalRise: number;
  /** Facio-oral thickness in the middle so many mm over the lowest point of the edge. */
  thickness(overEdgeMm: number): number;
}

const place = (c: Crown, v: number): [number, number, number] => [
  c.mesh.positions[3 * v]!,
  c.mesh.positions[3 * v + 1]!,
  c.mesh.positions[3 * v + 2]!,
];

/** The section through a crown at a place across, its own y to the right and z up, mm. */
export const sagittal = (c: Crown, x = 0) =>
  section(c.mesh, { origin: [x, 0, 0], x: [0, 1, 0], y: [0, 0, 1], z: [1, 0, 0] });

/** Where the section through a crown meets a line: along y at a height, or along z at a depth. */
function crossings(c: Crown, x: number, fixed: 'z' | 'y', at: number): number[] {
  const [own, other] = fixed === 'z' ? [1, 0] : [0, 1];
  return sagittal(c, x).flatMap(({ points: p, closed }) => {
    const n = p.length / 2;
    return Array.from({ length: closed ? n : n - 1 }, (_, i) => {
      const j = (i + 1) % n;
      const [a, b] = [p[2 * i + own]!, p[2 * j + own]!];
      const [u, v] = [p[2 * i + other]!, p[2 * j + other]!];
      return a > at === b > at ? Number.NaN : u + ((v - u) * (at - a)) / (b - a);
    }).filter((v) => !Number.isNaN(v));
  });
}

/** Front and back of a section at a height. */
export function spanAt(c: Crown, z: number, x = 0): [number, number] {
  const y = crossings(c, x, 'z', z);
  return [Math.min(...y), Math.max(...y)];
}

/** The height at which the middle section ends towards the root, so far in front of or behind the axis. */
export const topAt = (c: Crown, y: number): number => Math.max(...crossings(c, 0, 'y', y));

/** What is measured on the mesh of a library crown. */
export function anatomyOf(c: Crown): Anatomy {
  const ring = Array.from({ length: c.ringSize }, (_, k) => place(c, ringVertex(c, 0, k)));
  const half = c.ringSize / 2;
  const facial = ring.slice(0, half + 1);
  const zenith = Math.max(...facial.map((p) => p[2]));
  let [front, back] = [Infinity, -Infinity];
  for (let i = 1; i < c.mesh.positions.length; i += 3) {
    front = Math.min(front, c.mesh.positions[i]!);
    back = Math.max(back, c.mesh.positions[i]!);
  }
  const low = (from: number, to: number) => Math.min(...ring.slice(from, to).map((p) => p[2]));
  const right = Math.min(low(0, 8), low(c.ringSize - 8, c.ringSize));
  const left = low(half - 8, half + 8);
  // Mesial lies at +x on the patient's right of the upper jaw, and in the lower's own frame on its left; all here are so.
  const middle = (from: number) => ring[from]!;
  const span = (z: number) => spanAt(c, z);
  return {
    depth: back - front,
    neckDepth: middle(half + half / 2)[1] - middle(half / 2)[1],
    neckWidth: Math.max(...ring.map((p) => p[0])) - Math.min(...ring.map((p) => p[0])),
    mesialRise: zenith - (c.tooth < 30 ? right : left),
    distalRise: zenith - (c.tooth < 30 ? left : right),
    thickness: (over) => span(over)[1] - span(over)[0],
  };
}

/** The library's crown of a textbook's size. */
export function textbookCrown(name: string): Crown {
  const [tooth, lengthMm, widthMm] = TEXTBOOK[name]!;
  return crown(tooth, { lengthMm, widthMm, facialVolumeMm: 0 });
}
