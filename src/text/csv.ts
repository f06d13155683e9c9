/** How every CSV file is written, RFC 4180. Cells that a spreadsheet would run as a formula get a leading apostrophe. */
export const CSV_OPTIONS = { escape_formulas: true, record_delimiter: 'windows' } as const;
