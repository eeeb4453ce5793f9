import type {
  ArrivalState,
  CaseState,
  CommentPlace,
  CommentStage,
  FileKind,
  MadeFrom,
  PhotoView,
  Role,
  ScanRole,
  SectionName,
  ToothPlanInput,
  WornMockUp,
} from '@radiant/contract';
import type { FrameMatrix, Jaw } from '@radiant/core';
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Config } from '../common/config.js';
import { connect } from './connect.js';

export class Practice extends Model<InferAttributes<Practice>, InferCreationAttributes<Practice>> {
  declare id: string;
  declare name: string;
}

export class Person extends Model<InferAttributes<Person>, InferCreationAttributes<Person>> {
  declare id: string;
  declare practiceId: string;
  declare name: string;
  declare email: string;
  declare passwordHash: string;
  declare role: Role;
  /** Sessions that began before this are over. */
  declare sessionsFrom: CreationOptional<Date | null>;
  /** When the person left the practice; what they wrote keeps their name. */
  declare endedAt: CreationOptional<Date | null>;
}

/** A way back in for a dentist who can't sign in: made on the machine itself, good once and for a short while. */
export class RecoveryRow extends Model<InferAttributes<RecoveryRow>, InferCreationAttributes<RecoveryRow>> {
  declare personId: string;
  declare hash: string;
  declare expiresAt: Date;
}

export class CaseRow extends Model<InferAttributes<CaseRow>, InferCreationAttributes<CaseRow>> {
  declare id: string;
  declare practiceId: string;
  declare name: string;
  declare openedAt: CreationOptional<Date>;
  declare changedAt: CreationOptional<Date>;
  /** From meet, for sorting the list of cases. */
  declare finishBy: CreationOptional<string | null>;
  /** Of a case that came in as a file: who brought it in, when, and when it was written. */
  declare importedBy: CreationOptional<string | null>;
  declare importedAt: CreationOptional<Date | null>;
  declare writtenAt: CreationOptional<Date | null>;
  /** When it was put away, and by whom. */
  declare removedAt: CreationOptional<Date | null>;
  declare removedBy: CreationOptional<string | null>;
}

/** That a person has opened a case, when last, and at which stage. */
export class OpeningRow extends Model<InferAttributes<OpeningRow>, InferCreationAttributes<OpeningRow>> {
  declare personId: string;
  declare caseId: string;
  declare stage: string;
  declare at: Date;
}

export class SectionRow extends Model<InferAttributes<SectionRow>, InferCreationAttributes<SectionRow>> {
  declare caseId: string;
  declare name: SectionName;
  declare version: number;
  declare data: object;
  declare byName: string;
  declare at: Date;
}

export class RevisionRow extends Model<InferAttributes<RevisionRow>, InferCreationAttributes<RevisionRow>> {
  declare caseId: string;
  declare section: SectionName;
  declare version: number;
  declare data: object;
  declare byName: string;
  declare at: Date;
}

export class FileRow extends Model<InferAttributes<FileRow>, InferCreationAttributes<FileRow>> {
  declare id: string;
  declare caseId: string;
  declare kind: FileKind;
  declare jaw: CreationOptional<Jaw | null>;
  declare role: CreationOptional<ScanRole | null>;
  declare parentId: CreationOptional<string | null>;
  declare frame: CreationOptional<FrameMatrix | null>;
  declare name: string;
  declare mime: string;
  declare sha256: string;
  declare bytes: number;
  declare width: number | null;
  declare height: number | null;
  declare origin: string;
  declare at: Date;
  declare view: CreationOptional<PhotoView | null>;
  declare state: CreationOptional<CaseState | null>;
  declare takenOn: CreationOptional<string | null>;
  declare takenBy: CreationOptional<string>;
  declare quarterTurns: CreationOptional<number>;
  declare mirrored: CreationOptional<boolean>;
  declare removedAt: CreationOptional<Date | null>;
}

