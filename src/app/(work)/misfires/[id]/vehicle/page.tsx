import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { viewCase } from '@/server/misfire/view-case';
import { MisfireSteps } from '@/ui/misfire/at-vehicle';
import { ButtonLink } from '@/ui/primitives/links';
import { Empty, PageHead } from '@/ui/primitives/page';
import { mendCaseAction } from '../../actions';
import { SafetyLines } from '../safety-lines';

type Props = { params: Promise<{ id: string }> };

export default page(async function MisfireAtVehiclePage({ params }: Props) {
  const actor = await requireActor();
  const { id } = await params;
  const view = await viewCase(deps(), actor, id);
  mustShow(view);
  const { misfire, unitNumber, vehicleName, entries, facts, advice, layout, family } = view.value;
  const isOver = misfire.state !== 'open' || !may(actor, 'record work');
  const { currency, ...record } = facts;
  return (
    <>
      <PageHead
        title={`Misfire ${misfire.number}, unit ${unitNumber} ${vehicleName}`}
        actions={<ButtonLink href={`/misfires/${id}`}>All of it</ButtonLink>}
      />
      {isOver ? (
        <Empty>Nothing is to be tried here now. What was found stands on its page.</Empty>
      ) : (
        <>
          <SafetyLines hybrid={family.hybrid} />
          <MisfireSteps
            caseId={id}
            personId={actor.personId}
            entries={entries.map(({ entry }) => ({ id: entry.id, said: entry.said }))}
            facts={record}
            advice={advice}
            layout={layout}
            currency={currency}
            mend={may(actor, 'open work orders') ? mendCaseAction : null}
          />
        </>
      )}
    </>
  );
});
