import { sayDay } from '../calendar/day-names';
import type { PlainDate } from '../calendar/plain-date';
import { timeTo24 } from '../calendar/zone';
import { groupBy } from '../shared/group-by';
import { breaksOf, hasBreak, minutesWithBreak, type Stay, travelBetween } from './person-day';
import { type DayWindow, named, type PlanJob, type PlanPerson, type PlanProblem, type PlanSlot } from './plan-problem';

/* The hard rules, one by one and by themselves: a plan or a pin is checked here whoever made it. */

export interface Placed extends PlanSlot {
  readonly job: string;
}

/** Two things that cannot both be. */
interface Clash {
  readonly a: string;
  readonly b: string;
  readonly message: string;
}

const covers = (windows: readonly DayWindow[], { day, startMin }: PlanSlot, minutes: number): boolean =>
  joined(windows, day).some(({ fromMin, toMin }) => fromMin <= startMin && startMin + minutes <= toMin);

/** Windows of a day, those that touch as one. */
function joined(windows: readonly DayWindow[], day: string): readonly DayWindow[] {
  const sorted = windows.filter((window) => window.day === day).sort((x, y) => x.fromMin - y.fromMin);
  return sorted.reduce<DayWindow[]>((list, window) => {
    const last = list.at(-1);
    if (last && window.fromMin <= last.toMin)
      list[list.length - 1] = { ...last, toMin: Math.max(last.toMin, window.toMin) };
    else list.push(window);
    return list;
  }, []);
}

/** How long a job takes in a slot: longer by the break of whoever does it where it covers the whole window of breaks. */
export const minutesTaken = (
  problem: Pick<PlanProblem, 'people' | 'breaks'>,
  { minutes }: Pick<PlanJob, 'minutes'>,
  { startMin, person }: Pick<PlanSlot, 'startMin' | 'person'>,
): number =>
  minutesWithBreak(
    minutes,
    startMin,
    breaksOf(
      problem,
      problem.people.find(({ id }) => id === person),
    ),
  );

/** What a slot breaks for a job by itself, with the thing that it clashes with. */
export function slotClashes(problem: PlanProblem, job: PlanJob, slot: PlanSlot): readonly Clash[] {
  const { bays, people } = problem;
  const minutes = minutesTaken(problem, job, slot);
  const bay = bays.find(({ id }) => id === slot.bay);
  const person = people.find(({ id }) => id === slot.person);
  const clash = (b: string, why: string): Clash => ({
    a: job.id,
    b,
    message: `${named(job)} cannot be there: ${why}.`,
  });
  if (!bay || !person) return [clash(bay ? slot.person : slot.bay, 'there is no such bay or person')];
  const lacks = (needs: readonly string[], has: readonly string[]): readonly string[] =>
    needs.filter((need) => !has.includes(need));
  const [bayLacks, personLacks] = [lacks(job.needsBay, bay.can), lacks(job.needsSkills, person.skills)];
  return [
    ...(bay.depot === job.depot ? [] : [clash(bay.id, `${named(bay)} is at another depot`)]),
    ...(bayLacks.length > 0 ? [clash(bay.id, `${named(bay)} does not take ${bayLacks.join(' and ')}`)] : []),
    ...(person.depots.includes(job.depot) ? [] : [clash(person.id, `${named(person)} does not work at ${job.depot}`)]),
    ...(personLacks.length > 0
      ? [clash(person.id, `${named(person)} is not trained for ${personLacks.join(' and ')}`)]
      : []),
    ...(covers(bay.open, slot, minutes) ? [] : [clash(bay.id, `${named(bay)} is not open all that time`)]),
    ...(covers(person.shift, slot, minutes) ? [] : [clash(person.id, `${named(person)} is not there all that time`)]),
    ...(job.allowed === null || covers(job.allowed, slot, minutes)
      ? []
      : [clash(job.id, 'the vehicle cannot be had then')]),
    ...(job.kitFrom !== null && isBeforeKit(job.kitFrom, job.kitFromMin, slot)
      ? [clash(job.id, `its parts are there from ${partsFrom(job.kitFrom, job.kitFromMin)}`)]
      : []),
    ...(job.coolFromMin !== null && slot.startMin < job.coolFromMin
      ? [clash(job.id, `its engine is too hot before ${timeTo24(job.coolFromMin)}`)]
      : []),
  ];
}

const isBeforeKit = (from: PlainDate, fromMin = 0, { day, startMin }: PlanSlot): boolean =>
  day < from || (day === from && startMin < fromMin);

/** "Fri 5 Mar, 10:00" */
export const partsFrom = (day: PlainDate, minute = 0): string =>
  [sayDay(day), ...(minute > 0 ? [timeTo24(minute)] : [])].join(', ');

/** A job where it lies, or work of a person that is none of the problem's jobs. */
interface DayStay extends Stay {
  readonly job: string | null;
  readonly name: string;
  readonly day: PlainDate;
  readonly depot: string;
}

