import { Box, Flex, Grid } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { addDays, isPlainDate, type PlainDate } from '@/core/calendar/plain-date';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { viewWeek, type Week, type WeekLine } from '@/server/planning/view-week';
import { STATE_WORDS } from '@/text/due-words';
import { dateText, hoursText, weekdayText } from '@/text/format';
import { ActionForm, SubmitButton } from '@/ui/primitives/action-form';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Empty, PageHead, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { openWorkOrderAction } from '../work-orders/actions';

export const metadata = { title: 'Plan' };

export default page(async function PlanPage({ searchParams }: { searchParams: Promise<{ week?: string | string[] }> }) {
  const actor = await requireActor();
  const { week: asked } = await searchParams;
  const day = typeof asked === 'string' && isPlainDate(asked) ? asked : deps().today();
  const week = await viewWeek(deps(), actor, day);
  mustShow(week);
  const { monday, bays, people, unplanned, due } = week.value;
  return (
    <>
      <PageHead
        title={`Week of ${dateText(monday)}`}
        actions={
          <>
            <ButtonLink href={`/plan?week=${addDays(monday, -7)}`}>Week before</ButtonLink>
            <ButtonLink href="/plan">This week</ButtonLink>
            <ButtonLink href={`/plan?week=${addDays(monday, 7)}`}>Week after</ButtonLink>
            <ButtonLink href={`/plan/ics?week=${monday}`} download>
              iCalendar file
            </ButtonLink>
          </>
        }
      >
        <strong>{unplanned.length}</strong> open without a day · <strong>{due.length}</strong> due or to inspect without
        a work order
      </PageHead>
      <Grid templateColumns={{ base: '1fr', xl: 'minmax(0, 1fr) 320px' }} gap="8">
        <Box minW="0">
          <Lines
            title="Bays"
            week={week.value}
            lines={bays}
            empty="No bays yet. A supervisor adds them under Settings, once the depots are here."
          />
          <Lines
            title="People"
            week={week.value}
            lines={people}
            empty="No technicians yet. A supervisor adds them under People."
          />
        </Box>
        <Box minW="0">
          <Section title="Open without a day">
            {unplanned.length === 0 && <Box color="soft">None.</Box>}
            {unplanned.map((order) => (
              <Box key={order.id} py="1" borderBottom="1px solid" borderColor="hair">
                <TextLink href={`/work-orders/${order.id}`}>
                  {order.number}: unit {order.unitNumber} {order.vehicleName}
                </TextLink>
                <Box color="soft" fontSize="sm">
                  {order.depot} · about {hoursText(order.minutes)}
                </Box>
              </Box>
            ))}
          </Section>
          <Section title="Due, without a work order">
            {due.length === 0 && <Box color="soft">None.</Box>}
            {due.map((item) => (
              <Flex
                key={item.vehicleId}
                justify="space-between"
                gap="2"
                py="1"
                borderBottom="1px solid"
                borderColor="hair"
              >
                <Box>
                  <TextLink href={`/vehicles/${item.vehicleId}`}>
                    <strong>{item.unitNumber}</strong> {item.name}
                  </TextLink>
                  <Box color="soft" fontSize="sm">
                    {item.depot} · {STATE_WORDS[item.state]}
                    {item.due && item.state !== 'inspect' && `, ${dateText(item.due.p50)}`}
                  </Box>
                </Box>
                {may(actor, 'open work orders') && (
                  <ActionForm action={openWorkOrderAction} quiet>
                    <input type="hidden" name="vehicleId" value={item.vehicleId} />
                    <SubmitButton>Open</SubmitButton>
                  </ActionForm>
                )}
              </Flex>
            ))}
          </Section>
        </Box>
      </Grid>
    </>
  );
});

function Lines({
  title,
  week,
  lines,
  empty,
}: {
  title: string;
  week: Week;
  lines: readonly WeekLine[];
  empty: string;
}) {
  return (
    <Section title={title} aside="hours taken of hours there are">
      {lines.length === 0 ? (
        <Empty>{empty}</Empty>
      ) : (
        <PlainTable heads={[title, ...week.days.map((day) => dayHead(day, week.monday))]}>
          {lines.map((line) => (
            <tr key={line.id}>
              <td>
                {line.depot && `${line.depot} `}
                {line.name}
              </td>
              {line.days.map((on) => (
                <td key={on.day}>
                  <DayOfLine {...on} />
                </td>
              ))}
            </tr>
          ))}
        </PlainTable>
      )}
    </Section>
  );
}

const dayHead = (day: PlainDate, monday: PlainDate): string =>
  day === deps().today() ? `${weekdayText(day, monday)}, today` : weekdayText(day, monday);

function DayOfLine({ jobs, takenMinutes, openMinutes }: WeekLine['days'][number]) {
  return (
    <Box display={{ base: 'inline-block', sm: 'block' }}>
      {jobs.map((job) => (
        <Box key={job.id} borderLeft="3px solid" borderColor="action" pl="2" mb="1" lineHeight="1.25">
          <TextLink href={`/work-orders/${job.id}`}>
            {job.startsAt?.slice(11)} unit {job.unitNumber}
          </TextLink>
          <Box color="soft" fontSize="sm">
            to {job.endsAt?.slice(11)}
          </Box>
        </Box>
      ))}
      {openMinutes > 0 && (
        <Box color={takenMinutes > openMinutes ? 'wrong.ink' : 'soft'} fontSize="sm">
          {roomWords(takenMinutes, openMinutes)}
        </Box>
      )}
    </Box>
  );
}

function roomWords(taken: number, all: number): string {
  if (taken === 0) return `${hoursText(all)} free`;
  return taken > all ? `${hoursText(taken - all)} over` : `${hoursText(all - taken)} left`;
}
