import { Box, Table } from '@chakra-ui/react';
import type { Companion } from '@/core/interval/together';
import type { VehicleView } from '@/server/fleet/view-vehicle';
import { COMPONENT_WORDS } from '@/ui/catalogue/words';
import { dateText, hoursText, NONE, percentText } from '@/ui/format/format';
import { TextLink } from '@/ui/primitives/links';
import { Code, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';

const ADVICE: Readonly<Record<Companion['advice'], string>> = {
  now: 'Change it with the plugs',
  look: 'Look at it while it is open: its history is only assumed',
  later: 'Leave it',
};

/** What else comes due behind the same covers, with the sum that speaks for or against it. */
export function TogetherSection({ view: { companions } }: { view: VehicleView }) {
  const [first] = companions;
  if (!first) return null;
  return (
    <Section
      title="Together with the plugs"
      aside={first.savedMinutes > 0 ? `opening once spares about ${hoursText(first.savedMinutes)}` : undefined}
    >
      <PlainTable heads={['What', 'Part', 'Used by then', 'Due by itself', '']} numeric={[3]}>
        {companions.map((row) => (
          <Table.Row key={`${row.component} ${row.partNumber}`}>
            <Table.Cell>{COMPONENT_WORDS[row.component]}</Table.Cell>
            <Table.Cell whiteSpace="nowrap">
              <TextLink href={`/parts?number=${encodeURIComponent(row.partNumber)}`}>
                <Code>{row.partNumber}</Code>
              </TextLink>{' '}
              × {row.quantity}
            </Table.Cell>
            <Table.Cell>{row.certainty === 'assumed' ? 'not known' : percentText(row.lifeUsed)}</Table.Cell>
            <Table.Cell whiteSpace="nowrap">
              {row.certainty === 'assumed' ? NONE : dateText(row.due?.p50 ?? null)}
            </Table.Cell>
            <Table.Cell>
              <Box as="span" fontWeight={row.advice === 'now' ? '650' : undefined}>
                {ADVICE[row.advice]}
              </Box>
            </Table.Cell>
          </Table.Row>
        ))}
      </PlainTable>
    </Section>
  );
}