/** Jobs where they lie, of one bay or person, by day and in order. */
function daysOf(
  problem: PlanProblem,
  placed: readonly Placed[],
  more: readonly DayStay[] = [],
): readonly (readonly DayStay[])[] {
  const jobs = new Map(problem.jobs.map((job) => [job.id, job]));
  const stays = placed.map((stay): DayStay => {
    const job = jobs.get(stay.job);
    const { day, startMin: fromMin } = stay;
    const toMin = fromMin + (job ? minutesTaken(problem, job, stay) : 0);
    return { job: stay.job, name: job ? named(job) : stay.job, depot: job?.depot ?? '', day, fromMin, toMin };
  });
  return [...groupBy([...stays, ...more], ({ day }) => day).values()].map((list) =>
    list.sort((x, y) => x.fromMin - y.fromMin),
  );
}

const overlapping = (
  stays: readonly DayStay[],
  whose: string,
  counts: (before: DayStay, stay: DayStay) => boolean = () => true,
): readonly Clash[] =>
  stays.flatMap((stay, i) => {
    const before = stays[i - 1];
    if (!before || before.toMin <= stay.fromMin || !counts(before, stay)) return [];
    return clashOf(before, stay, `both have ${whose} on ${sayDay(stay.day)}`);
  });

/** Two stays of which one is a job of the problem at least. */
const clashOf = (before: DayStay, stay: DayStay, why: string): readonly Clash[] => {
  if (before.job === null && stay.job === null) return [];
  const message = `${before.name} and ${stay.name} ${why}.`;
  return [{ a: before.job ?? before.depot, b: stay.job ?? stay.depot, message }];
};

/** What the days of a person do not allow besides two jobs at once: work elsewhere at the time, too late from another depot, no break. */
export const dayClashes = (problem: PlanProblem, placed: readonly Placed[], id: string): readonly Clash[] =>
  personClashes(problem, placed, id, (before, stay) => before.job === null || stay.job === null);

function personClashes(
  problem: PlanProblem,
  placed: readonly Placed[],
  id: string,
  counts: (before: DayStay, stay: DayStay) => boolean = () => true,
): readonly Clash[] {
  const person = problem.people.find((candidate) => candidate.id === id);
  const busy = (person?.busy ?? []).map((span) => ({ ...span, job: null, name: span.name ?? `work at ${span.depot}` }));
  const ofPerson = placed.filter((stay) => stay.person === id);
  return daysOf(problem, ofPerson, busy).flatMap((stays) => [
    ...overlapping(stays, person ? named(person) : id, counts),
    ...(person ? [...lateFrom(problem, person, stays), ...withoutBreak(problem, person, stays)] : []),
  ]);
}

const wayTo = (problem: PlanProblem, a: DayStay | undefined, b: DayStay | undefined): number =>
  a && b ? travelBetween(problem, a.depot, b.depot) : 0;

const lateFrom = (problem: PlanProblem, person: PlanPerson, stays: readonly DayStay[]): readonly Clash[] =>
  stays.flatMap((stay, i) => {
    const before = stays[i - 1];
    const minutes = wayTo(problem, before, stay);
    if (!before || before.toMin > stay.fromMin || before.toMin + minutes <= stay.fromMin) return [];
    const has = `${named(person)} has ${stay.fromMin - before.toMin} min between them on ${sayDay(stay.day)}`;
    return clashOf(before, stay, `are ${minutes} min apart, and ${has}`);
  });

function withoutBreak(problem: PlanProblem, person: PlanPerson, stays: readonly DayStay[]): readonly Clash[] {
  const breaks = breaksOf(problem, person);
  const job = stays.find((stay) => stay.job !== null);
  if (!breaks || !job?.job || hasBreak(stays, breaks, (i) => wayTo(problem, stays[i], stays[i + 1]))) return [];
  const window = `between ${timeTo24(breaks.fromMin)} and ${timeTo24(breaks.toMin)}`;
  const message = `${named(person)} has no break of ${breaks.minutes} min ${window} on ${sayDay(job.day)}.`;
  return [{ a: job.job, b: person.id, message }];
}

/** Jobs that have one bay at the same time, and what the days of people do not allow. */
function overlaps(problem: PlanProblem, placed: readonly Placed[]): readonly Clash[] {
  const idsOf = (what: 'bay' | 'person'): readonly string[] => [...new Set(placed.map((stay) => stay[what]))].sort();
  const nameOf = (id: string): string => {
    const bay = problem.bays.find((bay) => bay.id === id);
    return bay ? named(bay) : id;
  };
  return [
    ...idsOf('bay').flatMap((bay) =>
      daysOf(
        problem,
        placed.filter((stay) => stay.bay === bay),
      ).flatMap((stays) => overlapping(stays, nameOf(bay))),
    ),
    ...idsOf('person').flatMap((person) => personClashes(problem, placed, person)),
  ];
}

/** Every hard rule that a plan breaks; empty: none. */
export function planClashes(problem: PlanProblem, placed: readonly Placed[]): readonly Clash[] {
  const jobs = new Map(problem.jobs.map((job) => [job.id, job]));
  return [
    ...placed.flatMap((stay) => {
      const job = jobs.get(stay.job);
      return job ? slotClashes(problem, job, stay) : [];
    }),
    ...overlaps(problem, placed),
  ];
}

/** The first two things that pins ask for at once and that cannot both be; null: all pins can stand. */
export function pinClash(problem: PlanProblem): Clash | null {
  const pinned = problem.jobs.flatMap(({ id, pin }) => (pin ? [{ job: id, ...pin }] : []));
  return overlaps(problem, pinned)[0] ?? planClashes(problem, pinned)[0] ?? null;
}
