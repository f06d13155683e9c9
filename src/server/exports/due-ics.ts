import ical from 'ical-generator';
import { addDays, type PlainDate } from '@/core/calendar/plain-date';
import type { DueItem } from '@/core/due/due-item';
import type { Component } from '@/core/engine/quantities';
import { ok } from '@/core/shared/result';
import { COMPONENT_WORDS } from '@/text/catalogue-words';
import { STATE_WORDS } from '@/text/due-words';
import { percentText, spanText } from '@/text/format';
import { dueFilter, listDue } from '../due/list-due';
import type { Outcome } from '../failure';
import { useCase } from '../use-case';

/** The due list as a calendar: a day for each vehicle and component that has a date. What is past stands on today. */
export const exportDueCalendar = useCase({
  permission: 'read the fleet',
  input: dueFilter,
  async run(deps, actor, filter): Promise<Outcome<string>> {
    const list = await listDue(deps, actor, filter);
    if (!list.ok) return list;
    const calendar = ical({ name: 'Isobar: due', prodId: { company: 'Isobar', product: 'due', language: 'EN' } });
    for (const event of list.value.items.flatMap(eventsOf)) {
      const day = event.day < deps.today() ? deps.today() : event.day;
      calendar.createEvent({
        id: `${event.id}@isobar`,
        start: new Date(`${day}T00:00:00Z`),
        end: new Date(`${addDays(day, 1)}T00:00:00Z`),
        allDay: true,
        timezone: 'UTC',
        stamp: deps.now(),
        summary: event.summary,
        location: event.depot,
        description: event.description,
      });
    }
    return ok(calendar.toString());
  },
});

interface DueEvent {
  readonly id: string;
  readonly day: PlainDate;
  readonly summary: string;
  readonly depot: string;
  readonly description: string;
}

/** Of what binds first, and of what else has a day. */
function eventsOf({ vehicleId, unitNumber, name, depot, due, others, ...item }: DueItem): readonly DueEvent[] {
  const event = (component: Component, day: PlainDate, description: string): DueEvent => ({
    id: `due-${vehicleId}-${component}`,
    day,
    summary: `Unit ${unitNumber} ${name}: ${COMPONENT_WORDS[component].toLowerCase()} due`,
    depot,
    description,
  });
  const first = due && [
    STATE_WORDS[item.state],
    item.partNumber,
    item.lifeUsed !== null && `${percentText(item.lifeUsed)} used`,
    due.p10 !== due.p90 && `likely ${spanText(due.p10, due.p90)}`,
  ];
  return [
    ...(due && first ? [event(item.component, due.p50, first.filter(Boolean).join(', '))] : []),
    ...others.flatMap((other) =>
      other.due === null ? [] : [event(other.component, other.due, STATE_WORDS[other.state])],
    ),
  ];
}
