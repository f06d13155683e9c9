import { CHECK_CODES, type CheckCode } from '@/core/odometer/check';

const WORDS: Readonly<Record<CheckCode, string>> = {
  backwards: 'goes backwards',
  too_fast: 'over 1,500 km a day',
  unit_slip: 'probably the other unit',
  digit_slip: 'probably a digit dropped, doubled or misread',
  stuck: 'has stood still while others moved',
  rollover: 'the meter has probably begun anew',
};

/** What is wrong with a reading, in words. */
export function doubtText(codes: readonly string[], suggestedKm: number | null): string {
  const words = codes.flatMap((code) => CHECK_CODES.filter((known) => known === code)).map((code) => WORDS[code]);
  const was = suggestedKm === null ? '' : `: about ${Math.round(suggestedKm).toLocaleString('en')} km`;
  return words.join(', ') + was;
}
