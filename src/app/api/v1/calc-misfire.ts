import { z } from 'zod';
import { asTest, cylinder, faultCode, otherTestDone, swapDone } from '@/contracts/misfire';
import { diagnose } from '@/core/misfire/diagnose';
import { DRIVING } from '@/core/misfire/driving';
import {
  CAUSES,
  FOUND_WORDS,
  type MisfireCase,
  PRICED_PARTS,
  SUSPECT_PARTS,
  SYMPTOMS,
  TEST_KINDS,
  TOUCHED_PARTS,
} from '@/core/misfire/misfire-case';
import type { NextStep } from '@/core/misfire/next-step';
import { stepWhy } from '@/text/misfire-words';
import { type Calculation, calculation } from './calculation';

/* The misfire over HTTP: the same core, in names of the interface. */

const cylinders = z.array(cylinder).max(16);
const part = z.enum(SUSPECT_PARTS);
const money = z.number().min(0).max(1e6);

const layout = z
  .object({
    arrangement: z.enum(['inline', 'v', 'flat']),
    banks: z.array(z.array(cylinder).min(1).max(16)).min(1).max(4),
    firing_order: z.array(cylinder).min(1).max(16),
    ignition: z.enum(['coil_on_plug', 'coil_per_cylinder', 'coil_rail', 'waste_spark', 'distributor']),
    plugs_per_cylinder: z.union([z.literal(1), z.literal(2)]).default(1),
    /** Rest at part load. */
    resting: cylinders.default([]),
  })
  .superRefine(({ banks, firing_order: order, ignition }, context) => {
    const all = banks.flat().sort((a, b) => a - b);
    if (new Set(all).size !== all.length)
      context.addIssue({ code: 'custom', path: ['banks'], message: 'name each cylinder once' });
    if ([...order].sort((a, b) => a - b).join() !== all.join())
      context.addIssue({ code: 'custom', path: ['firing_order'], message: 'names each cylinder of the banks once' });
    if (ignition === 'waste_spark' && all.length % 2)
      context.addIssue({
        code: 'custom',
        path: ['banks'],
        message: 'waste spark pairs cylinders: their number is even',
      });
  });

/** How many of the tests had been done before it. */
const after = z.number().int().min(0).max(50).optional();

const fields = z.object({
  layout,
  codes: z.array(faultCode).max(100).default([]),
  /** Of a cylinder's own firings, of the place. */
  counts: z
    .array(z.object({ cylinder, per_1000: z.number().min(0).max(1000), after }))
    .max(64)
    .default([]),
  symptoms: z.array(z.enum(SYMPTOMS)).max(SYMPTOMS.length).default([]),
  lamp: z.enum(['off', 'on', 'flashing']).default('off'),
  ages: z
    .array(z.object({ component: part, cylinder, life_used: z.number().min(0).max(20) }))
    .max(100)
    .default([]),
  recent_work: z
    .array(
      z.object({
        km_ago: z.number().min(0).max(1e6),
        touched: z.array(z.enum(TOUCHED_PARTS)).max(TOUCHED_PARTS.length),
        /** Its record has gaps outside their range, or another number than the sheet's. */
        set_in_doubt: z.boolean().optional(),
        cylinders,
      }),
    )
    .max(20)
    .default([]),
  opening: z
    .array(z.object({ cylinder, minutes: z.number().min(0).max(1440) }))
    .max(16)
    .default([]),
  record: z
    .array(
      z.object({
        component: part,
        cylinder,
        failed_here: z.number().int().min(0).max(100).default(0),
        lot_failed: z.number().int().min(0).max(10_000).default(0),
      }),
    )
    .max(100)
    .default([]),
  weak: z.array(z.enum(CAUSES)).max(CAUSES.length).default([]),
  spoken: cylinders.default([]),
  found: z
    .array(z.object({ cylinder, word: z.enum(FOUND_WORDS), after }))
    .max(100)
    .default([]),
  tests_done: z
    .array(z.union([swapDone, otherTestDone]))
    .max(50)
    .default([]),
  minutes: z.record(z.string().max(40), z.number().min(0).max(1440)).default({}),
  prices: z.partialRecord(z.enum(PRICED_PARTS), money).default({}),
  labour_per_hour: money.default(60),
  downtime_per_hour: money.default(20),
});

