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
export function saidText(said: Said, ignition: MisfireEngine['ignition'], system: UnitSystem): string {
  switch (said.kind) {
    case 'complaint':
      return [
        said.words,
        LAMP_WORDS[said.lamp],
        ...said.symptoms.map((one) => SYMPTOM_WORDS[one]),
        said.cylinders.length > 0 ? `names ${cylindersText(said.cylinders)}` : '',
      ]
        .filter(Boolean)
        .join(', ');
    case 'codes':
      return said.codes.length > 0 ? said.codes.map(({ code }) => code).join(' ') : 'no codes stored';
    case 'counts':
      return `misfires in 1,000: ${said.counts.map(({ cylinder, misfires }) => `${cylinder}: ${misfires}`).join(', ')}`;
    case 'found':
      return `${FOUND_WORDS_TEXT[said.word]}, ${said.cylinder}`;
    case 'swapped':
      return `${partList(said.moved, ignition)} of ${said.from} and ${said.to} swapped`;
    case 'put_back':
      return `${partList(said.moved, ignition)} of ${said.from} and ${said.to} put back`;
    case 'test':
      return doneText(said.test, ignition);
    case 'tank': {
      const range = rangePerTank(said);
      return `range ${MOMENTS[said.moment]}: ${range === null ? 'too little of a tank' : `${distanceText(range, system)} a tank`}`;
    }
    case 'changed':
      return `${said.words}, ${distanceText(said.km, system)} ago`;
    case 'decided':
      return `${DECISION_WORDS[said.decision]}: ${said.words}${said.cause && said.decision !== 'mend' ? ` (${causeText(said.cause)})` : ''}`;
    case 'note':
      return said.words;
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
