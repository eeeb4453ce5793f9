import { basename, dirname } from 'node:path';
import { type FileKind, pictureKind } from '@radiant/contract';
import { isObj, isPly } from '@radiant/core';

/** What a file's place in the watched folder says: the device that laid it there, and words that may name a case. */
export interface Place {
  readonly device: string | undefined;
  readonly caseId: string | undefined;
}

const plain = (s: string) => s.toLowerCase().normalize('NFC').trim();

/**
 * Reads `DEVICE/CASE/file`, `DEVICE/file`, `CASE/file` or `file`. A case is named by a folder of its name, or by a file
 * name that begins with it and goes on with anything but a letter or digit. Two cases that both fit: none.
 * @param path relative to the watched folder, with forward slashes
 */
export function placeOf(path: string, cases: readonly { readonly id: string; readonly name: string }[]): Place {
  const folders = dirname(path)
    .split('/')
    .filter((f) => f !== '.' && f !== '');
  const named = (word: string) => only(cases.filter((c) => plain(c.name) === plain(word)));
  const byFolder = folders.map(named).find((c) => c);
  const device = folders.find((f) => !named(f));
  const file = plain(basename(path));
  const fits = cases.filter((c) => {
    const name = plain(c.name);
    return file.startsWith(name) && !/[\p{L}\p{N}]/u.test(file.charAt(name.length));
  });
  // Of two names where one begins the other, the longer is meant.
  const longest = Math.max(0, ...fits.map((c) => c.name.length));
  const byName = only(fits.filter((c) => c.name.length === longest));
  return { device, caseId: (byFolder ?? byName)?.id };
}

const only = <T>(all: readonly T[]): T | undefined => (all.length === 1 ? all[0] : undefined);

/** What a file is by its first bytes; STL and CSV, which have no mark of their own, by their names. */
export function kindOf(name: string, bytes: Uint8Array): FileKind | undefined {
  if (pictureKind(bytes)) return 'photo';
  if (isPly(bytes) || isObj(bytes)) return 'scan';
  if (/\.csv$/i.test(name)) return 'colours';
  return /\.stl$/i.test(name) ? 'scan' : undefined;
}
