import { randomUUID } from 'node:crypto';
import { mkdir, readdir, stat, unlink } from 'node:fs/promises';
import { join } from 'node:path';
import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnModuleDestroy } from '@nestjs/common';
import {
  AS_IT_CAME,
  type CaseFile,
  FILE_NAME_MOST,
  type FileChange,
  type FileKind,
  type FileOrigin,
  isAsItCame,
  isOnItsSide,
  KEPT_DAYS,
  type Lay,
  pictureKind,
  readFileName,
} from '@radiant/contract';
import { Op, type Sequelize } from 'sequelize';
import { CONFIG, type Config } from '../common/config.js';
import { ProblemException } from '../common/problem.filter.js';
import { ArrivalRow, CaseRow, FileRow } from '../database/database.js';
import { DATABASE } from '../database/database.module.js';
import { Pool } from '../pool/pool.js';
import type { Seen } from '../work/inspect.js';
import { isShownByAll, shownPicture } from '../work/picture.js';
import { pinsOf } from './pins.js';
import { Renditions, type SIDES_PX } from './renditions.js';
import { ContentStore } from './store.js';

/**
 * A file as it arrives: where it lies among the drafts, its name, what delivered it, and what is known of a photograph.
 */
export interface Arrival extends FileChange, FileOrigin {
  readonly kind: FileKind;
  readonly name: string;
  readonly path: string;
  readonly origin: string;
}

const DAY_MS = 24 * 3600 * 1000;
const HOUR_MS = 3600 * 1000;

@Injectable()
export class FilesService implements OnApplicationBootstrap, OnModuleDestroy {
  private readonly log = new Logger('files');
  private readonly store: ContentStore;
  private readonly renditions: Renditions;
  private readonly drafts: string;
  private hourly: NodeJS.Timeout | undefined;

  constructor(
    @Inject(CONFIG) config: Config,
    @Inject(DATABASE) private readonly db: Sequelize,
    private readonly pool: Pool,
  ) {
    this.drafts = config.incomingDir;
    this.store = new ContentStore(join(config.dataDir, 'files'), this.drafts);
    this.renditions = new Renditions(join(config.dataDir, 'thumbnails'));
  }

  async onApplicationBootstrap(): Promise<void> {
    await mkdir(this.drafts, { recursive: true, mode: 0o700 });
    await this.dropOldDrafts();
    await this.store.bringBack();
    const clear = () =>
      void this.forgetOld().catch((error: Error) => this.log.warn(`old files were not cleared: ${error.message}`));
    clear();
    this.hourly = setInterval(clear, HOUR_MS);
    this.hourly.unref();
  }

  onModuleDestroy(): void {
    clearInterval(this.hourly);
  }

  /** Uploads that were broken off by the end of a server belong to nobody; those of a day may be another server's. */
  private async dropOldDrafts(): Promise<void> {
    for (const name of await readdir(this.drafts)) {
      const path = join(this.drafts, name);
      const { mtimeMs } = await stat(path).catch(() => ({ mtimeMs: Date.now() }));
      if (Date.now() - mtimeMs > DAY_MS) await unlink(path).catch(() => undefined);
    }
  }

  /** A place for a file that is being written. Whoever asks takes it away again, or gives it to `keep` or `deliver`. */
  draft(): Promise<string> {
    return this.store.draft();
  }

  pathOf(file: Pick<FileRow, 'sha256'>): string {
    return this.store.pathOf(file.sha256);
  }

  /** Looks at a file, in a thread. @throws ProblemException or Refusal with one sentence */
  look(kind: FileKind, path: string): Promise<Seen> {
    return this.pool.read('inspect', { kind, path });
  }

  /**
   * Keeps a draft's bytes for as long as it takes to record them, and looks again afterwards that they are there. The
   * draft is taken away at the end. Nothing is kept when recording fails.
   */
  async placed<T>(
    drafts: readonly { readonly path: string; readonly sha256: string }[],
    record: () => Promise<T>,
  ): Promise<T> {
    try {
      for (const d of drafts) await this.store.adopt(d.path, d.sha256);
      const out = await record();
      for (const d of drafts) await this.store.adopt(d.path, d.sha256);
      return out;
    } catch (error) {
      for (const d of drafts) await this.release(d.sha256).catch(() => undefined);
      throw error;
    } finally {
      for (const d of drafts) await unlink(d.path).catch(() => undefined);
    }
  }

