import { isDay, parentByName, readFileName } from '@radiant/contract';
import { frameInHead, type Jaw, matrixInto } from '@radiant/core';
import {
  DataTypes,
  type ModelAttributeColumnOptions,
  type QueryInterface,
  QueryTypes,
  type Sequelize,
} from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';

const id = { type: DataTypes.CHAR(36), primaryKey: true, allowNull: false };
const text = (n: number) => ({ type: DataTypes.STRING(n), allowNull: false });
const at = { type: DataTypes.DATE(3), allowNull: false };
const of = (table: string, cascade = true) => ({
  type: DataTypes.CHAR(36),
  allowNull: false,
  references: { model: table, key: 'id' },
  onDelete: cascade ? 'CASCADE' : 'RESTRICT',
});
const version = { type: DataTypes.INTEGER, allowNull: false };
const json = { type: DataTypes.JSON, allowNull: false };

/** The first bytes of a kept file by its hash; nothing where they can't be read. */
export type HeadOf = (sha256: string) => Promise<Uint8Array | undefined>;

/**
 * The statements that change tables are not taken back when a migration ends half way, so every step can be done again:
 * tables are made where they are missing (createTable says so itself), and so are columns and indices here.
 */
class Steps {
  constructor(
    private readonly q: QueryInterface,
    /** The first bytes of a kept file; nothing where they can't be read. */
    readonly headOf: HeadOf,
  ) {}

  createTable(name: string, columns: Record<string, object | string>): Promise<void> {
    return this.q.createTable(name, columns as never);
  }

  async addColumn(table: string, name: string, column: ModelAttributeColumnOptions): Promise<void> {
    if (!(name in (await this.q.describeTable(table)))) await this.q.addColumn(table, name, column);
  }

  async addIndex(table: string, fields: string[], { unique = false } = {}): Promise<void> {
    const there = (await this.q.showIndex(table)) as { fields: { attribute: string }[] }[];
    const own = there.some((i) => i.fields.map((f) => f.attribute).join() === fields.join());
    if (!own) await this.q.addIndex(table, fields, { unique });
  }

  async query(sql: string, values: readonly (string | null)[] = []): Promise<void> {
    await this.q.sequelize.query(sql, { replacements: [...values] });
  }

  rows<T extends object>(sql: string, values: readonly string[] = []): Promise<T[]> {
    return this.q.sequelize.query<T>(sql, { type: QueryTypes.SELECT, replacements: [...values] });
  }

  async has(table: string, column: string): Promise<boolean> {
    return column in (await this.q.describeTable(table));
  }
}

