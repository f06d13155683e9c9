import { Box } from '@chakra-ui/react';
import { timeOf } from '@/core/calendar/zone';
import { minutesToCold, USUAL_COOLING_MIN, USUAL_OUTSIDE_C } from '@/core/work/cooling';
import type { Actor } from '@/server/access';
import { deps } from '@/server/deps';
import { type WorkOrderView, whereAndWho } from '@/server/work-orders/view-work-order';
import { minutesText } from '@/text/minutes-words';
import { Section } from '@/ui/primitives/page';
import { PlanForm } from '@/ui/work-orders/plan-form';
import { planAction, unplanAction } from '../actions';

/** The day, bay and person of the order, and when its engine is cold. */
export async function ScheduleSection({ view, actor }: { view: WorkOrderView; actor: Actor }) {
  const { order, row, booking, family } = view;
  const choices = await whereAndWho(deps(), actor, { depotId: row.depotId, hybrid: family.hybrid });
  if (!choices.ok) return null;
  return (
    <Section id="plan" title="Day, bay and person">
      <PlanForm
        action={planAction}
        unplan={unplanAction}
        workOrderId={order.id}
        bays={choices.value.bays.map((bay) => ({ value: bay.id, label: `${row.depot} ${bay.name}` }))}
        people={choices.value.people.map((person) => ({ value: person.id, label: person.name }))}
        now={{
          day: booking?.day ?? deps().today(),
          start: booking ? timeOf(booking.startMin) : choices.value.opens,
          minutes: booking?.minutes ?? order.minutes,
          bayId: booking?.bayId,
          personId: booking?.personId,
          version: booking?.version,
        }}
        planned={booking !== null}
        hybrid={family.hybrid}
      />
      <Box color="soft" mt="2">
        {minutesText(order, view.learned)}
      </Box>
      {booking && <ColdBy view={view} startMin={booking.startMin} />}
    </Section>
  );
}

/** Whether the engine will be cold when its plugs come out, if it is driven in at the start of the booking. */
function ColdBy({ view: { steps, family }, startMin }: { view: WorkOrderView; startMin: number }) {
  const first = steps.findIndex(({ perSite }) => perSite);
  if (!steps.some(({ kind, asks }) => kind === 'cold' && asks?.some(({ key }) => key === 'shut'))) return null;
  const before = steps.slice(0, first).reduce((sum, { minutes }) => sum + (minutes ?? 0), 0);
  const cools = minutesToCold(USUAL_OUTSIDE_C, family.coolingMinutes ?? USUAL_COOLING_MIN);
  const late = cools - before;
  return (
    <Box mt="3" color={late > 0 ? 'caution.ink' : 'soft'}>
      Its plugs come out at about {timeOf(startMin + before)} and want a cold engine. Shut off at {timeOf(startMin)} it
      is cold at about {timeOf(startMin + cools)} (estimate, {USUAL_OUTSIDE_C} °C outside)
      {late > 0 && `: have it in and off by ${timeOf(Math.max(0, startMin - late))}, or the evening before`}.
    </Box>
  );
}
