import { Box, Flex, Grid } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { type Actor, may } from '@/server/access';
import type { WorkOrderView } from '@/server/work-orders/view-work-order';
import { PLACE_STATE_WORDS, taskText, WHY_WORDS } from '@/text/task-words';
import type { FormAction } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { Chips } from '@/ui/primitives/choice-fields';
import { SelectField, TextField } from '@/ui/primitives/fields';
import { Form, type FormName } from '@/ui/primitives/form';
import { Code, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { TaskFields } from '@/ui/work-orders/task-fields';
import { addOtherWorkAction, addTaskAction, approvePartAction, splitAction, takeOffTaskAction } from '../actions';

/** What is done on this visit and why, place by place; what is put on, taken off, or left for another day. */
export function TasksSection({ view, actor, live }: { view: WorkOrderView; actor: Actor; live: boolean }) {
  const changes = live && may(actor, 'open work orders');
  return (
    <Section id="tasks" title="Tasks" aside={kitText(view)}>
      <PlainTable heads={['Task', 'Where', 'Why', 'State', changes ? '' : null].filter((head) => head !== null)}>
        {view.tasks.map(({ row, sheet, places }) => (
          <tr key={row.id}>
            <td>
              <strong>{taskText(row.action, row.component, places.length)}</strong>{' '}
              {sheet && <Code>{sheet.part.number}</Code>}
              {row.approved.map(({ number, as, reason, by }) => (
                <Box key={number} color="soft" fontSize="sm">
                  or <Code>{number}</Code> ({as === 'trial' ? 'on trial' : 'equivalent'}, {by}: {reason})
                </Box>
              ))}
            </td>
            <td>{whereText(places)}</td>
            <td>
              {WHY_WORDS[row.why]}
              {row.note && `: ${row.note}`}
            </td>
            <td>{standsText(places)}</td>
            {changes && (
              <td>
                {view.tasks.length > 1 && places.every(({ state }) => state !== 'done') && (
                  <TakeOff orderId={view.order.id} taskId={row.id} />
                )}
              </td>
            )}
          </tr>
        ))}
      </PlainTable>
      {view.order.otherWork.length > 0 && (
        <Box mt="2">
          Besides the ignition: {view.order.otherWork.map(({ what, minutes }) => `${what} (${minutes} min)`).join(', ')}
        </Box>
      )}
      {changes && (
        <Flex gap="6" wrap="wrap" mt="3" data-no-print>
          <AddTask view={view} />
          <OtherWork view={view} />
          {may(actor, 'sign off work orders') && <ApprovePart view={view} />}
          <Split view={view} />
        </Flex>
      )}
    </Section>
  );
}

type Places = WorkOrderView['tasks'][number]['places'];

const whereText = (places: Places): string => {
  const here = places.filter(({ state }) => state !== 'moved');
  const names = here
    .map(({ name }) => name.replace(/^\D+ ?(?=\d)/, ''))
    .map((name) => (/\d/.test(name) ? name : 'the engine'));
  return names.length > 6 ? `${names.length} places` : names.join(', ') || 'nothing left here';
};

function standsText(places: Places): string {
  const states = (['open', 'done', 'left', 'moved'] as const).flatMap((state) => {
    const count = places.filter((place) => place.state === state).length;
    return count === 0
      ? []
      : [count === places.length ? PLACE_STATE_WORDS[state] : `${count} ${PLACE_STATE_WORDS[state]}`];
  });
  return states.join(', ');
}

const kitText = ({ kit }: WorkOrderView): string =>
  kit.map(({ quantity, partNumber }) => `${quantity} × ${partNumber}`).join(' · ');

function TakeOff({ orderId, taskId }: { orderId: string; taskId: string }) {
  return (
    <details>
      <summary className="nowrap">Take off</summary>
      <Form input="takeOffTaskForm" action={takeOffTaskAction}>
        <input type="hidden" name="workOrderId" value={orderId} />
        <input type="hidden" name="taskId" value={taskId} />
        <TextField name="reason" label="Why it is not done" />
        <SubmitButton>Take it off</SubmitButton>
      </Form>
    </details>
  );
}

/** Something that is changed on the order, folded away until it is wanted. */
function Change({
  summary,
  orderId,
  action,
  input,
  submit,
  children,
}: {
  summary: string;
  orderId: string;
  action: FormAction;
  input?: FormName;
  submit: string;
  children: ReactNode;
}) {
  return (
    <details>
      <summary>{summary}</summary>
      <Box mt="2" maxW="720px">
        <Form action={action} input={input}>
          <input type="hidden" name="workOrderId" value={orderId} />
          {children}
          <SubmitButton>{submit}</SubmitButton>
        </Form>
      </Box>
    </details>
  );
}

const AddTask = ({ view: { order, layout } }: { view: WorkOrderView }) => (
  <Change summary="Add task" orderId={order.id} action={addTaskAction} submit="Add">
    <TaskFields layout={layout} why="with_other_work" />
  </Change>
);

/** What the engine has besides its ignition that could be done while it is here. */
function OtherWork({ view: { order, family } }: { view: WorkOrderView }) {
  const left = family.otherWork.filter(({ what }) => !order.otherWork.some((on) => on.what === what));
  if (left.length === 0) return null;
  return (
    <Change summary="Add other work" orderId={order.id} action={addOtherWorkAction} submit="Add">
      <Chips
        name="what"
        legend="Not ignition, done in the same visit"
        choices={left.map(({ what, minutes }) => ({ value: what, label: `${what}, ${minutes} min` }))}
        chosen={[]}
        many
      />
    </Change>
  );
}

/** A part that the sheet does not name, let in by a supervisor. */
function ApprovePart({ view: { order, tasks } }: { view: WorkOrderView }) {
  const withSheet = tasks.filter(({ sheet }) => sheet !== null);
  if (withSheet.length === 0) return null;
  return (
    <Change
      summary="Use another part"
      orderId={order.id}
      action={approvePartAction}
      input="approvePartForm"
      submit="Use this part"
    >
      <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="4">
        <SelectField
          name="taskId"
          label="For"
          choices={withSheet.map(({ row, places }) => ({
            value: row.id,
            label: taskText(row.action, row.component, places.length),
          }))}
        />
        <TextField name="number" label="Part number" mono />
        <SelectField
          name="as"
          label="As"
          choices={[
            { value: 'equivalent', label: 'equivalent of another maker' },
            { value: 'trial', label: 'trial part' },
          ]}
        />
        <TextField name="reason" label="Why" hint="it stays on record" />
      </Grid>
    </Change>
  );
}

function Split({ view: { order, tasks } }: { view: WorkOrderView }) {
  const summary = 'Split visit';
  const open = tasks.flatMap(({ row, places }) =>
    places
      .filter(({ state }) => state === 'open')
      .map(({ target, name }) => ({ value: target, label: row.component === 'plug' ? `plug ${name}` : name })),
  );
  if (open.length === 0)
    return (
      <details>
        <summary>{summary}</summary>
        <Box color="soft">Everything here is done or on another visit already.</Box>
      </details>
    );
  return (
    <Change summary={summary} orderId={order.id} action={splitAction} input="splitForm" submit="Open the other visit">
      <Chips name="places" legend="What goes to the other visit" choices={open} chosen={[]} many />
      <TextField name="reason" label="Why" hint="as: rear bank on Friday, when the boots are here" />
    </Change>
  );
}
