/** What can be away. */
export const ABSENCE_OF = ['depot', 'bay', 'person', 'vehicle'] as const;
/** Whose plan can be read as a calendar. */
export const FEED_OF = ['depot', 'bay', 'person'] as const;
export type FeedOf = (typeof FEED_OF)[number];

export type AbsenceOf = (typeof ABSENCE_OF)[number];
