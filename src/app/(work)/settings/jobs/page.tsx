import { Table } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { type JobItem, listJobs } from '@/server/jobs/list-jobs';
import { instantText, NONE } from '@/text/format';
import { ActionForm, SubmitButton } from '@/ui/primitives/action-form';
import { TextLink } from '@/ui/primitives/links';
import { Empty, PageHead } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { retryJobAction } from './actions';

export const metadata = { title: 'Background work' };

const NAMES: Readonly<Record<string, string>> = {
  'refresh-families': 'Due dates after a change of the catalogue',
  'due-run': 'Due dates of the day',
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
            <Table.Row key={job.id}>
              <Table.Cell>{NAMES[job.name] ?? job.name}</Table.Cell>
              <Table.Cell fontWeight={job.state === 'failed' ? '650' : undefined}>{STATES[job.state]}</Table.Cell>
              <Table.Cell whiteSpace="nowrap">{instantText(job.askedAt)}</Table.Cell>
              <Table.Cell whiteSpace="nowrap">{job.endedAt ? instantText(job.endedAt) : NONE}</Table.Cell>
              <Table.Cell>{job.tries + 1}</Table.Cell>
              <Table.Cell>{job.why ?? NONE}</Table.Cell>
              <Table.Cell>
                {job.state === 'failed' && may(actor, 'import data') && (
                  <ActionForm action={retryJobAction} quiet>
                    <input type="hidden" name="jobId" value={job.id} />
                    <SubmitButton>Try again</SubmitButton>
                  </ActionForm>
                )}
              </Table.Cell>
            </Table.Row>
          ))}
        </PlainTable>
      )}
    </>
  );
});
