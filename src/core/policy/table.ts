/** One way the trade works, with what speaks for it and what it changes here. */
export interface PolicyOption<I extends string = string> {
  readonly id: I;
  readonly name: string;
  readonly reason: string;
  readonly changes: string;
}

export interface Policy<P extends string = string, I extends string = string> {
  readonly id: P;
  readonly name: string;
  readonly question: string;
  readonly options: readonly PolicyOption<I>[];
  /** The default option's id. Source: general trade practice; the spec sheet wins where it says otherwise. */
  readonly byDefault: I;
}

const option = <const I extends string>(id: I, name: string, reason: string, changes: string): PolicyOption<I> => ({
  id,
  name,
  reason,
  changes,
});

/** The choices on which the trade divides, in the order in which they are shown. */
export const POLICY_TABLE = {
  interval: {
    id: 'interval',
    name: 'Interval',
    question: 'When does a plug count as due?',
    byDefault: 'to_the_limit',
    options: [
      option(
        'to_the_limit',
        'To the limit',
        'The maker’s figure already holds a margin; an early change throws life away.',
        'Due at the full interval.',
      ),
      option(
        'early',
        'Early change',
        'A worn gap loads the coil and costs fuel long before the plug fails.',
        'Due at 75 % of the interval.',
      ),
      option(
        'evidence',
        'By evidence',
        'What the removed plugs of this fleet show is worth more than a general figure.',
        'The wear that was measured proposes a distance limit; a person adopts it. Until then due at the full interval.',
      ),
    ],
  },
  engine_hours: {
    id: 'engine_hours',
    name: 'Engine hours',
    question: 'What does an hour on the hour meter count as?',
    byDefault: 'hours_40',
    options: [
      option(
        'hours_40',
        '40 km',
        'About what a van covers in an hour of mixed driving.',
        'Each metered hour counts as at least 40 km of life.',
      ),
      option(
        'hours_60',
        '60 km',
        'Long idling in the cold fouls and wears faster than driving does.',
        'Each metered hour counts as at least 60 km of life.',
      ),
      option(
        'hours_not_counted',
        'Not counted',
        'The maker’s interval is given in distance; the severe interval holds the idling already.',
        'Hours are kept and shown, and change no date.',
      ),
    ],
  },
  thread_compound: {
    id: 'thread_compound',
    name: 'Thread compound',
    question: 'What goes on the threads of a new plug?',
    byDefault: 'by_sheet',
    options: [
      option(
        'by_sheet',
        'By spec sheet',
        'Maker and plating decide; the sheet knows both.',
        'As the sheet says; where it says nothing, dry on plated shells and nickel on bare shells in aluminium.',
      ),
      option(
        'dry',
        'Dry as supplied',
        'Plated shells release by themselves, and grease makes the wrench over-tighten.',
        'Torque as specified.',
      ),
      option(
        'nickel_bare',
        'Nickel on bare shells',
        'A bare shell seizes in aluminium; a plated one does not.',
        'On bare shells nickel compound, torque lowered by 30 %.',
      ),
      option(
        'nickel_always',
        'Always nickel',
        'Salt and long intervals seize any thread.',
        'Nickel compound on every shell, torque lowered by 30 %. Never copper in aluminium.',
      ),
    ],
  },
  new_gaps: {
    id: 'new_gaps',
    name: 'Gaps of new plugs',
    question: 'What is done about the gap of a new plug?',
    byDefault: 'measure_adjust',
    options: [
      option(
        'measure_adjust',
        'Measure all, adjust when allowed',
        'Boxes fall and numbers are mixed up; a nickel electrode bends without harm.',
        'Every plug is measured; one out of range is bent where its electrode allows.',
      ),
      option(
        'trust_box',
        'Trust the box',
        'Makers gap by machine; every touch can chip.',
        'No measurement is asked for; the batch check is not made.',
      ),
      option(
        'return',
        'Never adjust, return',
        'A plug with the wrong gap may be the wrong plug.',
        'Every plug is measured; one out of range goes back.',
      ),
    ],
  },
  reverse_bend: {
    id: 'reverse_bend',
    name: 'Reversing a bend',
    question: 'May an electrode be bent back after it was bent too far?',
    byDefault: 'once',
    options: [
      option(
        'once',
        'Once, never on fine wire',
        'One change of direction does little; more tires the metal.',
        'A second change of direction retires the plug; on fine wire the first does.',
      ),
      option(
        'allowed',
        'Allowed',
        'The gap counts, not how it was reached.',
        'Changes of direction are counted, none retires the plug.',
      ),
      option(
        'never',
        'Never',
        'A bent-back electrode can break off in the cylinder.',
        'The first change of direction retires the plug.',
      ),
    ],
  },
  tightening: {
    id: 'tightening',
    name: 'Tightening',
    question: 'How is a plug tightened?',
    byDefault: 'wrench',
    options: [
      option(
        'wrench',
        'Calibrated wrench',
        'A figure can be checked and recorded.',
        'Torque is recorded; turn angle is a recorded fall-back.',
      ),
      option(
        'angle',
        'Turn angle',
        'Friction does not spoil an angle.',
        'The turn from finger-tight is recorded; torque is optional.',
      ),
      option(
        'feel',
        'Feel',
        'An experienced hand knows when the gasket lies down.',
        'Recorded as feel, and graded lower.',
      ),
    ],
  },
  engine_temperature: {
    id: 'engine_temperature',
    name: 'Engine temperature',
    question: 'Is the engine cold or warm when plugs come out?',
    byDefault: 'cold',
    options: [
      option(
        'cold',
        'Cold',
        'Hot aluminium gives up its threads.',
        'Hours to cool down stand before the start. A newer valid bulletin wins.',
      ),
      option(
        'warm',
        'Warm',
        'Warmth helps penetrant and frees some plugs.',
        'The engine is warmed first: burns are the hazard.',
      ),
      option('by_bulletin', 'By bulletin', 'It differs by engine.', 'As the newest valid bulletin says, else cold.'),
    ],
  },
  opening: {
    id: 'opening',
    name: 'Opening',
    question: 'How many cylinders stand open at once?',
    byDefault: 'bank',
    options: [
      option(
        'bank',
        'Bank at a time',
        'Plugs side by side on the tray can be compared.',
        'Wells are cleaned first, then a bank is opened. One at a time where debris or blind reach threatens.',
      ),
      option(
        'one',
        'One cylinder at a time',
        'Nothing is mixed up and nothing falls in.',
        'Each cylinder is closed before the next is opened.',
      ),
    ],
  },
  power_tools: {
    id: 'power_tools',
    name: 'Power tools',
    question: 'May a power tool touch a plug?',
    byDefault: 'never',
    options: [
      option('never', 'Never on plugs', 'It strips threads faster than a hand feels.', 'Hand tools only.'),
      option(
        'run_out',
        'To run out loosened plugs',
        'Long threads take time by hand.',
        'Only outwards, only once the plug turns freely; never inwards.',
      ),
    ],
  },
  coil_connectors: {
    id: 'coil_connectors',
    name: 'Coil connectors',
    question: 'Are coil connectors unplugged?',
    byDefault: 'unplug',
    options: [
      option(
        'unplug',
        'Unplug',
        'Room to work, and the terminals can be seen.',
        'Unplugged, unless the engine is marked brittle.',
      ),
      option(
        'leave',
        'Leave plugged, free the harness',
        'Old tabs break.',
        'The harness is freed and laid aside with its coils.',
      ),
    ],
  },
  coils_with_plugs: {
    id: 'coils_with_plugs',
    name: 'Coils with plugs',
    question: 'Are coils replaced with the plugs?',
    byDefault: 'by_cost',
    options: [
      option(
        'by_cost',
        'By expected cost',
        'Shared labour against the life that is left: it can be reckoned.',
        'The fleet’s own failures decide, once there are enough.',
      ),
      option(
        'on_failure',
        'On failure',
        'Most coils outlive several sets of plugs.',
        'Coils are changed one by one when they fail.',
      ),
      option(
        'with_plugs',
        'With the plugs',
        'The engine is open, and a failure on the road costs more.',
        'A set of coils is on every pick list.',
      ),
    ],
  },
  leads_with_plugs: {
    id: 'leads_with_plugs',
    name: 'Leads with plugs',
    question: 'Are leads replaced with the plugs?',
    byDefault: 'when_worn',
    options: [
      option(
        'when_worn',
        'When past life or damaged',
        'A sound lead is no worse for its age.',
        'Leads, cap and rotor run on their own clocks.',
      ),
      option('always', 'Always', 'Pulling an old lead damages it.', 'A lead set is on every pick list.'),
    ],
  },
  inspection_sample: {
    id: 'inspection_sample',
    name: 'Sample of an inspection',
    question: 'How many parts of unknown age are looked at?',
    byDefault: 'one',
    options: [
      option(
        'one',
        'One of them',
        'They went in together: one speaks for the others.',
        'The first place is looked at.',
      ),
      option(
        'bank',
        'One bank',
        'The bank that is reached worst was skipped the last time.',
        'A whole bank is looked at.',
      ),
      option('all', 'All', 'Sets are mixed more often than anyone admits.', 'Every place is looked at.'),
    ],
  },
  seizing_risk: {
    id: 'seizing_risk',
    name: 'Plugs that may be seized',
    question: 'What of steel shells in an aluminium head that were never out?',
    byDefault: 'flag',
    options: [
      option(
        'flag',
        'Say so',
        'A plug that runs well is not worth a stripped head; the time is booked for the soak.',
        'Due at the full interval, with a word of warning in the due list.',
      ),
      option(
        'forward',
        'Bring it forward',
        'Each year makes it worse: the first change is the cheapest while they still turn.',
        'Due at 75 % of the interval until they have been out once.',
      ),
    ],
  },
  scan_codes: {
    id: 'scan_codes',
    name: 'Scanning codes',
    question: 'When are codes read?',
    byDefault: 'before_and_after',
    options: [
      option(
        'before_and_after',
        'Before and after',
        'Only a record of both shows what the work changed.',
        'Codes are saved before they are cleared, and read again after the road test.',
      ),
      option(
        'lamp_only',
        'Only with a lamp on',
        'No lamp, no code worth the time.',
        'Codes are read where a lamp is on.',
      ),
    ],
  },
  first_start: {
    id: 'first_start',
    name: 'First start',
    question: 'When is the engine first started?',
    byDefault: 'before_covers',
    options: [
      option(
        'before_covers',
        'Before covers are refitted',
        'A missed connector shows while it can be reached.',
        'Start, listen, then close.',
      ),
      option('after_covers', 'After covers are refitted', 'Nothing is left to catch in a belt.', 'Close, then start.'),
    ],
  },
  battery: {
    id: 'battery',
    name: 'Battery',
    question: 'Is the battery isolated?',
    byDefault: 'by_class',
    options: [
      option(
        'by_class',
        'By vehicle class',
        'Needed on hybrids and where modules move; elsewhere it loses settings.',
        'Always on hybrids and where control units are moved.',
      ),
      option('always', 'Always', 'No spark and no start while a hand is in the engine.', 'Isolated at every job.'),
    ],
  },
} as const satisfies Readonly<Record<string, Policy>>;
