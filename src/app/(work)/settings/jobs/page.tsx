import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { type JobItem, listJobs } from '@/server/jobs/list-jobs';
import { instantText, NONE } from '@/text/format';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { TextLink } from '@/ui/primitives/links';
import { type Column, ListTable } from '@/ui/primitives/list-table';
import { Empty, PageHead } from '@/ui/primitives/page';
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
        <ListTable
          noun="jobs"
          items={list.value}
          idOf={({ id }) => id}
          columns={columnsFor(may(actor, 'import data'))}
        />
      )}
    </>
  );
});

const columnsFor = (mayRetry: boolean): readonly Column<JobItem>[] => [
  { head: 'What', value: ({ name }) => NAMES[name] ?? name },
  {
    head: 'State',
    value: ({ state }) => STATES[state],
    cell: ({ state }) => <span className={state === 'failed' ? 'strong' : undefined}>{STATES[state]}</span>,
  },
  { head: 'Asked for', value: ({ askedAt }) => askedAt.toISOString(), cell: ({ askedAt }) => instantText(askedAt) },
  {
    head: 'Ended',
    value: ({ endedAt }) => endedAt?.toISOString() ?? null,
    cell: ({ endedAt }) => (endedAt ? instantText(endedAt) : NONE),
  },
  { head: 'Tries', value: ({ tries }) => tries + 1, numeric: true },
  { head: 'Why it failed', value: ({ why }) => why },
  {
    head: 'Changes',
    cell: ({ id, state }) =>
      state === 'failed' &&
      mayRetry && (
        <PressForm action={retryJobAction} quiet>
          <input type="hidden" name="jobId" value={id} />
          <SubmitButton>Try again</SubmitButton>
        </PressForm>
      ),
  },
];
