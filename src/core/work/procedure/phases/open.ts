import type { AccessClass } from '../../../engine/access';
import type { Bank } from '../../../engine/model';
import type { WeakPoint } from '../../../engine/weak-points';
import { choice, type Draft, draft, isGas, LEAD_WORDS, type ProcedureInput, SIDE } from '../step';
import { banksOpened, coilsLifted } from '../visit';

/** The intake comes off, and every port it leaves open is covered. */
function intakeOffBank(bank: Bank, n: number, gas: boolean, weak: readonly WeakPoint[]): readonly Draft[] {
  const side = SIDE[bank.place];
  return [
    draft(
      'open',
      'open',
      `Take the intake manifold off the plugs${side}: unplug, unclamp, then its screws from the outside inward`,
      'A manifold warps when its middle is freed first under load.',
      {
        bank: n,
        caution: [
          gas
            ? 'Gas in the line: it must be empty. Eye protection.'
            : 'Fuel under pressure may spray: relieve it, catch it, no flame. Eye protection.',
          ...weak.map(({ says }) => `Known here: ${says}.`),
        ].join(' '),
        tools: ['tray for screws, in their order'],
        consumables: ['new manifold gaskets'],
        weight: 4,
      },
    ),
    draft(
      'open',
      'rags',
      `Cover every open intake port${side} with a clean rag, and count them`,
      'A nut in a port wrecks the engine.',
      {
        bank: n,
        caution: 'Count them: a rag left in a port is found by the valve.',
        consumables: [`${bank.cylinders.length} clean rags`],
      },
    ),
  ];
}

/** Getting to the plugs of one bank. @param n the bank's number, from 1 */
function openBank(
  bank: Bank,
  n: number,
  access: AccessClass,
  gas: boolean,
  weak: readonly WeakPoint[],
): readonly Draft[] {
  const side = SIDE[bank.place];
  switch (access) {
    case 'open':
      return [];
    case 'cover':
      return [
        draft(
          'open',
          'open',
          `Take the cover${side} off; lay its screws in their order`,
          'Screws differ in length; a long one in a short hole cracks the cover.',
          { bank: n },
        ),
      ];
    case 'side':
      return [
        draft(
          'open',
          'open',
          `Make way to the plugs${side} from the side`,
          'They are reached past the wheel arch or frame, not from above.',
          { bank: n, tools: ['flexible extension', 'lamp'] },
        ),
      ];
    case 'by_feel':
      return [
        draft(
          'open',
          'open',
          `Set lamp and mirror for the plugs${side}: they are reached by feel`,
          'What cannot be seen is cross-threaded and dropped more easily.',
          {
            bank: n,
            tools: ['mirror', 'swivel socket', 'short extension'],
            caution: 'Reach in with the engine cold and the fan isolated.',
          },
        ),
      ];
    case 'under_intake':
      return intakeOffBank(bank, n, gas, weak);
  }
}

/** How the coils come free of their harness. */
function freeing(connectorRail: boolean, stays: boolean): string {
  if (connectorRail) return 'Unlock the connector rail and lift it off all coils of the bank together';
  return stays ? 'Leave the connectors plugged and free the harness' : 'Unplug each connector by its tab';
}

/** Down to the plugs: covers, wells, coils or leads. */
export function open(input: ProcedureInput): readonly Draft[] {
  const { layout, access, weakPoints, policies, fuel } = input;
  const opened = banksOpened(input);
  const known = (kind: WeakPoint['kind']) => weakPoints.filter((point) => point.kind === kind);
  const brittle = known('brittle').map(({ says }) => says);
  const banks = layout.model.banks.flatMap((bank, i) =>
    opened.has(i + 1) ? openBank(bank, i + 1, access[i]?.access ?? 'open', isGas(fuel), known('intake')) : [],
  );
  const lead = LEAD_WORDS[layout.model.ignition];
  const coils = coilsLifted(input);
  if (coils === 0) return banks;
  const onPlug = layout.model.ignition === 'coil_on_plug' || layout.model.ignition === 'coil_rail';
  const { connectorRail } = layout.model;
  const stays = onPlug && !connectorRail && policies.coil_connectors === 'leave';
  return [
    ...banks,
    draft(
      'open',
      'clean',
      'Blow out and wipe the wells and the surface round them',
      'Whatever lies in the well falls into the cylinder when the plug comes out.',
      {
        caution:
          'Eye protection on before compressed air or solvent, never blow by mouth. No flame or spark near vapour. A spray can of air leaves water when it is tilted: a compressor is better.',
        tools: ['compressed air, low pressure', 'long brush'],
        consumables: ['lint-free cloth'],
      },
    ),
    draft(
      'open',
      'leads',
      onPlug
        ? `${freeing(connectorRail === true, stays)}, then lift each ${lead} with a twist (${coils} on this visit)`
        : `Mark every lead with its cylinder, then pull each by its boot with a twist, never by the cable (${coils} coil${coils === 1 ? '' : 's'} on this visit)`,
      onPlug
        ? 'A boot that is stuck tears when it is pulled straight.'
        : 'Two leads that change places fire at the wrong moment: backfire, and a ruined catalyst.',
      {
        caution: brittle.length > 0 ? `Brittle here: ${brittle.join('; ')}. Warm and ease, do not force.` : null,
        tools: onPlug ? ['boot puller'] : ['boot pliers', 'lead markers'],
        asks: onPlug
          ? [choice('boots', 'boots and tabs as found', ['all sound', 'something found, noted at its site'])]
          : [{ key: 'routing', what: 'where each lead ran', kind: 'photo' }],
        weight: 2,
      },
    ),
    draft(
      'open',
      'wells',
      'Look into every well: oil, water, coolant, debris; clean again',
      'What stands there says where it came from, and it is gone once the plug is out.',
      {
        tools: ['lamp', 'suction pipe'],
        asks: [choice('wells', 'wells as found', ['all dry and clean', 'something found, noted at its site'])],
      },
    ),
  ];
}
