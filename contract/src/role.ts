/** What a person may do. The dentist decides; the assistant keeps records and measures; the technician reads and comments. */
export const ROLES = ['dentist', 'assistant', 'technician'] as const;
export type Role = (typeof ROLES)[number];

/** The sections of a case, one for each stage that keeps something. */
export const SECTION_NAMES = ['meet', 'read', 'propose', 'shape', 'reduce'] as const;
export type SectionName = (typeof SECTION_NAMES)[number];

const MAY_WRITE: Readonly<Record<Role, readonly SectionName[]>> = {
  dentist: SECTION_NAMES,
  assistant: ['meet', 'read'],
  technician: [],
};

/** Whether a role may change a section. */
export const mayWrite = (role: Role, section: SectionName): boolean => MAY_WRITE[role].includes(section);

/** The stages on which people comment: plan and contour. */
export const COMMENT_STAGES = ['propose', 'shape', 'reduce'] as const;
export type CommentStage = (typeof COMMENT_STAGES)[number];
