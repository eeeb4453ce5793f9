import { createHash, randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { copyFile, lstat, mkdir, open, readdir, rename, rmdir, stat, unlink } from 'node:fs/promises';
import { hostname } from 'node:os';
import { basename, dirname, join, parse } from 'node:path';
import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnModuleDestroy } from '@nestjs/common';
import {
  type ArrivalState,
  type Arrived,
  FILE_NAME_MOST,
  type FileKind,
  isDay,
  PHOTO_MOST_BYTES,
  PHOTO_TOO_LARGE,
  PICTURE_NAMES,
  type TrayDecision,
} from '@radiant/contract';
import { Refusal } from '@radiant/core';
import { Op } from 'sequelize';
import { CONFIG, type Config } from '../common/config.js';
import { ProblemException } from '../common/problem.filter.js';
import { ArrivalRow, CaseRow, type FileRow, Practice, SettingRow } from '../database/database.js';
import { FilesService } from '../files/files.service.js';
import type { SignedIn } from '../people/session.js';
import { filesBelow, type OddName, Rest, type Sight } from './folder.js';
import { kindOf, placeOf } from './naming.js';

/** The folder is looked through so often, ms. */
const LOOK_MS = 500;
/** After the database was away the folder is looked at again so much later, ms. */
const AGAIN_MS = 5000;
const TOLD = 60;
const DAY_MS = 24 * 3600 * 1000;
const OWNER = 'inbox-practice';
/** Where files lie that are too large; its name keeps it from being looked into. */
const REFUSED = '.refused';
/** Where a file lies while it is being taken: `.taking/NUMBER/its own place`. */
const TAKING = '.taking';

/**
 * The watched folder: devices lay files into it, and they go to the case that they name. What names no case waits in a
 * tray. A file is taken when its size and time have rested, and leaves the folder only after its bytes are kept, its
 * arrival is recorded, and it is still the same.
 */
@Injectable()
export class InboxService implements OnApplicationBootstrap, OnModuleDestroy {
  private readonly log = new Logger('inbox');
  private readonly rest: Rest;
  private timer: NodeJS.Timeout | undefined;
  private looking: Promise<void> = Promise.resolve();
  private ending = false;
  /** Names that are no UTF-8 and were told. */
  private readonly told = new Set<string>();
  readonly dir: string;
  /** Which server is taking a file: several may watch one folder. */
  private readonly mark: string;

  constructor(
    @Inject(CONFIG) config: Config,
    private readonly files: FilesService,
  ) {
    this.dir = config.inboxDir;
    this.rest = new Rest(config.inboxRestMs);
    this.mark = `${hostname()}-${config.port}-`;
  }

  async onApplicationBootstrap(): Promise<void> {
    await mkdir(this.dir, { recursive: true });
    await this.bringBackHalfTaken();
    this.again(0);
  }

  async onModuleDestroy(): Promise<void> {
    this.ending = true;
    clearTimeout(this.timer);
    await this.looking;
  }

  /** Asked again and again rather than told by the kernel: folders shared over a network tell nothing. */
  private again(ms: number): void {
    if (this.ending) return;
    this.timer = setTimeout(() => {
      this.looking = this.look().then(
        () => this.again(LOOK_MS),
        (error: Error) => {
          this.log.warn(`the watched folder waits: ${error.message}`);
          this.again(AGAIN_MS);
        },
      );
    }, ms);
    this.timer.unref();
  }

  private async look(): Promise<void> {
    const { files, odd } = await filesBelow(this.dir);
    for (const name of odd) await this.tellName(name);
    let trouble: Error | undefined;
    for (const f of this.rest.settled(files, performance.now())) {
      if (this.ending) return;
      // One file that can't be taken keeps no other from it.
      await this.take(f).catch((error: Error) => {
        this.rest.forget(f.path);
        trouble = error;
      });
    }
    if (trouble) throw trouble;
  }

  /** A name that is no UTF-8 can be neither shown nor asked for: the file stays where it is, and is told once. */
  private async tellName({ path, bytes }: OddName): Promise<void> {
    const key = bytes.toString('hex');
    if (this.told.has(key)) return;
    const practiceId = await this.owner();
    if (!practiceId) return;
    const name = basename(path).slice(0, FILE_NAME_MOST);
    const sentence = 'Its name is not written in UTF-8; it stays in the folder. Let the device give it another name.';
    const before = await ArrivalRow.count({
      where: { practiceId, name, sentence, at: { [Op.gt]: new Date(Date.now() - DAY_MS) } },
    });
    if (before === 0)
      await ArrivalRow.create({
        id: randomUUID(),
        practiceId,
        caseId: null,
        fileId: null,
        name,
        kind: null,
        bytes: 0,
        sha256: '',
        state: 'refused',
        sentence,
        origin: 'watched folder',
        at: new Date(),
      });
    this.told.add(key);
  }

