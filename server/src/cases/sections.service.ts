import { Inject, Injectable } from '@nestjs/common';
import {
  check,
  landmarkSet,
  mayWrite,
  PHOTO_VIEWS,
  type ReadSection,
  SECTION_CLASSES,
  SECTION_NAMES,
  type SectionChange,
  type SectionName,
  type SectionState,
  type ShapeSection,
} from '@radiant/contract';
import { requireLandmarks, scaleOf } from '@radiant/core';
import { type Sequelize, UniqueConstraintError } from 'sequelize';
import { invalid, ProblemException } from '../common/problem.filter.js';
import { CaseRow, FileRow, RevisionRow, SectionRow } from '../database/database.js';
import { DATABASE } from '../database/database.module.js';
import type { SignedIn } from '../people/session.js';
import { describeSection } from './cases.service.js';

@Injectable()
export class SectionsService {
  constructor(@Inject(DATABASE) private readonly db: Sequelize) {}

  /**
   * Writes a section and its revision in one transaction, if it still has the version that the change was made on.
   * @throws ProblemException 403 for a role that may not, 422 for content that is refused, 409 with the section as it
   *   stands when somebody else was first; nothing is written then
   */
  async change(row: CaseRow, name: SectionName, change: SectionChange, me: SignedIn): Promise<SectionState> {
    if (!SECTION_NAMES.includes(name)) throw new ProblemException(404, 'Not found', 'There is nothing here that you may see.');
    if (!mayWrite(me.role, name)) throw new ProblemException(403, 'Not allowed', mayNot(me.role, name));
    const { value, errors } = check<object>(SECTION_CLASSES[name], change.data);
    if (errors.length > 0) throw invalid(errors);
    await this.requireSense(row.id, name, value);
    for (let tries = 1; ; tries++) {
      try {
        return await this.write(row, name, change.version, value, me.name);
      } catch (error) {
        // Two first writes at the same moment: the second meets the first one's row.
        if (error instanceof UniqueConstraintError) throw await this.late(row.id, name);
        // Or the database lets go of one of them, which may then try again.
        if (!isDeadlock(error) || tries === DEADLOCK_TRIES) throw error;
      }
    }
  }

  private async write(row: CaseRow, name: SectionName, base: number, data: object, byName: string): Promise<SectionState> {
    const at = new Date();
    const version = base + 1;
    await this.db.transaction(async (transaction) => {
      if (base === 0) await SectionRow.create({ caseId: row.id, name, version, data, byName, at }, { transaction });
      else {
        const [changed] = await SectionRow.update({ version, data, byName, at }, { where: { caseId: row.id, name, version: base }, transaction });
        if (changed === 0) throw await this.late(row.id, name);
      }
      await RevisionRow.create({ caseId: row.id, section: name, version, data, byName, at }, { transaction });
      await CaseRow.update({ changedAt: at }, { where: { id: row.id }, transaction });
    });
    return { name, version, data: data as SectionState['data'], by: byName, at: at.toISOString() };
  }

  private async late(caseId: string, name: SectionName): Promise<ProblemException> {
    const current = describeSection(name, await SectionRow.findOne({ where: { caseId, name } }));
    return new ProblemException(409, 'Changed meanwhile', `${current.by ?? 'Somebody'} changed this meanwhile; nothing was overwritten.`, { current });
  }

  /** What the classes alone can't tell: whether numbers fit the photograph and files are the case's own. */
  async requireSense(caseId: string, name: SectionName, data: object): Promise<void> {
    if (name === 'read') await this.requireReadable(caseId, data as ReadSection);
    if (name === 'shape') {
      const { scanId } = data as ShapeSection;
      if (scanId && !(await FileRow.findOne({ where: { id: scanId, caseId, kind: 'scan' } })))
        throw invalid([{ field: 'scanId', message: 'The scan does not belong to this case.' }]);
    }
  }

