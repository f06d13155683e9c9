/** A text with its first letter large, as a sentence or a heading begins. */
export const capital = (text: string): string => text.slice(0, 1).toUpperCase() + text.slice(1);