/** A file that a device laid into the watched folder. `sha256` is set while its bytes wait for somebody's word. */
export class ArrivalRow extends Model<InferAttributes<ArrivalRow>, InferCreationAttributes<ArrivalRow>> {
  declare id: string;
  declare practiceId: string;
  declare caseId: string | null;
  declare fileId: string | null;
  declare name: string;
  declare kind: string | null;
  declare bytes: number;
  declare sha256: string;
  declare state: ArrivalState;
  declare sentence: string;
  declare origin: string;
  declare at: Date;
}

/** A contour that was kept. Its teeth never change; what is said of it does. */
export class ContourRow extends Model<InferAttributes<ContourRow>, InferCreationAttributes<ContourRow>> {
  declare id: string;
  declare caseId: string;
  declare number: number;
  declare name: string;
  declare why: string;
  declare byName: string;
  declare at: Date;
  declare madeFrom: CreationOptional<MadeFrom | null>;
  declare teeth: ToothPlanInput[];
  declare worn: CreationOptional<WornMockUp | null>;
  declare approvedWord: CreationOptional<string | null>;
  declare approvedBy: CreationOptional<string | null>;
  declare approvedAt: CreationOptional<Date | null>;
  /** The approval stands in a case file that was brought in; nobody of this practice has given it. */
  declare claimed: CreationOptional<boolean>;
}

export class CommentRow extends Model<InferAttributes<CommentRow>, InferCreationAttributes<CommentRow>> {
  declare id: string;
  declare caseId: string;
  declare stage: CommentStage;
  declare body: string;
  declare byName: string;
  declare role: Role;
  declare at: Date;
  declare place: CreationOptional<CommentPlace | null>;
}

/** What a practice has set for itself, one row a version. */
export class PracticeSettingsRow extends Model<
  InferAttributes<PracticeSettingsRow>,
  InferCreationAttributes<PracticeSettingsRow>
> {
  declare practiceId: string;
  declare version: number;
  declare data: object;
  declare byName: string;
  declare at: Date;
}

/** What the program itself has to remember: whose the watched folder is, how far the demo has come. */
export class SettingRow extends Model<InferAttributes<SettingRow>, InferCreationAttributes<SettingRow>> {
  declare name: string;
  declare value: string;
}

// Fresh objects each time: Sequelize writes the column's name into the one it is given.
const id = () => ({ type: DataTypes.CHAR(36), primaryKey: true }) as const;
const at = () => ({ type: DataTypes.DATE(3), allowNull: false }) as const;
const text = (n: number) => ({ type: DataTypes.STRING(n), allowNull: false }) as const;

/** Opens the connection pool and binds the models. Tables are made by migrations, never by sync(). */
export function openDatabase(c: Config['database']): Sequelize {
  const db = connect(c);
  bindPeople(db);
  bindCases(db);
  bindFiles(db);
  bindContours(db);
  SettingRow.init(
    { name: { type: DataTypes.STRING(40), primaryKey: true }, value: text(255) },
    { sequelize: db, tableName: 'settings' },
  );
  return db;
}

const section = () =>
  ({
    version: { type: DataTypes.INTEGER, allowNull: false },
    data: { type: DataTypes.JSON, allowNull: false },
    byName: text(120),
    at: at(),
  }) as const;

function bindPeople(db: Sequelize): void {
  Practice.init({ id: id(), name: text(120) }, { sequelize: db, tableName: 'practices' });
  Person.init(
    {
      id: id(),
      practiceId: text(36),
      name: text(120),
      email: text(200),
      passwordHash: text(255),
      role: text(20),
      sessionsFrom: DataTypes.DATE(3),
      endedAt: DataTypes.DATE(3),
    },
    { sequelize: db, tableName: 'people' },
  );
  PracticeSettingsRow.init(
    {
      practiceId: { type: DataTypes.CHAR(36), primaryKey: true },
      ...section(),
      version: { type: DataTypes.INTEGER, primaryKey: true },
    },
    { sequelize: db, tableName: 'practice_settings' },
  );
  RecoveryRow.init(
    { personId: { type: DataTypes.CHAR(36), primaryKey: true }, hash: text(64), expiresAt: at() },
    { sequelize: db, tableName: 'recovery_codes' },
  );
}

