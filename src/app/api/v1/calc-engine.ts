import { z } from 'zod';
import { readVin } from '@/core/catalogue/vin';
import { chooseCoils } from '@/core/components/coil-choice';
import { companions } from '@/core/engine/coils';
import { ROTATIONS } from '@/core/engine/model';
import { type Breath, gapOfEqualDemand, sparkDemand } from '@/core/gap/spark-demand';
import { towerMap } from '@/core/wiring/firing-map';
import { matchLeads } from '@/core/wiring/lead-match';
import { type Calculation, calculation } from './calculation';

const vinInput = z.object({ vin: z.string().max(100) });
const vinOutput = z.object({
  valid: z.boolean(),
  check_digit_ok: z.boolean(),
  model_years: z.array(z.number().int()),
  serial: z.number().int().nullable(),
  reasons: z.array(z.string()),
});

function vin(input: z.output<typeof vinInput>): z.output<typeof vinOutput> {
  const { valid, checkDigitOk, modelYears, serial, reasons } = readVin(input.vin);
  return { valid, check_digit_ok: checkDigitOk, model_years: [...modelYears], serial, reasons: [...reasons] };
}

const pressure = z.number().min(10).max(1000);
const sparkInput = z.object({
  gap_mm: z.number().min(0.1).max(10),
  intake_kpa: pressure,
  intake_k: z.number().min(200).max(600),
  compression_ratio: z.number().min(2).max(30),
});
const sparkDemandInput = z.union([
  sparkInput,
  z.object({
    standard: sparkInput,
    boosted_intake_kpa: pressure,
    boosted_intake_k: z.number().min(200).max(600).optional(),
  }),
]);
const sparkDemandOutput = z.union([z.object({ volts: z.number() }), z.object({ gap_mm: z.number() })]);

const breathOf = (input: z.output<typeof sparkInput>): Breath => ({
  intakeKpa: input.intake_kpa,
  intakeK: input.intake_k,
  compressionRatio: input.compression_ratio,
});

function spark(input: z.output<typeof sparkDemandInput>): z.output<typeof sparkDemandOutput> {
  if (!('standard' in input)) return { volts: sparkDemand(input.gap_mm, breathOf(input)) };
  const standard = breathOf(input.standard);
  const boosted = {
    ...standard,
    intakeKpa: input.boosted_intake_kpa,
    intakeK: input.boosted_intake_k ?? standard.intakeK,
  };
  return { gap_mm: gapOfEqualDemand(input.standard.gap_mm, standard, boosted) };
}

const firingMapInput = z
  .object({
    cylinders: z.number().int().min(1).max(16),
    firing_order: z.array(z.number().int()).min(1).max(16),
    ignition: z.enum(['distributor', 'waste_spark', 'coil_on_plug']),
    rotation: z.enum(ROTATIONS).optional(),
    tower_of_cylinder_1: z.number().int().min(1).max(16).optional(),
  })
  .superRefine((input, context) => {
    if (context.issues.length > 0) return;
    const fault = (key: string, message: string): void => context.addIssue({ code: 'custom', path: [key], message });
    const wanted = Array.from({ length: input.cylinders }, (_, i) => i + 1).join();
    if ([...input.firing_order].sort((a, b) => a - b).join() !== wanted)
      fault('firing_order', `must name each cylinder from 1 to ${input.cylinders} once`);
    if (input.ignition === 'waste_spark' && input.cylinders % 2)
      fault('cylinders', 'waste spark pairs cylinders, so their number must be even');
    if (input.ignition === 'distributor' && !input.rotation) fault('rotation', 'say which way the rotor turns');
    if ((input.tower_of_cylinder_1 ?? 1) > input.cylinders)
      fault('tower_of_cylinder_1', `lies between 1 and ${input.cylinders}`);
  });
const firingMapOutput = z.object({
  towers: z.array(z.object({ tower: z.number().int(), cylinder: z.number().int() })).optional(),
  companions: z.array(z.array(z.number().int())).optional(),
});

function firingMap(input: z.output<typeof firingMapInput>): z.output<typeof firingMapOutput> {
  const { ignition, firing_order: order, rotation = 'clockwise', tower_of_cylinder_1: tower = 1 } = input;
  if (ignition === 'distributor') return { towers: [...towerMap(order, { rotation, towerOfCylinder1: tower })] };
  return ignition === 'waste_spark' ? { companions: companions(order).map((pair) => [...pair]) } : {};
}

const lengths = z.array(z.number().gt(0).max(10_000)).max(64);
const leadMatchInput = z.object({ needed_mm: lengths.min(1), new_set_mm: lengths });
const leadMatchOutput = z.object({
  feasible: z.boolean(),
  assignment: z.array(z.number().int()),
  total_slack_mm: z.number().nullable(),
  spare: z.array(z.number().int()),
  ties: z.array(z.number().int()),
  too_short_for: z.number().int().nullable(),
});

function leadMatch(input: z.output<typeof leadMatchInput>): z.output<typeof leadMatchOutput> {
  const matched = matchLeads(input.needed_mm, input.new_set_mm);
  return {
    feasible: matched.feasible,
    assignment: [...matched.assignment],
    total_slack_mm: matched.totalSlackMm,
    spare: [...matched.spare],
    ties: [...matched.ties],
    too_short_for: matched.tooShortFor,
  };
}

const money = z.number().min(0).max(1_000_000);
const coilChoiceInput = z.object({
  /** Coils of the same age that work. */
  others: z.number().int().min(0).max(15),
  price: money,
  labour_per_hour: money,
  access_hours: z.number().min(0).max(100),
  downtime_per_visit: money,
  /** That one of the others fails before the covers are open anyway. */
  chance_each: z.number().min(0).max(1),
});
const coilChoiceOutput = z.object({
  extra_visit: z.number(),
  expected_if_one: z.number(),
  replace_others_now: z.number(),
  break_even_chance: z.number(),
  advice: z.enum(['one', 'all']),
});

function coilChoice(input: z.output<typeof coilChoiceInput>): z.output<typeof coilChoiceOutput> {
  const choice = chooseCoils({
    others: input.others,
    price: input.price,
    labourPerHour: input.labour_per_hour,
    accessHours: input.access_hours,
    downtimePerVisit: input.downtime_per_visit,
    chanceEach: input.chance_each,
  });
  return {
    extra_visit: choice.extraVisit,
    expected_if_one: choice.expectedIfOne,
    replace_others_now: choice.replaceOthersNow,
    break_even_chance: choice.breakEvenChance,
    advice: choice.advice,
  };
}

/** Calculations about the engine, its numbers and its wiring. */
export const ENGINE_CALCULATIONS: Readonly<Record<string, Calculation>> = {
  vin: calculation('Reads a vehicle identification number: shape, check digit, model years', vinInput, vinOutput, vin),
  'spark-demand': calculation(
    'Voltage that a gap asks for, about; or the gap that asks as much under boost',
    sparkDemandInput,
    sparkDemandOutput,
    spark,
  ),
  'firing-map': calculation(
    'Towers of a distributor, or companions of waste spark',
    firingMapInput,
    firingMapOutput,
    firingMap,
  ),
  'lead-match': calculation(
    'New leads to old places by length, least slack',
    leadMatchInput,
    leadMatchOutput,
    leadMatch,
  ),
  'coil-choice': calculation(
    'One coil or all: one more visit against the price of those that still work',
    coilChoiceInput,
    coilChoiceOutput,
    coilChoice,
  ),
};
