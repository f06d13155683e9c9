import { Box } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { type Actor, may } from '@/server/access';
import { deps } from '@/server/deps';
import { type FollowUpItem, listFollowUps } from '@/server/findings/follow-up';
import { dateText, distanceText, NONE } from '@/text/format';
import { SubmitButton } from '@/ui/primitives/button';
import { TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { type Column, ListTable } from '@/ui/primitives/list-table';
import { Empty, PageHead } from '@/ui/primitives/page';
import { finishFollowUpAction } from '../actions';

export default page(async function FollowUpsPage() {
  const actor = await requireActor();
  const list = await listFollowUps(deps(), actor);
  mustShow(list);
  const open = list.value.filter(({ followUp }) => followUp.doneAt === null);
  const due = open.filter(({ isDue }) => isDue).length;
  return (
    <>
      <PageHead title="Follow-ups">
        <strong>{due}</strong> due · {open.length} open · {list.value.length - open.length} done
      </PageHead>
      {list.value.length === 0 ? (
        <Empty>No follow-ups. Add one on a work order, with who sees to it and by when.</Empty>
      ) : (
        <ListTable
          noun="follow-ups"
          items={list.value}
          idOf={({ followUp }) => followUp.id}
          isOver={({ followUp }) => followUp.doneAt !== null}
          columns={columnsFor(actor)}
        />
      )}
    </>
  );
});

/** The misfire or the visit that it came from. */
function From({ item: { followUp, orderNumber, caseNumber } }: { item: FollowUpItem }) {
  return followUp.misfireCaseId ? (
    <TextLink href={`/misfires/${followUp.misfireCaseId}`}>Misfire {caseNumber}</TextLink>
  ) : (
    <TextLink href={`/work-orders/${followUp.workOrderId}/findings`}>{orderNumber}</TextLink>
  );
}

const columnsFor = (actor: Actor): readonly Column<FollowUpItem>[] => [
  {
    head: 'What',
    value: ({ followUp }) => followUp.what,
    cell: ({ followUp, isDue }) => (
      <>
        <Box fontWeight={isDue ? '650' : undefined}>{followUp.what}</Box>
        {isDue && <Box color="caution.ink">due now</Box>}
      </>
    ),
  },
  {
    head: 'Vehicle',
    value: ({ unitNumber, vehicleName }) => `${unitNumber} ${vehicleName}`,
    cell: ({ followUp, unitNumber, vehicleName }) => (
      <>
        <TextLink href={`/vehicles/${followUp.vehicleId}`}>{unitNumber}</TextLink> {vehicleName}
      </>
    ),
  },
  {
    head: 'From',
    value: ({ orderNumber, caseNumber }) => orderNumber ?? caseNumber,
    cell: (item) => <From item={item} />,
  },
  { head: 'Who', value: ({ owner }) => owner },
  { head: 'By', value: ({ followUp }) => followUp.dueOn, cell: ({ followUp }) => dateText(followUp.dueOn) },
  {
    head: 'At',
    value: ({ followUp }) => followUp.dueKm,
    cell: ({ followUp }) => (followUp.dueKm === null ? NONE : distanceText(followUp.dueKm, actor.unitSystem)),
    numeric: true,
  },
  {
    head: 'Outcome',
    value: ({ followUp }) => followUp.outcome,
    cell: ({ followUp }) =>
      followUp.doneAt ? `Done: ${followUp.outcome}` : <Finish followUp={followUp} actor={actor} />,
  },
];

function Finish({ followUp, actor }: { followUp: FollowUpItem['followUp']; actor: Actor }) {
  return (
    <>
      {may(actor, 'open work orders') && (
        <ButtonLink href={`/vehicles/${followUp.vehicleId}/visit#follow-ups`}>Open a visit for it</ButtonLink>
      )}
      {may(actor, 'record work') && (
        <details>
          <summary>Done</summary>
          <Form action={finishFollowUpAction} input="finishFollowUpForm">
            <input type="hidden" name="followUpId" value={followUp.id} />
            <TextField name="outcome" label="What came of it" />
            <SubmitButton>Mark as done</SubmitButton>
          </Form>
        </details>
      )}
    </>
  );
}
