/** A text that LIKE takes as it stands. */
export const literally = (text: string): string => text.replace(/[\\%_]/g, (c) => `\\${c}`);