  /** The row of a file that was looked at; within a transaction where one is open. */
  record(
    caseId: string,
    seen: Seen,
    arrival: Omit<Arrival, 'path'>,
    as: { id?: string; at?: Date } = {},
  ): Promise<FileRow> {
    const name = arrival.name.slice(0, FILE_NAME_MOST) || 'unnamed';
    const named = readFileName(name);
    const made = seen.role === 'working' ? arrival : undefined;
    return FileRow.create({
      id: as.id ?? randomUUID(),
      caseId,
      kind: seen.kind,
      jaw: seen.role === 'original' ? (arrival.jaw ?? null) : seen.jaw,
      role: seen.role,
      parentId: made?.parentId ?? null,
      frame: made?.frame ?? null,
      name,
      mime: seen.mime,
      sha256: seen.sha256,
      bytes: seen.bytes,
      width: seen.width,
      height: seen.height,
      origin: arrival.origin,
      at: as.at ?? new Date(),
      view: seen.kind !== 'photo' ? null : arrival.view !== undefined ? arrival.view : named.view,
      state: arrival.state !== undefined ? arrival.state : named.state,
      takenOn: arrival.takenOn ?? null,
      takenBy: arrival.takenBy ?? '',
    });
  }

  /**
   * Keeps a file unless the case holds the same bytes already; put away, they come back. Several deliveries of the same
   * bytes to one case are taken one after the other.
   * @throws ProblemException or Refusal with one sentence; nothing is kept then
   */
  async deliver(caseId: string, arrival: Arrival): Promise<{ row: FileRow; already: boolean }> {
    try {
      const seen = await this.look(arrival.kind, arrival.path);
      return await this.placed([{ path: arrival.path, sha256: seen.sha256 }], () =>
        this.db.transaction(async (transaction) => {
          await CaseRow.findByPk(caseId, { lock: transaction.LOCK.UPDATE });
          const held = await FileRow.findOne({ where: { caseId, sha256: seen.sha256 } });
          if (held) return { row: held.removedAt ? await held.update({ removedAt: null }) : held, already: true };
          const { parentId } = arrival;
          if (!parentId) return { row: await this.record(caseId, seen, arrival), already: false };
          const parent = await FileRow.findOne({ where: { id: parentId, caseId } });
          if (parent?.role !== 'original')
            throw new ProblemException(
              422,
              'Not accepted',
              'A working copy is made of a scan of this case as it came.',
            );
          // The copy shows the mouth as its original does; its teeth say of which jaw both are.
          const row = await this.record(caseId, seen, { state: parent.state ?? null, ...arrival });
          if (row.role === 'working') await parent.update({ jaw: row.jaw ?? null });
          return { row, already: false };
        }),
      );
    } finally {
      await unlink(arrival.path).catch(() => undefined);
    }
  }

  async find(caseId: string, id: string): Promise<FileRow | null> {
    return FileRow.findOne({ where: { id, caseId } });
  }

  /** The case's files, oldest first; those put away are left out. */
  async list(caseId: string): Promise<FileRow[]> {
    return FileRow.findAll({ where: { caseId, removedAt: null }, order: [['at', 'ASC']] });
  }

  /** The case's files, and of those put away what something still stands on. */
  async needed(caseId: string): Promise<FileRow[]> {
    const pinned = new Set((await pinsOf(caseId)).map((p) => p.fileId));
    return (await FileRow.findAll({ where: { caseId }, order: [['at', 'ASC']] })).filter(
      (f) => !f.removedAt || pinned.has(f.id),
    );
  }

  /** Files that were put away and can still be brought back, newest first. */
  async removed(caseId: string): Promise<FileRow[]> {
    return FileRow.findAll({ where: { caseId, removedAt: { [Op.gt]: keptSince() } }, order: [['removedAt', 'DESC']] });
  }

  /** @throws ProblemException 422 for a jaw that the file tells by itself, or that it can't have */
  async describe(row: FileRow, change: FileChange): Promise<FileRow> {
    if (change.jaw !== undefined && change.jaw !== (row.jaw ?? null) && row.role !== 'original')
      throw new ProblemException(
        422,
        'Not accepted',
        'Only of a scan as it came is the jaw told; others say it themselves.',
      );
    if (change.quarterTurns !== undefined || change.mirrored !== undefined) await this.requireMovable(row, change);
    return row.update({ ...change });
  }

  /** @throws ProblemException 409 for a photograph that marks, a scale or an overlay stand on; 422 for a scan */
  private async requireMovable(row: FileRow, to: Partial<Lay>): Promise<void> {
    const now = layOf(row);
    if ((to.quarterTurns ?? now.quarterTurns) === now.quarterTurns && (to.mirrored ?? now.mirrored) === now.mirrored)
      return;
    if (row.kind !== 'photo')
      throw new ProblemException(422, 'Not accepted', 'Only photographs are turned and mirrored.');
    const pin = (await pinsOf(row.caseId)).find((p) => p.fileId === row.id);
    if (pin)
      throw new ProblemException(
        409,
        'Still needed',
        'Measures stand on this photograph as it lies now; take them off its bench before it is turned or mirrored.',
      );
  }

