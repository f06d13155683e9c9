import { sayDay } from '../../calendar/day-names';
import type { PlainDate } from '../../calendar/plain-date';
import { timeTo24 } from '../../calendar/zone';
import { moneyText } from '../../units/money';
import { partsFrom } from '../plan-check';
import type { PlanJob, PlanProblem } from '../plan-problem';
import { type DayRules, Schedule } from './schedule';
import type { Slots } from './search';
import { common, roomy, type Slot, type Space, type SpaceJob, type Spans, spansOf } from './space';

/* Why a job is planned where it is, and why another is not planned at all, in the words of whoever plans. */

export const UNPLANNED_REASONS = [
  'no_capacity',
  'parts',
  'vehicle_away',
  'no_skill',
  'no_bay',
  'cool_down',
  'travel',
  'break',
  'cheaper_later',
  'horizon',
] as const;
export type UnplannedReason = (typeof UNPLANNED_REASONS)[number];

export const PLANNED_REASONS = ['pinned', 'as_agreed', 'cheapest_day', 'next_best_day'] as const;
export type PlannedReason = (typeof PLANNED_REASONS)[number];

export interface Why<C extends string> {
  readonly code: C;
  readonly message: string;
}

/** "2 h 40 min" */
function sayMinutes(minutes: number): string {
  const [h, min] = [Math.floor(minutes / 60), minutes % 60];
  return [h > 0 && `${h} h`, (min > 0 || h === 0) && `${min} min`].filter(Boolean).join(' ');
}

/** By how much a day would be cheaper: "cost €646 less"; below 1 no figure is worth telling. */
function lessText(amount: number, { currency }: PlanProblem): string {
  if (amount < 1) return 'cost hardly less';
  return `cost ${currency ? moneyText(Math.round(amount), currency) : Math.round(amount)} less`;
}

/** What of a job rules a day out, whatever else is planned on it. */
type DayFault = 'closed' | 'too_long' | 'parts' | 'vehicle_away' | 'cool_down';

function dayFault(spaceJob: SpaceJob, job: PlanJob, day: number, dayName: PlainDate): DayFault | null {
  const kind = spaceJob.kind[day] ?? [];
  if (kind.length === 0) return 'closed';
  const fits = (spans: Spans, from: number): boolean => roomy(spans, job.minutes, from).length > 0;
  if (!kind.some(({ spans }) => fits(spans, 0))) return 'too_long';
  const kitFromMin = dayName === job.kitFrom ? (job.kitFromMin ?? 0) : 0;
  if (job.kitFrom !== null && dayName < job.kitFrom) return 'parts';
  if (!kind.some(({ spans }) => fits(spans, kitFromMin))) return 'parts';
  const allowed = allowedOn(job, dayName);
  const free = kind.map(({ spans }) => (allowed ? common(spans, allowed) : spans));
  if (!free.some((spans) => fits(spans, kitFromMin))) return 'vehicle_away';
  return free.some((spans) => fits(spans, Math.max(kitFromMin, job.coolFromMin ?? 0))) ? null : 'cool_down';
}

/** When the vehicle can be had on a day; null: any time. */
const allowedOn = ({ allowed }: PlanJob, day: PlainDate): Spans | null =>
  allowed && spansOf(allowed.filter((window) => window.day === day));

const kitText = ({ kitFrom, kitFromMin }: PlanJob): string => (kitFrom ? partsFrom(kitFrom, kitFromMin) : 'later');

const FAULTS: Readonly<Record<DayFault, (job: PlanJob) => string>> = {
  closed: () => 'no bay with somebody for it is open',
  too_long: ({ minutes }) => `nobody has ${sayMinutes(minutes)} together`,
  parts: (job) => `its parts are there from ${kitText(job)}`,
  vehicle_away: () => 'the vehicle is away',
  cool_down: ({ coolFromMin }) => `it is cool from ${timeTo24(coolFromMin ?? 0)}, and then nobody has the time`,
};

/** What of a person's day keeps a job from a day on which everything else lets it be; null: it is not that. */
function dayRuleAgainst(schedule: Schedule, job: number, day: number): 'travel' | 'break' | null {
  const isFound = (rules: DayRules): boolean => schedule.withRules(rules, () => schedule.find(job, day) !== null);
  if (isFound({ travel: true, breaks: true })) return null;
  if (isFound({ travel: true, breaks: false })) return 'break';
  return isFound({ travel: false, breaks: false }) ? 'travel' : null;
}

const DAY_RULES = {
  travel: 'whoever is free then comes from another depot too late',
  break: 'whoever is free then would have no break',
} as const;

/** Why a job is planned where it is. @param schedule the plan as it is */
export function whyThere(
  problem: PlanProblem,
  space: Space,
  schedule: Schedule,
  index: number,
  slot: Slot,
): Why<PlannedReason> {
  const job = problem.jobs[index];
  const spaceJob = space.jobs[index];
  const day = problem.days[slot.day];
  if (!job || !spaceJob || !day) return { code: 'pinned', message: '' };
  const where = bayWords(problem, job, slot);
  if (job.pin) return { code: 'pinned', message: `Pinned to ${sayDay(day)}.${where}` };
  const isAgreed =
    spaceJob.was !== null &&
    spaceJob.was.day === slot.day &&
    spaceJob.was.bay === slot.bay &&
    spaceJob.was.person === slot.person;
  const cost = spaceJob.cost[slot.day] ?? 0;
  const cheaper = problem.days
    .map((name, i) => ({ name, i, cost: spaceJob.cost[i] ?? 0 }))
    .filter((other) => other.cost < cost - 1e-9)
    .sort((a, b) => a.cost - b.cost)[0];
  if (!cheaper)
    return isAgreed
      ? { code: 'as_agreed', message: `As agreed, and ${sayDay(day)} is the cheapest day.${where}` }
      : { code: 'cheapest_day', message: `${sayDay(day)} is the cheapest day.${where}` };
  const fault = dayFault(spaceJob, job, cheaper.i, cheaper.name);
  const rule = fault ? null : dayRuleAgainst(schedule, index, cheaper.i);
  const full = rule ? DAY_RULES[rule] : 'jobs that lose more by waiting have its hours';
  const why = fault ? FAULTS[fault](job) : full;
  const message = `${sayDay(day)}: ${sayDay(cheaper.name)} would ${lessText(cost - cheaper.cost, problem)}, but ${why}.${where}`;
  return isAgreed ? { code: 'as_agreed', message: `As agreed, ${message}` } : { code: 'next_best_day', message };
}

