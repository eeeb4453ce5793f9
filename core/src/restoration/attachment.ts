import { published, type Source } from '../working/working.js';

/**
 * What a margin must stay away from the bone, mm: the attachment of about 2 mm and the sulcus over it. Gargiulo, Wentz
 * and Orban measured 0.69 mm of sulcus, 0.97 of epithelial and 1.07 of connective tissue attachment.
 */
export const ATTACHMENT: { readonly mm: number; readonly source: Source } = {
  mm: 3,
  source: published('Gargiulo, Wentz, Orban 1961, J Periodontol 32:261'),
};
