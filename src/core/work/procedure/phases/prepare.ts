import { hasHazard } from '../../../engine/other-work';
import { sayGaps } from '../../../units/say';
import type { Ask } from '../../ask';
import { USUAL_COOLING_MIN } from '../../cooling';
import { PART_WORDS } from '../../say-places';
import { MINUTES } from '../minutes';
import { choice, type Draft, draft, isGas, isIsolated, type ProcedureInput, text } from '../step';
import { itemsOff, placesWith } from '../visit';

/** Before anything is opened. */
export function prepare(input: ProcedureInput): readonly Draft[] {
  const { hybrid, fuel, policies, headMaterial } = input;
  const cold = policies.engine_temperature !== 'warm';
  const plugsOut = placesWith(input, 'plug').length > 0;
  return [
    draft(
      'prepare',
      'safe',
      'Hood propped, wheels chocked, bystanders away; safety shoes and eye protection on',
      'Most injuries at this job are not from the engine.',
      MINUTES.safe,
      {
        caution: 'A hood that falls, a fan that starts and a splinter in the eye are the common ones.',
        tools: ['hood prop', 'eye protection'],
      },
    ),
    draft(
      'prepare',
      'codes_before',
      policies.scan_codes === 'lamp_only'
        ? 'Read and keep the codes if the engine lamp is on'
        : 'Read the codes and keep them',
      'What was there before is the only proof of what the work changed. Keep them before anything is cleared.',
      MINUTES.codes,
      { tools: ['code reader'], asks: [{ key: 'before', what: 'codes before', kind: 'codes' }] },
    ),
    parts(input),
    ...(placesWith(input, 'cap').length > 0 ? [compareCap()] : []),
    draft(
      'prepare',
      'cold',
      temperatureTitle(plugsOut, cold),
      headMaterial === 'aluminium' && plugsOut
        ? 'Threads in a hot aluminium head tear, and a torque is given for one temperature.'
        : 'A torque is given for one temperature, and hot plastic breaks.',
      MINUTES.temperature,
      {
        caution: cold ? 'Hot metal burns.' : 'Hot metal burns: gloves, and clear of exhaust and fan.',
        asks: [
          choice(
            'temperature',
            'engine temperature',
            ['cold', 'warm', 'hot'],
            cold && plugsOut ? ['cold'] : ['warm', 'cold'],
          ),
          ...(cold && plugsOut ? coolingAsks(input.coolingMinutes) : []),
        ],
      },
    ),
    isolate(hybrid, isIsolated(input)),
    ...(isGas(fuel) && (plugsOut || partsFuel(input)) ? [gasOff()] : []),
    ...((isGas(fuel) ? hasHazard(input.otherWork, 'fuel') : partsFuel(input)) ? [fuelRelieved(input)] : []),
  ];
}

/** From these the screen says when the engine is cold; a measured head stands above the estimate. */
const coolingAsks = (coolingMinutes: number | null): readonly Ask[] => [
  { key: 'shut', what: 'engine shut off', kind: 'clock', optional: true, minutes: coolingMinutes ?? USUAL_COOLING_MIN },
  { key: 'outside', what: 'outside', kind: 'celsius', optional: true },
  { key: 'head', what: 'head, measured', kind: 'celsius', optional: true },
];

function temperatureTitle(plugsOut: boolean, cold: boolean): string {
  if (!plugsOut) return 'Check that the engine is cool enough to touch';
  return cold
    ? 'Check that the engine is cold to the touch'
    : 'Engine warm, not hot: the bulletin in force asks for it';
}

