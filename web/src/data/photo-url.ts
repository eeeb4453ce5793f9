import { AS_IT_CAME, type CaseFile, isAsItCame } from '@radiant/contract';

/**
 * Where a photograph of a case is had: as it is shown, or smaller. The address changes with how the picture lies, so
 * that none is taken from a store of the browser as it lay before.
 */
export function photoUrl(
  caseId: string,
  file: Pick<CaseFile, 'id'> & Partial<Pick<CaseFile, 'lay'>>,
  size?: 'thumbnail' | 'preview',
): string {
  const lay = file.lay ?? AS_IT_CAME;
  const put = isAsItCame(lay) ? '' : `?lay=${lay.mirrored ? 'mirrored-' : ''}${lay.quarterTurns}`;
  return `/api/cases/${caseId}/files/${file.id}${size ? `/${size}` : ''}${put}`;
}
