import type { AccessItem } from '../../engine/access-items';

/** Where one open order stands with an item on its way. */
export interface ItemAhead {
  readonly order: number;
  readonly item: AccessItem;
  /** It was found missing or broken before anybody began. */
  readonly isDefect: boolean;
  /** It is on again: what it wanted is in. */
  readonly isOn: boolean;
}

interface PartAhead {
  readonly number: string;
  readonly what: string;
  /** Whole parts that are wanted. */
  readonly quantity: number;
  readonly orders: readonly number[];
  readonly why: 'found_broken' | 'new_seal' | 'likely_to_break';
}

/** Breakages of several orders together are ordered from this many expected ones on. */
const WORTH_ORDERING = 0.5;

/**
 * Parts that open orders will want for the way to their plugs: what was found broken, seals that are always new, and as many of
 * what often breaks as are to be expected over all of them. A part without a number cannot be ordered and is left out.
 */
export function partsAhead(items: readonly ItemAhead[]): readonly PartAhead[] {
  const wanted = items.filter(({ isOn }) => !isOn).flatMap(wantedOf);
  const keys = [...new Set(wanted.map(({ number, why }) => `${why} ${number}`))];
  return keys.flatMap((key): PartAhead[] => {
    const ofKey = wanted.filter(({ number, why }) => `${why} ${number}` === key);
    const [first] = ofKey;
    const expected = ofKey.reduce((sum, { share }) => sum + share, 0);
    if (!first || expected < WORTH_ORDERING) return [];
    return [
      {
        number: first.number,
        what: first.what,
        quantity: Math.ceil(expected - 1e-9),
        orders: [...new Set(ofKey.map(({ order }) => order))],
        why: first.why,
      },
    ];
  });
}

function wantedOf({ order, item: { seal, breaks }, isDefect }: ItemAhead) {
  const broken = breaks?.number
    ? [
        {
          order,
          number: breaks.number,
          what: breaks.what,
          share: isDefect ? 1 : breaks.chance,
          why: isDefect ? ('found_broken' as const) : ('likely_to_break' as const),
        },
      ]
    : [];
  const sealed =
    seal?.number && seal.rule === 'new'
      ? [{ order, number: seal.number, what: seal.what, share: 1, why: 'new_seal' as const }]
      : [];
  return [...broken, ...sealed];
}
