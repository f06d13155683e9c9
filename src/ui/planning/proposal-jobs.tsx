import { sayDay } from '@/core/calendar/day-names';
import { timeTo24 } from '@/core/calendar/zone';
import { named, type PlanSlot } from '@/core/planning/plan-problem';
import type { ProposalResult } from '@/core/planning/plan-proposal';
import type { Change, ProposedJob } from '@/core/planning/proposal-view';
import { hoursText } from '@/text/format';
import { partsText } from '@/text/task-words';
import { TextLink } from '../primitives/links';
import { PlainTable } from '../primitives/plain-table';
import { WeekCost } from '../primitives/week-cost';

const CHANGE_WORDS: Readonly<Record<Change, string>> = {
  new: 'new',
  moved: 'moved',
  stays: 'as agreed',
  'taken off': 'taken off the plan',
  'left out': 'left out',
};

interface Props {
  readonly result: Pick<ProposalResult, 'bays' | 'people'>;
  readonly jobs: readonly ProposedJob[];
  readonly currency: string;
}

/** Jobs of a proposal with what becomes of each and why. */
export function ProposalJobs({ result, jobs, currency }: Props) {
  const nameOf = new Map([...result.bays, ...result.people].map((resource) => [resource.id, named(resource)]));
  const where = ({ day, startMin, bay, person }: PlanSlot): string =>
    [`${sayDay(day)} ${timeTo24(startMin)}`, nameOf.get(bay) ?? bay, nameOf.get(person) ?? person].join(', ');
  return (
    <PlainTable heads={['Unit', 'Work', 'Where', 'A week costs', 'Why']} numeric={[4]}>
      {jobs.map(({ facts, change, to, why }) => (
        <tr key={facts.id}>
          <td>
            <TextLink href={facts.workOrderId ? `/work-orders/${facts.workOrderId}` : `/vehicles/${facts.vehicleId}`}>
              <strong>{facts.unitNumber}</strong> {facts.name}
            </TextLink>
          </td>
          <td>
            {facts.components.map((component) => partsText(component, 2)).join(', ')} · {hoursText(facts.minutes)}
          </td>
          <td>
            {to ? where(to) : CHANGE_WORDS[change]}
            {change === 'moved' && facts.booked && <span className="soft small"> · agreed: {where(facts.booked)}</span>}
            {change === 'new' && facts.workOrderId === null && (
              <span className="soft small"> · opens its work order</span>
            )}
          </td>
          <td>
            <WeekCost unit={facts.unitNumber} amount={facts.weekCost ?? null} currency={currency} />
          </td>
          <td>{why}</td>
        </tr>
      ))}
    </PlainTable>
  );
}