/** What decided about bay and person, where the job asks for more than any. */
function bayWords({ bays, people }: PlanProblem, { needsBay, needsSkills }: PlanJob, { bay, person }: Slot): string {
  const named = (resource: { readonly id: string; readonly name?: string } | undefined): string =>
    resource ? (resource.name ?? resource.id) : '';
  return [
    needsBay.length > 0 ? ` ${named(bays[bay])}: takes ${needsBay.join(' and ')}.` : '',
    needsSkills.length > 0 ? ` ${named(people[person])}: trained for ${needsSkills.join(' and ')}.` : '',
  ].join('');
}

/** Why a job is left out of a plan. @param schedule the plan as it is */
export function whyNot(problem: PlanProblem, space: Space, schedule: Schedule, index: number): Why<UnplannedReason> {
  const job = problem.jobs[index];
  const spaceJob = space.jobs[index];
  if (!job || !spaceJob) return { code: 'horizon', message: '' };
  const lack = whoLacks(problem, job);
  if (lack) return lack;
  const faults = problem.days.map((day, i) => dayFault(spaceJob, job, i, day));
  const last = lastFault(faults);
  if (last) return { code: REASONS[last], message: NEVER[last](job) };
  const free = faults.some((fault, day) => fault === null && schedule.find(index, day) !== null);
  const first = spaceJob.order[0];
  if (free || first === undefined)
    return {
      code: 'cheaper_later',
      message: `It loses less by waiting until after these days than by any free hour within them${job.note ? `: ${job.note}` : ''}.`,
    };
  const rules = new Set(spaceJob.order.map((at) => dayRuleAgainst(schedule, index, at)));
  const rule = rules.has('break') ? 'break' : 'travel';
  if (rules.has(rule)) return { code: rule, message: DAY_RULE_ALWAYS[rule] };
  const day = problem.days[first];
  return {
    code: 'no_capacity',
    message: `No ${sayMinutes(job.minutes)} are left on a day that would pay: ${day ? sayDay(day) : 'the best day'} and the others are full with jobs that lose more by waiting.`,
  };
}

const DAY_RULE_ALWAYS = {
  travel: 'On each day that would pay, whoever has the time comes from another depot too late.',
  break: 'On each day that would pay, whoever has the time would have no break.',
} as const;

function whoLacks({ bays, people }: PlanProblem, job: PlanJob): Why<'no_bay' | 'no_skill'> | null {
  const { depot, needsBay, needsSkills } = job;
  const able = bays.some((bay) => bay.depot === depot && needsBay.every((need) => bay.can.includes(need)));
  const what = (needs: readonly string[]): string => (needs.length > 0 ? ` for ${needs.join(' and ')}` : '');
  if (!able) return { code: 'no_bay', message: `${depot} has no bay${what(needsBay)}.` };
  const skilled = people.some(
    (person) => person.depots.includes(depot) && needsSkills.every((need) => person.skills.includes(need)),
  );
  return skilled ? null : { code: 'no_skill', message: `Nobody at ${depot} is trained${what(needsSkills)}.` };
}

/** In the order in which they rule days out: the last that leaves none is the reason. */
const IN_ORDER = ['closed', 'too_long', 'parts', 'vehicle_away', 'cool_down'] as const;

function lastFault(faults: readonly (DayFault | null)[]): DayFault | null {
  if (faults.some((fault) => fault === null)) return null;
  return IN_ORDER.findLast((fault) => faults.includes(fault)) ?? 'closed';
}

const REASONS: Readonly<Record<DayFault, UnplannedReason>> = {
  closed: 'horizon',
  too_long: 'horizon',
  parts: 'parts',
  vehicle_away: 'vehicle_away',
  cool_down: 'cool_down',
};

const NEVER: Readonly<Record<DayFault, (job: PlanJob) => string>> = {
  closed: () => 'On none of these days is a bay open with somebody for it.',
  too_long: ({ minutes }) => `On none of these days has anybody ${sayMinutes(minutes)} together in one bay.`,
  parts: (job) => `Its parts are there from ${kitText(job)}, after the last day on which it could be done.`,
  vehicle_away: () => 'The vehicle is away whenever a bay and somebody for it are free.',
  cool_down: ({ coolFromMin }) =>
    `It is cool from ${timeTo24(coolFromMin ?? 0)}: what is left of any of these days is too short.`,
};

/** A plan as a schedule that can be asked. */
export function scheduleOf(space: Space, slots: Slots): Schedule {
  const schedule = new Schedule(space);
  for (const [job, slot] of slots.entries()) if (slot && !schedule.isPlanned(job)) schedule.put(job, slot);
  return schedule;
}
