import type { Said } from '@/core/misfire/case-entry';
import type { MisfireEngine } from '@/core/misfire/misfire-case';
import { rangePerTank } from '@/core/misfire/tank';
import type { UnitSystem } from '@/core/units/person-units';
import { distanceText } from './format';
import {
  causeText,
  cylindersText,
  doneText,
  FOUND_WORDS_TEXT,
  LAMP_WORDS,
  partList,
  SYMPTOM_WORDS,
} from './misfire-words';

const MOMENTS = { usual: 'as usual', now: 'with the misfire', after: 'after it was mended' } as const;

const DECISION_WORDS = {
  mend: 'Put on a visit',
  refer: 'Referred',
  watch: 'Watched from here',
  close: 'Closed',
  reopen: 'Goes on',
} as const;

/** One entry of a case as a line. */
export function saidText(statement: Said, ignition: MisfireEngine['ignition'], system: UnitSystem): string {
  switch (statement.kind) {
    case 'complaint':
      return [
        statement.words,
        LAMP_WORDS[statement.lamp],
        ...statement.symptoms.map((symptom) => SYMPTOM_WORDS[symptom]),
        statement.cylinders.length > 0 ? `names ${cylindersText(statement.cylinders)}` : '',
      ]
        .filter(Boolean)
        .join(', ');
    case 'codes':
      return statement.codes.length > 0 ? statement.codes.map(({ code }) => code).join(' ') : 'no codes stored';
    case 'counts':
      return `misfires in 1,000: ${statement.counts.map(({ cylinder, misfires }) => `${cylinder}: ${misfires}`).join(', ')}`;
    case 'found':
      return `${FOUND_WORDS_TEXT[statement.word]}, ${statement.cylinder}`;
    case 'swapped':
      return `${partList(statement.moved, ignition)} of ${statement.from} and ${statement.to} swapped`;
    case 'put_back':
      return `${partList(statement.moved, ignition)} of ${statement.from} and ${statement.to} put back`;
    case 'test':
      return doneText(statement.test, ignition);
    case 'tank': {
      const range = rangePerTank(statement);
      return `range ${MOMENTS[statement.moment]}: ${range === null ? 'too little of a tank' : `${distanceText(range, system)} a tank`}`;
    }
    case 'changed':
      return `${statement.words}, ${distanceText(statement.km, system)} ago`;
    case 'decided':
      return `${DECISION_WORDS[statement.decision]}: ${statement.words}${statement.cause && statement.decision !== 'mend' ? ` (${causeText(statement.cause)})` : ''}`;
    case 'note':
      return statement.words;
  }
}

/** What the engine computer froze with each code, in words. */
export const freezesOf = (
  entries: readonly { readonly entry: { readonly said: Said } }[],
): ReadonlyMap<string, string> =>
  new Map(
    entries.flatMap(({ entry: { said } }) =>
      said.kind === 'codes'
        ? said.codes.flatMap(({ code, freeze }) => {
            const words = Object.entries(freeze).map(([name, value]) => `${name} ${value}`);
            return words.length > 0 ? [[code, words.join(' · ')] as const] : [];
          })
        : [],
    ),
  );
