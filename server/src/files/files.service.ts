import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { Inject, Injectable, Logger, type OnModuleDestroy, type OnModuleInit } from '@nestjs/common';
import { type CaseFile, type FileChange, type FileKind, KEPT_DAYS, readFileName } from '@radiant/contract';
import { Op, type Transaction } from 'sequelize';
import { ProblemException } from '../common/problem.filter.js';
import type { Config } from '../config.js';
import { ArrivalRow, FileRow, SectionRow } from '../database/database.js';
import { CONFIG } from '../database/database.module.js';
import { inspectFile } from './inspect.js';
import { ContentStore } from './store.js';
import { type SIDES_PX, Thumbnails } from './thumbnails.js';

/** A file as it arrives: bytes, name, what delivered it, and what is known of a photograph. */
export interface Arrival extends FileChange {
  readonly kind: FileKind;
  readonly name: string;
  readonly bytes: Buffer;
  readonly origin: string;
}

const DAY_MS = 24 * 3600 * 1000;

@Injectable()
export class FilesService implements OnModuleInit, OnModuleDestroy {
  private readonly log = new Logger('files');
  private readonly store: ContentStore;
  private readonly thumbnails: Thumbnails;
  private daily: NodeJS.Timeout | undefined;

  constructor(@Inject(CONFIG) config: Config) {
    this.store = new ContentStore(join(config.dataDir, 'files'));
    this.thumbnails = new Thumbnails(join(config.dataDir, 'thumbnails'));
  }

  onModuleInit(): void {
    const clear = () => void this.forgetOld().catch((error: Error) => this.log.warn(`old files were not cleared: ${error.message}`));
    this.daily = setInterval(clear, DAY_MS);
    this.daily.unref();
  }

  onModuleDestroy(): void {
    clearInterval(this.daily);
  }

  /** Checks and keeps a file. @throws ProblemException or Refusal with one sentence; nothing is kept then */
  async keep(caseId: string, arrival: Arrival, as: { id?: string; at?: Date; transaction?: Transaction } = {}): Promise<FileRow> {
    const seen = await inspectFile(arrival.kind, arrival.bytes);
    const sha256 = await this.store.put(arrival.bytes);
    const named = arrival.kind === 'photo' ? readFileName(arrival.name) : { view: null, state: null };
    return FileRow.create(
      {
        id: as.id ?? randomUUID(),
        caseId,
        kind: seen.kind,
        name: arrival.name.slice(0, 255) || 'unnamed',
        mime: seen.mime,
        sha256,
        bytes: arrival.bytes.length,
        width: seen.width,
        height: seen.height,
        origin: arrival.origin,
        at: as.at ?? new Date(),
        view: arrival.view !== undefined ? arrival.view : named.view,
        state: arrival.state !== undefined ? arrival.state : named.state,
        takenOn: arrival.takenOn ?? null,
        takenBy: arrival.takenBy ?? '',
      },
      { transaction: as.transaction ?? null },
    );
  }

  /**
   * Keeps a file unless the case holds the same bytes already; put away, they come back.
   * @throws ProblemException or Refusal with one sentence; nothing is kept then
   */
  async deliver(caseId: string, arrival: Arrival): Promise<{ row: FileRow; already: boolean }> {
    const held = await FileRow.findOne({ where: { caseId, sha256: this.store.nameOf(arrival.bytes) } });
    if (!held) return { row: await this.keep(caseId, arrival), already: false };
    if (held.removedAt) await held.update({ removedAt: null });
    return { row: held, already: true };
  }

  async find(caseId: string, id: string): Promise<FileRow | null> {
    return FileRow.findOne({ where: { id, caseId } });
  }

  /** The case's files, oldest first; those put away are left out. */
  async list(caseId: string): Promise<FileRow[]> {
    return FileRow.findAll({ where: { caseId, removedAt: null }, order: [['at', 'ASC']] });
  }

  /** Files that were put away and can still be brought back, newest first. */
  async removed(caseId: string): Promise<FileRow[]> {
    return FileRow.findAll({ where: { caseId, removedAt: { [Op.gt]: keptSince() } }, order: [['removedAt', 'DESC']] });
  }

  async describe(row: FileRow, change: FileChange): Promise<FileRow> {
    return row.update({ ...change });
  }

  /**
   * Puts a file away; it can be brought back for KEPT_DAYS.
   * @throws ProblemException 409 while measures or a contour stand on it
   */
  async putAway(row: FileRow): Promise<FileRow> {
    const sections = await SectionRow.findAll({ where: { caseId: row.caseId } });
    const uses = sections.find((s) => usedBy(s.data as Used).includes(row.id));
    if (uses) {
      const what = row.kind === 'photo' ? 'Measures stand on this photograph' : 'The contour stands on this scan';
      throw new ProblemException(409, 'Still needed', `${what}; choose another in ${uses.name} first.`);
    }
    return row.update({ removedAt: new Date() });
  }

  async bringBack(row: FileRow): Promise<FileRow> {
    return row.update({ removedAt: null });
  }

  /** Forgets what was put away longer ago than KEPT_DAYS; its bytes go when nobody else holds the same. */
  async forgetOld(): Promise<number> {
    const old = await FileRow.findAll({ where: { removedAt: { [Op.lte]: keptSince() } } });
    for (const row of old) {
      await row.destroy();
      await this.release(row.sha256);
    }
    return old.length;
  }

  /** Keeps bytes that belong to no case yet. Returns the name to ask for them by. */
  hold(bytes: Buffer): Promise<string> {
    return this.store.put(bytes);
  }

  held(sha256: string): Promise<Buffer> {
    return this.store.get(sha256);
  }

  heldThumbnail(sha256: string): Promise<Buffer> {
    return this.thumbnails.of(sha256, 'thumbnail', () => this.held(sha256));
  }

  /** Lets bytes go unless a case or a waiting arrival still has them. */
  async release(sha256: string): Promise<void> {
    if ((await FileRow.count({ where: { sha256 } })) > 0 || (await ArrivalRow.count({ where: { sha256 } })) > 0) return;
    await this.store.drop(sha256);
    await this.thumbnails.drop(sha256);
  }

  read(file: FileRow): Promise<Buffer> {
    return this.store.get(file.sha256);
  }

  /** @param size a thumbnail for the wall, or a preview that fills a screen */
  smaller(file: FileRow, size: keyof typeof SIDES_PX): Promise<Buffer> {
    return this.thumbnails.of(file.sha256, size, () => this.read(file));
  }
}

/** What of a section stands on files. */
interface Used {
  readonly photoId?: string | null;
  readonly scanId?: string | null;
  readonly views?: readonly { readonly photoId?: string | null }[];
}

const usedBy = (data: Used): (string | null | undefined)[] => [data.photoId, data.scanId, ...(data.views ?? []).map((v) => v.photoId)];

const keptSince = () => new Date(Date.now() - KEPT_DAYS * DAY_MS);

export function describeFile(f: FileRow): CaseFile {
  return {
    id: f.id,
    kind: f.kind,
    name: f.name,
    mime: f.mime,
    bytes: f.bytes,
    width: f.width,
    height: f.height,
    origin: f.origin,
    at: f.at.toISOString(),
    view: f.view ?? null,
    state: f.state ?? null,
    takenOn: f.takenOn ?? null,
    takenBy: f.takenBy ?? '',
    removedAt: f.removedAt?.toISOString() ?? null,
  };
}
