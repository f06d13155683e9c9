import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import type { PlainDate } from '@/core/calendar/plain-date';
import type { NamedDepot } from '@/core/planning/board-week';
import type { Adopted, ProposalResult } from '@/core/planning/plan-proposal';
import { agreedSlotsOf, planFigures, proposedSlotsOf } from '@/core/planning/proposal-view';
import type { WhatIfChange } from '@/core/planning/what-if';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { viewCosts } from '@/server/due/costs';
import { listDepots } from '@/server/fleet/bays';
import { viewProposal } from '@/server/planning/proposals';
import { dateText, moneyText } from '@/text/format';
import { changeWords } from '@/ui/planning/change-words';
import { ProposalFigures } from '@/ui/planning/proposal-figures';
import { ProposalProgress } from '@/ui/planning/proposal-progress';
import { ProposalWeeks } from '@/ui/planning/proposal-weeks';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { ButtonLink } from '@/ui/primitives/links';
import { LookAgain } from '@/ui/primitives/look-again';
import { Empty, PageHead, Section } from '@/ui/primitives/page';
import { adoptAction, discardAction, stopAction } from '../../actions';

export default page(async function ProposalPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await requireActor();
  const { id } = await params;
  const answered = await viewProposal.withUnknown(deps(), actor, { proposalId: id });
  mustShow(answered);
  const costs = await viewCosts(deps(), actor);
  mustShow(costs);
  const depots = await listDepots(deps(), actor);
  mustShow(depots);
  const proposal = answered.value;
  const { currency } = costs.value;
  const isRunning = proposal.state === 'queued' || proposal.state === 'running';
  const canPlan = may(actor, 'plan work orders');
  return (
    <>
      <PageHead
        title={
          proposal.name ?? `Plan proposed from ${dateText(proposal.scope.from)}, ${proposal.scope.days} working days`
        }
        actions={<Deciding id={id} state={proposal.state} canPlan={canPlan} />}
      >
        asked for by {proposal.askedBy} · {STATES[proposal.state]}
      </PageHead>
      {isRunning && (
        <>
          <LookAgain everyMs={700} />
          <ProposalProgress progress={proposal.progress} currency={currency} />
        </>
      )}
      {proposal.adopted && <Done adopted={proposal.adopted} />}
      {proposal.problem && <Empty>{proposal.problem}</Empty>}
      {proposal.result && (
        <Result
          result={proposal.result}
          depots={depots.value}
          changes={proposal.changes}
          today={proposal.scope.from}
          currency={currency}
        />
      )}
    </>
  );
});

const STATES = {
  queued: 'waits for its turn',
  running: 'is worked out',
  done: 'ready: adopt it, or put it away',
  failed: 'came to nothing',
  adopted: 'adopted',
  discarded: 'put away',
} as const;

function Deciding({ id, state, canPlan }: { id: string; state: keyof typeof STATES; canPlan: boolean }) {
  const idField = <input type="hidden" name="proposalId" value={id} />;
  if (!canPlan) return null;
  if (state === 'queued' || state === 'running')
    return (
      <PressForm action={stopAction} quiet>
        {idField}
        <SubmitButton>Stop, and keep the best so far</SubmitButton>
      </PressForm>
    );
  if (state !== 'done') return <ButtonLink href="/plan">To the week</ButtonLink>;
  return (
    <>
      <PressForm action={discardAction} quiet>
        {idField}
        <SubmitButton>Discard</SubmitButton>
      </PressForm>
      <PressForm action={adoptAction}>
        {idField}
        <SubmitButton main>Adopt</SubmitButton>
      </PressForm>
    </>
  );
}

function Done({ adopted: { planned, moved, opened, refused } }: { adopted: Adopted }) {
  return (
    <div role="status">
      <p>
        <strong>{planned}</strong> booked, <strong>{moved}</strong> of them moved, <strong>{opened}</strong> work orders
        opened.
      </p>
      {refused.length > 0 && (
        <ul className="changes">
          {refused.map(({ unitNumber, message }) => (
            <li key={unitNumber}>
              Unit {unitNumber} was not: {message}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

interface ResultProps {
  readonly result: ProposalResult;
  readonly changes: readonly WhatIfChange[];
  readonly depots: readonly NamedDepot[];
  readonly today: PlainDate;
  readonly currency: string;
}

function Result({ result, changes, ...shown }: ResultProps) {
  const { plan, jobs, bays, people } = result;
  const { today, currency } = shown;
  const columns = [
    { name: 'Current plan', figures: planFigures(result, agreedSlotsOf(jobs), today) },
    { name: 'Proposed plan', figures: planFigures(result, proposedSlotsOf(result), today) },
  ];
  const known = { bays, people, jobs: jobs.map(({ id, unitNumber }) => ({ id, name: `unit ${unitNumber}` })) };
  return (
    <>
      {changes.length > 0 && (
        <Section title="It takes for granted" aside="adopting it writes these down">
          <ul className="changes">
            {changes.map((change) => (
              <li key={JSON.stringify(change)}>{changeWords(change, known)}</li>
            ))}
          </ul>
        </Section>
      )}
      <Section title="What it comes to" aside={provenText(plan, currency)}>
        <ProposalFigures columns={columns} currency={currency} />
      </Section>
      <ProposalWeeks result={result} {...shown} />
    </>
  );
}

function provenText({ cost, lowerBound, isProven }: ProposalResult['plan'], currency: string): string {
  const money = (value: number): string => moneyText(Math.round(value), currency);
  return isProven
    ? `${money(cost)} with moves: proven, no plan costs less`
    : `${money(cost)} with moves; no plan can cost less than ${money(lowerBound)} (proven)`;
}
