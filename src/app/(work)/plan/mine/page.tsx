import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { sayDay } from '@/core/calendar/day-names';
import { addDays } from '@/core/calendar/plain-date';
import { timeTo24 } from '@/core/calendar/zone';
import { groupBy } from '@/core/shared/group-by';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { listPlan, type PlannedJob } from '@/server/planning/list-plan';
import { hoursText } from '@/text/format';
import { TextLink } from '@/ui/primitives/links';
import { Empty, PageHead, Section } from '@/ui/primitives/page';
import { StoppedBanner } from '@/ui/work-orders/stopped-banner';
import { endWaitAction } from '../../work-orders/actions';

const DAYS = 7;

/** What a person is booked for, today and in the days after: for a pocket. */
export default page(async function MyDaysPage() {
  const actor = await requireActor();
  const today = deps().today();
  const plan = await listPlan(deps(), actor, { from: today, to: addDays(today, DAYS - 1) });
  mustShow(plan);
  const mine = plan.value.filter(({ personId, orderState }) => personId === actor.personId && orderState !== 'closed');
  const days = groupBy(mine, ({ day }) => day);
  return (
    <>
      <PageHead title="My days">
        <strong>{mine.length}</strong> booked for you until {sayDay(addDays(today, DAYS - 1))}
      </PageHead>
      {mine.length === 0 && <Empty>Nothing is booked for you in these days. A supervisor books work under Plan.</Empty>}
      {[...days].map(([day, jobs]) => (
        <Section key={day} title={day === today ? `Today, ${sayDay(day)}` : sayDay(day)} aside={minutesText(jobs)}>
          <ol className="my-jobs">
            {jobs.map((job) => (
              <li key={job.id}>
                <span className="at">
                  {timeTo24(job.startMin)}
                  <span className="soft small"> to {timeTo24(job.startMin + job.minutes)}</span>
                </span>
                <span>
                  <TextLink href={`/work-orders/${job.id}/floor`}>
                    <strong>{job.unitNumber}</strong> {job.vehicleName}
                  </TextLink>
                  <span className="soft">
                    {job.what} · {job.engineCode}
                  </span>
                  <span className="soft">
                    {job.depot}, {job.bay}
                    {job.handedOverAt ? ' · handed over' : ''}
                  </span>
                  {job.stop && (
                    <StoppedBanner
                      stops={[job.stop]}
                      workOrderId={job.id}
                      goOn={may(actor, 'record work') ? endWaitAction : null}
                    />
                  )}
                </span>
              </li>
            ))}
          </ol>
        </Section>
      ))}
    </>
  );
});

const minutesText = (jobs: readonly PlannedJob[]): string =>
  hoursText(jobs.reduce((sum, { minutes }) => sum + minutes, 0));
