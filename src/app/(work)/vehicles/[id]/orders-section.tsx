import { Box } from '@chakra-ui/react';
import { type Actor, may } from '@/server/access';
import type { VehicleView } from '@/server/fleet/view-vehicle';
import { dateText } from '@/text/format';
import { ORDER_STATES } from '@/text/order-words';
import { SubmitButton } from '@/ui/primitives/button';
import { Form } from '@/ui/primitives/form';
import { TextLink } from '@/ui/primitives/links';
import { Empty, Section } from '@/ui/primitives/page';
import { TaskFields } from '@/ui/work-orders/task-fields';
import { openForTaskAction } from '../../work-orders/actions';

/** Every visit of the vehicle, and one for a single task: a coil, a boot, a look at plugs of unknown age. */
export function OrdersSection({ view: { orders, vehicle, layout }, actor }: { view: VehicleView; actor: Actor }) {
  return (
    <Section id="orders" title="Work orders">
      {orders.length === 0 ? (
        <Empty>None yet.</Empty>
      ) : (
        orders.map((order) => (
          <Box key={order.id}>
            <TextLink href={`/work-orders/${order.id}`}>{order.number}</TextLink> · {ORDER_STATES[order.state]} · opened{' '}
            {dateText(order.openedOn)}
            {order.startsAt && ` · planned ${dateText(order.startsAt)}`}
            {order.closedOn && ` · closed ${dateText(order.closedOn)}`}
          </Box>
        ))
      )}
      {may(actor, 'open work orders') && (
        <Box as="details" mt="3" data-no-print>
          <summary>Open one for something else: one part, a look, a test</summary>
          <Box mt="2" maxW="720px">
            <Form action={openForTaskAction}>
              <input type="hidden" name="vehicleId" value={vehicle.id} />
              <TaskFields layout={layout} why="reported" />
              <SubmitButton>Open it</SubmitButton>
            </Form>
          </Box>
        </Box>
      )}
    </Section>
  );
}
