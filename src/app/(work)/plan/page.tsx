import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { addDays, isPlainDate, type PlainDate } from '@/core/calendar/plain-date';
import type { BoardWeek } from '@/core/planning/board-week';
import { type Actor, may } from '@/server/access';
import { deps } from '@/server/deps';
import { listProposals } from '@/server/planning/proposals';
import { viewBoard, viewBoards } from '@/server/planning/view-board';
import { dateText, instantText } from '@/text/format';
import { AllDepots } from '@/ui/planning/all-depots';
import { PlanBoard } from '@/ui/planning/plan-board';
import { PressForm } from '@/ui/primitives/action-form';
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
  const boards = await boardsOf(actor, day, typeof depot === 'string' ? depot : null);
  const [first, ...others] = boards;
  if (!first) return <NoDepot />;
  const proposals = await listProposals(deps(), actor);
  const { monday, depots } = first;
  const shown = others.length > 0 ? null : first.depot.name;
  const to = addressOf(monday, shown);
  return (
    <>
      <PageHead
        title={`${shown ?? 'All depots'}, week of ${dateText(monday)}`}
        actions={
          <>
            <ButtonLink href={to({ week: addDays(monday, -7) })}>Week before</ButtonLink>
            <ButtonLink href={to({ week: deps().today() })}>This week</ButtonLink>
            <ButtonLink href={to({ week: addDays(monday, 7) })}>Week after</ButtonLink>
            <PrintButton main={false} />
            {may(actor, 'plan work orders') && (
              <PressForm action={proposeAction} quiet>
                <input type="hidden" name="from" value={monday > deps().today() ? monday : ''} />
                <SubmitButton main>Plan again</SubmitButton>
              </PressForm>
            )}
          </>
        }
      />
      {depots.length > 1 && (
        <LinkChoices
          label="Depot"
          all="All depots"
          chosen={shown ?? undefined}
          choices={depots.map(({ name }) => [name, name] as const)}
          to={(name) => to({ depot: name ?? null })}
        />
      )}
      {proposals.ok && <Ready proposals={proposals.value} />}
      {shown === null ? (
        <AllDepots boards={boards} to={(name) => to({ depot: name })} />
      ) : (
        <One board={first} actor={actor} />
      )}
    </>
  );
});

/** The week of one depot; null: of every one. */
async function boardsOf(actor: Actor, day: PlainDate, depot: string | null): Promise<readonly BoardWeek[]> {
  if (depot === null) {
    const boards = await viewBoards(deps(), actor, { day });
    mustShow(boards);
    return boards.value;
  }
  const board = await viewBoard(deps(), actor, { day, depot });
  mustShow(board);
  return [board.value];
}

/** The address of a week, of one depot or, with null, of all. */
const addressOf =
  (monday: PlainDate, shown: string | null) =>
  ({ week = monday, depot = shown }: { week?: string; depot?: string | null }): string =>
    `/plan?${new URLSearchParams({ week, ...(depot !== null && { depot }) })}`;

const NoDepot = () => (
  <>
    <PageHead title="Plan" />
    <Empty>
      There is no depot yet, so there is nothing to plan with. Depots come with the vehicles, by import; bays and hours
      are set under <TextLink href="/plan/resources">Bays, people, absences</TextLink>.
    </Empty>
  </>
);

function One({ board, actor }: { board: BoardWeek; actor: Actor }) {
  const { depot, monday, problem } = board;
  if (problem.bays.length === 0)
    return (
      <Empty>
        {depot.name} has no bay yet. Add one under <TextLink href="/plan/resources">Bays, people, absences</TextLink>:
        then this is its week.
      </Empty>
    );
  return (
    <PlanBoard
      key={`${depot.id} ${monday}`}
      week={board}
      canMove={may(actor, 'plan work orders')}
      goOn={may(actor, 'record work') ? endWaitAction : null}
    />
  );
}

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
