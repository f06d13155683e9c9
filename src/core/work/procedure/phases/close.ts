import { type Fastener, tighteningOrder } from '../../../engine/access';
import type { BankPlace } from '../../../engine/model';
import { saySmallTorque, sayTorque } from '../../../units/say';
import { choice, type Draft, draft, LEAD_WORDS, type ProcedureInput, SIDE } from '../step';
import { banksOpened, coilsLifted } from '../visit';

/** Back together, and everything counted. */
export function close(input: ProcedureInput): readonly Draft[] {
  const { layout, access, fasteners, policies } = input;
  const opened = banksOpened(input);
  const closing = (kind: 'under_intake' | 'cover', step: (place: BankPlace, n: number) => Draft): readonly Draft[] =>
    layout.model.banks.flatMap((bank, i) =>
      access[i]?.access === kind && opened.has(i + 1) ? [step(bank.place, i + 1)] : [],
    );
  const bolts = fasteners.find(({ holds }) => holds === 'intake');
  return [
    ...input.otherWork.map(({ what, minutes }, i) =>
      draft('close', 'other', `With it: ${what}`, 'It lies behind what is open anyway.', {
        bank: i + 1,
        fixedMinutes: minutes,
        caution: 'By the service information of its own part, which is not in this record.',
      }),
    ),
    ...(coilsLifted(input) > 0 ? [refit(input)] : []),
    ...closing('under_intake', (place, n) => intakeOn(place, n, bolts)),
    draft(
      'close',
      'count',
      'Count tools, rags, fasteners and gaskets: out equals in',
      'While a count is open the engine is not started.',
      { caution: 'A rag or tool left in the bay is found by the fan.' },
    ),
    ...(policies.first_start === 'before_covers' ? [] : closing('cover', (place, n) => coverOn('close', place, n))),
  ];
}

/** A cover goes on before the count, or after the first start. */
export const coverOn = (kind: 'close' | 'lids', place: BankPlace, n: number): Draft =>
  draft(
    kind === 'close' ? 'close' : 'prove',
    kind,
    `Refit the cover${SIDE[place]}, every screw where it was`,
    'A cover that rattles lets water into the wells.',
    { bank: n },
  );

function intakeOn(place: BankPlace, n: number, bolts: Fastener | undefined): Draft {
  const order = bolts
    ? `, ${bolts.count} ${bolts.size} to ${sayTorque(bolts.torqueNm)} in the order ${tighteningOrder(bolts.count, bolts.order).join(' ')}`
    : ', from the centre outward';
  return draft(
    'close',
    'close',
    `Rags out and counted; intake manifold${SIDE[place]} on with new gaskets${order}`,
    'A manifold that bridges draws air: lean, and a misfire at idle.',
    {
      bank: n,
      caution:
        'Rags out equals rags in, before the manifold covers the ports. Every clamp, hose, module and ground screw back and tight: air drawn in runs lean.',
      consumables: ['new manifold gaskets'],
      weight: 3,
    },
  );
}

function refit({ layout, fasteners }: ProcedureInput): Draft {
  const lead = LEAD_WORDS[layout.model.ignition];
  const torques = fasteners
    .filter(({ holds }) => holds === 'coil')
    .map((f) => `${f.what} ${saySmallTorque(f.torqueNm)}`);
  const onPlug = layout.model.ignition === 'coil_on_plug' || layout.model.ignition === 'coil_rail';
  return draft(
    'close',
    'refit',
    `A little dielectric grease in each boot; refit each ${lead}: boot home, ${layout.model.connectorRail ? 'then the connector rail over all of them, both locks home' : 'connector clicks'}${torques.length > 0 ? `, ${torques.join(', ')}` : ''}`,
    'Grease insulates and lets the boot come off next time; it belongs in the boot, never on a bare contact.',
    {
      caution: [
        'These are small torques: inch-pounds or single newton metres, never those of the plug; in plastic turn by turn, side to side.',
        ...(onPlug
          ? []
          : ['Leads as in the picture, clear of exhaust and moving parts: two that change places backfire.']),
      ].join(' '),
      consumables: ['dielectric grease'],
      asks: [
        choice('clicks', onPlug ? 'connectors' : 'leads on their terminals', [
          'every one clicks',
          'one does not lock: secured, follow-up made',
        ]),
      ],
      weight: 2,
    },
  );
}
