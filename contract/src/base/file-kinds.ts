/**
 * A photograph; a scan of the upper jaw, or of the lower one in the same coordinates, with its teeth told apart; or any
 * scan as it came, untouched.
 */
export const FILE_KINDS = ['photo', 'scan', 'lower-scan', 'own-scan'] as const;
export type FileKind = (typeof FILE_KINDS)[number];

/** What a file is called on the screen. */
export const FILE_KIND_WORDS: Readonly<Record<FileKind, string>> = {
  photo: 'photograph',
  scan: 'scan of the upper jaw',
  'lower-scan': 'scan of the lower jaw',
  'own-scan': 'scan as it came',
};
