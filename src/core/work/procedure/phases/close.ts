import type { CoilConnectors } from '../../../engine/access-items';
import { siteName } from '../../../engine/layout';
import { siteId } from '../../../engine/model';
import { WORK_KIND_TABLE, type WorkHazard } from '../../../engine/other-work';
import { saySmallTorque } from '../../../units/say';
import { MINUTES } from '../minutes';
import { choice, type Draft, draft, LEAD_WORDS, type ProcedureInput } from '../step';
import { coilsLifted, connectorsByWay, sitesReached } from '../visit';
import { wayOn } from './way';

/** What can hurt at other work, by what it sets free. */
const HAZARD_CAUTIONS: Readonly<Record<WorkHazard, string>> = {
  fuel: 'Fuel sprays and burns: only with the line without pressure, a tray below and no ignition source.',
  hot_coolant: 'A hot cooling system scalds when it is opened, and coolant is poisonous: cold, and caught in a tray.',
  moving_belt: 'A belt takes fingers: key out, and nobody near the starter.',
};

/** Back together, and everything counted. */
export function close(input: ProcedureInput): readonly Draft[] {
  return [
    ...input.otherWork.map(({ what, kind, minutes }, i) =>
      draft('close', 'other', `With it: ${what}`, 'It lies behind what is open anyway.', minutes, {
        part: i + 1,
        isFixed: true,
        caution: [
          ...WORK_KIND_TABLE[kind].hazards.map((hazard) => HAZARD_CAUTIONS[hazard]),
          'By the service information of its own part, which is not in this record.',
        ].join(' '),
      }),
    ),
    ...(coilsLifted(input) > 0 ? [refit(input)] : []),
    ...wayOn(input, 'before_start'),
    draft(
      'close',
      'count',
      'Count tools, rags, fasteners and gaskets: out equals in',
      'While a count is open the engine is not started.',
      MINUTES.count,
      { caution: 'A rag or tool left in the bay is found by the fan.' },
    ),
  ];
}

/** The coils that were lifted, as they are called. */
const coilNames = (input: ProcedureInput): readonly string[] => {
  const reached = new Set(sitesReached(input).map(siteId));
  return input.layout.model.coils
    .filter(({ fires }) => fires.some((site) => reached.has(siteId(site))))
    .map(({ name }) => name.replaceAll(' ', ''));
};

/** How the coils are connected again. @param byWay what the way to them did with their connectors */
function connected(connectorRail: boolean, byWay: CoilConnectors | undefined): string {
  if (byWay === 'stay') return 'connector still home, second lock too';
  if (byWay === 'unplugged') return 'its connector clicks when the harness is back';
  return connectorRail ? 'then the connector rail over all of them, both locks home' : 'connector clicks';
}

function refit(input: ProcedureInput): Draft {
  const { layout, fasteners } = input;
  const lead = LEAD_WORDS[layout.model.ignition];
  const torques = fasteners
    .filter(({ holds }) => holds === 'coil')
    .map((f) => `${f.what} ${saySmallTorque(f.torqueNm)}`);
  const onPlug = layout.model.ignition === 'coil_on_plug' || layout.model.ignition === 'coil_rail';
  return draft(
    'close',
    'refit',
    `A little dielectric grease in each boot; refit each ${lead}: boot home, ${connected(layout.model.connectorRail === true, connectorsByWay(input))}${torques.length > 0 ? `, ${torques.join(', ')}` : ''}`,
    'Grease insulates and lets the boot come off next time; it belongs in the boot, never on a bare contact.',
    MINUTES.refit + MINUTES.refitEach * coilsLifted(input),
    {
      caution: [
        'These are small torques: inch-pounds or single newton metres, never those of the plug; in plastic turn by turn, side to side.',
        ...(onPlug
          ? []
          : ['Leads as in the picture, clear of exhaust and moving parts: two that change places backfire.']),
      ].join(' '),
      consumables: ['dielectric grease'],
      asks: [
        {
          key: 'clicks',
          what: onPlug ? 'connector and second lock click' : 'lead home on both ends',
          kind: 'each',
          choices: onPlug ? coilNames(input) : sitesReached(input).map((site) => siteName(layout, site)),
        },
        {
          ...choice('locks', 'locks', ['every one whole', 'one is broken: secured, follow-up made']),
          optional: true,
        },
      ],
    },
  );
}
