import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import {
  type ContourApproval,
  type ContourVersion,
  completed,
  JAWS,
  type MadeFrom,
  type NewContourVersion,
  type ShapeSection,
  scanFor,
  type WornMockUp,
} from '@radiant/contract';
import { FORMS_EDITION, jawOf } from '@radiant/core';
import { Op, UniqueConstraintError } from 'sequelize';
import { nothingHere, ProblemException } from '../common/problem.filter.js';
import { type CaseRow, ContourRow, SectionRow } from '../database/database.js';
import { describeFile, FilesService } from '../files/files.service.js';
import type { Rule, SignedIn } from '../people/session.js';

const TRIES = 4;

/** Contours that were kept as versions, worn as mock-ups, and approved by the patient. */
@Injectable()
export class ContoursService {
  constructor(private readonly files: FilesService) {}

  async list(caseId: string): Promise<ContourVersion[]> {
    const rows = await ContourRow.findAll({ where: { caseId }, order: [['number', 'ASC']] });
    return rows.map(describeContour);
  }

  /**
   * Keeps the contour that stands in shape as a version.
   * @throws ProblemException 403 for a role that may not, 422 while there is no contour
   */
  async keep(row: CaseRow, input: NewContourVersion, me: SignedIn): Promise<ContourVersion> {
    const section = await SectionRow.findOne({ where: { caseId: row.id, name: 'shape' } });
    const shape = section ? completed('shape', section.data) : undefined;
    if (!shape || shape.teeth.length === 0)
      throw new ProblemException(422, 'Not ready', 'There is no contour to keep yet; shape one first.');
    const madeFrom = await this.groundOf(row.id, shape);
    for (let tries = 1; ; tries++) {
      const last = (await ContourRow.max('number', { where: { caseId: row.id } })) as number | null;
      try {
        const made = await ContourRow.create({
          id: randomUUID(),
          caseId: row.id,
          number: (last ?? 0) + 1,
          name: input.name,
          why: input.why,
          byName: me.name,
          at: new Date(),
          madeFrom,
          teeth: shape.teeth,
        });
        return describeContour(made);
      } catch (error) {
        if (!(error instanceof UniqueConstraintError) || tries === TRIES) throw error;
      }
    }
  }

  /** The scans that a contour stands on, by their hashes. */
  private async groundOf(caseId: string, { teeth, scanId }: ShapeSection): Promise<MadeFrom> {
    const files = (await this.files.list(caseId)).map(describeFile);
    const jaws = JAWS.filter((jaw) => teeth.some((t) => jawOf(t.tooth) === jaw));
    return {
      files: jaws.flatMap((jaw) => {
        const scan = scanFor(files, jaw, 'before', scanId);
        return scan ? [{ fileId: scan.id, jaw, sha256: scan.sha256 }] : [];
      }),
      forms: FORMS_EDITION,
    };
  }

  /**
   * Says that a version is or was worn as a mock-up. @throws ProblemException 403, 404, 422 for days in the wrong order
   */
  async wear(row: CaseRow, id: string, worn: WornMockUp): Promise<ContourVersion> {
    if (worn.until && worn.until < worn.from) {
      throw new ProblemException(
        422,
        'Not accepted',
        'The mock-up came out before it was put in; look at the two days.',
      );
    }
    return describeContour(await (await this.find(row, id)).update({ worn }));
  }

  /** The patient's approval. @throws ProblemException 403, 404, 409 when it was approved before */
  async approve(row: CaseRow, id: string, { word }: ContourApproval, me: SignedIn): Promise<ContourVersion> {
    // What a file that was brought in claims is replaced by the approval that is given here.
    const [changed] = await ContourRow.update(
      { approvedWord: word, approvedBy: me.name, approvedAt: new Date(), claimed: false },
      { where: { id: (await this.find(row, id)).id, [Op.or]: [{ approvedAt: null }, { claimed: true }] } },
    );
    if (changed === 0)
      throw new ProblemException(409, 'Approved before', 'This version was approved before; it is frozen.');
    return describeContour(await this.find(row, id));
  }

  private async find(row: CaseRow, id: string): Promise<ContourRow> {
    const own = await ContourRow.findOne({ where: { id, caseId: row.id } });
    if (!own) throw nothingHere();
    return own;
  }
}

/** The dentist keeps and releases contours. */
export const releasers: Rule = (me) =>
  me.role === 'dentist' ? undefined : 'The dentist keeps and releases contours; you may read them.';

function describeContour(r: ContourRow): ContourVersion {
  return {
    id: r.id,
    number: r.number,
    name: r.name,
    why: r.why,
    by: r.byName,
    at: r.at.toISOString(),
    madeFrom: r.madeFrom ?? { files: [] },
    teeth: r.teeth,
    worn: r.worn ?? null,
    approved: r.approvedAt
      ? { word: r.approvedWord ?? '', by: r.approvedBy ?? '', at: r.approvedAt.toISOString(), claimed: !!r.claimed }
      : null,
  };
}