/** Each migration once and for all: never changed after it has shipped, only followed by another. */
const MIGRATIONS: readonly { name: string; up: (q: Steps) => Promise<void> }[] = [
  {
    name: '0001-practices-people-cases',
    up: async (q) => {
      await q.createTable('practices', { id, name: text(120) });
      await q.createTable('people', {
        id,
        practice_id: of('practices'),
        name: text(120),
        email: { ...text(200), unique: true },
        password_hash: text(255),
        role: text(20),
      });
      await q.createTable('cases', { id, practice_id: of('practices'), name: text(80), opened_at: at, changed_at: at });
      await q.createTable('case_sections', {
        case_id: { ...of('cases'), primaryKey: true },
        name: { ...text(20), primaryKey: true },
        version,
        data: json,
        by_name: text(120),
        at,
      });
      await q.createTable('revisions', {
        case_id: { ...of('cases'), primaryKey: true },
        section: { ...text(20), primaryKey: true },
        version: { ...version, primaryKey: true },
        data: json,
        by_name: text(120),
        at,
      });
      await q.createTable('files', {
        id,
        case_id: of('cases'),
        kind: text(20),
        name: text(255),
        mime: text(80),
        sha256: text(64),
        bytes: { type: DataTypes.INTEGER, allowNull: false },
        width: DataTypes.INTEGER,
        height: DataTypes.INTEGER,
        origin: text(120),
        at,
      });
      await q.createTable('comments', {
        id,
        case_id: of('cases'),
        stage: text(20),
        body: { type: DataTypes.TEXT, allowNull: false },
        by_name: text(120),
        role: text(20),
        at,
      });
      await q.createTable('settings', { name: { ...text(40), primaryKey: true }, value: text(255) });
    },
  },
  {
    name: '0002-sessions-and-sign-in-tries',
    up: async (q) => {
      await q.createTable('sessions', {
        sid: { type: DataTypes.STRING(36), primaryKey: true },
        expires: DataTypes.DATE,
        data: DataTypes.TEXT,
      });
      await q.createTable('sign_in_tries', {
        name: { type: DataTypes.STRING(255), primaryKey: true },
        failures: { type: DataTypes.INTEGER, allowNull: false },
        window_ends: at,
      });
    },
  },
  {
    name: '0003-views-and-states-of-photographs',
    up: async (q) => {
      await q.addColumn('files', 'view', { type: DataTypes.STRING(30) });
      await q.addColumn('files', 'state', { type: DataTypes.STRING(20) });
      await q.addColumn('files', 'taken_on', { type: DataTypes.DATEONLY });
      await q.addColumn('files', 'taken_by', { ...text(120), defaultValue: '' });
      await q.addColumn('files', 'removed_at', { type: DataTypes.DATE(3) });
    },
  },
  {
    name: '0004-arrivals-in-the-watched-folder',
    up: async (q) => {
      await q.createTable('arrivals', {
        id,
        practice_id: of('practices'),
        case_id: { type: DataTypes.CHAR(36), references: { model: 'cases', key: 'id' }, onDelete: 'SET NULL' },
        file_id: DataTypes.CHAR(36),
        name: text(255),
        kind: DataTypes.STRING(20),
        bytes: { type: DataTypes.BIGINT, allowNull: false },
        sha256: text(64),
        state: text(20),
        sentence: text(500),
        origin: text(120),
        at,
      });
      await q.addIndex('arrivals', ['practice_id', 'at']);
    },
  },
  {
    name: '0005-contours-that-were-kept',
    up: async (q) => {
      await q.createTable('contours', {
        id,
        case_id: of('cases'),
        number: version,
        name: text(60),
        why: text(300),
        by_name: text(120),
        at,
        scan_id: DataTypes.CHAR(36),
        teeth: json,
        worn: DataTypes.JSON,
        approved_word: DataTypes.STRING(300),
        approved_by: DataTypes.STRING(120),
        approved_at: DataTypes.DATE(3),
      });
      // Two people who keep a version at one moment: the second is told and counts on.
      await q.addIndex('contours', ['case_id', 'number'], { unique: true });
    },
  },
  {
    name: '0006-days-are-days',
    up: async (q) => {
      // Week dates and moments passed for days once, and kept a whole list from being shown.
      for (const [table, where] of [
        ['case_sections', "name = 'meet'"],
        ['revisions', "section = 'meet'"],
      ] as const) {
        const days = await q.rows<{ day: string | null }>(
          `SELECT DISTINCT JSON_VALUE(data, '$.finishBy') AS day FROM ${table} WHERE ${where}`,
        );
        for (const { day } of days)
          if (day !== null && day !== 'null' && !isDay(day))
            await q.query(
              `UPDATE ${table} SET data = JSON_REMOVE(data, '$.finishBy') WHERE ${where} AND JSON_VALUE(data, '$.finishBy') = ?`,
              [day],
            );
      }
    },
  },
  {
    name: '0007-people-who-leave-and-ways-back-in',
    up: async (q) => {
      await q.addColumn('people', 'sessions_from', { type: DataTypes.DATE(3) });
      await q.addColumn('people', 'ended_at', { type: DataTypes.DATE(3) });
      await q.createTable('recovery_codes', {
        person_id: { ...of('people'), primaryKey: true },
        hash: text(64),
        expires_at: at,
      });
    },
  },
  {
    name: '0008-lists-of-many-cases-and-where-cases-come-from',
    up: async (q) => {
      await q.addColumn('cases', 'finish_by', { type: DataTypes.DATEONLY });
      await q.addColumn('cases', 'imported_by', { type: DataTypes.STRING(120) });
      await q.addColumn('cases', 'imported_at', { type: DataTypes.DATE(3) });
      await q.addColumn('cases', 'written_at', { type: DataTypes.DATE(3) });
      await q.addColumn('contours', 'claimed', { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false });
      await q.query(
        `UPDATE cases c JOIN case_sections s ON s.case_id = c.id AND s.name = 'meet'
         SET c.finish_by = NULLIF(JSON_VALUE(s.data, '$.finishBy'), 'null')`,
      );
      await q.addIndex('cases', ['practice_id', 'changed_at']);
      await q.addIndex('cases', ['practice_id', 'name']);
      // What has no day comes last; sorted in the index, since ten thousand rows take tens of milliseconds to sort.
      await q.query(
        "ALTER TABLE cases ADD COLUMN IF NOT EXISTS finish_sort DATE AS (COALESCE(finish_by, '9999-12-31')) PERSISTENT",
      );
      await q.query('CREATE INDEX IF NOT EXISTS cases_by_finish ON cases (practice_id, finish_sort, changed_at DESC)');
      await q.addIndex('files', ['case_id', 'kind', 'view']);
      await q.addIndex('files', ['sha256']);
      await q.addIndex('files', ['removed_at']);
      await q.addIndex('arrivals', ['sha256']);
      await q.addIndex('sessions', ['expires']);
    },
  },
  {
    name: '0009-files-say-what-they-are-and-come-from',
    up: async (q) => {
      await q.addColumn('files', 'jaw', { type: DataTypes.STRING(10) });
      await q.addColumn('files', 'role', { type: DataTypes.STRING(10) });
      await q.addColumn('files', 'parent_id', { type: DataTypes.CHAR(36) });
      await q.addColumn('files', 'frame', { type: DataTypes.JSON });
      await q.query("UPDATE files SET jaw = 'upper', role = 'working' WHERE kind = 'scan' AND role IS NULL");
      await q.query("UPDATE files SET kind = 'scan', jaw = 'lower', role = 'working' WHERE kind = 'lower-scan'");
      await q.query("UPDATE files SET kind = 'scan', role = 'original' WHERE kind = 'own-scan'");
      await q.query("UPDATE arrivals SET kind = 'scan' WHERE kind IN ('lower-scan', 'own-scan')");
      await originsOf(q);
      await q.addColumn('contours', 'made_from', { type: DataTypes.JSON });
      if (await q.has('contours', 'scan_id')) await groundsOf(q);
      await q.query('ALTER TABLE contours DROP COLUMN IF EXISTS scan_id');
    },
  },
  {
    name: '0010-settings-of-a-practice',
    up: async (q) => {
      await q.createTable('practice_settings', {
        practice_id: { ...of('practices'), primaryKey: true },
        version: { ...version, primaryKey: true },
        data: json,
        by_name: text(120),
        at,
      });
      // What a practice had set stood under a word and the beginning of its number.
      await q.query(
        `INSERT IGNORE INTO practice_settings (practice_id, version, data, by_name, at)
         SELECT p.id, 1, JSON_OBJECT('drafts', s.value), '', NOW(3) FROM practices p
         JOIN settings s ON s.name = CONCAT('drafts ', LEFT(p.id, 32)) WHERE s.value IN ('sealed', 'removed')`,
      );
      await q.query("DELETE FROM settings WHERE name LIKE 'drafts %'");
    },
  },
  {
    name: '0011-photographs-are-turned-and-mirrored',
    up: async (q) => {
      await q.addColumn('files', 'quarter_turns', { type: DataTypes.TINYINT, allowNull: false, defaultValue: 0 });
      await q.addColumn('files', 'mirrored', { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false });
    },
  },
  {
    name: '0012-cases-are-put-away-and-opened-last',
    up: async (q) => {
      await q.addColumn('cases', 'removed_at', { type: DataTypes.DATE(3) });
      await q.addColumn('cases', 'removed_by', { type: DataTypes.STRING(120) });
      await q.addIndex('cases', ['removed_at']);
      await q.createTable('openings', {
        person_id: { ...of('people'), primaryKey: true },
        case_id: { ...of('cases'), primaryKey: true },
        stage: text(20),
        at,
      });
    },
  },
  {
    name: '0013-comments-are-on-a-place',
    up: (q) => q.addColumn('comments', 'place', { type: DataTypes.JSON }),
  },
];

