import { meshToArch, rowOf } from '../../contour/arch.js';
import { crownZenith } from '../../contour/plan.js';
import { toParent } from '../../geometry/frame.js';
import type { Mesh } from '../../geometry/mesh.js';
import { edgeStrip } from '../../reduction/guides/edge-strip.js';
import { indexWall, LEAVES, sagittalSlice } from '../../reduction/guides/facial-index.js';
import { type IndexGround, type IndexTooth, indexGround } from '../../reduction/guides/ground.js';
import { mockUpIndex } from '../../reduction/guides/mock-up-index.js';
import { type KeyTrim, palatalKey } from '../../reduction/guides/palatal-key.js';
import type { Fdi, Jaw } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';

/** A guide in the mouth's coordinates: parts that are to be joined into one, and on how many untouched teeth it sits. */
export interface Guide {
  readonly parts: readonly Mesh[];
  readonly seats: number;
  /**
   * How it goes on over the edges: so far from straight up to the back, degrees, and how far it has to give way there to
   * pass what bulges, mm. Nothing of one that goes on without.
   */
  readonly wayOn?: { readonly tiltDeg: number; readonly givesMm: number };
}

/** An index that reads the face of the preparations. @throws Refusal `tooth-missing` where no planned tooth stands */
export const facialIndex = (engine: CaseEngine, jaw: Jaw): Guide => {
  const { ground } = groundOf(engine, jaw);
  return { parts: [meshToArch(jaw, indexWall(ground))], seats: ground.seats };
};

/** The same as a book of three leaves, each a third of the height, held by a spine at one end. */
export function leafGuide(engine: CaseEngine, jaw: Jaw): Guide {
  const { ground } = groundOf(engine, jaw);
  const { xs } = ground;
  const last = xs.at(-1) as number;
  const spine = xs.filter((x) => x >= last - LEAVES.spineMm);
  const walls = [
    ...(['incisal', 'middle', 'cervical'] as const).map((part) => indexWall(ground, part)),
    indexWall(ground, 'whole', spine),
  ];
  return { parts: walls.map((m) => meshToArch(jaw, m)), seats: ground.seats };
}

/** A strip that reads what the edges were cut by. @throws Refusal `tooth-missing` where no planned tooth stands */
export const edgeGuide = (engine: CaseEngine, jaw: Jaw): Guide => {
  const { ground } = groundOf(engine, jaw);
  return { parts: [meshToArch(jaw, edgeStrip(ground))], seats: ground.seats };
};

/** A key in which palatal shells of composite are made. @throws Refusal `tooth-missing` where no planned tooth stands */
export const palatalGuide = (engine: CaseEngine, jaw: Jaw, trim?: KeyTrim): Guide => {
  const { ground } = groundOf(engine, jaw);
  return { parts: [meshToArch(jaw, palatalKey(ground, trim))], seats: ground.seats };
};

/**
 * An index that is filled with the mock-up's material and put on over the edges, scalloped along the gum.
 * @throws Refusal `tooth-missing` where no planned tooth stands
 */
export function mockUpGuide(engine: CaseEngine, jaw: Jaw): Guide {
  const { ground } = groundOf(engine, jaw);
  const { parts, ...wayOn } = mockUpIndex(ground);
  return { parts: parts.map((m) => meshToArch(jaw, m)), seats: ground.seats, wayOn };
}

/**
 * A slice through the middle of each planned tooth, each held against its face by itself.
 * @throws Refusal `tooth-missing` where no planned tooth stands
 */
export function sagittalSlices(engine: CaseEngine, jaw: Jaw): { readonly tooth: Fdi; readonly mesh: Mesh }[] {
  const { ground, row } = groundOf(engine, jaw);
  return row
    .filter((t) => t.planned)
    .map(({ tooth, middleX }) => ({ tooth, mesh: meshToArch(jaw, sagittalSlice(ground, middleX)) }));
}

function groundOf(engine: CaseEngine, jaw: Jaw): { ground: IndexGround; row: (IndexTooth & { tooth: Fdi })[] } {
  const { teeth } = engine.arch(jaw);
  const standing = engine.teeth(jaw);
  const row = rowOf(jaw).flatMap((tooth): (IndexTooth & { tooth: Fdi })[] => {
    const own = teeth.get(tooth);
    if (!own) return [];
    const planned = standing.includes(tooth) ? engine.crown(tooth) : undefined;
    const frame = planned?.frame ?? own.frame;
    const zenith = toParent(frame, planned ? crownZenith(planned.crown) : [0, 0, own.zenithMm]);
    return [
      {
        tooth,
        mesh: planned?.mesh ?? own.field.mesh,
        middleX: frame.origin[0],
        widthMm: planned?.crown.size.widthMm ?? own.widthMm,
        edgeZ: frame.origin[2],
        edgeY: frame.origin[1],
        zenithZ: zenith[2],
        planned: planned !== undefined,
      },
    ];
  });
  row.sort((p, q) => p.middleX - q.middleX);
  return { ground: indexGround(row, meshToArch(jaw, engine.scan(jaw).rest)), row };
}
