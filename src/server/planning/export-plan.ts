import ical from 'ical-generator';
import { z } from 'zod';
import { addDays, mondayOf } from '@/core/calendar/plain-date';
import { timeTo24 } from '@/core/calendar/zone';
import { ok } from '@/core/shared/result';
import { toCsv } from '../exports/csv';
import type { Outcome } from '../failure';
import { useCase } from '../use-case';
import { type PlannedJob, plannedJobs } from './list-plan';

/** Jobs as an iCalendar file (RFC 5545), in floating local time: that of the depot. */
export function planCalendar(name: string, jobs: readonly PlannedJob[], now: Date): string {
  const calendar = ical({ name, prodId: { company: 'Isobar', product: 'plan', language: 'EN' } });
  for (const job of jobs) {
    if (!job.startsAt || !job.endsAt) continue;
    calendar.createEvent({
      id: `${job.id}@isobar`,
      start: job.startsAt,
      end: job.endsAt,
      floating: true,
      stamp: now,
      sequence: job.version,
      summary: `Unit ${job.unitNumber} ${job.vehicleName}: ${job.what} (work order ${job.number})`,
      location: `${job.depot}, ${job.bay}`,
      description: `${job.engineCode}, ${job.person}`,
    });
  }
  return calendar.toString();
}

const HEADER = [
  'day',
  'start',
  'end',
  'minutes',
  'depot',
  'bay',
  'person',
  'unit_number',
  'vehicle',
  'work_order',
  'work',
  'state',
  'pinned',
];

export const planCsv = (jobs: readonly PlannedJob[]): string =>
  toCsv(
    HEADER,
    jobs.map((job) => [
      job.day,
      timeTo24(job.startMin),
      timeTo24(job.startMin + job.minutes),
      job.minutes,
      job.depot,
      job.bay,
      job.person,
      job.unitNumber,
      job.vehicleName,
      job.number,
      job.what,
      job.orderState,
      job.isPinned ? 'yes' : 'no',
    ]),
  );

/** A week of the plan as a file. */
export const exportWeek = useCase({
  permission: 'read the fleet',
  input: z.object({ day: z.iso.date(), depot: z.string().max(120).optional(), format: z.enum(['ics', 'csv']) }),
  async run(deps, actor, { day, depot, format }): Promise<Outcome<string>> {
    const monday = mondayOf(day);
    const all = await plannedJobs(deps.db, actor.fleetId, monday, addDays(monday, 7));
    const jobs = depot === undefined ? all : all.filter((job) => job.depot === depot);
    const name = ['Isobar plan', depot, `week of ${monday}`].filter(Boolean).join(', ');
    return ok(format === 'csv' ? planCsv(jobs) : planCalendar(name, jobs, deps.now()));
  },
});
