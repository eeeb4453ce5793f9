import { type CaseDetail, contourPlan } from '@radiant/contract';
import { existingArch, type Mesh, mergeMeshes, plannedTooth, readScan, UPPER_SIX, writeStlBinary } from '@radiant/core';

/** What goes out as a surface. */
export const SURFACES = ['planned', 'existing'] as const;
export type Surface = (typeof SURFACES)[number];

/**
 * The planned crowns or the scanned arch as binary STL, mm, in the scan's own coordinates, so that the two lie over each other. Each
 * planned crown is a closed shell of its own.
 * @param versionId a kept contour; the one that stands in shape where left out
 * @returns undefined while there is no scan or, for the plan, no contour of all six teeth
 */
export function contourStl(detail: CaseDetail, scan: Uint8Array | undefined, what: Surface, versionId?: string): Uint8Array | undefined {
  if (!scan) return undefined;
  if (what === 'existing') {
    const { teeth, rest } = readScan(scan, []);
    return writeStlBinary(mergeMeshes([...teeth.values(), rest]), undefined, 'existing upper jaw, mm');
  }
  const version = versionId ? detail.contours.find((c) => c.id === versionId) : undefined;
  const plan = contourPlan(version ? version.teeth : versionId ? [] : detail.sections.shape.data.teeth);
  if (!UPPER_SIX.every((t) => plan[t])) return undefined;
  const arch = existingArch(readScan(scan));
  const crowns: Mesh[] = UPPER_SIX.map((t) => plannedTooth(arch, plan, t).mesh);
  return writeStlBinary(mergeMeshes(crowns), undefined, `planned contour, ${version ? `version ${version.number}, ` : ''}mm`);
}
