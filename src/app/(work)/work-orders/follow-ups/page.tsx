import { Box } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { type Actor, may } from '@/server/access';
import { deps } from '@/server/deps';
import { type FollowUpItem, listFollowUps } from '@/server/findings/follow-up';
import { dateText, distanceText, NONE } from '@/text/format';
import { ActionForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { TextField } from '@/ui/primitives/fields';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Empty, PageHead } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
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
        <PlainTable heads={['What', 'Vehicle', 'From', 'Who', 'By', 'At', '']}>
          {list.value.map((item) => (
            <Row key={item.followUp.id} item={item} actor={actor} />
          ))}
        </PlainTable>
      )}
    </>
  );
});

/** The misfire or the visit that it came from. */
function From({ item: { followUp, orderNumber, caseNumber } }: { item: FollowUpItem }) {
  return followUp.misfireCaseId ? (
    <TextLink href={`/misfires/${followUp.misfireCaseId}`}>Misfire {caseNumber}</TextLink>
  ) : (
    <TextLink href={`/work-orders/${followUp.workOrderId}#findings`}>{orderNumber}</TextLink>
  );
}

function Row({ item, actor }: { item: FollowUpItem; actor: Actor }) {
  const { followUp, unitNumber, vehicleName, owner, isDue } = item;
  return (
    <tr className={followUp.doneAt ? 'soft' : undefined}>
      <td>
        <Box fontWeight={isDue ? '650' : undefined}>{followUp.what}</Box>
        {isDue && <Box color="caution.ink">due now</Box>}
      </td>
      <td>
        <TextLink href={`/vehicles/${followUp.vehicleId}`}>{unitNumber}</TextLink> {vehicleName}
      </td>
      <td>
        <From item={item} />
      </td>
      <td>{owner}</td>
      <td className="nowrap">{dateText(followUp.dueOn)}</td>
      <td className="nowrap">{followUp.dueKm === null ? NONE : distanceText(followUp.dueKm, actor.unitSystem)}</td>
      <td className="wide">
        {!followUp.doneAt && may(actor, 'open work orders') && (
          <ButtonLink href={`/vehicles/${followUp.vehicleId}/visit#follow-ups`}>Open a visit for it</ButtonLink>
        )}
        {followUp.doneAt && `Done: ${followUp.outcome}`}
        {!followUp.doneAt && may(actor, 'record work') && (
          <details>
            <summary>Done</summary>
            <ActionForm action={finishFollowUpAction}>
              <input type="hidden" name="followUpId" value={followUp.id} />
              <TextField name="outcome" label="What came of it" />
              <SubmitButton>Mark as done</SubmitButton>
            </ActionForm>
          </details>
        )}
      </td>
    </tr>
  );
}
