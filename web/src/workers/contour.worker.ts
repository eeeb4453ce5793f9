import {
  type ContourPlan,
  type CutFrom,
  contourDifference,
  contourDifferenceQuick,
  type DesignId,
  designOf,
  type ExistingArch,
  existingArch,
  type Fdi,
  firstContour,
  type Mesh,
  plannedTooth,
  planOfExisting,
  Refusal,
  readScan,
  type SegmentedScan,
  type ToothReduction,
  type ToothSection,
  toothReduction,
  toothSection,
  UPPER_SIX,
  vertexNormals,
} from '@radiant/core';
import { expose, transfer } from 'comlink';

/** A surface ready for drawing: 32-bit, in the mouth's coordinates, mm. */
export interface DrawableMesh {
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  readonly triangles: Uint32Array;
}

export interface ExistingSummary {
  readonly tooth: Fdi;
  readonly lengthMm: number;
  readonly widthMm: number;
  readonly wearMm: number;
  readonly rotationDeg: number;
  readonly fitMm: number;
}

export interface ArchView {
  readonly teeth: readonly { readonly tooth: Fdi; readonly mesh: DrawableMesh }[];
  readonly gum: DrawableMesh;
  readonly existing: readonly ExistingSummary[];
}

/** A planned crown with the distance of each vertex from the tooth that is there, mm: + added, − removed. */
export interface PlannedView {
  readonly tooth: Fdi;
  readonly mesh: DrawableMesh;
  readonly differenceMm: Float32Array;
  readonly mostAddedMm: number;
  readonly mostRemovedMm: number;
}

let scan: SegmentedScan | undefined;
let arch: ExistingArch | undefined;

function need(): ExistingArch {
  if (!arch) throw new Error('The scan is not loaded.');
  return arch;
}

function drawable(m: Mesh): DrawableMesh {
  return { positions: Float32Array.from(m.positions), normals: Float32Array.from(vertexNormals(m)), triangles: m.triangles.slice() };
}

const buffers = (m: DrawableMesh) => [m.positions.buffer, m.normals.buffer, m.triangles.buffer] as ArrayBuffer[];

const service = {
  /** Fetches and reads a scan and finds its teeth. Rejects with a sentence. */
  async load(url: string): Promise<ArchView> {
    const response = await fetch(url);
    if (!response.ok) throw new Error('The scan can’t be fetched.');
    try {
      scan = readScan(new Uint8Array(await response.arrayBuffer()));
    } catch (error) {
      throw new Error(error instanceof Refusal ? error.message : 'The scan can’t be read.');
    }
    arch = existingArch(scan);
    const teeth = [...scan.teeth].map(([tooth, mesh]) => ({ tooth, mesh: drawable(mesh) }));
    const gum = drawable(scan.rest);
    const existing = UPPER_SIX.flatMap((tooth): ExistingSummary[] => {
      const e = arch?.teeth.get(tooth);
      return e ? [{ tooth, lengthMm: e.lengthMm, widthMm: e.widthMm, wearMm: e.wearMm, rotationDeg: e.rotationDeg, fitMm: e.fitMm }] : [];
    });
    return transfer({ teeth, gum, existing }, [...teeth.flatMap((t) => buffers(t.mesh)), ...buffers(gum)]);
  },

  /** A first contour for the given targets. */
  first(targets: readonly (readonly [Fdi, { lengthMm: number; widthMm: number; zenithUpMm?: number }])[]): ContourPlan {
    return firstContour(need(), new Map(targets));
  },

  /** The teeth as they are, as a contour. */
  existing(): ContourPlan {
    return planOfExisting(need());
  },

  /** @param quick for a first drawing while a slider moves: the map from a quarter of the vertices */
  planned(plan: ContourPlan, tooth: Fdi, quick: boolean): PlannedView {
    const p = plannedTooth(need(), plan, tooth);
    const d = (quick ? contourDifferenceQuick : contourDifference)(need(), p);
    const mesh = drawable(p.mesh);
    const differenceMm = Float32Array.from(d);
    let mostAddedMm = 0;
    let mostRemovedMm = 0;
    for (const v of differenceMm) {
      if (v > mostAddedMm) mostAddedMm = v;
      if (-v > mostRemovedMm) mostRemovedMm = -v;
    }
    return transfer({ tooth, mesh, differenceMm, mostAddedMm, mostRemovedMm }, [...buffers(mesh), differenceMm.buffer as ArrayBuffer]);
  },

  reduce(plan: ContourPlan, design: DesignId, from: CutFrom): ToothReduction[] {
    return UPPER_SIX.filter((t) => plan[t]).map((t) => toothReduction(need(), plan, t, designOf(design), from));
  },

  section(plan: ContourPlan, tooth: Fdi, design: DesignId): ToothSection {
    const e = need().teeth.get(tooth);
    if (!e) throw new Error(`The scan has no tooth ${tooth}.`);
    return toothSection(e.field.mesh, plannedTooth(need(), plan, tooth), designOf(design));
  },
};

export type ContourService = typeof service;
expose(service);
