import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { isPlainDate, type PlainDate } from '@/core/calendar/plain-date';
import type { NamedDepot } from '@/core/planning/board-week';
import type { ProposalResult } from '@/core/planning/plan-proposal';
import {
  agreedSlotsOf,
  type ProposedJob,
  planFigures,
  proposedJobs,
  proposedSlotsOf,
  weekOfProposal,
  weeksOf,
} from '@/core/planning/proposal-view';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { viewCosts } from '@/server/due/costs';
import { listDepots } from '@/server/fleet/bays';
import { viewProposal } from '@/server/planning/proposals';
import { dateText, moneyText } from '@/text/format';
import { ProposalBoard } from '@/ui/planning/proposal-board';
import { ProposalFigures } from '@/ui/planning/proposal-figures';
import { ProposalJobs } from '@/ui/planning/proposal-jobs';
import { ProposalProgress } from '@/ui/planning/proposal-progress';
import { ActionForm, SubmitButton } from '@/ui/primitives/action-form';
import { LinkChoices } from '@/ui/primitives/link-choices';
import { ButtonLink } from '@/ui/primitives/links';
import { LookAgain } from '@/ui/primitives/look-again';
import { Empty, PageHead, Section } from '@/ui/primitives/page';
import { adoptAction, discardAction, stopAction } from '../../actions';

export const metadata = { title: 'Proposed plan' };

type Asked = Readonly<Record<string, string | string[] | undefined>>;
interface Props {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<Asked>;
}

export default page(async function ProposalPage({ params, searchParams }: Props) {
  const actor = await requireActor();
  const { id } = await params;
  const found = await viewProposal.withUnknown(deps(), actor, { proposalId: id });
  mustShow(found);
  const costs = await viewCosts(deps(), actor);
  mustShow(costs);
  const depots = await listDepots(deps(), actor);
  mustShow(depots);
  const proposal = found.value;
  const { currency } = costs.value;
  const isRunning = proposal.state === 'queued' || proposal.state === 'running';
  const canPlan = may(actor, 'plan work orders');
  return (
    <>
      <PageHead
        title={`Plan proposed from ${dateText(proposal.scope.from)}, ${proposal.scope.days} working days`}
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
      {proposal.problem && <Empty>{proposal.problem}</Empty>}
      {proposal.result && (
        <Result
          result={proposal.result}
          depots={depots.value}
          asked={await searchParams}
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
  const own = <input type="hidden" name="proposalId" value={id} />;
  if (!canPlan) return null;
  if (state === 'queued' || state === 'running')
    return (
      <ActionForm action={stopAction} quiet>
        {own}
        <SubmitButton>Stop, and keep the best so far</SubmitButton>
      </ActionForm>
    );
  if (state !== 'done') return <ButtonLink href="/plan">To the week</ButtonLink>;
  return (
    <>
      <ActionForm action={discardAction} quiet>
        {own}
        <SubmitButton>Put away</SubmitButton>
      </ActionForm>
      <ActionForm action={adoptAction}>
        {own}
        <SubmitButton main>Adopt</SubmitButton>
      </ActionForm>
    </>
  );
}

interface ResultProps {
  readonly result: ProposalResult;
  readonly depots: readonly NamedDepot[];
  readonly asked: Asked;
  readonly today: PlainDate;
  readonly currency: string;
}

function Result({ result, depots, asked, today, currency }: ResultProps) {
  const jobs = proposedJobs(result);
  const { plan } = result;
  const used = depots.filter(({ name }) => jobs.some(({ facts }) => facts.depot === name));
  const depot = used.find(({ name }) => name === asked.depot) ?? used[0];
  const weeks = weeksOf(result);
  const monday = weeks.find((week) => week === asked.week && isPlainDate(week)) ?? weeks[0];
  const columns = [
    { name: 'As agreed', figures: planFigures(result, agreedSlotsOf(result.jobs), today) },
    { name: 'Proposed', figures: planFigures(result, proposedSlotsOf(result), today) },
  ];
  const to = (changed: Record<string, string>): string =>
    `?${new URLSearchParams({ depot: depot?.name ?? '', week: monday ?? '', ...changed })}`;
  const of = (...changes: readonly ProposedJob['change'][]): readonly ProposedJob[] =>
    jobs.filter(({ change, facts }) => changes.includes(change) && facts.depot === depot?.name);
  return (
    <>
      <Section title="What it comes to" aside={provenText(plan, currency)}>
        <ProposalFigures columns={columns} currency={currency} />
      </Section>
      {depot && monday && (
        <>
          <Choice
            label="Depot"
            names={used.map(({ name }) => name)}
            chosen={depot.name}
            to={(name) => to({ depot: name })}
          />
          <Choice
            label="Week"
            names={[...weeks]}
            chosen={monday}
            to={(week) => to({ week })}
            words={(week) => `week of ${dateText(week)}`}
          />
          <ProposalBoard
            key={`${depot.name} ${monday}`}
            week={weekOfProposal(result, { depot, monday, today, currency })}
            agreed={
              new Map([...agreedSlotsOf(result.jobs)].flatMap(([id, slot]) => (slot ? [[id, slot] as const] : [])))
            }
            whys={Object.fromEntries(jobs.map(({ facts, why }) => [facts.id, `${facts.unitNumber}: ${why}`]))}
          />
        </>
      )}
      <Part title="Moved, and taken off" jobs={of('moved', 'taken off')} {...{ result, currency }} />
      <Part title="New" jobs={of('new')} {...{ result, currency }} />
      <Part title="Left out" jobs={of('left out')} {...{ result, currency }} />
      <Part title="As agreed" jobs={of('stays')} {...{ result, currency }} />
    </>
  );
}

function provenText({ cost, lowerBound, isProven }: ProposalResult['plan'], currency: string): string {
  const money = (value: number): string => moneyText(Math.round(value), currency);
  return isProven
    ? `${money(cost)} with moves: proven, no plan costs less`
    : `${money(cost)} with moves; no plan can cost less than ${money(lowerBound)} (proven)`;
}

function Part({ title, jobs, ...props }: { title: string } & Parameters<typeof ProposalJobs>[0]) {
  if (jobs.length === 0) return null;
  return (
    <Section title={`${title}: ${jobs.length}`}>
      <ProposalJobs jobs={jobs} {...props} />
    </Section>
  );
}

interface ChoiceProps {
  readonly label: string;
  readonly names: readonly string[];
  readonly chosen: string;
  readonly to: (name: string) => string;
  readonly words?: (name: string) => string;
}

function Choice({ label, names, chosen, to, words = (name) => name }: ChoiceProps) {
  const [first = '', ...rest] = names;
  return (
    <LinkChoices
      label={label}
      all={words(first)}
      chosen={chosen === first ? undefined : chosen}
      choices={rest.map((name) => [name, words(name)] as const)}
      to={(name) => to(name ?? first)}
    />
  );
}
