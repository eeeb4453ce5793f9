import type { Jaw } from '@radiant/core';
import type { CaseState } from './base/records.js';
import type { CaseDetail } from './cases.js';
import type { CaseFile } from './files.js';

/**
 * Which scan of a jaw in a state of the mouth counts: the one that is named, where it is still there and of this jaw,
 * else the newest in that state. Of one whose state nobody has said it is taken that nothing was done to the teeth yet.
 * The one rule for the screen, the documents and whatever is computed.
 * @param named the number of the scan that a contour was planned on
 */
export function scanFor(
  files: readonly CaseFile[],
  jaw: Jaw,
  state: CaseState,
  named?: string | null,
): CaseFile | undefined {
  const own = files.filter((f) => f.role === 'working' && f.jaw === jaw);
  return own.find((f) => f.id === named) ?? own.filter((f) => (f.state ?? 'before') === state).at(-1);
}

/** The scan on which the plan of a jaw stands: of the mouth as it was before. */
export const plannedOn = (
  { files, sections }: Pick<CaseDetail, 'files' | 'sections'>,
  jaw: Jaw,
): CaseFile | undefined => scanFor(files, jaw, 'before', sections.shape.data.scanId);
