/** How the plan is put on paper: a page for six teeth, a card in A5 for each tooth, or six short cards on A4. */
export const PAPER_FORMS = ['plan', 'cards', 'six'] as const;
export type PaperForm = (typeof PAPER_FORMS)[number];