  /** Files that this server was taking when it was ended get their places back; what others are taking is theirs. */
  private async bringBackHalfTaken(): Promise<void> {
    for (const number of await readdir(join(this.dir, TAKING)).catch(() => [] as string[])) {
      if (!number.startsWith(this.mark)) continue;
      const { files } = await filesBelow(join(this.dir, TAKING, number));
      for (const f of files) await this.putBack(join(this.dir, TAKING, number, f.path), f.path);
      await removeEmpty(join(this.dir, TAKING, number));
    }
  }

  /** Gives a file its place back, beside one that has come under the same name since. */
  private async putBack(from: string, path: string): Promise<void> {
    const wanted = join(this.dir, path);
    await mkdir(dirname(wanted), { recursive: true });
    await rename(from, await freePlace(wanted));
    this.rest.forget(path);
  }

  private async take(sight: Sight): Promise<void> {
    const practiceId = await this.owner();
    // Before there is anybody, files wait in the folder.
    if (!practiceId) return;
    const path = join(this.dir, sight.path);
    const number = join(this.dir, TAKING, `${this.mark}${randomUUID()}`);
    const taking = join(number, sight.path);
    await mkdir(dirname(taking), { recursive: true });
    try {
      // Of several servers that watch one folder, the first to rename has it.
      await rename(path, taking);
    } catch (error) {
      await removeEmpty(number);
      if ((error as NodeJS.ErrnoException).code === 'ENOENT') return;
      throw error;
    }
    try {
      if (!(await this.same(taking, sight))) return await this.putBack(taking, sight.path);
      const large = sight.size > PHOTO_MOST_BYTES;
      const cases = await CaseRow.findAll({ where: { practiceId, removedAt: null }, attributes: ['id', 'name'] });
      const { device, caseId } = placeOf(sight.path, cases);
      const recorded = await this.record({
        practiceId,
        caseId,
        name: basename(sight.path).slice(0, FILE_NAME_MOST),
        origin: (device ?? 'watched folder').slice(0, 120),
        timeMs: sight.timeMs,
        path: large ? undefined : taking,
        size: sight.size,
      });
      // A slow device may have gone on writing: then what was taken is half of it, and the whole comes again.
      if (!(await this.same(taking, sight))) {
        await this.takeBack(recorded);
        return await this.putBack(taking, sight.path);
      }
      if (!large) return await unlink(taking);
      // Too large to be kept: it stays the device's, out of the way.
      await mkdir(join(this.dir, REFUSED), { recursive: true });
      await rename(taking, await freePlace(join(this.dir, REFUSED, basename(sight.path))));
    } catch (error) {
      await this.putBack(taking, sight.path).catch(() => undefined);
      throw error;
    } finally {
      await removeEmpty(number);
    }
  }

  private async same(path: string, { size, timeMs }: Sight): Promise<boolean> {
    const now = await lstat(path);
    return now.isFile() && now.size === size && now.mtimeMs === timeMs;
  }

