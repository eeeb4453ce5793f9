/**
 * How the plan is put on paper: a page for six teeth, a card in A5 for each tooth, six short cards on A4, the sheet
 * of colours for the laboratory, the verdict on the preparations, an estimate for the patient, or the record of treatment.
 */
export const PAPER_FORMS = ['plan', 'cards', 'six', 'shades', 'preparations', 'estimate', 'treatment'] as const;
export type PaperForm = (typeof PAPER_FORMS)[number];
