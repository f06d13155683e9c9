import { Box, Flex } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import type { UnitSystem } from '@/core/units/person-units';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { listSuspects, type SuspectGroup } from '@/server/odometer/list-suspects';
import { HOUR_DOUBTS } from '@/server/odometer/record-hours';
import { listSuspectHours } from '@/server/odometer/resolve-hours';
import { dateText, distanceText, meterText } from '@/text/format';
import { doubtHead } from '@/text/odometer-words';
import { SubPlaces } from '@/ui/frame/sub-places';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { TextLink } from '@/ui/primitives/links';
import { Code, Empty, PageHead, Section } from '@/ui/primitives/page';
import { resolveAction, resolveHoursAction } from './actions';
import { ODOMETER_PLACES } from './places';

type Suspect = SuspectGroup['items'][number];
const itemKey = (item: Suspect): string => `${item.vehicleId}|${item.readOn}|${item.odometerKm}`;

export default page(async function OdometerPage() {
  const actor = await requireActor();
  const groups = await listSuspects(deps(), actor);
  mustShow(groups);
  const hours = await listSuspectHours(deps(), actor);
  mustShow(hours);
  const count = groups.value.reduce((sum, group) => sum + group.items.length, hours.value.length);
  const resolve = may(actor, 'resolve odometer readings');
  return (
    <>
      <PageHead title="Odometer">
        <strong>{count}</strong> suspect reading{count === 1 ? '' : 's'}, kept but not used until someone resolves them
      </PageHead>
      <SubPlaces label="Odometer" places={ODOMETER_PLACES} />
      <SuspectHours rows={hours.value} resolve={resolve} />
      {count === 0 && (
        <Empty>No suspect readings. A reading that does not fit the vehicle’s history is listed here.</Empty>
      )}
      {groups.value.map((group) => (
        <Section key={group.cause} title={doubtHead(group.cause, actor.unitSystem)} aside={`${group.items.length}`}>
          {resolve && <TakeAll items={group.items} />}
          {group.items.map((item) => (
            <SuspectRow key={itemKey(item)} item={item} system={actor.unitSystem} resolve={resolve} />
          ))}
        </Section>
      ))}
    </>
  );
});

/** One press for all whose cause and remedy are the same. */
function TakeAll({ items }: { items: readonly Suspect[] }) {
  const suggested = items.filter((item) => item.suggestedKm !== null);
  if (suggested.length < 2) return null;
  return (
    <Form action={resolveAction} input="resolveReadingsForm">
      {suggested.map((item) => (
        <input key={itemKey(item)} type="hidden" name="item" value={itemKey(item)} />
      ))}
      <SubmitButton name="how" value="correct">
        Take all {suggested.length} suggestions
      </SubmitButton>
    </Form>
  );
}

function SuspectRow({ item, system, resolve }: { item: Suspect; system: UnitSystem; resolve: boolean }) {
  return (
    <Box py="3" borderBottom="1px solid" borderColor="hair">
      <Box>
        <TextLink href={`/vehicles/${item.vehicleId}`}>
          {item.unitNumber} {item.name}
        </TextLink>{' '}
        on {dateText(item.readOn)}: <Code>{item.asTyped}</Code>{' '}
        <Box as="span" color="soft">
          ({item.source}; this dash shows {item.dash})
        </Box>
      </Box>
      <Box color="soft" fontSize="sm">
        It {item.words}. Accepted before it:{' '}
        {item.lastKm === null ? 'nothing' : `${distanceText(item.lastKm, system)} on ${dateText(item.lastOn)}`}.
      </Box>
      {resolve && (
        <Form action={resolveAction} input="resolveReadingsForm">
          <input type="hidden" name="item" value={itemKey(item)} />
          <Flex gap="2" mt="2" wrap="wrap" align="end">
            {item.suggestedKm !== null && (
              <SubmitButton name="how" value="correct">
                Take {distanceText(item.suggestedKm, system)}
              </SubmitButton>
            )}
            <SubmitButton name="how" value="accept">
              Accept as read
            </SubmitButton>
            <SubmitButton name="how" value="meter_replaced">
              Meter was replaced
            </SubmitButton>
            <SubmitButton name="how" value="reject">
              Reject
            </SubmitButton>
            <Box w="190px" mb="-12px">
              <TextField name="corrected" label={`Or it was, unit ${item.unitNumber}`} inputMode="decimal" />
            </Box>
            <SubmitButton name="how" value="correct">
              Correct
            </SubmitButton>
          </Flex>
        </Form>
      )}
    </Box>
  );
}

type SuspectHour = Extract<Awaited<ReturnType<typeof listSuspectHours>>, { ok: true }>['value'][number];

function SuspectHours({ rows, resolve }: { rows: readonly SuspectHour[]; resolve: boolean }) {
  if (rows.length === 0) return null;
  return (
    <Section title="Hour meters" aside={`${rows.length}`}>
      {rows.map((row) => (
        <Box key={`${row.vehicleId} ${row.readOn} ${row.hours}`} py="3" borderBottom="1px solid" borderColor="hair">
          <TextLink href={`/vehicles/${row.vehicleId}`}>
            {row.unitNumber} {row.name}
          </TextLink>{' '}
          on {dateText(row.readOn)}: <Code>{meterText(row.hours)}</Code>{' '}
          <Box as="span" color="soft">
            (typed “{row.asTyped}”, {row.source})
          </Box>
          <Box color="soft" fontSize="sm">
            It {row.doubt === 'backwards' ? HOUR_DOUBTS.backwards : `is ${HOUR_DOUBTS.too_fast}`}. Accepted before it:{' '}
            {row.lastHours === null ? 'nothing' : `${meterText(row.lastHours)} on ${dateText(row.lastOn)}`}.
          </Box>
          {resolve && (
            <PressForm action={resolveHoursAction}>
              <input type="hidden" name="vehicleId" value={row.vehicleId} />
              <input type="hidden" name="readOn" value={row.readOn} />
              <input type="hidden" name="hours" value={row.hours} />
              <Flex gap="2" mt="2">
                <SubmitButton name="how" value="accepted">
                  Accept as read
                </SubmitButton>
                <SubmitButton name="how" value="rejected">
                  Reject
                </SubmitButton>
              </Flex>
            </PressForm>
          )}
        </Box>
      ))}
    </Section>
  );
}
