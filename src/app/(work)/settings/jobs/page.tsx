import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { type JobItem, listJobs } from '@/server/jobs/list-jobs';
import { instantText, NONE } from '@/text/format';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { TextLink } from '@/ui/primitives/links';
import { Empty, PageHead } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { retryJobAction } from './actions';

const NAMES: Readonly<Record<string, string>> = {
  'refresh-families': 'Due dates after a change of the catalogue',
  'due-run': 'Due dates of the day',
  'back-test': 'Past forecasts held against what came',
  'load-readings': 'Load of a large file of readings',
  notices: 'Notices of the day',
  'check-import': 'Check of a large file',
  'apply-import': 'Import of a large file',
};
const STATES: Readonly<Record<JobItem['state'], string>> = {
  queued: 'queued',
  running: 'running',
  retrying: 'failed, will be tried again',
  failed: 'failed',
  done: 'done',
};

export default page(async function JobsPage() {
  const actor = await requireActor();
  const list = await listJobs(deps(), actor);
  mustShow(list);
  const open = list.value.filter(({ state }) => state !== 'done' && state !== 'failed').length;
  return (
    <>
      <PageHead title="Background work">
        <strong>{open}</strong> waiting or running · done by a worker beside the app ·{' '}
        <TextLink href="/settings">Settings</TextLink>
      </PageHead>
      {list.value.length === 0 ? (
        <Empty>No background work yet. It is asked for where a change concerns many vehicles, and once a day.</Empty>
      ) : (
        <PlainTable heads={['What', 'State', 'Asked for', 'Ended', 'Tries', 'Why it failed', '']}>
          {list.value.map((job) => (
            <tr key={job.id}>
              <td>{NAMES[job.name] ?? job.name}</td>
              <td className={job.state === 'failed' ? 'strong' : undefined}>{STATES[job.state]}</td>
              <td className="nowrap">{instantText(job.askedAt)}</td>
              <td className="nowrap">{job.endedAt ? instantText(job.endedAt) : NONE}</td>
              <td>{job.tries + 1}</td>
              <td>{job.why ?? NONE}</td>
              <td>
                {job.state === 'failed' && may(actor, 'import data') && (
                  <PressForm action={retryJobAction} quiet>
                    <input type="hidden" name="jobId" value={job.id} />
                    <SubmitButton>Try again</SubmitButton>
                  </PressForm>
                )}
              </td>
            </tr>
          ))}
        </PlainTable>
      )}
    </>
  );
});
