import type { AccessItem } from '../../engine/access-items';
import type { ProcedureInput } from './step';
import { itemsOff } from './visit';

/** A part that the way to the plugs asks for, beside those that the tasks fit. */
export interface WayPart {
  readonly what: string;
  /** Null: nobody has written its number. */
  readonly number: string | null;
  /** seal_new: goes in at any rate; seal_if_sound: at hand in case; breaks: breaks in so many visits of one. */
  readonly why: 'seal_new' | 'seal_if_sound' | 'breaks';
  /** That it is wanted, from 0 to 1. */
  readonly chance: number;
  /** The item that asks for it. */
  readonly item: string;
}

/** A seal that is judged on the day is new about this often. Source: trade guidance, coarse. */
const SEAL_IS_BAD = 0.3;

/** Seals and likely breakages of a visit: on the kit, or ordered before the day. The surest first. */
export const wayParts = (input: ProcedureInput): readonly WayPart[] =>
  itemsOff(input)
    .flatMap(partsOf)
    .sort((a, b) => b.chance - a.chance);

function partsOf({ what: item, seal, breaks }: AccessItem): readonly WayPart[] {
  return [
    ...(seal
      ? [
          {
            what: seal.what,
            number: seal.number,
            why: seal.rule === 'new' ? ('seal_new' as const) : ('seal_if_sound' as const),
            chance: seal.rule === 'new' ? 1 : SEAL_IS_BAD,
            item,
          },
        ]
      : []),
    ...(breaks
      ? [{ what: breaks.what, number: breaks.number, why: 'breaks' as const, chance: breaks.chance, item }]
      : []),
  ];
}
