import { type CaseDetail, contourPlan } from '@radiant/contract';
import { existingArch, inMouth, type Jaw, type Mesh, mergeMeshes, plannedTooth, readScan, rowOf, UPPER_SIX, writeStlBinary } from '@radiant/core';
import { mockUpModel } from '../mock-up/mock-up.js';

/** What goes out as a surface. */
export const SURFACES = ['planned', 'existing', 'mock-up'] as const;
export type Surface = (typeof SURFACES)[number];

/**
 * The planned crowns, the scanned arch, or the two joined into one closed model, as binary STL, mm, in the scan's own
 * coordinates, so that they lie over each other. Of `planned` each crown is a closed shell of its own.
 * @param scan of the jaw that is asked for
 * @param versionId a kept contour; the one that stands in shape where left out
 * @returns undefined while there is no scan or, for the plan, no contour: of all six upper front teeth, or of any lower tooth
 */
export async function contourStl(
  detail: CaseDetail,
  scan: Uint8Array | undefined,
  jaw: Jaw,
  what: Surface,
  versionId?: string,
): Promise<Uint8Array | undefined> {
  if (!scan) return undefined;
  if (what === 'existing') {
    const { teeth, rest } = readScan(scan, []);
    return writeStlBinary(mergeMeshes([...teeth.values(), rest]), undefined, `existing ${jaw} jaw, mm`);
  }
  const version = versionId ? detail.contours.find((c) => c.id === versionId) : undefined;
  const plan = contourPlan(version ? version.teeth : versionId ? [] : detail.sections.shape.data.teeth);
  if (jaw === 'upper' ? !UPPER_SIX.every((t) => plan[t]) : !rowOf(jaw).some((t) => plan[t])) return undefined;
  const of = version ? `version ${version.number}, ` : '';
  if (what === 'mock-up') return mockUpModel({ scan, jaw, plan, title: `${jaw} mock-up model, ${of}mm` });
  const arch = existingArch(readScan(scan, []));
  const crowns: Mesh[] = rowOf(jaw)
    .filter((t) => plan[t] && arch.teeth.has(t))
    .map((t) => inMouth(plannedTooth(arch, plan, t)).mesh);
  return writeStlBinary(mergeMeshes(crowns), undefined, `planned contour, ${jaw} jaw, ${of}mm`);
}
