import { completed, sectionOf } from '@radiant/contract';
import { ContourRow, SectionRow } from '../database/database.js';

/** Where a file is needed, in words: `Measures stand on this photograph; …`. */
export interface Pin {
  readonly fileId: string;
  readonly sentence: string;
}

/**
 * Every file of a case that something stands on: sections as they are now, and contours that were kept, worn or
 * approved.
 */
export async function pinsOf(caseId: string): Promise<Pin[]> {
  const sections = await SectionRow.findAll({ where: { caseId } });
  const contours = await ContourRow.findAll({ where: { caseId } });
  const newest = [...contours].sort((a, b) => Number(!!b.approvedAt) - Number(!!a.approvedAt) || b.number - a.number);
  return [
    ...sections.flatMap((s) =>
      sectionOf(s.name)
        .files(completed(s.name, s.data))
        .map((f) => ({ fileId: f.id, sentence: f.sentence })),
    ),
    ...newest.flatMap((c) => {
      const sentence = `“${c.name}”, which was ${c.approvedAt ? 'approved' : 'kept'}, stands on this scan; it stays with it.`;
      return (c.madeFrom?.files ?? []).map(({ fileId }) => ({ fileId, sentence }));
    }),
  ];
}
