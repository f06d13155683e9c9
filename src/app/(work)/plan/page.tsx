import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { addDays, isPlainDate } from '@/core/calendar/plain-date';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { listProposals } from '@/server/planning/proposals';
import { viewBoard } from '@/server/planning/view-board';
import { dateText, instantText } from '@/text/format';
import { PlanBoard } from '@/ui/planning/plan-board';
import { ActionForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { LinkChoices } from '@/ui/primitives/link-choices';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Empty, PageHead } from '@/ui/primitives/page';
import { PrintButton } from '@/ui/primitives/print-button';
import { endWaitAction } from '../work-orders/actions';
import { proposeAction } from './actions';

type Asked = Readonly<Record<string, string | string[] | undefined>>;

export default page(async function PlanPage({ searchParams }: { searchParams: Promise<Asked> }) {
  const actor = await requireActor();
  const { week: asked, depot } = await searchParams;
  const day = typeof asked === 'string' && isPlainDate(asked) ? asked : deps().today();
  const board = await viewBoard(deps(), actor, { day, depot: typeof depot === 'string' ? depot : undefined });
  mustShow(board);
  if (!board.value)
    return (
      <>
        <PageHead title="Plan" />
        <Empty>
          There is no depot yet, so there is nothing to plan with. Depots come with the vehicles, by import; bays and
          hours are set under <TextLink href="/plan/resources">Bays, people, absences</TextLink>.
        </Empty>
      </>
    );
  const { monday, depots, depot: shown, problem } = board.value;
  const proposals = await listProposals(deps(), actor);
  const to = (changed: { week?: string; depot?: string }): string =>
    `/plan?${new URLSearchParams({ week: monday, depot: shown.name, ...changed })}`;
  return (
    <>
      <PageHead
        title={`${shown.name}, week of ${dateText(monday)}`}
        actions={
          <>
            <ButtonLink href={to({ week: addDays(monday, -7) })}>Week before</ButtonLink>
            <ButtonLink href={`/plan?${new URLSearchParams({ depot: shown.name })}`}>This week</ButtonLink>
            <ButtonLink href={to({ week: addDays(monday, 7) })}>Week after</ButtonLink>
            <PrintButton main={false} />
            {may(actor, 'plan work orders') && (
              <ActionForm action={proposeAction} quiet>
                <input type="hidden" name="from" value={monday > deps().today() ? monday : ''} />
                <SubmitButton main>Plan again</SubmitButton>
              </ActionForm>
            )}
          </>
        }
      />
      {depots.length > 1 && (
        <DepotChoice names={depots.map(({ name }) => name)} chosen={shown.name} to={(name) => to({ depot: name })} />
      )}
      {proposals.ok && <Ready proposals={proposals.value} />}
      {problem.bays.length === 0 ? (
        <Empty>
          {shown.name} has no bay yet. Add one under <TextLink href="/plan/resources">Bays, people, absences</TextLink>:
          then this is its week.
        </Empty>
      ) : (
        <PlanBoard
          key={`${shown.id} ${monday}`}
          week={board.value}
          canMove={may(actor, 'plan work orders')}
          goOn={may(actor, 'record work') ? endWaitAction : null}
        />
      )}
    </>
  );
});

/** Plans that wait for a decision. */
function Ready({
  proposals,
}: {
  proposals: readonly { id: string; state: string; name: string | null; createdAt: Date }[];
}) {
  const open = proposals.filter(({ state }) => state === 'queued' || state === 'running' || state === 'done');
  if (open.length === 0) return null;
  return (
    <p data-no-print>
      Proposed, and not decided:{' '}
      {open.map(({ id, name, createdAt }, i) => (
        <span key={id}>
          {i > 0 && ' · '}
          <TextLink href={`/plan/proposals/${id}`}>{name ?? `plan of ${instantText(createdAt)}`}</TextLink>
        </span>
      ))}
    </p>
  );
}

function DepotChoice({
  names,
  chosen,
  to,
}: {
  names: readonly string[];
  chosen: string;
  to: (name: string) => string;
}) {
  const [first = '', ...rest] = names;
  return (
    <LinkChoices
      label="Depot"
      all={first}
      chosen={chosen === first ? undefined : chosen}
      choices={rest.map((name) => [name, name] as const)}
      to={(name) => to(name ?? first)}
    />
  );
}
