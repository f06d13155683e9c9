import { Box } from '@chakra-ui/react';
import { type SuffixCheck, type SuffixReading, suffixWords } from '@/core/catalogue/suffix';
import type { GapVerdict } from '@/core/gap/check';
import type { Mm } from '@/core/shared/kinds';
import type { UnitSystem } from '@/core/units/person-units';
import { gapText } from '@/text/format';
import { TextLink } from '../primitives/links';
import { Code } from '../primitives/page';

interface GapAsSold {
  readonly sheet: { readonly id: string; readonly gapAsTyped: string; readonly sourceDocument: string };
  readonly asSoldMm: Mm;
  readonly verdict: GapVerdict;
  readonly askFor: string | null;
}

interface Read {
  readonly kind: 'read';
  readonly reading: SuffixReading;
  readonly base: { readonly id: string; readonly number: string } | null;
  readonly checks: readonly SuffixCheck[];
  readonly gaps: readonly GapAsSold[];
}

type ReadNumber =
  | Read
  | { readonly kind: 'unclear'; readonly readings: readonly SuffixReading[] }
  | { readonly kind: 'unknown'; readonly maker: string; readonly base: Read['base']; readonly rest: string };

/** What a number says of itself by its maker's table, against the record and against the sheets. */
export function NumberSays({ number, system }: { number: ReadNumber; system: UnitSystem }) {
  switch (number.kind) {
    case 'unclear':
      return (
        <Box color="wrong.ink">
          Its suffix can be read in {number.readings.length} ways:{' '}
          {number.readings.map(({ values }) => valuesText(values)).join('; or ')}. Look at the part, with its hyphens.
        </Box>
      );
    case 'unknown':
      return (
        <Box color="wrong.ink">
          {number.maker}’s table does not know the suffix <Code>{number.rest}</Code> after{' '}
          <Code>{number.base?.number}</Code>. It may be another plug: do not fit it on the base number alone.
        </Box>
      );
    case 'read':
      return <Suffix number={number} system={system} />;
  }
}

const valuesText = (values: Read['reading']['values']): string =>
  (Object.keys(values) as (keyof typeof values)[])
    .map((attribute) => suffixWords(attribute, values[attribute] ?? ''))
    .join(', ');

function Suffix({ number: { reading, base, checks, gaps }, system }: { number: Read; system: UnitSystem }) {
  return (
    <>
      <Box>
        <Code>{reading.base}</Code>
        {reading.pieces
          .filter((piece) => piece.code !== '')
          .map((piece) => (
            <Code key={piece.place}> {piece.code}</Code>
          ))}
        : {valuesText(reading.values)}{' '}
        <Box as="span" color="soft">
          by {reading.maker}’s own table
          {base && (
            <>
              ; base <TextLink href={`/parts/${base.id}`}>{base.number}</TextLink>
            </>
          )}
        </Box>
      </Box>
      {checks
        .filter((check) => check.verdict === 'contradicts')
        .map(({ attribute, claimed, recorded }) => (
          <Box key={attribute} color="wrong.ink">
            The number says {suffixWords(attribute, claimed)}, the catalogue {suffixWords(attribute, recorded ?? '')}.
          </Box>
        ))}
      {gaps.map((gap) => (
        <Box key={gap.sheet.id}>{gapSentence(gap, system)}</Box>
      ))}
    </>
  );
}

function gapSentence({ sheet, asSoldMm, verdict, askFor }: GapAsSold, system: UnitSystem) {
  const against = `Sold at ${gapText(asSoldMm, system)} against ${sheet.gapAsTyped} of ${sheet.sourceDocument}`;
  const ask = askFor ? ` Its maker’s code for the right gap makes it ${askFor}: ask whether it is sold.` : '';
  switch (verdict.action) {
    case 'accept':
      return `${against}: right as it comes.`;
    case 'reject':
      return `${against}: not to be bent that far (${gapText(verdict.byMm, system)}).${ask}`;
    default:
      return `${against}: ${verdict.action} it by ${gapText(verdict.byMm, system)}.${ask}`;
  }
}
