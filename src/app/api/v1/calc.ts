import { z } from 'zod';
import { dayNumber, isPlainDate } from '@/core/calendar/plain-date';
import { due } from '@/core/due/due';
import { checkGaps, ELECTRODES, REGAP_POLICIES } from '@/core/gap/check';
import { CHECK_CODES, checkReading, MAX_ODOMETER_KM } from '@/core/odometer/check';
import { effectiveRate, groupAround, ownRate, ownRateOfFew } from '@/core/odometer/use-rate';
import type { Mm } from '@/core/shared/kinds';
import { GASKETS, HEADS, LUBRICANTS, planTorque, SEATS, THREADS } from '@/core/torque/plan';
import { readQuantity } from '@/core/units/read-quantity';
import { roundTo } from '@/core/units/round';
import { QUANTITY_KINDS } from '@/core/units/unit';
import { ENGINE_CALCULATIONS } from './calc-engine';
import { MISFIRE_CALCULATION } from './calc-misfire';
import { PLAN_CALCULATION } from './calc-plan';
import { READING_CALCULATION } from './calc-reading';
import { type Calculation, calculation } from './calculation';

/* Shapes of the calculations: the same schemas check the requests and describe them. */

const day = z.string().refine(isPlainDate, 'a real day as 2031-04-18').meta({ format: 'date' });
const km = z.number().min(0).max(MAX_ODOMETER_KM);
const gapMm = z.number().gt(0).max(25);
const nm = z.number().gt(0).max(1000);

const quantityInput = z.object({
  kind: z.enum(QUANTITY_KINDS),
  text: z.string().max(200),
  person_unit: z.enum(['mm', 'in', 'N·m', 'lbf·ft', 'lbf·in', 'km', 'mi']).optional(),
});
const quantityOutput = z.object({
  verdict: z.enum(['ok', 'ask', 'refuse']),
  value_si: z.number().nullable(),
  read_as: z.object({ number: z.number(), unit: z.string() }).nullable(),
  suggestions: z.array(z.object({ text: z.string(), value_si: z.number() })),
  message: z.string(),
});

function quantity({ kind, text, person_unit }: z.output<typeof quantityInput>): z.output<typeof quantityOutput> {
  const reading = readQuantity({ kind, text, personUnit: person_unit });
  const { verdict, message } = reading;
  if (reading.verdict === 'ok')
    return {
      verdict,
      value_si: reading.valueSi,
      read_as: { number: reading.number, unit: reading.unit },
      suggestions: [],
      message,
    };
  return {
    verdict,
    value_si: null,
    read_as: null,
    suggestions: reading.suggestions.map((s) => ({ text: s.text, value_si: s.valueSi })),
    message,
  };
}

const gapCheckInput = z.object({
  spec: z
    .object({ min_mm: gapMm, max_mm: gapMm, target_mm: gapMm.optional() })
    .refine((s) => s.min_mm <= s.max_mm, 'min_mm is above max_mm'),
  electrode: z.enum(ELECTRODES),
  policy: z.enum(REGAP_POLICIES),
  measured_mm: z.array(gapMm).min(1).max(1000),
});
const gapCheckOutput = z.object({
  plugs: z.array(
    z.object({
      action: z.enum(['accept', 'open', 'close', 'reject']),
      by_mm: z.number(),
      reason: z.string().optional(),
    }),
  ),
  batch: z.object({
    verdict: z.enum(['good', 'wrong_application', 'handling_damage', 'adjust_individually']),
    offset_mm: z.number(),
    spread_mm: z.number(),
    suspects: z.array(z.number().int()),
  }),
});

const micrometres = (mm: Mm): number => roundTo(mm, 6);

function gapCheck({
  spec,
  electrode,
  policy,
  measured_mm,
}: z.output<typeof gapCheckInput>): z.output<typeof gapCheckOutput> {
  const { plugs, batch } = checkGaps(
    { minMm: spec.min_mm, maxMm: spec.max_mm, targetMm: spec.target_mm },
    electrode,
    policy,
    measured_mm,
  );
  return {
    plugs: plugs.map(({ action, byMm, reason }) => ({ action, by_mm: micrometres(byMm), reason })),
    batch: {
      verdict: batch.verdict,
      offset_mm: micrometres(batch.offsetMm),
      spread_mm: micrometres(batch.spreadMm),
      suspects: [...batch.suspects],
    },
  };
}

const torquePlanInput = z.object({
  spec_nm: z.object({ min: nm, max: nm }).refine((s) => s.min <= s.max, 'min is above max'),
  thread: z.enum(THREADS),
  seat: z.enum(SEATS),
  gasket: z.enum(GASKETS),
  head: z.enum(HEADS),
  lubricant: z.enum(LUBRICANTS),
  reduction: z.number().min(0).lt(1).optional(),
  wrench: z
    .object({
      unit: z.enum(['N·m', 'lbf·ft', 'lbf·in']),
      min: z.number().min(0).max(10_000),
      max: z.number().gt(0).max(10_000),
      step: z.number().gt(0).max(100),
      length_mm: z.number().min(10).max(3000),
      calibrated_on: day,
    })
    .optional(),
  adapter: z.object({ length_mm: z.number().min(0).max(2000), angle_deg: z.number().min(-360).max(360) }).optional(),
  on: day,
});
const torquePlanOutput = z.object({
  target_nm: z.number(),
  setting: z.object({ value: z.number(), unit: z.string() }).nullable(),
  wrench_ok: z.boolean(),
  angle_deg: z.object({ min: z.number(), max: z.number() }).nullable(),
  pull_n: z.number().nullable(),
  warnings: z.array(z.object({ code: z.string(), message: z.string() })),
});

