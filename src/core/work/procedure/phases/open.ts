import type { AccessClass } from '../../../engine/access';
import type { CoilConnectors } from '../../../engine/access-items';
import type { Bank } from '../../../engine/model';
import { MINUTES } from '../minutes';
import { choice, type Draft, draft, LEAD_WORDS, type ProcedureInput, SIDE } from '../step';
import { banksOpened, coilsLifted, connectorsByWay, sitesReached } from '../visit';
import { wayOff } from './way';

/** Where a bank is not reached from above, how it is. @param n the bank's number, from 1 */
function reach(bank: Bank, n: number, access: AccessClass): readonly Draft[] {
  const side = SIDE[bank.place];
  if (access === 'side')
    return [
      draft(
        'open',
        'reach',
        `Make way to the plugs${side} from the side`,
        'They are reached past the wheel arch or frame, not from above.',
        MINUTES.reach,
        { part: n, tools: ['flexible extension', 'lamp'] },
      ),
    ];
  if (access === 'by_feel')
    return [
      draft(
        'open',
        'reach',
        `Set lamp and mirror for the plugs${side}: they are reached by feel`,
        'What cannot be seen is cross-threaded and dropped more easily.',
        MINUTES.reach,
        {
          part: n,
          tools: ['mirror', 'swivel socket', 'short extension', 'magnet'],
          caution: 'Reach in with the engine cold and the fan isolated.',
        },
      ),
    ];
  return [];
}

/** How the coils come free of their harness. @param byWay what the way to them has done with their connectors */
function freeing(connectorRail: boolean, stays: boolean, byWay: CoilConnectors | undefined): string {
  if (byWay === 'stay') return 'The connectors stay plugged: the harness hangs aside with them';
  if (byWay === 'unplugged') return 'The connectors are off with the harness';
  if (connectorRail) return 'Unlock the connector rail and lift it off all coils of the bank together';
  return stays ? 'Leave the connectors plugged and free the harness' : 'Unplug each connector by its tab';
}

/** Down to the plugs: covers, wells, coils or leads. */
export function open(input: ProcedureInput): readonly Draft[] {
  const { layout, access } = input;
  const opened = banksOpened(input);
  const way = [
    ...wayOff(input),
    ...layout.model.banks.flatMap((bank, i) =>
      opened.has(i + 1) ? reach(bank, i + 1, access[i]?.access ?? 'open') : [],
    ),
  ];
  const sites = sitesReached(input).length;
  if (coilsLifted(input) === 0) return way;
  return [
    ...way,
    draft(
      'open',
      'clean',
      'Blow out and wipe the wells and the surface round them',
      'Whatever lies in the well falls into the cylinder when the plug comes out.',
      MINUTES.clean + Math.ceil(MINUTES.cleanEach * sites),
      {
        caution:
          'Eye protection on before compressed air or solvent, never blow by mouth. No flame or spark near vapour. A spray can of air leaves water when it is tilted: a compressor is better.',
        tools: ['compressed air, low pressure', 'long brush'],
        consumables: ['lint-free cloth'],
        asks: [
          choice('how', 'cleaned with', [
            'compressor, low pressure',
            'vacuum and brush',
            'spray can of air, and dried after it',
          ]),
        ],
      },
    ),
    liftStep(input),
    draft(
      'open',
      'wells',
      'Look into every well: oil, water, coolant, debris; clean again',
      'What stands there says where it came from, and it is gone once the plug is out.',
      MINUTES.wells + Math.ceil(MINUTES.wellsEach * sites),
      {
        tools: ['lamp', 'suction pipe'],
        asks: [
          ...(opened.size > 1
            ? [
                {
                  key: 'banks',
                  what: 'wells clean and looked into',
                  kind: 'each' as const,
                  choices: layout.model.banks.flatMap(({ place }, i) => (opened.has(i + 1) ? [place] : [])),
                },
              ]
            : []),
          choice('wells', 'wells as found', ['all dry and clean', 'something found, noted at its cylinder']),
        ],
      },
    ),
  ];
}

/** Coils, rail or leads off the plugs. */
function liftStep(input: ProcedureInput): Draft {
  const { layout, weakPoints, policies } = input;
  const { ignition, connectorRail } = layout.model;
  const brittle = weakPoints.filter(({ kind }) => kind === 'brittle').map(({ says }) => says);
  const lead = LEAD_WORDS[ignition];
  const coils = coilsLifted(input);
  const onPlug = ignition === 'coil_on_plug' || ignition === 'coil_rail';
  const stays = onPlug && !connectorRail && policies.coil_connectors === 'leave';
  const byWay = connectorsByWay(input);
  return draft(
    'open',
    'leads',
    onPlug
      ? `${freeing(connectorRail === true, stays, byWay)}, then lift each ${lead} with a twist (${coils} on this visit)`
      : `Mark every lead with its cylinder, then pull each by its boot with a twist, never by the cable (${coils} coil${coils === 1 ? '' : 's'} on this visit)`,
    onPlug
      ? 'A boot that is stuck tears when it is pulled straight.'
      : 'Two leads that change places fire at the wrong moment: backfire, and a ruined catalyst.',
    MINUTES.lift + MINUTES.liftEach * coils,
    {
      caution: brittle.length > 0 ? `Brittle here: ${brittle.join('; ')}. Warm and ease, do not force.` : null,
      tools: onPlug ? ['boot puller'] : ['boot pliers', 'lead markers'],
      asks: onPlug
        ? [choice('boots', 'boots and tabs as found', ['all sound', 'something found, noted at its cylinder'])]
        : [{ key: 'routing', what: 'where each lead ran', kind: 'photo' }],
    },
  );
}
