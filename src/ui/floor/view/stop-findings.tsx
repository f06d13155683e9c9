import { useMemo } from 'react';
import { siteId } from '@/core/engine/model';
import { findingKey, isUnplaced } from '@/core/inspection/finding';
import { stopsIn } from '@/core/work/order-model';
import { CAUSE_WORDS } from '@/text/cause-words';
import type { Floor } from '../sync/use-floor';
import { Stop } from './parts';

/** What the removed parts say that stops the work, as loud as it is. */
export function StopFindings({ floor: { job, record } }: { floor: Floor }) {
  const stops = useMemo(() => stopsIn(job.layout, record, job.decided), [job.layout, job.decided, record]);
  const nameOf = new Map(job.sites.map(({ id, name }) => [id, name]));
  return stops.map((stop) => (
    <Stop key={findingKey(stop)}>
      STOP
      {isUnplaced(stop)
        ? ' at one of the banks'
        : ` at ${stop.sites.map((site) => nameOf.get(siteId(site))).join(', ')}`}
      : {CAUSE_WORDS[stop.cause]}. {stop.next[1]} A supervisor has to decide before the work goes on.
    </Stop>
  ));
}
