import type { Cause, Confidence, Urgency, Verdict } from '@/core/reading/findings';
import type { Shape } from '@/core/reading/shape';

export const CAUSE_WORDS: Readonly<Record<Cause, string>> = {
  healthy: 'A healthy engine',
  rich_or_weak_spark: 'Rich mixture, weak spark or short trips',
  bank_rich: 'This bank runs rich, or its sensor reads false air',
  bank_lean: 'This bank runs lean',
  lean_or_hot: 'Lean, too hot, or the wrong heat range',
  runner_leak: 'Air drawn in at the ends of the manifold',
  cylinder_hot: 'A lean or hot cylinder',
  cylinder_rich: 'A cylinder that does not burn well',
  oil_inside: 'Oil past rings, guides or crankcase ventilation',
  oil_everywhere: 'Oil in every cylinder: crankcase ventilation, or wear',
  oil_outside: 'Oil from above: cam cover or tube seal',
  coolant_between: 'Coolant between neighbours: the head gasket',
  coolant_in_one: 'Coolant, or an injector that leaks',
  coloured_by_fuel: 'Coloured by a fuel additive',
  washed_alike: 'Washed alike: much fuel, or steam',
  detonation: 'Detonation or pre-ignition',
  loose_plug: 'It was loose: combustion gas past the seat',
  seat_leaked: 'Combustion gas has passed its seat',
  tracked: 'Spark tracks outside, between insulator and boot',
  water_in_well: 'Water stands in the well',
  coolant_in_well: 'Coolant stands in the well',
  gap_worn_out: 'Gaps worn out',
  gap_worn_in_one: 'One gap has worn faster than the others',
  bank_wears_faster: 'This bank wears its gaps faster',
  wears_faster: 'It wears its gap faster than the others',
  electrodes_worn: 'Electrodes eroded',
  other_part: 'Another part than the record says',
  partner_polarity: 'Waste-spark polarity: one of each pair wears more',
  rests_at_part_load: 'Cylinders that rest at part load foul',
  one_position_weak: 'One row of plugs sparks weakly',
  ash: 'Ash of oil or fuel additives',
  glazed: 'Glazed: conducting when hot',
  bridged: 'Bridged by deposits',
  cracked: 'A cracked insulator',
  threads_hurt: 'Threads hurt',
  wrong_gaskets: 'A gasket missing or doubled',
  debris: 'Debris in the well',
  boot_spent: 'A spent boot',
  connector_broken: 'A connector that does not lock',
};

export const SHAPE_WORDS: Readonly<Record<Shape, string>> = {
  all: 'all alike',
  deactivated: 'those that rest',
  position: 'one row of plugs',
  bank: 'one bank',
  neighbours: 'neighbours',
  ends: 'the ends of the row',
  partners: 'one of each coil’s pair',
  one: 'one alone',
  some: 'no pattern',
};

export const URGENCY_WORDS: Readonly<Record<Urgency, string>> = {
  stop: 'Stop the work',
  before_return: 'Before it goes back into service',
  soon: 'Soon',
  note: 'To know',
};

export const CONFIDENCE_WORDS: Readonly<Record<Confidence, string>> = {
  high: 'clear',
  medium: 'likely',
  low: 'a suspicion',
};

export const VERDICT_WORDS: Readonly<Record<Verdict, string>> = {
  confirmed: 'Confirmed',
  rejected: 'Rejected',
  corrected: 'Corrected',
};
