import ical from 'ical-generator';
import { z } from 'zod';
import { addDays, mondayOf, type PlainDate } from '@/core/calendar/plain-date';
import type { DueItem } from '@/core/due/due-item';
import { isWorkingDay, minutesOpen, USUAL_HOURS } from '@/core/planning/hours';
import { ok } from '@/core/shared/result';
import {
  bookingOf,
  listBooked,
  listWorkOrderRows,
  loadTaskKinds,
  type TaskRow,
  type WorkOrderListRow,
} from '@/db/queries/work-orders';
import { partsText } from '@/text/task-words';
import { dueFilter, listDue } from '../due/list-due';
import type { Outcome } from '../failure';
import { listBays } from '../fleet/bays';
import { listPeople } from '../fleet/people';
import { useCase } from '../use-case';

export interface WeekLine {
  readonly id: string;
  readonly name: string;
  readonly depot: string | null;
  readonly days: readonly {
    readonly day: PlainDate;
    readonly jobs: readonly WorkOrderListRow[];
    readonly takenMinutes: number;
    /** Minutes that there are; 0 on a day on which nobody works. */
    readonly openMinutes: number;
  }[];
}

export interface Week {
  readonly monday: PlainDate;
  readonly days: readonly PlainDate[];
  readonly bays: readonly WeekLine[];
  readonly people: readonly WeekLine[];
  /** Open orders that have no day. */
  readonly unplanned: readonly WorkOrderListRow[];
  /** Vehicles that are past a limit or soon due, with no open order. */
  readonly due: readonly DueItem[];
}

/** A week of bays and people with hours taken and left, and what is due and not planned. */
export const viewWeek = useCase({
  permission: 'read the fleet',
  input: z.iso.date(),
  async run(deps, actor, anyDay): Promise<Outcome<Week>> {
    const monday = mondayOf(anyDay);
    const days = Array.from({ length: 7 }, (_, i) => addDays(monday, i));
    const [booked, open, bays, people, due] = await Promise.all([
      listBooked(deps.db, actor.fleetId, monday, addDays(monday, 7)),
      listWorkOrderRows(deps.db, actor.fleetId, { open: true }),
      listBays(deps, actor),
      listPeople(deps, actor),
      listDue(deps, actor, dueFilter.parse({})),
    ]);
    if (!bays.ok) return bays;
    if (!people.ok) return people;
    if (!due.ok) return due;
    const live = booked.filter((job) => job.state !== 'cancelled');
    const line = (
      id: string,
      name: string,
      depot: string | null,
      openOn: (day: PlainDate) => number,
      own: readonly WorkOrderListRow[],
    ): WeekLine => ({
      id,
      name,
      depot,
      days: days.map((day) => {
        const jobs = own.filter((job) => job.startsAt?.startsWith(day));
        const takenMinutes = jobs.reduce((sum, job) => sum + (bookingOf(job)?.minutes ?? 0), 0);
        return { day, jobs, takenMinutes, openMinutes: openOn(day) };
      }),
    });
    return ok({
      monday,
      days,
      bays: bays.value.map((bay) =>
        line(
          bay.id,
          bay.name,
          bay.depot,
          (day) => minutesOpen(bay.hours, day),
          live.filter((job) => job.bayId === bay.id),
        ),
      ),
      people: people.value
        .filter((person) => person.role === 'technician' && person.active)
        .map((person) =>
          line(
            person.id,
            person.name,
            null,
            (day) => (isWorkingDay(USUAL_HOURS, day) ? person.shiftMinutes : 0),
            live.filter((job) => job.personId === person.id),
          ),
        ),
      unplanned: open.filter((order) => order.startsAt === null),
      due: due.value.items.filter(
        (item) => !item.openWorkOrder && (item.state === 'past' || item.state === 'soon' || item.state === 'inspect'),
      ),
    });
  },
});

/** The week's jobs as an iCalendar file (RFC 5545), in floating local time. */
export const exportWeek = useCase({
  permission: 'read the fleet',
  input: z.iso.date(),
  async run(deps, actor, anyDay): Promise<Outcome<string>> {
    const monday = mondayOf(anyDay);
    const calendar = ical({
      name: `Isobar plan, week of ${monday}`,
      prodId: { company: 'Isobar', product: 'plan', language: 'EN' },
    });
    const booked = await listBooked(deps.db, actor.fleetId, monday, addDays(monday, 7));
    const tasks = await loadTaskKinds(
      deps.db,
      booked.map(({ id }) => id),
    );
    for (const job of booked) {
      if (!job.startsAt || !job.endsAt || job.state === 'cancelled') continue;
      calendar.createEvent({
        id: `${job.id}@isobar`,
        start: job.startsAt,
        end: job.endsAt,
        floating: true,
        stamp: deps.now(),
        summary: `Unit ${job.unitNumber} ${job.vehicleName}: ${whatIsDone(tasks.get(job.id) ?? [])} (work order ${job.number})`,
        location: `${job.depot}, ${job.bay}`,
        description: `${job.engineCode}, ${job.person}`,
      });
    }
    return ok(calendar.toString());
  },
});

/** "replace plugs, inspect coils" */
const whatIsDone = (tasks: readonly Pick<TaskRow, 'action' | 'component'>[]): string =>
  tasks.map(({ action, component }) => `${action} ${partsText(component, 2)}`).join(', ');
