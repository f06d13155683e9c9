import { Box } from '@chakra-ui/react';
import { SAID_REASONS } from '@/core/components/history';
import type { MissingAt } from '@/core/work/closing';
import { type Actor, may } from '@/server/access';
import type { WorkOrderView } from '@/server/work-orders/view-work-order';
import { minutesWorked } from '@/server/work-orders/work-time';
import { dateText, distanceText, hoursText, instantText, NONE } from '@/text/format';
import { minutesText } from '@/text/minutes-words';
import { removalChoices } from '@/text/removal-words';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { CheckField } from '@/ui/primitives/choice-fields';
import { SelectField, TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { TextLink } from '@/ui/primitives/links';
import { Facts, Section } from '@/ui/primitives/page';
import { cancelAction, closeAction, handOverAction, reopenAction } from '../actions';

/** Handing over, verifying, closing and reopening, each for whoever may. */
export function CloseSection({ view, actor, live }: { view: WorkOrderView; actor: Actor; live: boolean }) {
  const { order, missing, vehicle } = view;
  const supervisor = may(actor, 'reopen or cancel work orders');
  const hidden = <input type="hidden" name="workOrderId" value={order.id} />;
  if (order.state === 'closed')
    return (
      <Section id="close" title="Closed">
        <Facts
          rows={[
            ['On', dateText(order.closedOn)],
            ['Odometer', `${distanceText(order.closedKm, actor.unitSystem)} (typed “${order.closedKmAsTyped}”)`],
            [
              'Work by',
              `${view.handedOverName ?? NONE}${order.handedOverAt ? `, ${instantText(order.handedOverAt)}` : ''}`,
            ],
            ['Bay time', labourText(view)],
            ['Note', order.note ?? NONE],
          ]}
        />
        {supervisor && (
          <Box mt="3" maxW="460px">
            <Form action={reopenAction} input="reasonForm">
              {hidden}
              <TextField name="reason" label="Reason to reopen" hint="plugs and due date go back to where they stood" />
              <SubmitButton>Reopen</SubmitButton>
            </Form>
          </Box>
        )}
      </Section>
    );
  if (order.state === 'cancelled')
    return (
      <Section id="close" title="Cancelled">
        {order.reason}
      </Section>
    );
  if (!live || !may(actor, 'record work')) return null;
  return (
    <Section id="close" title={missing.length > 0 ? 'Still missing to close' : 'Close'}>
      {missing.length > 0 && <MissingList orderId={order.id} missing={missing} />}
      {missing.length === 0 && order.handedOverAt === null && (
        <Box mb="4">
          <PressForm action={handOverAction}>
            {hidden}
            <SubmitButton>I did the work: hand it over as {actor.name}</SubmitButton>
          </PressForm>
        </Box>
      )}
      {order.handedOverAt !== null && (
        <Box mb="3">
          Handed over by {view.handedOverName}, {instantText(order.handedOverAt)}.{' '}
          {!supervisor && 'A supervisor verifies and closes it.'}
        </Box>
      )}
      {missing.length === 0 && supervisor && (
        <Box maxW="460px">
          <Form action={closeAction} input="closeForm">
            {hidden}
            <input type="hidden" name="version" value={order.version} />
            <TextField
              name="odometer"
              label="Odometer now"
              hint={`this dash shows ${vehicle.odometerUnit}${view.roadTestEnd ? `; ${view.roadTestEnd} after the road test` : ''}`}
            />
            {view.roadTestEnd && (
              <CheckField name="roadTestWrong" label="The figure after the road test was written wrongly" />
            )}
            {view.plug && (
              <SelectField
                name="removalReason"
                label="Why the old plugs came out"
                choices={[{ value: '', label: 'as the task says' }, ...removalChoices(SAID_REASONS)]}
              />
            )}
            <TextField name="note" label="Note" hint="whoever does these plugs next will see it" />
            <SubmitButton main>Verify, close and move the due date</SubmitButton>
          </Form>
        </Box>
      )}
      {supervisor && (
        <details data-no-print>
          <summary>Cancel the order</summary>
          <Form action={cancelAction} input="reasonForm">
            {hidden}
            <TextField name="reason" label="Reason to cancel" />
            <SubmitButton>Cancel the order</SubmitButton>
          </Form>
        </details>
      )}
    </Section>
  );
}

/** Each thing that is missing, with a link to where it is done. */
function MissingList({ orderId, missing }: { orderId: string; missing: WorkOrderView['missing'] }) {
  const where: Readonly<Record<MissingAt, string | null>> = {
    sites: `/work-orders/${orderId}/floor#sites`,
    steps: `/work-orders/${orderId}/floor#steps`,
    gates: `/work-orders/${orderId}/procedure#gates`,
    findings: `/work-orders/${orderId}/findings`,
    head: null,
  };
  return (
    <ul className="missing">
      {missing.map(({ says, at }) => {
        const href = where[at];
        return (
          <li key={says}>
            {says} {href && <TextLink href={href}>Go</TextLink>}
          </li>
        );
      })}
    </ul>
  );
}

/** Bay time as worked against the estimate, and where the estimate comes from. */
function labourText({ order, times, learned }: WorkOrderView): string {
  const worked =
    order.minutesWorked ??
    minutesWorked(
      times.map(({ time }) => time),
      new Date(),
    );
  const clocked = times.length === 0 ? 'not clocked' : `${hoursText(worked)} worked`;
  return `${clocked}, ${minutesText(order, learned)}`;
}
