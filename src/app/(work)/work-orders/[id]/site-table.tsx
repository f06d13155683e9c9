import { Box, Flex } from '@chakra-ui/react';
import { siteId } from '@/core/engine/model';
import type { Actor } from '@/server/access';
import type { WorkOrderView } from '@/server/work-orders/view-work-order';
import { distanceText, gapText, NONE, torqueText, wearText } from '@/text/format';
import { TextLink } from '@/ui/primitives/links';
import { Code, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';

/** What was found and fitted at each site. */
export function SiteTable({ view, actor }: { view: WorkOrderView; actor: Actor }) {
  const { sites, order } = view;
  return (
    <Section id="record" title="Record by cylinder">
      <PlainTable
        heads={[
          'Cylinder',
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
          <tr key={site.id}>
            <td className="nowrap">
              <TextLink href={`/work-orders/${order.id}/floor#sites-${siteId(site)}`}>
                <strong>{site.name}</strong>
              </TextLink>{' '}
              <Box as="span" color="soft" fontSize="sm">
                {site.where}
              </Box>
            </td>
            <td>
              <Code>{site.expectedNumber ?? 'unknown'}</Code>
              {(site.sinceKm ?? site.atLeastKm) !== null && (
                <Box color="soft" fontSize="sm">
                  {site.sinceKm === null ? 'in at least ' : 'in '}
                  {distanceText(site.sinceKm ?? site.atLeastKm, actor.unitSystem)}
                </Box>
              )}
            </td>
            <td>
              <Code>{site.observedNumber ?? NONE}</Code>
              {site.differs && (
                <Box color="wrong.ink" fontSize="sm">
                  not what the record says
                </Box>
              )}
            </td>
            <td className="nowrap">
              {gapText(site.removedGapMm, actor.unitSystem)}
              {site.growth !== null && (
                <Box color="soft" fontSize="sm">
                  {site.growth >= 0 ? '+' : ''}
                  {wearText(site.growth, actor.unitSystem)}
                </Box>
              )}
            </td>
            <td>{site.conditions?.join(', ') ?? NONE}</td>
            <td>
              {[
                site.breakawayFeel,
                site.breakawayTorqueNm === null ? null : torqueText(site.breakawayTorqueNm, actor.unitSystem),
              ]
                .filter(Boolean)
                .join(', ') || NONE}
            </td>
            <td>
              <Code>{site.newNumber ?? NONE}</Code>
            </td>
            <td className="nowrap">{gapText(site.newGapMm, actor.unitSystem)}</td>
            <td className="nowrap">
              {site.installedTorqueNm === null
                ? (site.torqueMethod ?? NONE)
                : torqueText(site.installedTorqueNm, actor.unitSystem)}
              {site.torqueMethod === 'feel' && <Box fontSize="sm">by feel: graded lower</Box>}
            </td>
            <td>{site.doneAt ? '✓ done' : <Flex color="soft">to do</Flex>}</td>
          </tr>
        ))}
      </PlainTable>
    </Section>
  );
}
