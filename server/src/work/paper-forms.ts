/**
 * How the plan is put on paper: a page for six teeth, a card in A5 for each tooth, six short cards on A4, or the sheet
 * of colours for the laboratory.
 */
export const PAPER_FORMS = ['plan', 'cards', 'six', 'shades'] as const;
export type PaperForm = (typeof PAPER_FORMS)[number];
