/** What can be away. */
export const ABSENCE_OF = ['depot', 'bay', 'person', 'vehicle'] as const;
export type AbsenceOf = (typeof ABSENCE_OF)[number];
