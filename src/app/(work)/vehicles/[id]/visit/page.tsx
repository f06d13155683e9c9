import { Box } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { isCoil } from '@/core/engine/places';
import { deps } from '@/server/deps';
import { viewVehicle } from '@/server/fleet/view-vehicle';
import { toTask, type VisitProposal, viewProposal } from '@/server/work-orders/propose-visit';
import { percentText } from '@/text/format';
import { otherWorkText, proposalText, reasonText } from '@/text/proposal-words';
import { CoilCosts } from '@/ui/bench/coil-costs';
import { SubmitButton } from '@/ui/primitives/button';
import { Form } from '@/ui/primitives/form';
import { TextLink } from '@/ui/primitives/links';
import { Empty, PageHead, Section } from '@/ui/primitives/page';
import { TaskFields } from '@/ui/work-orders/task-fields';
import { VisitForm } from '@/ui/work-orders/visit-form';
import { openForTaskAction, openVisitAction } from '../../../work-orders/actions';

type Props = { params: Promise<{ id: string }> };

/** What belongs to a visit of this vehicle, before it is opened. */
export default page(async function VisitPage({ params }: Props) {
  const actor = await requireActor();
  const { id } = await params;
  const [view, proposal] = await Promise.all([viewVehicle(deps(), actor, id), viewProposal(deps(), actor, id)]);
  mustShow(view);
  mustShow(proposal);
  const { vehicle } = view.value;
  const { proposals, currency, labourPerHour, followUps } = proposal.value;
  return (
    <>
      <PageHead
        trail={[
          ['Due', '/due'],
          [`Unit ${vehicle.unitNumber}`, `/vehicles/${vehicle.id}`],
        ]}
        title={`A visit of unit ${vehicle.unitNumber} ${vehicle.name}`}
      >
        What is due, what stands behind the same covers, what the policies ask for and what was found ·{' '}
        <TextLink href={`/vehicles/${vehicle.id}/log#orders`}>one task by itself</TextLink>
      </PageHead>
      {proposals.length === 0 ? (
        <Empty>
          Nothing is due or found, or all of it is on an open order.{' '}
          <TextLink href={`/vehicles/${vehicle.id}/log#orders`}>Open one for something else</TextLink>
        </Empty>
      ) : (
        <VisitForm
          vehicleId={vehicle.id}
          currency={currency}
          labourPerHour={labourPerHour}
          open={openVisitAction}
          tasks={[
            ...proposals.map((item) => ({
              name: 'take' as const,
              value: JSON.stringify(toTask(item)),
              words: proposalText(item),
              reason: reasonText(item.reason, proposal.value),
              minutes: item.minutes,
              partsCost: item.partsCost,
              isTaken: item.isTaken,
            })),
            ...proposal.value.otherWork.map((work) => ({
              name: 'otherWork' as const,
              value: work.what,
              words: `Other work: ${work.what}`,
              reason: otherWorkText(work, actor.unitSystem),
              minutes: work.minutes,
              partsCost: null,
              isTaken: work.isTaken,
            })),
          ]}
        />
      )}
      {followUps.length > 0 && (
        <Section id="follow-ups" title="Put down for this vehicle" aside="ask for it while it is here">
          {followUps.map((what) => (
            <Box key={what} as="details">
              <summary>{what}: open a visit for it alone</summary>
              <Box mt="2" maxW="720px">
                <Form action={openForTaskAction}>
                  <input type="hidden" name="vehicleId" value={vehicle.id} />
                  <TaskFields layout={view.value.layout} why="follow_up" note={what} />
                  <SubmitButton>Open it</SubmitButton>
                </Form>
              </Box>
            </Box>
          ))}
        </Section>
      )}
      <Coils proposal={proposal.value} />
    </>
  );
});

/** Why coils are, or are not, proposed: the sum behind it, and the policy in force. */
function Coils({ proposal: { proposals, coilChance, coilsOption, currency } }: { proposal: VisitProposal }) {
  const coil = proposals.find(({ component, reason }) => isCoil(component) && reason.kind === 'policy');
  const advice = coil?.reason.kind === 'policy' ? coil.reason.advice : null;
  if (!coil || !advice) return null;
  return (
    <Box maxW="560px" mt="6">
      <Section title="Coils now, or when they fail" aside={reasonText(coil.reason, { coilsOption })}>
        <CoilCosts
          advice={advice}
          currency={currency}
          leave="Leave them in, expected"
          replace="Replace them now, while it is open"
        />
        <Box color="soft" fontSize="sm" mt="1">
          Chance that one of them fails before the plugs are changed again: {percentText(coilChance)}, assumed. It turns
          at {percentText(advice.breakEvenChance)}. Move the figures on the{' '}
          <TextLink href="/bench/coils">bench</TextLink>; choose under <TextLink href="/policies">Policies</TextLink>.
        </Box>
      </Section>
    </Box>
  );
}