function torquePlan(input: z.output<typeof torquePlanInput>): z.output<typeof torquePlanOutput> {
  const { wrench, adapter } = input;
  const plan = planTorque({
    ...input,
    specNm: input.spec_nm,
    wrench: wrench && { ...wrench, lengthMm: wrench.length_mm, calibratedOn: wrench.calibrated_on },
    adapter: adapter && { lengthMm: adapter.length_mm, angleDeg: adapter.angle_deg },
  });
  return {
    target_nm: plan.targetNm,
    setting: plan.setting,
    wrench_ok: plan.wrenchOk,
    angle_deg: plan.angleDeg,
    pull_n: plan.pullN,
    warnings: [...plan.warnings],
  };
}

const useRateInput = z.object({
  readings: z
    .array(
      z
        .object({ on: day.optional(), day: z.number().min(-1e6).max(1e6).optional(), km })
        .refine((r) => (r.on === undefined) !== (r.day === undefined), 'give either on or day'),
    )
    .min(1)
    .max(2000),
});
const useRateOutput = z.object({
  rate_km_per_day: z.number().nullable(),
  rate_ci80: z.tuple([z.number(), z.number()]).nullable(),
  used: z.number().int(),
});

function useRate({ readings }: z.output<typeof useRateInput>): z.output<typeof useRateOutput> {
  const rate = ownRate(readings.map((r) => ({ day: r.day ?? dayNumber(r.on ?? ''), km: r.km })));
  return rate
    ? { rate_km_per_day: rate.kmPerDay, rate_ci80: [rate.ci80[0], rate.ci80[1]], used: rate.used }
    : { rate_km_per_day: null, rate_ci80: null, used: 0 };
}

const dueInput = z
  .object({
    today: day,
    readings: z
      .array(z.object({ on: day, km }))
      .min(1)
      .max(2000),
    installed: z.object({ on: day, km }),
    limits: z.object({
      distance_km: z.number().gt(0).max(MAX_ODOMETER_KM),
      months: z.number().gt(0).max(1200).nullish(),
    }),
    borrowed_rate_km_per_day: z.number().min(0).max(1500).nullish(),
  })
  .superRefine(({ today, readings }, check) => {
    readings.forEach(({ on }, i) => {
      if (on > today)
        check.addIssue({
          code: 'custom',
          path: ['readings', i, 'on'],
          message: `${on} is after today, ${today}: a reading cannot be.`,
        });
    });
  });
const dueOutput = z.object({
  odometer_now_km: z.number(),
  life_used: z.number(),
  binds: z.enum(['distance', 'hours', 'time']),
  due: z.object({ p10: z.string(), p50: z.string(), p90: z.string() }).nullable(),
  rate_km_per_day: z.number().nullable(),
  borrowed: z.boolean(),
});

function dueDate(input: z.output<typeof dueInput>): z.output<typeof dueOutput> {
  const sorted = [...input.readings].sort((a, b) => a.on.localeCompare(b.on) || a.km - b.km);
  const last = sorted.at(-1) ?? { on: input.today, km: 0 };
  const group = input.borrowed_rate_km_per_day == null ? null : groupAround(input.borrowed_rate_km_per_day);
  const rate = effectiveRate(ownRateOfFew(sorted.map((r) => ({ day: dayNumber(r.on), km: r.km }))), group);
  const result = due({
    today: input.today,
    odometer: last,
    rate,
    installed: input.installed,
    limits: { distanceKm: input.limits.distance_km, months: input.limits.months },
  });
  return {
    odometer_now_km: result.odometerNowKm,
    life_used: result.lifeUsed,
    binds: result.datedBy ?? result.binds,
    due: result.due,
    rate_km_per_day: rate?.kmPerDay ?? null,
    borrowed: rate?.borrowed ?? false,
  };
}

const odometerCheckInput = z.object({
  history: z.array(z.object({ on: day, km })).max(2000),
  reading: z.object({ on: day, value: z.number().min(0).max(10_000_000), unit: z.enum(['km', 'mi']) }),
});
const odometerCheckOutput = z.object({
  verdict: z.enum(['accept', 'suspect']),
  reasons: z.array(z.enum(CHECK_CODES)),
  suggestion: z.object({ km: z.number(), why: z.string() }).optional(),
});

function odometerCheck({
  history,
  reading,
}: z.output<typeof odometerCheckInput>): z.output<typeof odometerCheckOutput> {
  const { verdict, reasons, suggestion } = checkReading(
    history.map((known) => ({ day: dayNumber(known.on), km: known.km })),
    { day: dayNumber(reading.on), value: reading.value, unit: reading.unit },
  );
  return { verdict, reasons: [...reasons], ...(suggestion ? { suggestion: { ...suggestion } } : {}) };
}

export const CALCULATIONS: Readonly<Record<string, Calculation>> = {
  quantity: calculation(
    'Reads a typed quantity and catches slips of unit and decimal mark',
    quantityInput,
    quantityOutput,
    quantity,
  ),
  'gap-check': calculation(
    'Judges measured new plugs one by one and as a batch',
    gapCheckInput,
    gapCheckOutput,
    gapCheck,
  ),
  'torque-plan': calculation(
    'From the dry spec to the setting of a wrench',
    torquePlanInput,
    torquePlanOutput,
    torquePlan,
  ),
  'use-rate': calculation('Distance a day with its 80 % interval', useRateInput, useRateOutput, useRate),
  due: calculation('Life used and due date of one component', dueInput, dueOutput, dueDate),
  'odometer-check': calculation(
    'Judges a reading against its vehicle’s history, and says what it probably was',
    odometerCheckInput,
    odometerCheckOutput,
    odometerCheck,
  ),
  reading: READING_CALCULATION,
  ...ENGINE_CALCULATIONS,
  plan: PLAN_CALCULATION,
  misfire: MISFIRE_CALCULATION,
};
