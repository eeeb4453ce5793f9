import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { Inject, Injectable } from '@nestjs/common';
import type { CaseFile, FileKind } from '@radiant/contract';
import type { Transaction } from 'sequelize';
import type { Config } from '../config.js';
import { FileRow } from '../database/database.js';
import { CONFIG } from '../database/database.module.js';
import { inspectFile } from './inspect.js';
import { ContentStore } from './store.js';

/** A file as it arrives: bytes, name, what delivered it. */
export interface Arrival {
  readonly kind: FileKind;
  readonly name: string;
  readonly bytes: Buffer;
  readonly origin: string;
}

@Injectable()
export class FilesService {
  private readonly store: ContentStore;

  constructor(@Inject(CONFIG) config: Config) {
    this.store = new ContentStore(join(config.dataDir, 'files'));
  }

  /** Checks and keeps a file. @throws ProblemException or Refusal with one sentence; nothing is kept then */
  async keep(caseId: string, arrival: Arrival, as: { id?: string; at?: Date; transaction?: Transaction } = {}): Promise<FileRow> {
    const seen = await inspectFile(arrival.kind, arrival.bytes);
    const sha256 = await this.store.put(arrival.bytes);
    return FileRow.create(
      {
        id: as.id ?? randomUUID(),
        caseId,
        kind: arrival.kind,
        name: arrival.name.slice(0, 255) || 'unnamed',
        mime: seen.mime,
        sha256,
        bytes: arrival.bytes.length,
        width: seen.width,
        height: seen.height,
        origin: arrival.origin,
        at: as.at ?? new Date(),
      },
      { transaction: as.transaction ?? null },
    );
  }

  async find(caseId: string, id: string): Promise<FileRow | null> {
    return FileRow.findOne({ where: { id, caseId } });
  }

  async list(caseId: string): Promise<FileRow[]> {
    return FileRow.findAll({ where: { caseId }, order: [['at', 'ASC']] });
  }

  read(file: FileRow): Promise<Buffer> {
    return this.store.get(file.sha256);
  }
}

export function describeFile(f: FileRow): CaseFile {
  return { id: f.id, kind: f.kind, name: f.name, mime: f.mime, bytes: f.bytes, width: f.width, height: f.height, origin: f.origin, at: f.at.toISOString() };
}
