/**
 * A rule for every week as a person ticks it.
 *
 * @param days "MO", "TU"; none: it does not repeat
 * @param until its last day, `YYYY-MM-DD`; empty: without an end
 * @returns RRULE of RFC 5545, empty where it does not repeat
 * @example weeklyRule(['MO', 'TH'], '2027-06-30') // "FREQ=WEEKLY;BYDAY=MO,TH;UNTIL=20270630"
 */
export function weeklyRule(days: readonly string[], until: string): string {
  if (days.length === 0) return '';
  return `FREQ=WEEKLY;BYDAY=${days.join(',')}${until === '' ? '' : `;UNTIL=${until.replaceAll('-', '')}`}`;
}
