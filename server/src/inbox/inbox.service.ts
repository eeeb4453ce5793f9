import { randomUUID } from 'node:crypto';
import { mkdir, readdir, readFile, rename, stat, unlink } from 'node:fs/promises';
import { basename, dirname, join, relative, sep } from 'node:path';
import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnModuleDestroy } from '@nestjs/common';
import type { ArrivalState, Arrived, FileKind, TrayDecision } from '@radiant/contract';
import { Refusal } from '@radiant/core';
import { type FSWatcher, watch } from 'chokidar';
import { ProblemException } from '../common/problem.filter.js';
import type { Config } from '../config.js';
import { ArrivalRow, CaseRow, Practice, SettingRow } from '../database/database.js';
import { CONFIG } from '../database/database.module.js';
import { FilesService } from '../files/files.service.js';
import type { SignedIn } from '../people/session.js';
import { kindOf, placeOf } from './naming.js';

const MAX_BYTES = 50 * 1024 * 1024;
/** A file counts as written when its size has not changed for so long. */
const SETTLED_MS = 700;
/** A file that could not be taken, because the database was away, is tried again after this. */
const AGAIN_MS = 5000;
const TOLD = 60;
const OWNER = 'inbox-practice';
/** Where files lie that are too large; its name keeps the watcher out. */
const REFUSED = '.refused';

/**
 * The watched folder: devices lay files into it, and they go to the case that they name. What names no case waits in a tray.
 * A file leaves the folder only after its bytes are kept and its arrival is recorded.
 */
@Injectable()
export class InboxService implements OnApplicationBootstrap, OnModuleDestroy {
  private readonly log = new Logger('inbox');
  private watcher: FSWatcher | undefined;
  private readonly again = new Set<NodeJS.Timeout>();
  private line: Promise<void> = Promise.resolve();
  readonly dir: string;

  constructor(
    @Inject(CONFIG) config: Config,
    private readonly files: FilesService,
  ) {
    this.dir = config.inboxDir;
  }

  async onApplicationBootstrap(): Promise<void> {
    await mkdir(this.dir, { recursive: true });
    await this.bringBackHalfTaken();
    // Asked again and again rather than told by the kernel: folders shared over a network tell nothing.
    this.watcher = watch(this.dir, {
      ignored: (path) => basename(path).startsWith('.'),
      usePolling: true,
      interval: 500,
      awaitWriteFinish: { stabilityThreshold: SETTLED_MS, pollInterval: 200 },
    });
    this.watcher.on('add', (path) => this.enqueue(path));
    this.watcher.on('error', (error) => this.log.warn(`the watched folder can’t be read: ${(error as Error).message}`));
  }

  async onModuleDestroy(): Promise<void> {
    for (const t of this.again) clearTimeout(t);
    await this.watcher?.close();
    await this.line;
  }

  private enqueue(path: string): void {
    this.line = this.line.then(() =>
      this.take(path).catch((error: Error) => {
        this.log.warn(`${basename(path)} was not taken yet: ${error.message}`);
        const timer = setTimeout(() => {
          this.again.delete(timer);
          this.enqueue(path);
        }, AGAIN_MS);
        timer.unref();
        this.again.add(timer);
      }),
    );
  }

  /** Files that a server was taking when it was ended get their names back. */
  private async bringBackHalfTaken(): Promise<void> {
    for (const entry of await readdir(this.dir, { recursive: true, withFileTypes: true })) {
      const own = /^\.taking-(.+)$/.exec(entry.name);
      if (entry.isFile() && own) await rename(join(entry.parentPath, entry.name), join(entry.parentPath, own[1] as string));
    }
  }

  private async take(path: string): Promise<void> {
    const info = await stat(path).catch(() => undefined);
    if (!info?.isFile()) return;
    const practiceId = await this.owner();
    // Before there is anybody, files wait in the folder.
    if (!practiceId) throw new Error('there is no practice yet');
    const cases = await CaseRow.findAll({ where: { practiceId } });
    const taking = join(dirname(path), `.taking-${basename(path)}`);
    // Of several servers that watch one folder, the first to rename has it.
    if (
      !(await rename(path, taking).then(
        () => true,
        () => false,
      ))
    )
      return;
    try {
      const { device, caseId } = placeOf(relative(this.dir, path).split(sep).join('/'), cases);
      await this.record({
        practiceId,
        caseId,
        name: basename(path).slice(0, 255),
        origin: (device ?? 'watched folder').slice(0, 120),
        at: info.mtime,
        bytes: info.size > MAX_BYTES ? undefined : await readFile(taking),
        size: info.size,
      });
    } catch (error) {
      await rename(taking, path);
      throw error;
    }
    if (info.size <= MAX_BYTES) return unlink(taking);
    // Too large to be kept: it stays the device's, out of the way.
    await mkdir(join(this.dir, REFUSED), { recursive: true });
    await rename(taking, join(this.dir, REFUSED, basename(path)));
  }

  /** The practice whose folder it is: the one that was there when the first file came, and for good. */
  private async owner(): Promise<string | undefined> {
    const held = await SettingRow.findByPk(OWNER);
    if (held && (await Practice.findByPk(held.value))) return held.value;
    const practice = await Practice.findOne();
    if (practice) await SettingRow.upsert({ name: OWNER, value: practice.id });
    return practice?.id;
  }

