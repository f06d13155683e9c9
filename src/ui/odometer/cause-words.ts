/** Likely causes of a suspect reading, as heads of the inbox. */
export const CAUSE_WORDS: Readonly<Record<string, string>> = {
  backwards: 'Goes backwards',
  too_fast: 'Over 1,500 km a day',
  unit_slip: 'Probably miles for kilometres, or the other way',
  digit_slip: 'Probably a digit dropped, doubled or misread',
  stuck: 'Stands still while others move',
  rollover: 'The meter has probably begun anew',
};