interface OldFile {
  readonly id: string;
  readonly case_id: string;
  readonly name: string;
  readonly sha256: string;
  readonly role: string;
  readonly jaw: Jaw | null;
}

/** Origin and frame stood in a working copy's name and in its head; the state of a scan as it came, in its name. */
async function originsOf(q: Steps): Promise<void> {
  const files = await q.rows<OldFile>(
    "SELECT id, case_id, name, sha256, role, jaw FROM files WHERE kind = 'scan' ORDER BY at",
  );
  const originals = files.filter((f) => f.role === 'original');
  for (const copy of files.filter((f) => f.role === 'working')) {
    const parent = parentByName(
      copy.name,
      originals.filter((f) => f.case_id === copy.case_id),
    );
    const head = await q.headOf(copy.sha256);
    const mouth = head && frameInHead(head);
    await q.query('UPDATE files SET parent_id = ?, frame = ? WHERE id = ?', [
      parent?.id ?? null,
      mouth ? JSON.stringify(matrixInto(mouth)) : null,
      copy.id,
    ]);
    if (parent) await q.query('UPDATE files SET jaw = ? WHERE id = ? AND jaw IS NULL', [copy.jaw, parent.id]);
  }
  for (const { id, name } of originals)
    await q.query('UPDATE files SET state = ? WHERE id = ? AND state IS NULL', [readFileName(name).state, id]);
}

