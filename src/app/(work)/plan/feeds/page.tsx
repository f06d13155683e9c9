import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { mondayOf } from '@/core/calendar/plain-date';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { listFeeds } from '@/server/planning/feeds';
import { dateText, instantText } from '@/text/format';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { ButtonLink } from '@/ui/primitives/links';
import { PageHead, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { makeFeedAction, removeFeedAction } from '../actions';

const OF_WORDS = { depot: 'Depot', bay: 'Bay', person: 'Person' } as const;

export default page(async function FeedsPage() {
  const actor = await requireActor();
  const feeds = await listFeeds(deps(), actor);
  mustShow(feeds);
  const monday = mondayOf(deps().today());
  const canMake = may(actor, 'plan work orders');
  return (
    <>
      <PageHead
        title="Plan as a calendar"
        actions={
          <>
            <ButtonLink href={`/plan/file?week=${monday}`} download>
              This week, iCalendar
            </ButtonLink>
            <ButtonLink href={`/plan/file?week=${monday}&format=csv`} download>
              This week, CSV
            </ButtonLink>
          </>
        }
      >
        Files of the week from {dateText(monday)}, and addresses that a calendar program can subscribe to.
      </PageHead>
      <Section
        title="Addresses to subscribe to"
        aside="whoever has an address can read that plan: replace it where it got into wrong hands"
      >
        <PlainTable heads={['Of', 'Name', 'Address', '']}>
          {feeds.value.map(({ of, ofId, name, madeAt }) => (
            <tr key={`${of} ${ofId}`}>
              <td>{OF_WORDS[of]}</td>
              <td>{name}</td>
              <td>{madeAt ? `made ${instantText(madeAt)}` : <span className="soft">none</span>}</td>
              <td>
                {canMake && (
                  <div className="feed-actions">
                    <PressForm action={makeFeedAction}>
                      <Target of={of} ofId={ofId} />
                      <SubmitButton>{madeAt ? 'Replace' : 'Make an address'}</SubmitButton>
                    </PressForm>
                    {madeAt && (
                      <PressForm action={removeFeedAction} quiet>
                        <Target of={of} ofId={ofId} />
                        <SubmitButton>Take away</SubmitButton>
                      </PressForm>
                    )}
                  </div>
                )}
              </td>
            </tr>
          ))}
        </PlainTable>
      </Section>
    </>
  );
});

const Target = ({ of, ofId }: { of: string; ofId: string }) => (
  <>
    <input type="hidden" name="of" value={of} />
    <input type="hidden" name="ofId" value={ofId} />
  </>
);