/** The new parts on the bench, before anything is opened. */
function parts(input: ProcedureInput): Draft {
  const { plug, tasks } = input;
  const news = tasks.flatMap(({ action, component, partNumber, places }) =>
    action === 'replace' ? [`${places.length} × ${partNumber ?? PART_WORDS[component]}`] : [],
  );
  const gaps = plug && tasks.some(({ action, component }) => action === 'replace' && component === 'plug');
  const count = tasks.reduce((sum, { action, places }) => sum + (action === 'replace' ? places.length : 0), 0);
  if (news.length === 0)
    return draft(
      'prepare',
      'parts',
      'Lay out tools and meter; no new part is planned',
      'What is looked at may have to be replaced: know where the new one is before the engine is opened.',
      MINUTES.layOut,
      { tools: ['lamp', ...(plug ? ['wire or feeler gauge'] : [])] },
    );
  return draft(
    'prepare',
    'parts',
    `Lay out ${news.join(', ')}${gaps ? ' and measure every gap' : ', each number read,'} before anything is opened`,
    gaps
      ? 'A kit can hold one wrong or one too many. All present, right number, right reach, gasket on, gap measured: else do not start.'
      : 'A kit can hold one wrong or one too many. All present, right number, same plug-in and length as the old: else do not start.',
    MINUTES.layOut + Math.ceil(MINUTES.newPart * count),
    {
      caution: gaps
        ? 'A wrong reach can strike the piston: compare a new plug with the first one out.'
        : 'A look-alike part fits and fails later: compare number and shape.',
      tools: gaps ? ['wire or feeler gauge'] : [],
      asks: [
        {
          key: 'parts',
          what: gaps
            ? `number of each new part, and gap of each new plug, within ${sayGaps(plug.gapMm)}`
            : 'number of each new part',
          kind: 'parts',
        },
        choice(
          'shape',
          plug ? 'reach, seat and gasket of each' : 'length, boot and bolt holes of each',
          ['as the record says', 'one differs: set aside'],
          ['as the record says'],
        ),
        ...(count > 1
          ? [
              choice(
                'kit',
                'the kit against its list',
                ['nothing missing, extra or double', 'differs: noted'],
                ['nothing missing, extra or double'],
              ),
            ]
          : []),
      ],
    },
  );
}

const compareCap = (): Draft =>
  draft(
    'prepare',
    'compare',
    'Hold the new cap beside the old: towers, notch, vent and centre button',
    'A cap whose notch sits one tower further fires every cylinder at the wrong moment.',
    MINUTES.compare,
    {
      caution: 'Mark the tower of cylinder 1 on both before a lead is pulled.',
      tools: ['marker'],
      asks: [choice('cap', 'new cap beside the old', ['the same', 'differs: set aside'], ['the same'])],
    },
  );

const gasOff = (): Draft =>
  draft(
    'prepare',
    'gas',
    'Close the gas tank valve and run the line empty',
    'Gas in the line finds every spark.',
    MINUTES.gas,
    {
      caution:
        'Flammable gas, heavier than air if it is LPG: ventilate, no flame, no pit. Licensed people only where the law says so.',
      asks: [text('valve', 'valve closed by, at')],
    },
  );

/** Fuel is let out where an item on the way or the work besides parts its line. */
const partsFuel = (input: ProcedureInput): boolean =>
  itemsOff(input).some(({ part }) => part === 'intake' || part === 'fuel_line') || hasHazard(input.otherWork, 'fuel');

function fuelRelieved(input: ProcedureInput): Draft {
  const filter = input.otherWork.some(({ kind }) => kind === 'fuel_filter');
  return draft(
    'prepare',
    'fuel',
    `Let the pressure out of the fuel line: pump off, line opened over a tray${filter ? '; note which way the fuel flows through the filter' : ''}`,
    'A line under pressure sprays over a hot engine when it is parted.',
    MINUTES.fuel,
    {
      caution: 'Fuel sprays and burns: eye protection, drip tray, no ignition source, ventilate, extinguisher at hand.',
      tools: ['drip tray', 'extinguisher'],
      asks: [
        choice(
          'fuel',
          'fuel line',
          ['without pressure, tray set, no ignition source', 'pressure left in it'],
          ['without pressure, tray set, no ignition source'],
        ),
        ...(filter ? [text('flow', 'direction of flow, as on the old filter')] : []),
      ],
    },
  );
}

function isolate(hybrid: boolean, battery: boolean): Draft {
  if (hybrid)
    return draft(
      'prepare',
      'isolate',
      'Isolate the traction system and the 12 V battery; keep the key away',
      'A hybrid starts its engine when it likes.',
      MINUTES.isolateTraction,
      {
        caution:
          'The engine can start by itself and traction voltage kills: qualified people only. Orange cables stay untouched.',
        tools: ['insulated gloves', 'lock for the isolator'],
        asks: [text('isolated', 'isolated by, at')],
      },
    );
  return draft(
    'prepare',
    'isolate',
    battery
      ? 'Ignition off, key out; isolate the battery'
      : 'Ignition off, key out; isolate the battery where modules are moved',
    'Nothing may spark or crank while hands and open holes are there.',
    MINUTES.isolate,
    { caution: 'Ignition high voltage: never pull a coil or lead with the ignition on.' },
  );
}
