/**
 * How the plan is put on paper: a page for six teeth, a card in A5 for each tooth, six short cards on A4, the sheet
 * of colours for the laboratory, or the verdict on the preparations.
 */
export const PAPER_FORMS = ['plan', 'cards', 'six', 'shades', 'preparations'] as const;
export type PaperForm = (typeof PAPER_FORMS)[number];
