import { z } from 'zod';
import { isPlainDate } from '@/core/calendar/plain-date';
import { pinClash } from '@/core/planning/plan-check';
import { MAX_PLAN_DAYS, type PlanProblem, type PlanSlot, problemFaults, sizeFault } from '@/core/planning/plan-problem';
import { PLAN_ENDS } from '@/core/planning/solver/plan';
import { PLANNED_REASONS, UNPLANNED_REASONS } from '@/core/planning/solver/reasons';
import { solvePlan } from '@/server/planning/solve';
import { type Calculation, type CalculationCall, calculation } from './calculation';

/* The plan over HTTP: the same core, in names of the interface. */

const day = z.string().refine(isPlainDate, 'a real day as 2031-04-18').meta({ format: 'date' });
const minute = z.number().int().min(0).max(1440);
const id = z.string().min(1).max(80);
const words = z.array(z.string().max(80)).max(40);
const money = z.number().min(-1e9).max(1e9);
const window = z.object({ day, from_min: minute, to_min: minute });
const windows = z.array(window).max(MAX_PLAN_DAYS * 4);
const slot = z.object({ day, bay: id, person: id, start_min: minute });

const MAX_SECONDS = 60;

const input = z
  .object({
    days: z.array(day).min(1).max(MAX_PLAN_DAYS),
    bays: z.array(z.object({ id, depot: id, can: words.default([]), open: windows })).max(200),
    people: z.array(z.object({ id, depots: words, skills: words.default([]), shift: windows })).max(500),
    jobs: z
      .array(
        z.object({
          id,
          depot: id,
          minutes: z.number().int().min(1).max(1440),
          needs_skills: words.default([]),
          needs_bay: words.default([]),
          allowed: windows.nullish(),
          kit_from: day.nullish(),
          kit_from_min: minute.nullish(),
          cool_from_min: minute.nullish(),
          cost_by_day: z.array(money).max(MAX_PLAN_DAYS),
          cost_unplanned: money,
          pin: slot.nullish(),
          was: slot.nullish(),
        }),
      )
      .max(3000),
    travel_min: z.record(id, z.record(id, minute)).nullish(),
    breaks: z.object({ minutes: z.number().int().min(1).max(1440), from_min: minute, to_min: minute }).nullish(),
    move_cost: z.number().min(0).max(1e9).default(0),
    seconds: z.number().gt(0).max(MAX_SECONDS).default(10),
    seed: z.number().int().min(-2_147_483_648).max(2_147_483_647).default(1),
  })
  .superRefine((given, check) => {
    const tooLarge = sizeFault(problemOf(given));
    if (tooLarge) {
      check.addIssue({ code: 'custom', path: ['jobs'], message: tooLarge });
      return;
    }
    for (const { path, message } of problemFaults(problemOf(given)).slice(0, 50))
      check.addIssue({ code: 'custom', path: path.map((key) => NAMES[key] ?? key), message });
  });

/** Names of the core in those of the interface. */
const NAMES: Readonly<Record<string, string>> = { costByDay: 'cost_by_day' };

const output = z.object({
  assignments: z.array(
    z.object({
      job: z.string(),
      day: z.string(),
      bay: z.string(),
      person: z.string(),
      start_min: z.number(),
      cost: z.number(),
      why: z.object({ code: z.enum(PLANNED_REASONS), message: z.string() }),
    }),
  ),
  unplanned: z.array(z.object({ job: z.string(), reason: z.enum(UNPLANNED_REASONS), message: z.string() })),
  cost: z.number(),
  lower_bound: z.number(),
  proven: z.boolean(),
  ended_by: z.enum(PLAN_ENDS),
});

type Input = z.output<typeof input>;
type Window = z.output<typeof window>;

const windowsOf = (list: readonly Window[]) =>
  list.map((hours) => ({ day: hours.day, fromMin: hours.from_min, toMin: hours.to_min }));
const slotOf = (written: z.output<typeof slot> | null | undefined): PlanSlot | null =>
  written ? { day: written.day, bay: written.bay, person: written.person, startMin: written.start_min } : null;

function problemOf({ days, bays, people, jobs, move_cost, seconds, seed, ...rules }: Input): PlanProblem {
  return {
    days,
    ...(rules.travel_min ? { travelMin: rules.travel_min } : {}),
    ...(rules.breaks
      ? { breaks: { minutes: rules.breaks.minutes, fromMin: rules.breaks.from_min, toMin: rules.breaks.to_min } }
      : {}),
    bays: bays.map((bay) => ({ ...bay, open: windowsOf(bay.open) })),
    people: people.map((person) => ({ ...person, shift: windowsOf(person.shift) })),
    jobs: jobs.map((job) => ({
      id: job.id,
      depot: job.depot,
      minutes: job.minutes,
      needsSkills: job.needs_skills,
      needsBay: job.needs_bay,
      allowed: job.allowed ? windowsOf(job.allowed) : null,
      kitFrom: job.kit_from ?? null,
      kitFromMin: job.kit_from_min ?? 0,
      coolFromMin: job.cool_from_min ?? null,
      costByDay: job.cost_by_day,
      costUnplanned: job.cost_unplanned,
      pin: slotOf(job.pin),
      was: slotOf(job.was),
    })),
    moveCost: move_cost,
    seconds,
    seed,
  };
}

async function plan(given: Input, call?: CalculationCall): Promise<z.output<typeof output>> {
  const solved = await solvePlan(problemOf(given), { person: call?.personId, stop: call?.signal });
  return {
    assignments: solved.assignments.map(({ startMin, why, ...assignment }) => ({
      ...assignment,
      start_min: startMin,
      why: { ...why },
    })),
    unplanned: solved.unplanned.map((job) => ({ ...job })),
    cost: solved.cost,
    lower_bound: solved.lowerBound,
    proven: solved.isProven,
    ended_by: solved.endedBy,
  };
}

export const PLAN_CALCULATION: Calculation = {
  ...calculation(
    'Plans jobs into days, bays and people so that waiting costs least, with a bound that is proven. Same input and seed: same plan',
    input,
    output,
    plan,
  ),
  // Two pins that cannot both stand: nothing can be planned round them.
  conflict: (raw) => pinClash(problemOf(input.parse(raw)))?.message ?? null,
  maxBytes: 4 * 1024 * 1024,
};
