/** Every kind of visit, in the order in which they come. */
export const VISITS = {
  records: 'records',
  bleached: 'bleaching ended',
  'mock-up in': 'mock-up in',
  'mock-up out': 'mock-up out and approval',
  tissue: 'gum contour',
  preparation: 'preparation',
  impression: 'impression or scan',
  composite: 'composite',
  'try-in': 'try-in',
  seating: 'seating',
  review: 'colour and gum at a week',
  guard: 'night guard',
} as const;
export type VisitKind = keyof typeof VISITS;
export const VISIT_KINDS = Object.keys(VISITS) as readonly VisitKind[];