/** A contour that was kept knew its upper scan; the lower one was the newest that was there. */
async function groundsOf(q: Steps): Promise<void> {
  const contours = await q.rows<{ id: string; case_id: string; at: string; scan_id: string | null; lower: number }>(
    `SELECT id, case_id, CAST(at AS CHAR) AS at, scan_id,
       JSON_EXISTS(teeth, '$[*]') AND teeth REGEXP '"tooth": *[34]' AS lower FROM contours`,
  );
  for (const c of contours) {
    const files = await q.rows<{ fileId: string; jaw: Jaw; sha256: string }>(
      `(SELECT id AS fileId, jaw, sha256 FROM files WHERE id = ? AND case_id = ?)
       UNION ALL
       (SELECT id, jaw, sha256 FROM files WHERE ${c.lower ? '' : 'FALSE AND '}case_id = ? AND jaw = 'lower'
         AND role = 'working' AND removed_at IS NULL AND at <= ? ORDER BY at DESC LIMIT 1)`,
      [c.scan_id ?? '', c.case_id, c.case_id, c.at],
    );
    await q.query('UPDATE contours SET made_from = ? WHERE id = ?', [JSON.stringify({ files }), c.id]);
  }
}

const LOCK = 'radiant-arch-migrations';
/** Another server may be at it; its migrations are waited for, s. */
const LOCK_WAIT_S = 300;

/**
 * Brings the database to the newest form. Safe to run at every start: of several servers one does it and the others
 * wait, and what was broken off is done again from its last whole migration.
 * @param db a pool without time limits on statements
 * @param headOf reads what older versions kept in the files themselves
 */
export async function migrate(db: Sequelize, headOf: HeadOf = async () => undefined): Promise<string[]> {
  const q = db.getQueryInterface();
  const umzug = new Umzug({
    migrations: MIGRATIONS.map((m) => ({ name: m.name, up: async () => m.up(new Steps(q, headOf)) })),
    storage: new SequelizeStorage({ sequelize: db, tableName: 'migrations' }),
    logger: undefined,
  });
  // The lock belongs to a connection, which an open transaction holds; it goes with the connection when the server
  // dies.
  const holder = await db.transaction();
  const asked = { transaction: holder, type: QueryTypes.SELECT } as const;
  try {
    const [got] = await db.query<{ held: number | null }>(`SELECT GET_LOCK('${LOCK}', ${LOCK_WAIT_S}) AS held`, asked);
    if (got?.held !== 1)
      throw new Error('Another server has been changing the database for minutes; start again when it is through.');
    return (await umzug.up()).map((m) => m.name);
  } finally {
    await db.query(`SELECT RELEASE_LOCK('${LOCK}')`, asked).catch(() => undefined);
    await holder.rollback().catch(() => undefined);
  }
}
