import { Buffer } from 'node:buffer';
import type { Dirent } from 'node:fs';
import { lstat, readdir } from 'node:fs/promises';
import { sep } from 'node:path';

/** A file as the folder shows it. */
export interface Sight {
  /** Its place below the watched folder, with forward slashes. */
  readonly path: string;
  readonly size: number;
  readonly timeMs: number;
}

/** A name that is no UTF-8, as text with replacement characters and as bytes. */
export interface OddName {
  readonly path: string;
  readonly bytes: Buffer;
}

/**
 * All files below a folder. Names that begin with a dot are passed over, links are not followed, and names that are no
 * UTF-8 are told apart: as text they name another file or none.
 */
export async function filesBelow(dir: string): Promise<{ files: Sight[]; odd: OddName[] }> {
  const files: Sight[] = [];
  const odd: OddName[] = [];
  const look = async (folder: Buffer, below: string): Promise<void> => {
    const entries = (await readdir(folder, { withFileTypes: true, encoding: 'buffer' }).catch(
      () => [],
    )) as unknown as Dirent<Buffer>[];
    for (const entry of entries) {
      const raw = entry.name;
      const name = raw.toString('utf8');
      if (name.startsWith('.')) continue;
      const whole = Buffer.concat([folder, Buffer.from(sep), raw]);
      const path = below ? `${below}/${name}` : name;
      if (!Buffer.from(name, 'utf8').equals(raw)) odd.push({ path, bytes: whole });
      else if (entry.isDirectory()) await look(whole, path);
      else if (entry.isFile()) {
        const seen = await lstat(whole).catch(() => undefined);
        if (seen?.isFile()) files.push({ path, size: seen.size, timeMs: seen.mtimeMs });
      }
    }
  };
  await look(Buffer.from(dir), '');
  return { files, odd };
}

/**
 * Tells which files have rested: neither size nor time has changed for a while by our own clock, which may differ from
 * the disk's.
 */
export class Rest {
  private readonly seen = new Map<string, Sight & { readonly since: number }>();

  constructor(private readonly restMs: number) {}

  /** @param now ms, by a clock that only goes forward */
  settled(files: readonly Sight[], now: number): Sight[] {
    const there = new Set(files.map((f) => f.path));
    for (const path of this.seen.keys()) if (!there.has(path)) this.seen.delete(path);
    return files.filter((f) => {
      const before = this.seen.get(f.path);
      if (before && before.size === f.size && before.timeMs === f.timeMs) return now - before.since >= this.restMs;
      this.seen.set(f.path, { ...f, since: now });
      return false;
    });
  }

  forget(path: string): void {
    this.seen.delete(path);
  }
}
