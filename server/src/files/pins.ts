import type { SectionName } from '@radiant/contract';
import { ContourRow, FileRow, SectionRow } from '../database/database.js';

/** What of a section stands on files. */
interface Used {
  readonly photoId?: string | null;
  readonly scanId?: string | null;
  readonly views?: readonly { readonly photoId?: string | null }[];
  readonly aligned?: readonly { readonly photoId?: string | null }[];
}

/** Where a file is needed, in words: `Measures stand on this photograph; …`. */
export interface Pin {
  readonly fileId: string;
  readonly sentence: string;
}

function ofSection(name: SectionName, data: Used): Pin[] {
  const pin = (sentence: string) => (fileId: string | null | undefined) => (fileId ? [{ fileId, sentence }] : []);
  const elsewhere = `choose another in ${name} first.`;
  return [
    ...[data.photoId, ...(data.views ?? []).map((v) => v.photoId)].flatMap(pin(`Measures stand on this photograph; ${elsewhere}`)),
    ...pin(`The contour stands on this scan; ${elsewhere}`)(data.scanId),
    ...(data.aligned ?? []).map((a) => a.photoId).flatMap(pin('This photograph is laid over another; take it off there first.')),
  ];
}

const LOWER = (tooth: number) => tooth >= 31;

/** Every file of a case that something stands on: sections as they are now, and contours that were kept, worn or approved. */
export async function pinsOf(caseId: string): Promise<Pin[]> {
  const sections = await SectionRow.findAll({ where: { caseId } });
  const contours = await ContourRow.findAll({ where: { caseId } });
  const lower = contours.some((c) => c.teeth.some((t) => LOWER(t.tooth)))
    ? await FileRow.findAll({ where: { caseId, kind: 'lower-scan' }, attributes: ['id'] })
    : [];
  const newest = [...contours].sort((a, b) => Number(!!b.approvedAt) - Number(!!a.approvedAt) || b.number - a.number);
  return [
    ...sections.flatMap((s) => ofSection(s.name, s.data as Used)),
    ...newest.flatMap((c) => {
      const sentence = `“${c.name}”, which was ${c.approvedAt ? 'approved' : 'kept'}, stands on this scan; it stays with it.`;
      const below = c.teeth.some((t) => LOWER(t.tooth)) ? lower.map((f) => f.id) : [];
      return [...(c.scanId ? [c.scanId] : []), ...below].map((fileId) => ({ fileId, sentence }));
    }),
  ];
}
