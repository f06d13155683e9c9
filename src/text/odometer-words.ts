import { CHECK_CODES, type CheckCode } from '@/core/odometer/check';
import { MAX_KM_PER_DAY } from '@/core/odometer/use-rate';
import { capital } from '@/core/shared/capital';
import type { Km } from '@/core/shared/kinds';
import type { UnitSystem } from '@/core/units/person-units';
import { distanceText } from './format';

/** What is doubtful about a reading, as it goes on in a sentence about it. */
const wordsOf = (code: CheckCode, system: UnitSystem): string =>
  ({
    backwards: 'goes backwards',
    too_fast: `is over ${distanceText(MAX_KM_PER_DAY, system)} a day`,
    unusual: 'is far more than it usually covers',
    before_service: 'is from before it entered service',
    below_fitting: 'is less than when its plugs were fitted',
    unit_slip: 'is probably in the other unit',
    digit_slip: 'probably has a digit dropped, doubled or misread',
    stuck: 'has stood still while others moved',
    rollover: 'probably comes from a meter that has begun anew',
  })[code];

const isCode = (code: string): code is CheckCode => CHECK_CODES.some((known) => known === code);

/** The same as a head of the inbox. */
export function doubtHead(code: string, system: UnitSystem): string {
  const words = isCode(code) ? wordsOf(code, system) : code;
  return capital(words);
}

/** What is wrong with a reading, in words. @param suggestedKm what it may be instead */
export function doubtText(codes: readonly string[], suggestedKm: Km | null, system: UnitSystem): string {
  const words = codes.filter(isCode).map((code) => wordsOf(code, system));
  const was = suggestedKm === null ? '' : `: about ${distanceText(suggestedKm, system)}`;
  return words.join(', ') + was;
}
