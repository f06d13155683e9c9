import { Box, Flex, Table } from '@chakra-ui/react';
import { siteId } from '@/core/engine/model';
import type { Actor } from '@/server/access';
import type { WorkOrderView } from '@/server/work-orders/view-work-order';
import { gapText, NONE, torqueText, wearText } from '@/text/format';
import { TextLink } from '@/ui/primitives/links';
import { Code, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';

/** What was found and fitted at each site. */
export function SiteTable({ view, actor }: { view: WorkOrderView; actor: Actor }) {
  const { sites, order } = view;
  return (
    <Section title="Record by site">
      <PlainTable
        heads={[
          'Site',
          'Record said',
          'Found',
          'Old gap',
          'Condition',
          'Breakaway',
          'New part',
          'New gap',
          'Torque',
          'Done',
        ]}
      >
        {sites.map((site) => (
          <Table.Row key={site.id}>
            <Table.Cell whiteSpace="nowrap">
              <TextLink href={`/work-orders/${order.id}/floor#sites-${siteId(site)}`}>
                <strong>{site.name}</strong>
              </TextLink>{' '}
              <Box as="span" color="soft" fontSize="sm">
                {site.where}
              </Box>
            </Table.Cell>
            <Table.Cell>
              <Code>{site.expectedNumber ?? 'unknown'}</Code>
            </Table.Cell>
            <Table.Cell>
              <Code>{site.observedNumber ?? NONE}</Code>
              {site.differs && (
                <Box color="wrong.ink" fontSize="sm">
                  not what the record says
                </Box>
              )}
            </Table.Cell>
            <Table.Cell whiteSpace="nowrap">
              {gapText(site.removedGapMm, actor.unitSystem)}
              {site.growth !== null && (
                <Box color="soft" fontSize="sm">
                  {site.growth >= 0 ? '+' : ''}
                  {wearText(site.growth, actor.unitSystem)}
                </Box>
              )}
            </Table.Cell>
            <Table.Cell>{site.conditions?.join(', ') ?? NONE}</Table.Cell>
            <Table.Cell>
              {[
                site.breakawayFeel,
                site.breakawayTorqueNm === null ? null : torqueText(site.breakawayTorqueNm, actor.unitSystem),
              ]
                .filter(Boolean)
                .join(', ') || NONE}
            </Table.Cell>
            <Table.Cell>
              <Code>{site.newNumber ?? NONE}</Code>
            </Table.Cell>
            <Table.Cell whiteSpace="nowrap">{gapText(site.newGapMm, actor.unitSystem)}</Table.Cell>
            <Table.Cell whiteSpace="nowrap">
              {site.installedTorqueNm === null
                ? (site.torqueMethod ?? NONE)
                : torqueText(site.installedTorqueNm, actor.unitSystem)}
              {site.torqueMethod === 'feel' && <Box fontSize="sm">by feel: graded lower</Box>}
            </Table.Cell>
            <Table.Cell>{site.doneAt ? '✓ done' : <Flex color="soft">to do</Flex>}</Table.Cell>
          </Table.Row>
        ))}
      </PlainTable>
    </Section>
  );
}