  private async record(a: {
    practiceId: string;
    caseId: string | undefined;
    name: string;
    origin: string;
    at: Date;
    bytes: Buffer | undefined;
    size: number;
  }): Promise<void> {
    const kind = a.bytes && kindOf(a.name, a.bytes);
    let state: ArrivalState = 'tray';
    let sentence = '';
    let fileId: string | null = null;
    if (!a.bytes) [state, sentence] = ['refused', `The file is larger than 50 MB; it lies in the folder ${REFUSED} of the inbox.`];
    else if (!kind) sentence = 'This is not a JPEG, PNG, STL, PLY or OBJ file.';
    else if (!a.caseId) sentence = 'Its name begins with no case’s name.';
    else {
      try {
        const { row, already } = await this.files.deliver(a.caseId, {
          kind,
          name: a.name,
          bytes: a.bytes,
          origin: a.origin,
          takenOn: a.at.toISOString().slice(0, 10),
        });
        fileId = row.id;
        state = already ? 'held' : 'taken';
        if (already) sentence = 'The case held the same file already.';
      } catch (error) {
        if (!(error instanceof ProblemException) && !(error instanceof Refusal)) throw error;
        [state, sentence] = ['refused', error.message];
      }
    }
    const waits = state === 'tray' || state === 'refused';
    await ArrivalRow.create({
      id: randomUUID(),
      practiceId: a.practiceId,
      caseId: a.caseId ?? null,
      fileId,
      name: a.name,
      kind: kind ?? null,
      bytes: a.size,
      // What waits is kept too, so that nothing a device has sent is lost before somebody decides.
      sha256: waits && a.bytes ? await this.files.hold(a.bytes) : '',
      state,
      sentence,
      origin: a.origin,
      at: new Date(),
    });
  }

  /** What arrived last, the newest first, and everything that waits. */
  async arrivals(me: SignedIn): Promise<Arrived[]> {
    const where = { practiceId: me.practiceId };
    const latest = await ArrivalRow.findAll({ where, order: [['at', 'DESC']], limit: TOLD });
    const waiting = await ArrivalRow.findAll({ where: { ...where, state: ['tray', 'refused'] }, order: [['at', 'DESC']] });
    const rows = [...new Map([...waiting, ...latest].map((r) => [r.id, r])).values()].sort((a, b) => b.at.getTime() - a.at.getTime());
    const names = new Map((await CaseRow.findAll({ where: { id: rows.flatMap((r) => r.caseId ?? []) } })).map((c) => [c.id, c.name]));
    return rows.map((r) => describe(r, names));
  }

  /**
   * Gives a file of the tray to a case.
   * @throws ProblemException 404, 422; Refusal; it goes on waiting then
   */
  async place(id: string, decision: TrayDecision, me: SignedIn): Promise<Arrived> {
    const row = await this.waiting(id, me);
    const own = await CaseRow.findOne({ where: { id: decision.caseId, practiceId: me.practiceId } });
    if (!own) throw new ProblemException(422, 'Not accepted', 'This case does not exist.');
    if (!row.kind || !row.sha256) throw new ProblemException(422, 'Not accepted', row.sentence);
    const { caseId: _, ...said } = decision;
    const { row: file, already } = await this.files.deliver(own.id, {
      takenBy: me.name,
      ...said,
      kind: row.kind as FileKind,
      name: row.name,
      bytes: await this.files.held(row.sha256),
      origin: row.origin,
    });
    const held = row.sha256;
    await row.update({ caseId: own.id, fileId: file.id, state: already ? 'held' : 'taken', sentence: `given to the case by ${me.name}`, sha256: '' });
    await this.files.release(held);
    return describe(row, new Map([[own.id, own.name]]));
  }

  /** Throws a waiting file away. */
  async throwAway(id: string, me: SignedIn): Promise<void> {
    const row = await this.waiting(id, me);
    await row.destroy();
    if (row.sha256) await this.files.release(row.sha256);
  }

  /** A small picture of a waiting photograph. */
  async picture(id: string, me: SignedIn): Promise<Buffer> {
    const row = await this.waiting(id, me);
    if (row.kind !== 'photo' || !row.sha256) throw new ProblemException(404, 'Not found', 'There is nothing here that you may see.');
    return this.files.heldThumbnail(row.sha256).catch(() => {
      throw new ProblemException(404, 'Not found', 'The picture can’t be shown.');
    });
  }

  private async waiting(id: string, me: SignedIn): Promise<ArrivalRow> {
    const row = await ArrivalRow.findOne({ where: { id, practiceId: me.practiceId, state: ['tray', 'refused'] } });
    if (!row) throw new ProblemException(404, 'Not found', 'There is nothing here that you may see.');
    return row;
  }
}

function describe(r: ArrivalRow, names: ReadonlyMap<string, string>): Arrived {
  return {
    id: r.id,
    name: r.name,
    kind: r.kind as FileKind | null,
    bytes: r.bytes,
    state: r.state,
    sentence: r.sentence,
    origin: r.origin,
    at: r.at.toISOString(),
    caseId: r.caseId,
    caseName: r.caseId ? (names.get(r.caseId) ?? null) : null,
  };
}
