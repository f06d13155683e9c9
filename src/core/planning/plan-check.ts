import { sayDay } from '../calendar/day-names';
import { timeTo24 } from '../calendar/zone';
import { type DayWindow, named, type PlanJob, type PlanProblem, type PlanSlot } from './plan-problem';

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

/** What a slot breaks for a job by itself, with the thing that it clashes with. */
export function slotClashes({ bays, people }: PlanProblem, job: PlanJob, slot: PlanSlot): readonly Clash[] {
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
    ...(covers(bay.open, slot, job.minutes) ? [] : [clash(bay.id, `${named(bay)} is not open all that time`)]),
    ...(covers(person.shift, slot, job.minutes)
      ? []
      : [clash(person.id, `${named(person)} is not there all that time`)]),
    ...(job.allowed === null || covers(job.allowed, slot, job.minutes)
      ? []
      : [clash(job.id, 'the vehicle cannot be had then')]),
    ...(job.kitFrom !== null && slot.day < job.kitFrom
      ? [clash(job.id, `its parts are there from ${sayDay(job.kitFrom)}`)]
      : []),
    ...(job.coolFromMin !== null && slot.startMin < job.coolFromMin
      ? [clash(job.id, `its engine is too hot before ${timeTo24(job.coolFromMin)}`)]
      : []),
  ];
}

/** Jobs that have one bay or one person at the same time. */
function overlaps(problem: PlanProblem, placed: readonly Placed[]): readonly Clash[] {
  const minutes = new Map(problem.jobs.map((job) => [job.id, job.minutes]));
  const of = (what: 'bay' | 'person'): readonly Clash[] => {
    const sorted = [...placed].sort(
      (x, y) => x[what].localeCompare(y[what]) || x.day.localeCompare(y.day) || x.startMin - y.startMin,
    );
    return sorted.flatMap((one, i): readonly Clash[] => {
      const before = sorted[i - 1];
      if (!before || before[what] !== one[what] || before.day !== one.day) return [];
      const ends = before.startMin + (minutes.get(before.job) ?? 0);
      return ends <= one.startMin
        ? []
        : [
            {
              a: before.job,
              b: one.job,
              message: `${before.job} and ${one.job} both have ${one[what]} on ${one.day}.`,
            },
          ];
    });
  };
  return [...of('bay'), ...of('person')];
}

/** Every hard rule that a plan breaks; empty: none. */
export function planClashes(problem: PlanProblem, placed: readonly Placed[]): readonly Clash[] {
  const jobs = new Map(problem.jobs.map((job) => [job.id, job]));
  return [
    ...placed.flatMap((one) => {
      const job = jobs.get(one.job);
      return job ? slotClashes(problem, job, one) : [];
    }),
    ...overlaps(problem, placed),
  ];
}

/** The first two things that pins ask for at once and that cannot both be; null: all pins can stand. */
export function pinClash(problem: PlanProblem): Clash | null {
  const pinned = problem.jobs.flatMap(({ id, pin }) => (pin ? [{ job: id, ...pin }] : []));
  return overlaps(problem, pinned)[0] ?? planClashes(problem, pinned)[0] ?? null;
}
