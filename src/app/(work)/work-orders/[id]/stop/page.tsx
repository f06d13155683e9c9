import { Box, Grid } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { isLive } from '@/core/work/order-state';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { viewWorkOrder } from '@/server/work-orders/view-work-order';
import { ActionForm, SubmitButton } from '@/ui/primitives/action-form';
import { SelectField, TextField } from '@/ui/primitives/fields';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Caution, PageHead, Section } from '@/ui/primitives/page';
import { waitAction } from '../../actions';
import { StandsOpen } from '../stands-open';

type Props = { params: Promise<{ id: string }> };

const REASONS = [
  'A boot is torn',
  'A gasket is missing',
  'A new plug is not right',
  'A connector tab is broken',
  'A plug is seized or broken',
  'End of the shift',
  'Another fault comes first',
];

/** The job stops halfway: why, what it waits for, and what stands open for whoever takes over. */
export default page(async function StopPage({ params }: Props) {
  const actor = await requireActor();
  const { id } = await params;
  const view = await viewWorkOrder(deps(), actor, id);
  mustShow(view);
  const { order, vehicle } = view.value;
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
      <Grid templateColumns={{ base: 'minmax(0, 1fr)', lg: '1fr 1fr' }} gap="8" mt="5">
        <Section title="Why it stops">
          {live ? (
            <ActionForm action={waitAction}>
              <input type="hidden" name="workOrderId" value={id} />
              <SelectField
                name="reason"
                label="Reason"
                choices={REASONS.map((reason) => ({ value: reason, label: reason }))}
                large
              />
              <TextField name="site" label="Site" hint="as 3A; empty: the whole job" />
              <TextField name="partNumber" label="Part that it waits for" hint="its number; empty: none" mono />
              <TextField name="partWhat" label="What the part is" hint="where the catalogue does not know it" />
              <TextField name="quantity" label="How many" inputMode="numeric" defaultValue="1" />
              <SubmitButton main large>
                Stop the job, draft the order
              </SubmitButton>
            </ActionForm>
          ) : (
            'This order is not open for you to record on.'
          )}
          <Box mt="3">
            <TextLink href="/work-orders/waiting">What waits, and the drafted order</TextLink>
          </Box>
        </Section>
        <StandsOpen view={view.value} live={live} />
      </Grid>
    </>
  );
});
