import type { Jaw } from '@radiant/core';
import type { FileKind } from './base/file-kinds.js';
import type { CaseFile } from './cases.js';

/** Of which kind the files are that hold a jaw with its teeth told apart. */
const KIND: Readonly<Record<Jaw, FileKind>> = { upper: 'scan', lower: 'lower-scan' };

/**
 * Which scan of a jaw counts: the one that the contour names, where it is still there, else the newest. The one rule
 * for the screen, the documents and whatever is computed.
 * @param named the upper scan that the contour was planned on
 */
export function scanFor(files: readonly CaseFile[], jaw: Jaw, named?: string | null): CaseFile | undefined {
  const own = files.filter((f) => f.kind === KIND[jaw]);
  return (jaw === 'upper' && named && own.find((f) => f.id === named)) || own.at(-1);
}
