import { randomUUID } from 'node:crypto';
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';

/** Longest side of a thumbnail, px: twice what the photo wall shows, for fine screens. */
const SIDE_PX = 480;

/** Small upright pictures of the originals, made when first asked for and kept by the original's SHA-256. */
export class Thumbnails {
  constructor(private readonly dir: string) {}

  async of(sha256: string, original: () => Promise<Buffer>): Promise<Buffer> {
    const path = join(this.dir, `${sha256}.jpg`);
    const kept = await readFile(path).catch(() => undefined);
    if (kept) return kept;
    const made = await sharp(await original())
      .rotate()
      .resize(SIDE_PX, SIDE_PX, { fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 82 })
      .toBuffer();
    await mkdir(this.dir, { recursive: true });
    const draft = join(this.dir, `.${randomUUID()}`);
    await writeFile(draft, made);
    await rename(draft, path);
    return made;
  }
}
