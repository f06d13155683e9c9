import { Box, Grid } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { siteId } from '@/core/engine/model';
import { isLive } from '@/core/work/order-state';
import { STOP_REASONS } from '@/core/work/stop';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { listPeople } from '@/server/fleet/people';
import { viewWorkOrder, type WorkOrderView } from '@/server/work-orders/view-work-order';
import { SubmitButton } from '@/ui/primitives/button';
import { Chips } from '@/ui/primitives/choice-fields';
import { SelectField, TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Caution, PageHead, Section } from '@/ui/primitives/page';
import { StoppedBanner } from '@/ui/work-orders/stopped-banner';
import { endWaitAction, waitAction } from '../../actions';
import { StandsOpen } from '../stands-open';

type Props = { params: Promise<{ id: string }> };

/** The job stops halfway: why, what it waits for, and what stands open for whoever takes over. */
export default page(async function StopPage({ params }: Props) {
  const actor = await requireActor();
  const { id } = await params;
  const view = await viewWorkOrder(deps(), actor, id);
  mustShow(view);
  const { order, vehicle } = view.value;
  const people = await listPeople(deps(), actor);
  const others = people.ok
    ? people.value.filter(({ active }) => active).map((person) => ({ value: person.id, label: person.name }))
    : [];
  const live = isLive(order) && may(actor, 'record work');
  return (
    <>
      <PageHead
        title={`The job stops here: unit ${vehicle.unitNumber} ${vehicle.name}`}
        actions={<ButtonLink href={`/work-orders/${id}/floor`}>Back to the vehicle</ButtonLink>}
      >
        Whoever takes over sees what is open, what is done, and what it waits for.
      </PageHead>
      <Caution>Cover open holes and ports. Hang a note on the wheel: the engine is not to be started.</Caution>
      <StoppedBanner stops={view.value.stops} workOrderId={id} goOn={live ? endWaitAction : null} />
      <Grid templateColumns={{ base: 'minmax(0, 1fr)', lg: '1fr 1fr' }} gap="8" mt="5">
        <Section title="Why it stops">
          {live ? (
            <Form action={waitAction} clears input="waitForm">
              <input type="hidden" name="workOrderId" value={id} />
              <Chips
                name="reason"
                legend="Why"
                choices={STOP_REASONS.map((reason) => ({ value: reason, label: reason }))}
                chosen={[]}
              />
              <Chips name="site" legend="Where" choices={placesIn(view.value)} chosen={['']} />
              <TextField name="note" label="Note for whoever goes on" hint="what they should know" />
              <SelectField
                name="nextPersonId"
                label="Who goes on"
                choices={[{ value: '', label: 'Whoever has the time' }, ...others]}
                large
              />
              <TextField name="partNumber" label="Part that it waits for" hint="its number; empty: none" mono />
              <TextField name="partWhat" label="What the part is" hint="where the catalogue does not know it" />
              <TextField name="quantity" label="How many" inputMode="numeric" defaultValue="1" />
              <SubmitButton main large>
                Stop the job, draft the order
              </SubmitButton>
            </Form>
          ) : (
            'This order is not open for you to record on.'
          )}
          <Box mt="3">
            <TextLink href="/work-orders/waiting">What waits, and the drafted order</TextLink>
          </Box>
        </Section>
        <StandsOpen view={view.value} />
      </Grid>
    </>
  );
});

/** The whole job, and each place of its tasks as screens call it. */
function placesIn({ tasks, sites }: WorkOrderView) {
  const names = new Map(sites.map((site) => [siteId(site), site.name]));
  const ids = [...new Set(tasks.flatMap(({ places }) => places.map(({ id }) => id)))];
  return [{ value: '', label: 'The whole job' }, ...ids.map((id) => ({ value: id, label: names.get(id) ?? id }))];
}
