import { sayGaps } from '../../../units/say';
import { choice, type Draft, draft, isGas, isIsolated, type ProcedureInput, text } from '../step';

/** Before anything is opened. */
export function prepare({
  layout,
  plug,
  hybrid,
  fuel,
  policies,
  access,
  headMaterial,
}: ProcedureInput): readonly Draft[] {
  const n = layout.sites.length;
  const cold = policies.engine_temperature !== 'warm';
  return [
    draft(
      'prepare',
      'safe',
      'Hood propped, wheels chocked, bystanders away; safety shoes and eye protection on',
      'Most injuries at this job are not from the engine.',
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
      { tools: ['code reader'], asks: [{ key: 'before', what: 'codes before', kind: 'codes' }] },
    ),
    draft(
      'prepare',
      'parts',
      `Lay out ${n} × ${plug.number} and measure every gap before anything is opened`,
      'A kit can hold one wrong or one too many. All present, right number, right reach, gasket on, gap measured: else do not start.',
      {
        caution: 'A wrong reach can strike the piston: compare a new plug with the first one out.',
        tools: ['wire or feeler gauge'],
        asks: [{ key: 'parts', what: `number and gap of each new plug, within ${sayGaps(plug.gapMm)}`, kind: 'parts' }],
        weight: 2,
      },
    ),
    draft(
      'prepare',
      'cold',
      cold ? 'Check that the engine is cold to the touch' : 'Engine warm, not hot: the bulletin in force asks for it',
      headMaterial === 'aluminium'
        ? 'Threads in a hot aluminium head tear, and a torque is given for one temperature.'
        : 'A torque is given for one temperature.',
      {
        caution: cold ? 'Hot metal burns.' : 'Hot metal burns: gloves, and clear of exhaust and fan.',
        asks: [
          choice('temperature', 'engine temperature', ['cold', 'warm', 'hot'], cold ? ['cold'] : ['warm', 'cold']),
        ],
      },
    ),
    isolate(hybrid, isIsolated({ hybrid, policies, access })),
    ...(isGas(fuel) ? [gasOff()] : []),
  ];
}

const gasOff = (): Draft =>
  draft('prepare', 'gas', 'Close the gas tank valve and run the line empty', 'Gas in the line finds every spark.', {
    caution:
      'Flammable gas, heavier than air if it is LPG: ventilate, no flame, no pit. Licensed people only where the law says so.',
    asks: [text('valve', 'valve closed by, at')],
  });

function isolate(hybrid: boolean, battery: boolean): Draft {
  if (hybrid)
    return draft(
      'prepare',
      'isolate',
      'Isolate the traction system and the 12 V battery; keep the key away',
      'A hybrid starts its engine when it likes.',
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
    { caution: 'Ignition high voltage: never pull a coil or lead with the ignition on.' },
  );
}