function bindCases(db: Sequelize): void {
  CaseRow.init(
    {
      id: id(),
      practiceId: text(36),
      name: text(80),
      openedAt: at(),
      changedAt: at(),
      finishBy: DataTypes.DATEONLY,
      importedBy: DataTypes.STRING(120),
      importedAt: DataTypes.DATE(3),
      writtenAt: DataTypes.DATE(3),
      removedAt: DataTypes.DATE(3),
      removedBy: DataTypes.STRING(120),
    },
    { sequelize: db, tableName: 'cases' },
  );
  OpeningRow.init(
    {
      personId: { type: DataTypes.CHAR(36), primaryKey: true },
      caseId: { type: DataTypes.CHAR(36), primaryKey: true },
      stage: text(20),
      at: at(),
    },
    { sequelize: db, tableName: 'openings' },
  );
  SectionRow.init(
    {
      caseId: { type: DataTypes.CHAR(36), primaryKey: true },
      name: { type: DataTypes.STRING(20), primaryKey: true },
      ...section(),
    },
    { sequelize: db, tableName: 'case_sections' },
  );
  RevisionRow.init(
    {
      caseId: { type: DataTypes.CHAR(36), primaryKey: true },
      section: { type: DataTypes.STRING(20), primaryKey: true },
      ...section(),
      version: { type: DataTypes.INTEGER, primaryKey: true },
    },
    { sequelize: db, tableName: 'revisions' },
  );
}

function bindFiles(db: Sequelize): void {
  FileRow.init(
    {
      id: id(),
      caseId: text(36),
      kind: text(20),
      jaw: DataTypes.STRING(10),
      role: DataTypes.STRING(10),
      parentId: DataTypes.CHAR(36),
      frame: DataTypes.JSON,
      name: text(255),
      mime: text(80),
      sha256: text(64),
      bytes: { type: DataTypes.INTEGER, allowNull: false },
      width: DataTypes.INTEGER,
      height: DataTypes.INTEGER,
      origin: text(120),
      at: at(),
      view: DataTypes.STRING(30),
      state: DataTypes.STRING(20),
      takenOn: DataTypes.DATEONLY,
      takenBy: { ...text(120), defaultValue: '' },
      quarterTurns: { type: DataTypes.TINYINT, allowNull: false, defaultValue: 0 },
      mirrored: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
      removedAt: DataTypes.DATE(3),
    },
    { sequelize: db, tableName: 'files' },
  );
  ArrivalRow.init(
    {
      id: id(),
      practiceId: text(36),
      caseId: DataTypes.CHAR(36),
      fileId: DataTypes.CHAR(36),
      name: text(255),
      kind: DataTypes.STRING(20),
      bytes: DataTypes.BIGINT,
      sha256: text(64),
      state: text(20),
      sentence: text(500),
      origin: text(120),
      at: at(),
    },
    { sequelize: db, tableName: 'arrivals' },
  );
}

function bindContours(db: Sequelize): void {
  ContourRow.init(
    {
      id: id(),
      caseId: text(36),
      number: { type: DataTypes.INTEGER, allowNull: false },
      name: text(60),
      why: text(300),
      byName: text(120),
      at: at(),
      madeFrom: DataTypes.JSON,
      teeth: { type: DataTypes.JSON, allowNull: false },
      worn: DataTypes.JSON,
      approvedWord: DataTypes.STRING(300),
      approvedBy: DataTypes.STRING(120),
      approvedAt: DataTypes.DATE(3),
      claimed: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
    },
    { sequelize: db, tableName: 'contours' },
  );
  CommentRow.init(
    {
      id: id(),
      caseId: text(36),
      stage: text(20),
      body: { type: DataTypes.TEXT, allowNull: false },
      byName: text(120),
      role: text(20),
      at: at(),
      place: DataTypes.JSON,
    },
    { sequelize: db, tableName: 'comments' },
  );
}
