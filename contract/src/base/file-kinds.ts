import type { Jaw } from '@radiant/core';

/** A photograph, a surface of a jaw, or a table of colours that a shade meter has read. */
export const FILE_KINDS = ['photo', 'scan', 'colours'] as const;
export type FileKind = (typeof FILE_KINDS)[number];

/**
 * A scan as it came, kept byte for byte; or one that is worked on: in the mouth's coordinates, its teeth closed and
 * told apart, made here out of an original or come so from a device.
 */
export const SCAN_ROLES = ['original', 'working'] as const;
export type ScanRole = (typeof SCAN_ROLES)[number];

/** What tells files apart, whatever they are called. */
export interface FileNature {
  readonly kind: FileKind;
  /** Of a scan: of which jaw it is; null while nobody has said. A photograph's view tells more. */
  readonly jaw: Jaw | null;
  /** Of a scan; null of all others. */
  readonly role: ScanRole | null;
}

/** What a file is called on the screen. */
export function fileWords({ kind, jaw, role }: FileNature): string {
  if (kind === 'photo') return 'photograph';
  if (kind === 'colours') return 'readings of colour';
  const of = jaw ? `scan of the ${jaw} jaw` : 'scan';
  return role === 'working' ? of : `${of} as it came`;
}
