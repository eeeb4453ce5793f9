/**
 * What a person may do. The dentist decides; the assistant keeps records and measures; the technician reads,
 * comments, and puts wax-ups in.
 */
export const ROLES = ['dentist', 'assistant', 'technician'] as const;
export type Role = (typeof ROLES)[number];
