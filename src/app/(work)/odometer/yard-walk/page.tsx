import { Box, Flex } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { dueFilter, listDue } from '@/server/due/list-due';
import { dateText, distanceText } from '@/text/format';
import { SubPlaces } from '@/ui/frame/sub-places';
import { YardWalk } from '@/ui/odometer/yard-walk';
import { TextLink } from '@/ui/primitives/links';
import { PageHead } from '@/ui/primitives/page';
import { yardWalkAction } from '../actions';
import { ODOMETER_PLACES } from '../places';

type Props = { searchParams: Promise<Record<string, string>> };

export default page(async function YardWalkPage({ searchParams }: Props) {
  const actor = await requireActor();
  const filter = dueFilter.parse({ ...(await searchParams), sort: 'unit' });
  const list = await listDue(deps(), actor, { ...filter, page: { from: 0, limit: 1000 } });
  mustShow(list);
  const { items, depots } = list.value;
  return (
    <>
      <PageHead title="Yard walk">Type down the column; Enter goes to the next vehicle</PageHead>
      <SubPlaces label="Odometer" places={ODOMETER_PLACES} />
      <Flex gap="4" mb="3" fontSize="sm" wrap="wrap">
        <TextLink href="/odometer/yard-walk">All depots</TextLink>
        {depots.map((depot) => (
          <TextLink key={depot} href={`/odometer/yard-walk?depot=${encodeURIComponent(depot)}`}>
            {depot}
          </TextLink>
        ))}
      </Flex>
      {may(actor, 'record odometer readings') ? (
        <YardWalk
          today={deps().today()}
          save={yardWalkAction}
          vehicles={items.map((item) => ({
            id: item.vehicleId,
            unitNumber: item.unitNumber,
            name: item.name,
            unit: item.odometerUnit,
            // In the unit of the dash that one stands before.
            last: distanceText(item.odometerKm, item.odometerUnit === 'mi' ? 'us' : 'metric'),
            lastOn: dateText(item.odometerOn),
            expected: distanceText(item.odometerNowKm, item.odometerUnit === 'mi' ? 'us' : 'metric'),
          }))}
        />
      ) : (
        <Box color="soft">A technician or supervisor records readings.</Box>
      )}
    </>
  );
});