  /** Forgets the half of a file that was recorded a moment ago. */
  private async takeBack({ row, fresh }: { row: ArrivalRow; fresh: FileRow | undefined }): Promise<void> {
    await row.destroy();
    await fresh?.destroy();
    for (const sha256 of [row.sha256, fresh?.sha256 ?? '']) if (sha256) await this.files.release(sha256);
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
    timeMs: number;
    path: string | undefined;
    size: number;
  }): Promise<{ row: ArrivalRow; fresh: FileRow | undefined }> {
    const kind = a.path ? kindOf(a.name, await beginning(a.path)) : undefined;
    let state: ArrivalState = 'tray';
    let sentence = '';
    let fileId: string | null = null;
    let fresh: FileRow | undefined;
    if (!a.path)
      [state, sentence] = [
        'refused',
        `${PHOTO_TOO_LARGE.slice(0, -1)}; it lies in the folder ${REFUSED} of the inbox.`,
      ];
    else if (!kind) sentence = `This is no picture in ${PICTURE_NAMES} and no STL, PLY, OBJ or CSV file.`;
    else if (!a.caseId) sentence = 'Its name begins with no case’s name.';
    else {
      try {
        const { row, already } = await this.files.deliver(a.caseId, {
          kind,
          name: a.name,
          path: await this.copied(a.path),
          origin: a.origin,
          takenOn: dayOf(a.timeMs),
        });
        fileId = row.id;
        state = already ? 'held' : 'taken';
        if (already) sentence = 'The case held the same file already.';
        else fresh = row;
      } catch (error) {
        if (!(error instanceof ProblemException) && !(error instanceof Refusal)) throw error;
        [state, sentence] = ['refused', error.message];
      }
    }
    const waits = state === 'tray' || state === 'refused';
    const create = (sha256: string) =>
      ArrivalRow.create({
        id: randomUUID(),
        practiceId: a.practiceId,
        caseId: a.caseId ?? null,
        fileId,
        name: a.name,
        kind: kind ?? null,
        bytes: a.size,
        sha256,
        state,
        sentence,
        origin: a.origin,
        at: new Date(),
      });
    if (!waits || !a.path) return { row: await create(''), fresh };
    // What waits is kept too, so that nothing a device has sent is lost before somebody decides.
    const path = await this.copied(a.path);
    const sha256 = await hashOf(path);
    return { row: await this.files.placed([{ path, sha256 }], () => create(sha256)), fresh };
  }

  /** A copy among the drafts: the folder may lie on another disk, and the original stays until all is recorded. */
  private async copied(path: string): Promise<string> {
    const draft = await this.files.draft();
    await copyFile(path, draft);
    return draft;
  }

  /** What arrived last, the newest first, and everything that waits. */
  async arrivals(me: SignedIn): Promise<Arrived[]> {
    const where = { practiceId: me.practiceId };
    const latest = await ArrivalRow.findAll({ where, order: [['at', 'DESC']], limit: TOLD });
    const waiting = await ArrivalRow.findAll({
      where: { ...where, state: ['tray', 'refused'] },
      order: [['at', 'DESC']],
    });
    const rows = [...new Map([...waiting, ...latest].map((r) => [r.id, r])).values()].sort(
      (a, b) => b.at.getTime() - a.at.getTime(),
    );
    const names = new Map(
      (await CaseRow.findAll({ where: { id: rows.flatMap((r) => r.caseId ?? []) } })).map((c) => [c.id, c.name]),
    );
    return rows.map((r) => describe(r, names));
  }

  /**
   * Gives a file of the tray to a case.
   * @throws ProblemException 404, 422; Refusal; it goes on waiting then
   */
  async place(id: string, decision: TrayDecision, me: SignedIn): Promise<Arrived> {
    const row = await this.waiting(id, me);
    const own = await CaseRow.findOne({ where: { id: decision.caseId, practiceId: me.practiceId, removedAt: null } });
    if (!own) throw new ProblemException(422, 'Not accepted', 'This case does not exist.');
    if (!row.kind || !row.sha256) throw new ProblemException(422, 'Not accepted', row.sentence);
    const { caseId: _, ...said } = decision;
    const { row: file, already } = await this.files.deliver(own.id, {
      takenBy: me.name,
      ...said,
      kind: row.kind as FileKind,
      name: row.name,
      path: await this.copied(this.files.heldPath(row.sha256)),
      origin: row.origin,
    });
    const held = row.sha256;
    await row.update({
      caseId: own.id,
      fileId: file.id,
      state: already ? 'held' : 'taken',
      sentence: `given to the case by ${me.name}`,
      sha256: '',
    });
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
    if (row.kind !== 'photo' || !row.sha256)
      throw new ProblemException(404, 'Not found', 'There is nothing here that you may see.');
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

/**
 * Takes away a folder and those in it, as far as nothing lies in them: a file that could not be put back stays where it
 * is.
 */
async function removeEmpty(dir: string): Promise<void> {
  for (const entry of await readdir(dir, { withFileTypes: true }).catch(() => []))
    if (entry.isDirectory()) await removeEmpty(join(dir, entry.name));
  await rmdir(dir).catch(() => undefined);
}

/** A place, or one beside it when something is there already. */
async function freePlace(wanted: string): Promise<string> {
  const there = await stat(wanted).catch(() => undefined);
  const { dir, name, ext } = parse(wanted);
  // Names have 255 bytes; a character may take four of them.
  return there
    ? join(dir, `${[...name].slice(0, 50).join('')} ${randomUUID().slice(0, 8)}${ext.slice(0, 10)}`)
    : wanted;
}

/** The day of a file's time; none where a device's clock is beyond all days. */
function dayOf(timeMs: number): string | null {
  const day = Math.abs(timeMs) < 8.64e15 ? new Date(timeMs).toISOString().slice(0, 10) : '';
  return isDay(day) ? day : null;
}

/** The first bytes of a file, by which its kind is told. */
async function beginning(path: string): Promise<Buffer> {
  const file = await open(path, 'r');
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(65_536), 0, 65_536, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await file.close();
  }
}

async function hashOf(path: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const chunk of createReadStream(path) as AsyncIterable<Buffer>) hash.update(chunk);
  return hash.digest('hex');
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
