import { randomUUID } from 'node:crypto';
import { mkdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';

/**
 * Longest sides, px: twice what the photo wall shows, for fine screens; and what a bench shows before it is zoomed
 * into.
 */
export const SIDES_PX = { thumbnail: 480, preview: 2000 } as const;

/** Small upright pictures of the originals, made when first asked for and kept by the original's SHA-256. */
export class Thumbnails {
  /** What is being made now, by its path: asked for ten times at once, a picture is made once. */
  private readonly under = new Map<string, Promise<Buffer>>();

  constructor(private readonly dir: string) {}

  async of(sha256: string, size: keyof typeof SIDES_PX, original: () => Promise<Buffer>): Promise<Buffer> {
    const path = this.path(sha256, size);
    const kept = await readFile(path).catch(() => undefined);
    if (kept) return kept;
    const running = this.under.get(path);
    if (running) return running;
    const made = this.make(path, SIDES_PX[size], size === 'preview' ? 88 : 82, original).finally(() =>
      this.under.delete(path),
    );
    this.under.set(path, made);
    return made;
  }

  private async make(path: string, side: number, quality: number, original: () => Promise<Buffer>): Promise<Buffer> {
    const made = await sharp(await original())
      .rotate()
      .resize(side, side, { fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality })
      .toBuffer();
    await mkdir(this.dir, { recursive: true });
    const draft = join(this.dir, `.${randomUUID()}`);
    await writeFile(draft, made);
    await rename(draft, path);
    return made;
  }

  async drop(sha256: string): Promise<void> {
    for (const size of Object.keys(SIDES_PX) as (keyof typeof SIDES_PX)[])
      await rm(this.path(sha256, size), { force: true });
  }

  private path(sha256: string, size: keyof typeof SIDES_PX): string {
    return join(this.dir, size === 'thumbnail' ? `${sha256}.jpg` : `${sha256}-${size}.jpg`);
  }
}
