import { randomUUID } from 'node:crypto';
import { mkdir, readdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { isAsItCame, type Lay } from '@radiant/contract';
import { laid, shownPicture } from '../work/picture.js';

/**
 * Longest sides, px: twice what the photo wall shows, for fine screens; and what a bench shows before it is zoomed
 * into.
 */
export const SIDES_PX = { thumbnail: 480, preview: 2000 } as const;

const QUALITY: Readonly<Record<keyof typeof SIDES_PX, number>> = { thumbnail: 82, preview: 88 };

/** One picture made of an original. */
export interface Rendition {
  /** Of the original. */
  readonly sha256: string;
  readonly size: keyof typeof SIDES_PX | 'whole';
  readonly lay: Lay;
}

/** Pictures made of the originals, when first asked for, and kept by the original's SHA-256. */
export class Renditions {
  /** What is being made now, by its name: asked for ten times at once, a picture is made once. */
  private readonly under = new Map<string, Promise<Buffer>>();

  constructor(private readonly dir: string) {}

  /** @param readable the original, in a format that the picture library reads */
  of({ sha256, size, lay }: Rendition, readable: () => Promise<Buffer>): Promise<Buffer> {
    const put = isAsItCame(lay) ? '' : `-${lay.mirrored ? 'm' : 't'}${lay.quarterTurns}`;
    const name = `${sha256}${size === 'thumbnail' ? '' : `-${size}`}${put}`;
    return this.kept(name, async () => {
      const bytes = await readable();
      // Anything but JPEG and PNG as it came is written anew.
      if (size === 'whole') return Buffer.from(await shownPicture(bytes, '', lay));
      const side = SIDES_PX[size];
      return laid(bytes, lay)
        .resize(side, side, { fit: 'inside', withoutEnlargement: true })
        .jpeg({ quality: QUALITY[size] })
        .toBuffer();
    });
  }

  /** What is kept under a name that begins with an original's SHA-256; made where it is not there. */
  async kept(name: string, make: () => Promise<Buffer>): Promise<Buffer> {
    const path = join(this.dir, `${name}.jpg`);
    const there = await readFile(path).catch(() => undefined);
    if (there) return there;
    const running = this.under.get(name);
    if (running) return running;
    const made = this.written(path, make).finally(() => this.under.delete(name));
    this.under.set(name, made);
    return made;
  }

  private async written(path: string, make: () => Promise<Buffer>): Promise<Buffer> {
    const made = await make();
    await mkdir(this.dir, { recursive: true });
    const draft = join(this.dir, `.${randomUUID()}`);
    await writeFile(draft, made);
    await rename(draft, path);
    return made;
  }

  async drop(sha256: string): Promise<void> {
    for (const name of await readdir(this.dir).catch(() => [] as string[]))
      if (name.startsWith(sha256)) await rm(join(this.dir, name), { force: true });
  }
}
