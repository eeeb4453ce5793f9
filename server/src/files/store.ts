import { randomUUID } from 'node:crypto';
import { link, mkdir, open, readdir, readFile, rename, stat, unlink } from 'node:fs/promises';
import { join } from 'node:path';

/** Names of files that are on their way out. */
const GOING = '.going-';
/** A file that is being looked at once more before it goes is back after this, ms. */
const BACK_MS = 50;

/** Where a file lies among those of a folder. */
export const placeIn = (dir: string, sha256: string): string => join(dir, sha256.slice(0, 2), sha256);

/** Reads the first bytes of the files of a folder; nothing where one is not there. */
export const headsIn =
  (dir: string, bytes = 4096) =>
  async (sha256: string): Promise<Uint8Array | undefined> => {
    const file = await open(placeIn(dir, sha256), 'r').catch(() => undefined);
    if (!file) return undefined;
    try {
      const { buffer, bytesRead } = await file.read(Buffer.alloc(bytes), 0, bytes, 0);
      return buffer.subarray(0, bytesRead);
    } finally {
      await file.close();
    }
  };

/**
 * Files by the SHA-256 of their content: the same bytes are kept once. A file is flushed before it gets its name, and
 * has it before anyone records it, so that a recorded file is always whole.
 */
export class ContentStore {
  /** @param drafts on the same disk as `dir` */
  constructor(
    private readonly dir: string,
    private readonly drafts: string = join(dir, '.drafts'),
  ) {}

  pathOf(sha256: string): string {
    return placeIn(this.dir, sha256);
  }

  /** A name for a file that is being written, on the store's own disk. */
  async draft(): Promise<string> {
    await mkdir(this.drafts, { recursive: true, mode: 0o700 });
    return join(this.drafts, randomUUID());
  }

  /**
   * Keeps a file of the drafts under its content's name. The draft stays: whoever records the file adopts it again
   * afterwards, in case it was let go between the two.
   */
  async adopt(draft: string, sha256: string): Promise<void> {
    const path = this.pathOf(sha256);
    if (await exists(path)) return;
    const folder = join(this.dir, sha256.slice(0, 2));
    await mkdir(folder, { recursive: true });
    await flushed(draft);
    try {
      await link(draft, path);
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
    }
    await flushed(folder);
  }

  /** The first bytes of a file; empty where it is not there. */
  async head(sha256: string, bytes: number): Promise<Uint8Array> {
    return (await headsIn(this.dir, bytes)(sha256)) ?? new Uint8Array();
  }

  async get(sha256: string): Promise<Buffer> {
    return readFile(this.pathOf(sha256)).catch(async (error: NodeJS.ErrnoException) => {
      if (error.code !== 'ENOENT') throw error;
      await new Promise((r) => setTimeout(r, BACK_MS));
      return readFile(this.pathOf(sha256));
    });
  }

  /**
   * Forgets a file that nobody needs. It is set aside first and asked about again: what somebody recorded in the
   * meantime comes back.
   * @returns whether it is gone
   */
  async drop(sha256: string, needed: () => Promise<boolean>): Promise<boolean> {
    if (await needed()) return false;
    const path = this.pathOf(sha256);
    const aside = join(this.dir, sha256.slice(0, 2), `${GOING}${sha256}-${randomUUID()}`);
    try {
      await rename(path, aside);
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code === 'ENOENT') return true;
      throw error;
    }
    if (await needed()) {
      await rename(aside, path);
      return false;
    }
    await unlink(aside);
    return true;
  }

  /** Files that were on their way out when the server was ended are put back; whoever let them go asks again. */
  async bringBack(): Promise<void> {
    for (const folder of await readdir(this.dir).catch(() => [] as string[])) {
      if (!/^[0-9a-f]{2}$/.test(folder)) continue;
      for (const name of await readdir(join(this.dir, folder)))
        if (name.startsWith(GOING))
          await rename(join(this.dir, folder, name), this.pathOf(name.slice(GOING.length, GOING.length + 64)));
    }
  }
}

async function flushed(path: string): Promise<void> {
  const f = await open(path, 'r');
  await f.sync().finally(() => f.close());
}

async function exists(path: string): Promise<boolean> {
  return stat(path).then(
    () => true,
    () => false,
  );
}