  /**
   * Puts a file away; it can be brought back for KEPT_DAYS.
   * @throws ProblemException 409 while measures, an overlay or a contour stand on it
   */
  async putAway(row: FileRow): Promise<FileRow> {
    const pin = (await pinsOf(row.caseId)).find((p) => p.fileId === row.id);
    if (pin) throw new ProblemException(409, 'Still needed', pin.sentence);
    return row.update({ removedAt: new Date() });
  }

  async bringBack(row: FileRow): Promise<FileRow> {
    return row.update({ removedAt: null });
  }

  /**
   * Forgets what was put away longer ago than KEPT_DAYS; its bytes go when nobody else holds the same. What something
   * has come to stand on in the meantime stays.
   */
  async forgetOld(): Promise<number> {
    const old = await FileRow.findAll({ where: { removedAt: { [Op.lte]: keptSince() } } });
    let gone = 0;
    for (const caseId of new Set(old.map((f) => f.caseId))) {
      const pinned = new Set((await pinsOf(caseId)).map((p) => p.fileId));
      for (const row of old.filter((f) => f.caseId === caseId && !pinned.has(f.id))) {
        await row.destroy();
        await FileRow.update({ parentId: null }, { where: { caseId, parentId: row.id } });
        await this.release(row.sha256);
        gone++;
      }
    }
    return gone;
  }

  held(sha256: string): Promise<Buffer> {
    return this.store.get(sha256);
  }

  heldPath(sha256: string): string {
    return this.store.pathOf(sha256);
  }

  /** A small picture of bytes that no case holds yet. */
  async heldThumbnail(sha256: string): Promise<Buffer> {
    const mime = pictureKind(await this.store.head(sha256, 16)) ?? 'image/jpeg';
    return this.renditions.of({ sha256, size: 'thumbnail', lay: AS_IT_CAME }, () => this.readable({ sha256, mime }));
  }

  /** Lets bytes go unless a case or a waiting arrival still has them. */
  async release(sha256: string): Promise<void> {
    const needed = async () =>
      (await FileRow.count({ where: { sha256 } })) > 0 || (await ArrivalRow.count({ where: { sha256 } })) > 0;
    if (await this.store.drop(sha256, needed)) await this.renditions.drop(sha256);
  }

  /** The bytes as they came. */
  original(file: FileRow): Promise<Buffer> {
    return this.store.get(file.sha256);
  }

  /**
   * The bytes as they are shown and handed on, and what they are: a photograph without where and by whom it was taken,
   * as it was put, in a format that every browser reads.
   */
  async read(file: FileRow): Promise<{ readonly bytes: Buffer; readonly mime: string }> {
    if (file.kind !== 'photo') return { bytes: await this.original(file), mime: file.mime };
    const lay = layOf(file);
    if (isShownByAll(file.mime) && isAsItCame(lay)) {
      const clean = await shownPicture(await this.original(file), file.mime);
      return { bytes: Buffer.from(clean.buffer, clean.byteOffset, clean.byteLength), mime: file.mime };
    }
    const { sha256 } = file;
    const bytes = await this.renditions.of({ sha256, size: 'whole', lay }, () => this.readable(file));
    return { bytes, mime: 'image/jpeg' };
  }

  /** @param size a thumbnail for the wall, or a preview that fills a screen */
  smaller(file: FileRow, size: keyof typeof SIDES_PX): Promise<Buffer> {
    const { sha256 } = file;
    return this.renditions.of({ sha256, size, lay: layOf(file) }, () => this.readable(file));
  }

  /** Bytes that the picture library reads: those of the store, or a JPEG of those that it can't read, made in a thread. */
  private readable({ sha256, mime }: Pick<FileRow, 'sha256' | 'mime'>): Promise<Buffer> {
    if (mime !== 'image/heic') return this.store.get(sha256);
    return this.renditions.kept(`${sha256}-decoded`, async () =>
      Buffer.from(await this.pool.read('decode', { path: this.store.pathOf(sha256) })),
    );
  }
}

export const layOf = (f: FileRow): Lay => ({ quarterTurns: f.quarterTurns ?? 0, mirrored: f.mirrored ?? false });

const keptSince = () => new Date(Date.now() - KEPT_DAYS * DAY_MS);

export function describeFile(f: FileRow): CaseFile {
  return {
    id: f.id,
    kind: f.kind,
    jaw: f.jaw ?? null,
    role: f.role ?? null,
    sha256: f.sha256,
    parentId: f.parentId ?? null,
    frame: f.frame ?? null,
    name: f.name,
    mime: f.mime,
    bytes: f.bytes,
    width: isOnItsSide(layOf(f)) ? f.height : f.width,
    height: isOnItsSide(layOf(f)) ? f.width : f.height,
    origin: f.origin,
    at: f.at.toISOString(),
    view: f.view ?? null,
    state: f.state ?? null,
    takenOn: f.takenOn ?? null,
    takenBy: f.takenBy ?? '',
    lay: layOf(f),
    removedAt: f.removedAt?.toISOString() ?? null,
  };
}
