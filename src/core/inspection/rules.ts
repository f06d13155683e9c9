import type { Cause } from './finding';
import { PART_RULES } from './part-rules';
import type { Rule } from './rule';

/** How likely any one cylinder has a fault of its own that leaves a given sign, before anything was seen. */
export const ALONE = 0.04;

/**
 * The rules, as data. What they say are suspicions with evidence, never verdicts.
 *
 * Source: general trade guidance on reading removed plugs; how likely each cause is before anything was seen is the fleet's
 * choice, and only its order of magnitude matters (`docs/judgement.md`).
 */
export const RULES: Readonly<Record<Exclude<Cause, 'healthy'>, Rule>> = {
  detonation: {
    id: 'detonation',
    signs: ['detonation'],
    urgency: 'stop',
    reason: 'metal is lost only where far more heat came than a plug stands',
    next: [
      'Stop: do not return it to service before the cause is known.',
      'Look into the cylinder with a borescope: piston crown, valves.',
      'Check the fuel’s grade, the timing and knock control, the cooling, and the heat range against the sheet.',
    ],
  },
  coolant_between: {
    id: 'coolant_between',
    signs: [],
    urgency: 'stop',
    reason: 'two that share a stretch of gasket and both met coolant',
    next: [
      'Stop: suspect the head gasket between these two.',
      'Compression and leak-down on both, and pressure on the cooling system while you listen.',
      'Test the coolant for combustion gas.',
    ],
  },
  coolant_in_one: {
    id: 'coolant_in_one',
    signs: [],
    urgency: 'before_return',
    ambiguous: true,
    reason: 'coolant dries to a coloured trace or steams a nose clean; so does fuel of an injector that leaks',
    next: [
      'Pressure on the cooling system overnight, then look into the cylinder.',
      'An injector that leaks washes clean as well: check its balance.',
    ],
  },
  coloured_by_fuel: {
    id: 'coloured_by_fuel',
    signs: [],
    urgency: 'note',
    reason: 'what all share and nothing else shows is the fuel',
    next: ['A fuel additive colours every nose alike. Ask what was filled in.'],
  },
  washed_alike: {
    id: 'washed_alike',
    signs: [],
    urgency: 'before_return',
    ambiguous: true,
    reason: 'all wet alike: fuel, or steam through the intake',
    next: [
      'Much too rich, or steam from the intake: fuel pressure, level and colour of the coolant.',
      'Ask whether it was flooded at the last start.',
    ],
  },
  loose_plug: {
    id: 'loose_plug',
    signs: ['loose'],
    urgency: 'before_return',
    reason: 'gas past the seat heats the plug and blackens the seat',
    next: ['Check seat and thread, fit a new gasket, tighten by the sheet.', 'Ask how it was tightened the last time.'],
  },
  seat_leaked: {
    id: 'seat_leaked',
    signs: ['seat'],
    urgency: 'soon',
    reason: 'gas has passed the seat of a plug that was tight',
    next: [
      'Clean the seat in the head, one new gasket, torque by the sheet.',
      'It was not loose: a gasket used twice, dirt on the seat, or the wrong seat.',
    ],
  },
  bank_lean: {
    id: 'bank_lean',
    signs: ['hot'],
    places: { bank: 0.08 },
    urgency: 'before_return',
    reason: 'what a bank has to itself: its air, its fuel rail, its sensor',
    next: [
      'Look for unmetered air on that bank.',
      'Fuel trims of both banks side by side.',
      'Fuel pressure and injectors of that bank.',
    ],
  },
  runner_leak: {
    id: 'runner_leak',
    signs: ['hot'],
    places: { ends: 0.05 },
    urgency: 'soon',
    ambiguous: true,
    reason: 'a manifold lets go at its ends first',
    next: ['Smoke test of the intake manifold: its ends leak first.'],
  },
  lean_or_hot: {
    id: 'lean_or_hot',
    signs: ['hot'],
    places: { all: 0.25 },
    urgency: 'before_return',
    reason: 'what all share: mixture, timing, cooling, the heat range',
    next: ['Compare the heat range with the sheet.', 'Fuel trims, fuel pressure, timing, cooling.'],
  },
  cylinder_hot: {
    id: 'cylinder_hot',
    signs: ['hot'],
    urgency: 'before_return',
    reason: 'one that runs hot beside others that do not',
    next: ['That injector’s flow, and air drawn in beside its runner.', 'The heat range of that very plug.'],
  },
  rests_at_part_load: {
    id: 'rests_at_part_load',
    signs: ['dry', 'oily', 'ash'],
    places: { deactivated: 0.25 },
    urgency: 'note',
    urgentWith: {
      sign: 'oily',
      urgency: 'soon',
      next: 'Oil is drawn where a cylinder rests: measure oil use over a distance, then crankcase ventilation and rings.',
    },
    reason: 'a cylinder that rests stays cold and draws oil',
    next: [
      'These cylinders rest at part load and foul by it. See whether oil use has grown.',
      'Ask whether the maker has a bulletin on it.',
    ],
  },
  one_position_weak: {
    id: 'one_position_weak',
    signs: ['dry', 'oily', 'ash'],
    places: { position: 0.08 },
    urgency: 'soon',
    reason: 'one row of plugs has its own coils and trigger',
    next: ['Spark of that row of plugs: its coils, leads and trigger.'],
  },
  bank_rich: {
    id: 'bank_rich',
    signs: ['dry'],
    places: { bank: 0.08 },
    urgency: 'before_return',
    reason: 'what a bank has to itself: its sensor, its fuel trim, its coils',
    next: [
      'Exhaust leak ahead of that bank’s sensor: it reads lean and enriches.',
      'Fuel trims of both banks side by side.',
      'Spark of that bank.',
    ],
  },
  rich_or_weak_spark: {
    id: 'rich_or_weak_spark',
    signs: ['dry'],
    places: { all: 0.25 },
    urgency: 'soon',
    reason: 'what all share: mixture, spark, how it is driven',
    next: [
      'Ask about short trips and long idling first.',
      'Air filter, fuel trims, coolant temperature sensor.',
      'Spark demand against what the coils give.',
    ],
  },
  cylinder_rich: {
    id: 'cylinder_rich',
    signs: ['dry'],
    urgency: 'before_return',
    reason: 'one that does not burn clean beside others that do',
    next: [
      'Does it misfire? Swap its coil, lead or plug and see whether the fault moves.',
      'Injector that leaks; compression.',
    ],
  },
  oil_everywhere: {
    id: 'oil_everywhere',
    signs: ['oily'],
    places: { all: 0.2, bank: 0.04 },
    urgency: 'soon',
    reason: 'what all, or a bank, share: crankcase ventilation, age',
    next: ['Crankcase ventilation first.', 'Oil use over a measured distance, then leak-down.'],
  },
  oil_inside: {
    id: 'oil_inside',
    signs: ['oily'],
    urgency: 'soon',
    reason: 'oil past the rings or guides of that cylinder',
    next: ['Compression dry and wet, leak-down: rings or valve guides.', 'Crankcase ventilation.'],
  },
  oil_outside: {
    id: 'oil_outside',
    signs: ['oil_outside'],
    urgency: 'soon',
    reason: 'oil outside the nose comes from above: cover gasket, tube seal',
    next: ['Cam cover gasket and tube seal of these wells.', 'Clean wells and boots: oil swells a boot.'],
  },
  tracked: {
    id: 'tracked',
    signs: ['tracked'],
    urgency: 'before_return',
    reason: 'a spark that found a way down the outside',
    next: [
      'Replace plug and boot together: one tracks the other again.',
      'Look at the coil’s tip and the well for moisture.',
    ],
  },
  water_in_well: {
    id: 'water_in_well',
    signs: ['water'],
    urgency: 'soon',
    reason: 'a shell rusts where water stands',
    next: [
      'Dry the wells and find where water comes in: cover seal, drain, washing.',
      'Check boots and connectors for green.',
    ],
  },
  coolant_in_well: {
    id: 'coolant_in_well',
    signs: ['coolant_outside'],
    urgency: 'before_return',
    reason: 'coolant above the plug comes from a hose or housing',
    next: [
      'Dry the well before its plug moves: what stands there runs into the cylinder.',
      'Hoses, pipes and housings above it, then pressure on the cooling system.',
    ],
  },
  other_part: {
    id: 'other_part',
    signs: ['differs'],
    urgency: 'note',
    reason: 'what came out is not what the record says',
    next: ['Correct the record by what was read.', 'Doubt the interval: nobody knows how long it has been in.'],
  },
  partner_polarity: {
    id: 'partner_polarity',
    signs: ['grown', 'eroded', 'over'],
    places: { partners: 0.15 },
    urgency: 'note',
    reason: 'one of each waste-spark pair fires from the ground electrode',
    next: [
      'One of each pair fires from the ground electrode and wears more: nothing is wrong.',
      'Compare like with like at the next change.',
    ],
  },
  bank_wears_faster: {
    id: 'bank_wears_faster',
    signs: ['grown'],
    places: { bank: 0.06 },
    urgency: 'soon',
    reason: 'what a bank has to itself: heat and mixture',
    next: [
      'A hotter or leaner bank wears its gaps faster: fuel trims of both banks side by side.',
      'Intake gasket and vacuum lines of that bank; exhaust leak ahead of its sensor.',
    ],
  },
  gap_worn_out: {
    id: 'gap_worn_out',
    signs: [],
    urgency: 'soon',
    measured: true,
    reason: 'a gap over its limit is over it, whatever made it so',
    next: ['They ran past what this gap allows: look at the interval, and at the coils that fired them.'],
  },
  gap_worn_in_one: {
    id: 'gap_worn_in_one',
    signs: [],
    urgency: 'soon',
    measured: true,
    reason: 'one cylinder alone is over the limit',
    next: [
      'A hot or lean cylinder wears faster: compare its nose with the others.',
      'Was its gap right when it went in?',
    ],
  },
  wears_faster: {
    id: 'wears_faster',
    signs: ['grown'],
    urgency: 'note',
    ambiguous: true,
    reason: 'a gap that grows faster than those beside it',
    next: ['Compare its nose and its coil with the others; measure it again at the next change.'],
  },
  electrodes_worn: {
    id: 'electrodes_worn',
    signs: ['eroded'],
    places: { all: 0.2 },
    urgency: 'note',
    reason: 'edges go with distance and heat',
    next: ['At the end of its life, or it ran hot: look at the interval and at its nose.'],
  },
  ash: {
    id: 'ash',
    signs: ['ash'],
    places: { all: 0.15 },
    urgency: 'note',
    reason: 'what is left of additives in oil or fuel',
    next: ['Oil or fuel additives; oil use.'],
  },
  glazed: {
    id: 'glazed',
    signs: ['glazed'],
    urgency: 'soon',
    reason: 'deposits melted by sudden load',
    next: ['Misfire under load after long idling: ask how it is driven.'],
  },
  bridged: {
    id: 'bridged',
    signs: ['bridged'],
    urgency: 'before_return',
    reason: 'a piece of deposit lies across the gap',
    next: ['Deposits have come loose: borescope for more of them.'],
  },
  cracked: {
    id: 'cracked',
    signs: ['cracked'],
    urgency: 'before_return',
    reason: 'a crack lets the spark through, and a piece may be missing',
    next: [
      'Is every piece there? One that is missing lies in the cylinder: do not crank.',
      'A socket that tilts, a fall or knock cracks it.',
    ],
  },
  threads_hurt: {
    id: 'threads_hurt',
    signs: ['threads'],
    urgency: 'before_return',
    reason: 'the thread in the head is hurt as well, most often',
    next: ['Inspect the thread in the head before anything goes in.', 'Chase or insert: a supervisor decides.'],
  },
  wrong_gaskets: {
    id: 'wrong_gaskets',
    signs: ['gaskets'],
    urgency: 'before_return',
    reason: 'one gasket, no more and no less',
    next: [
      'Look for the gasket that is missing, or the second one, before a plug goes in.',
      'Seat depth and torque were wrong: look at the thread.',
    ],
  },
  debris: {
    id: 'debris',
    signs: ['debris'],
    urgency: 'note',
    reason: 'what lies in a well falls into the cylinder',
    next: ['Clean before the plug comes out; see where it comes from.'],
  },
  boot_spent: {
    id: 'boot_spent',
    signs: ['boot'],
    urgency: 'before_return',
    reason: 'a boot that is torn or swollen does not insulate',
    next: ['Replace these boots; a swollen one has met oil.'],
  },
  connector_broken: {
    id: 'connector_broken',
    signs: ['connector'],
    urgency: 'soon',
    reason: 'a plug that does not lock shakes loose',
    next: ['Secure it so that it cannot shake loose, and order the housing.'],
  },
  ...PART_RULES,
};
