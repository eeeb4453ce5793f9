import { type CaseDetail, contourPlan } from '@radiant/contract';
import { existingArch, type Mesh, mergeMeshes, plannedTooth, readScan, UPPER_SIX, UPPER_TEN, writeStlBinary } from '@radiant/core';
import { mockUpModel } from '../mock-up/mock-up.js';

/** What goes out as a surface. */
export const SURFACES = ['planned', 'existing', 'mock-up'] as const;
export type Surface = (typeof SURFACES)[number];

/**
 * The planned crowns, the scanned arch, or the two joined into one closed model, as binary STL, mm, in the scan's own
 * coordinates, so that they lie over each other. Of `planned` each crown is a closed shell of its own.
 * @param versionId a kept contour; the one that stands in shape where left out
 * @returns undefined while there is no scan or, for the plan, no contour of all six teeth
 */
export async function contourStl(detail: CaseDetail, scan: Uint8Array | undefined, what: Surface, versionId?: string): Promise<Uint8Array | undefined> {
  if (!scan) return undefined;
  if (what === 'existing') {
    const { teeth, rest } = readScan(scan, []);
    return writeStlBinary(mergeMeshes([...teeth.values(), rest]), undefined, 'existing upper jaw, mm');
  }
  const version = versionId ? detail.contours.find((c) => c.id === versionId) : undefined;
  const plan = contourPlan(version ? version.teeth : versionId ? [] : detail.sections.shape.data.teeth);
  if (!UPPER_SIX.every((t) => plan[t])) return undefined;
  const of = version ? `version ${version.number}, ` : '';
  if (what === 'mock-up') return mockUpModel({ scan, plan, title: `mock-up model, ${of}mm` });
  const arch = existingArch(readScan(scan));
  const crowns: Mesh[] = UPPER_TEN.filter((t) => plan[t] && arch.teeth.has(t)).map((t) => plannedTooth(arch, plan, t).mesh);
  return writeStlBinary(mergeMeshes(crowns), undefined, `planned contour, ${of}mm`);
}