/** What was swapped is in this engine, and a moment is one of those that there were. */
const input = fields.superRefine(({ layout: { banks }, tests_done: tests, counts, found }, context) => {
  const all = new Set(banks.flat());
  const fault = (path: readonly (string | number)[], message: string): void =>
    context.addIssue({ code: 'custom', path: [...path], message });
  for (const [i, test] of tests.entries()) {
    if (test.test !== 'swap') continue;
    for (const side of ['from', 'to'] as const)
      if (!all.has(test[side])) fault(['tests_done', i, side], `This engine has no cylinder ${test[side]}.`);
  }
  for (const [name, list] of [
    ['counts', counts],
    ['found', found],
  ] as const)
    for (const [i, test] of list.entries())
      if ((test.after ?? 0) > tests.length)
        fault([name, i, 'after'], `Only ${tests.length} ${tests.length === 1 ? 'test was' : 'tests were'} done.`);
});

const output = z.object({
  hypotheses: z.array(
    z.object({ cause: z.enum(CAUSES), cylinders: z.array(z.number().int()), probability: z.number() }),
  ),
  next: z.object({
    action: z.enum(['test', 'replace', 'refer', 'watch']),
    test: z.enum(['swap', ...TEST_KINDS]).nullable(),
    component: part.nullable(),
    moved: z.array(part),
    from: z.number().int().nullable(),
    to: z.number().int().nullable(),
    cylinder: z.number().int().nullable(),
    cause: z.enum(CAUSES).nullable(),
    minutes: z.number(),
    information_bits: z.number(),
    expected_cost: z.number(),
    why: z.string(),
  }),
  stop_driving: z.boolean(),
  /** to_the_shop: without load, straight there. */
  driving: z.enum(DRIVING),
  contradictions: z.array(z.string()),
});

const caseOf = (given: z.output<typeof input>): MisfireCase => ({
  engine: {
    banks: given.layout.banks,
    firingOrder: given.layout.firing_order,
    ignition: given.layout.ignition,
    plugsPerCylinder: given.layout.plugs_per_cylinder,
    resting: given.layout.resting,
  },
  codes: given.codes,
  counts: given.counts.map(({ per_1000: per1000, ...place }) => ({ ...place, per1000 })),
  symptoms: given.symptoms,
  lamp: given.lamp,
  ages: given.ages.map(({ component, cylinder: at, life_used: lifeUsed }) => ({ component, cylinder: at, lifeUsed })),
  recentWork: given.recent_work.map(({ km_ago: kmAgo, set_in_doubt: setInDoubt, ...rest }) => ({
    kmAgo,
    setInDoubt,
    ...rest,
  })),
  opening: given.opening,
  record: given.record.map(({ failed_here: failedHere, lot_failed: lotFailed, ...rest }) => ({
    ...rest,
    failedHere,
    lotFailed,
  })),
  weak: given.weak,
  spoken: given.spoken,
  found: given.found,
  testsDone: given.tests_done.map(asTest),
  minutes: given.minutes,
  prices: given.prices,
  labourPerHour: given.labour_per_hour,
  downtimePerHour: given.downtime_per_hour,
});

function toNext({ action, test, cause, component, cylinders: at, ...step }: NextStep): z.output<typeof output>['next'] {
  const isSwap = test?.test === 'swap';
  return {
    action,
    test: test?.test ?? null,
    component,
    moved: isSwap ? [...test.moved] : [],
    from: isSwap ? test.from : null,
    to: isSwap ? test.to : null,
    cylinder: at.length === 1 ? (at[0] ?? null) : null,
    cause,
    minutes: step.minutes,
    information_bits: step.informationBits,
    expected_cost: step.expectedCost,
    why: stepWhy({ action, test, cause, component, cylinders: at, ...step }, null),
  };
}

function misfire(given: z.output<typeof input>): z.output<typeof output> {
  const { hypotheses, steps, driving, contradictions } = diagnose(caseOf(given));
  const [next] = steps;
  if (!next) throw new Error('no step at all');
  return {
    hypotheses: hypotheses.map(({ cause, cylinders: at, probability }) => ({ cause, cylinders: [...at], probability })),
    next: toNext(next),
    stop_driving: driving === 'stop',
    driving,
    contradictions: [...contradictions],
  };
}

export const MISFIRE_CALCULATION: Calculation = calculation(
  'From codes, symptoms and tests to the part that is probably bad, and what to do next',
  input,
  output,
  misfire,
);
