import { contourDifference, contourDifferenceQuick, proudFace } from '../../contour/difference.js';
import { inMouth } from '../../contour/plan.js';
import { type VolumeChange, volumeChange } from '../../contour/volume.js';
import type { Mesh } from '../../geometry/mesh.js';
import type { Fdi } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';

/**
 * A planned crown in the mouth, and of each vertex its distance from the tooth that is there, mm: + added, − removed.
 */
export interface Difference {
  readonly mesh: Mesh;
  readonly differenceMm: Float64Array;
  readonly mostAddedMm: number;
  readonly mostRemovedMm: number;
  /** Only where the map is a full one. */
  readonly volume?: VolumeChange;
}

/** @param quick for a drawing while a slider moves: the map from a quarter of the vertices, and no volume */
export const difference = (engine: CaseEngine, tooth: Fdi, quick: boolean): Difference =>
  engine.once(tooth, quick ? 'quick difference' : 'difference', (planned, arch) => {
    const differenceMm = (quick ? contourDifferenceQuick : contourDifference)(arch, planned);
    let mostAddedMm = 0;
    let mostRemovedMm = 0;
    for (const v of differenceMm) {
      if (v > mostAddedMm) mostAddedMm = v;
      if (-v > mostRemovedMm) mostRemovedMm = -v;
    }
    return {
      mesh: inMouth(planned).mesh,
      differenceMm,
      mostAddedMm,
      mostRemovedMm,
      ...(!quick && { volume: volumeChange(arch, planned) }),
    };
  });

/** Less than this a scan and the fit of a form can't tell, mm. House value. */
const PROUD_MM = 0.2;

/** Planned teeth whose faces stand in front of the plan, the most first, and by how much, mm. */
export const proudTeeth = (engine: CaseEngine): readonly { readonly tooth: Fdi; readonly mm: number }[] =>
  engine
    .teeth()
    .map((tooth) => ({
      tooth,
      mm: engine.once(tooth, 'proud', (planned, arch) => proudFace(planned, contourDifferenceQuick(arch, planned))),
    }))
    .filter((t) => t.mm > PROUD_MM)
    .sort((p, q) => q.mm - p.mm);