  private async requireReadable(caseId: string, data: ReadSection): Promise<void> {
    const photo = data.photoId ? await FileRow.findOne({ where: { id: data.photoId, caseId, kind: 'photo' } }) : null;
    if (data.photoId && !photo) throw invalid([{ field: 'photoId', message: 'The photograph does not belong to this case.' }]);
    checkReadAgainst(data, photo ? { width: photo.width ?? 0, height: photo.height ?? 0 } : undefined);
    const others = [...(data.views ?? []), ...(data.aligned ?? [])].flatMap((v) => (v.photoId ? [v.photoId] : []));
    const rows = others.length > 0 ? await FileRow.findAll({ where: { id: others, caseId, kind: 'photo' } }) : [];
    checkViewsAgainst(data, new Map(rows.map((r) => [r.id, { width: r.width ?? 0, height: r.height ?? 0 }])));
  }
}

const DEADLOCK_TRIES = 4;

/** Whether the database gave up one of two transactions that waited for each other; nothing of it was written. */
function isDeadlock(error: unknown): boolean {
  const code = (error as { parent?: { code?: string } } | undefined)?.parent?.code;
  return code === 'ER_LOCK_DEADLOCK' || code === 'ER_CHECKREAD';
}

/** Landmarks and scale against the photograph that they stand on. @throws Refusal, ProblemException 422 */
export function checkReadAgainst(data: ReadSection, photo: { width: number; height: number } | undefined): void {
  const drawn = data.drawn ?? [];
  if (!photo && (data.landmarks.length > 0 || data.calibration || drawn.length > 0))
    throw invalid([{ field: 'photoId', message: 'Landmarks, scale and drawn measures need a photograph to stand on.' }]);
  if (!photo) return;
  requireLandmarks(landmarkSet(data.landmarks), photo.width, photo.height);
  for (const m of drawn)
    if (m.points.some((p) => p.x < 0 || p.y < 0 || p.x > photo.width || p.y > photo.height))
      throw invalid([{ field: 'drawn', message: `A point of “${m.name}” lies outside the picture.` }]);
  if (data.calibration) {
    const { from, to, mm } = data.calibration;
    scaleOf({ from: [from.x, from.y], to: [to.x, to.y], mm });
    for (const p of [from, to]) {
      if (p.x < 0 || p.y < 0 || p.x > photo.width || p.y > photo.height)
        throw invalid([{ field: 'calibration', message: 'A point of the scale lies outside the picture.' }]);
    }
  }
}

/** The points of every view against the photograph that they stand on. @throws Refusal, ProblemException 422 */
export function checkViewsAgainst(data: ReadSection, photos: ReadonlyMap<string, { width: number; height: number }>): void {
  for (const v of data.views ?? []) {
    const field = `views.${v.view}`;
    const lengths = [v.calibration, v.check].filter((c) => !!c);
    const places: { x: number; y: number }[] = [...v.points, ...v.drawn.flatMap((m) => m.points), ...lengths.flatMap((c) => [c.from, c.to])];
    if (!v.photoId) {
      if (places.length > 0) throw invalid([{ field, message: 'Points and scale of a view need a photograph to stand on.' }]);
      continue;
    }
    const photo = photos.get(v.photoId);
    if (!photo) throw invalid([{ field, message: 'The photograph of a view does not belong to this case.' }]);
    for (const c of lengths) scaleOf({ from: [c.from.x, c.from.y], to: [c.to.x, c.to.y], mm: c.mm });
    if (places.some((p) => p.x < 0 || p.y < 0 || p.x > photo.width || p.y > photo.height)) {
      throw invalid([{ field, message: `A point of the view “${PHOTO_VIEWS[v.view]}” lies outside the picture.` }]);
    }
  }
  for (const a of data.aligned ?? []) {
    if (!photos.has(a.photoId)) throw invalid([{ field: 'aligned', message: 'A photograph that is aligned does not belong to this case.' }]);
  }
}

function mayNot(role: SignedIn['role'], name: SectionName): string {
  return role === 'technician' ? 'A technician reads and comments; the practice changes the case.' : `The dentist decides on ${name}; you may read it.`;
}
