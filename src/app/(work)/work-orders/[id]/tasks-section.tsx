import { Box, Flex, Grid } from '@chakra-ui/react';
import { allPlaces } from '@/core/engine/places';
import { TASK_ACTIONS, TASK_COMPONENTS, TASK_WHYS } from '@/core/work/task';
import { type Actor, may } from '@/server/access';
import type { WorkOrderView } from '@/server/work-orders/view-work-order';
import { ACTION_WORDS, PLACE_STATE_WORDS, partsText, taskText, WHY_WORDS } from '@/text/task-words';
import { ActionForm, SubmitButton } from '@/ui/primitives/action-form';
import { Chips, SelectField, TextField } from '@/ui/primitives/fields';
import { Code, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { addTaskAction, splitAction, takeOffTaskAction } from '../actions';

/** What is done on this visit and why, place by place; what is put on, taken off, or left for another day. */
export function TasksSection({ view, actor, live }: { view: WorkOrderView; actor: Actor; live: boolean }) {
  const changes = live && may(actor, 'open work orders');
  return (
    <Section id="tasks" title="Tasks" aside={kitText(view)}>
      <PlainTable heads={['Task', 'Where', 'Why', 'Stands', changes ? '' : null].filter((head) => head !== null)}>
        {view.tasks.map(({ row, sheet, places }) => (
          <tr key={row.id}>
            <td>
              <strong>{taskText(row.action, row.component, places.length)}</strong>{' '}
              {sheet && <Code>{sheet.part.number}</Code>}
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
      {changes && (
        <Flex gap="6" wrap="wrap" mt="3" data-no-print>
          <details>
            <summary>Put another task on</summary>
            <AddTask view={view} />
          </details>
          <details>
            <summary>Leave part of it for another visit</summary>
            <Split view={view} />
          </details>
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
      <summary>Take off</summary>
      <ActionForm action={takeOffTaskAction}>
        <input type="hidden" name="workOrderId" value={orderId} />
        <input type="hidden" name="taskId" value={taskId} />
        <TextField name="reason" label="Why it is not done" />
        <SubmitButton>Take it off</SubmitButton>
      </ActionForm>
    </details>
  );
}

function AddTask({ view: { order, layout } }: { view: WorkOrderView }) {
  const components = TASK_COMPONENTS.filter((component) => allPlaces(layout, component).length > 0);
  return (
    <Box mt="2" maxW="720px">
      <ActionForm action={addTaskAction}>
        <input type="hidden" name="workOrderId" value={order.id} />
        <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="4">
          <SelectField
            name="action"
            label="What is done"
            choices={TASK_ACTIONS.map((value) => ({ value, label: ACTION_WORDS[value] }))}
          />
          <SelectField
            name="component"
            label="To what"
            choices={components.map((value) => ({ value, label: partsText(value, allPlaces(layout, value).length) }))}
          />
          <TextField name="places" label="Where" hint="all, front bank, or cylinders as 2 3 5" defaultValue="all" />
          <SelectField
            name="why"
            label="Why"
            choices={TASK_WHYS.map((value) => ({ value, label: WHY_WORDS[value] }))}
            defaultValue="with_other_work"
          />
          <TextField name="note" label="In words" hint="what was reported or found" />
          <TextField name="releaseReason" label="Reason to release" hint="only for a sheet that nobody checked" />
        </Grid>
        <SubmitButton>Put it on</SubmitButton>
      </ActionForm>
    </Box>
  );
}

function Split({ view: { order, tasks } }: { view: WorkOrderView }) {
  const open = tasks.flatMap(({ row, places }) =>
    places
      .filter(({ state }) => state === 'open')
      .map(({ target, name }) => ({ value: target, label: row.component === 'plug' ? `plug ${name}` : name })),
  );
  if (open.length === 0) return <Box color="soft">Everything here is done or on another visit already.</Box>;
  return (
    <Box mt="2" maxW="720px">
      <ActionForm action={splitAction}>
        <input type="hidden" name="workOrderId" value={order.id} />
        <Chips name="places" legend="What goes to the other visit" choices={open} chosen={[]} many />
        <TextField name="reason" label="Why" hint="as: rear bank on Friday, when the boots are here" />
        <SubmitButton>Open the other visit</SubmitButton>
      </ActionForm>
    </Box>
  );
}
