import { createHash, randomUUID } from 'node:crypto';
import { mkdir, open, readFile, rename, stat, unlink } from 'node:fs/promises';
import { join } from 'node:path';

/**
 * Files by the SHA-256 of their content: the same bytes are kept once. A file is written under a temporary name, flushed
 * and renamed before anyone records it, so that a recorded file is always whole.
 */
export class ContentStore {
  constructor(private readonly dir: string) {}

  pathOf(sha256: string): string {
    return join(this.dir, sha256.slice(0, 2), sha256);
  }

  /** The name that bytes are kept under. */
  nameOf(bytes: Uint8Array): string {
    return createHash('sha256').update(bytes).digest('hex');
  }

  async put(bytes: Uint8Array): Promise<string> {
    const sha256 = this.nameOf(bytes);
    const path = this.pathOf(sha256);
    if (await exists(path)) return sha256;
    const folder = join(this.dir, sha256.slice(0, 2));
    await mkdir(folder, { recursive: true });
    const draft = join(folder, `.${randomUUID()}`);
    try {
      const f = await open(draft, 'wx');
      try {
        await f.writeFile(bytes);
        await f.sync();
      } finally {
        await f.close();
      }
      await rename(draft, path);
    } catch (error) {
      await unlink(draft).catch(() => undefined);
      throw error;
    }
    const d = await open(folder, 'r');
    await d.sync().finally(() => d.close());
    return sha256;
  }

  async get(sha256: string): Promise<Buffer> {
    return readFile(this.pathOf(sha256));
  }

  /** Forgets a file; nothing happens when it is not there. */
  async drop(sha256: string): Promise<void> {
    await unlink(this.pathOf(sha256)).catch((error: NodeJS.ErrnoException) => {
      if (error.code !== 'ENOENT') throw error;
    });
  }
}

async function exists(path: string): Promise<boolean> {
  return stat(path).then(
    () => true,
    () => false,
  );
}
