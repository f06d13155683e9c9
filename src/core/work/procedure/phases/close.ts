import { tighteningOrder } from '../../../engine/access';
import { choice, type Draft, draft, LEAD_WORDS, type ProcedureInput, SIDE } from '../step';

/** Back together, and everything counted. */
export function close(input: ProcedureInput): readonly Draft[] {
  const { layout, access, fasteners, policies } = input;
  const lead = LEAD_WORDS[layout.model.ignition];
  const torques = fasteners.filter((f) => /coil|rail/i.test(f.what)).map((f) => `${f.what} ${f.torqueNm} N·m`);
  const first = policies.first_start === 'before_covers';
  const covers = layout.model.banks.flatMap((bank, i): Draft[] => {
    const kind = access[i]?.access ?? 'open';
    const side = SIDE[bank.place];
    if (kind === 'under_intake') {
      const bolts = fasteners.find((f) => /intake|manifold/i.test(f.what));
      const order = bolts
        ? `, ${bolts.count} ${bolts.size} to ${bolts.torqueNm} N·m in the order ${tighteningOrder(bolts.count, bolts.order).join(' ')}`
        : ', from the centre outward';
      return [
        draft(
          'close',
          `close_${i + 1}`,
          `Rags out and counted; intake manifold${side} on with new gaskets${order}`,
          'A manifold that bridges draws air: lean, and a misfire at idle.',
          {
            caution:
              'Rags out equals rags in, before the manifold covers the ports. Every clamp, hose, module and ground screw back and tight: air drawn in runs lean.',
            consumables: ['new manifold gaskets'],
            weight: 3,
          },
        ),
      ];
    }
    if (kind === 'cover')
      return [
        draft(
          'close',
          `close_${i + 1}`,
          `Refit the cover${side}, every screw where it was`,
          'A cover that rattles lets water into the wells.',
        ),
      ];
    return [];
  });
  const manifold = covers.filter((step) => step.title.startsWith('Rags out'));
  const lids = covers.filter((step) => !manifold.includes(step));
  const onPlug = layout.model.ignition === 'coil_on_plug' || layout.model.ignition === 'coil_rail';
  return [
    draft(
      'close',
      'refit',
      `A little dielectric grease in each boot; refit each ${lead}: boot home, connector clicks${torques.length > 0 ? `, ${torques.join(', ')}` : ''}`,
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
    ),
    ...manifold,
    draft(
      'close',
      'count',
      'Count tools, rags, fasteners and gaskets: out equals in',
      'While a count is open the engine is not started.',
      {
        caution: 'A rag or tool left in the bay is found by the fan.',
      },
    ),
    ...(first ? [] : lids),
  ];
}
