import { DataTypes, type QueryInterface, type Sequelize } from 'sequelize';
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

/** Each migration once and for all: never changed after it has shipped, only followed by another. */
const MIGRATIONS: readonly { name: string; up: (q: QueryInterface) => Promise<void> }[] = [
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
];

/** Brings the database to the newest form. Safe to run at every start. */
export async function migrate(db: Sequelize): Promise<string[]> {
  const q = db.getQueryInterface();
  const umzug = new Umzug({
    migrations: MIGRATIONS.map((m) => ({ name: m.name, up: async () => m.up(q) })),
    storage: new SequelizeStorage({ sequelize: db, tableName: 'migrations' }),
    logger: undefined,
  });
  return (await umzug.up()).map((m) => m.name);
}
