import type { AccessItem, AccessPart } from '../../engine/access-items';
import type { Ask, Counted, CountKind } from '../ask';
import { lidsOf } from './phases/way';
import { type ProcedureInput, stepOf } from './step';
import { coilsLifted, itemsOff, placesWith } from './visit';

/** The counts that are made at a step, as its asks. */
export const countsAt = (counts: readonly Counted[], step: string): readonly Ask[] =>
  counts.flatMap(({ key, what, out, back }): readonly Ask[] => [
    ...(out === step ? [{ key: `out:${key}`, what: `${what}, out`, kind: 'count' as const }] : []),
    ...(back === step ? [{ key: `back:${key}`, what: `${what}, back`, kind: 'count' as const }] : []),
  ]);

/**
 * What is counted out and in, with the steps at which it is. A captive screw stays in its part.
 *
 * @param tools how many the steps name
 */
export function counted(input: ProcedureInput, tools: number): readonly Counted[] {
  const { plug } = input;
  const lids = lidsOf(input);
  return [
    { kind: 'tools', key: 'tools', what: 'tools in the bay', count: tools, out: 'isolate', back: 'count' },
    ...itemsOff(input).flatMap((item) => itemCounts(item, lids.has(item.key))),
    ...coilScrews(input),
    ...(plug?.seat === 'gasket' ? [gaskets(placesWith(input, 'plug').length)] : []),
  ];
}

const gaskets = (count: number): Counted => ({
  kind: 'gaskets',
  key: 'gaskets',
  what: 'gaskets: off the old plugs, on with the new',
  count,
  out: 'count',
  back: 'count',
});

/** What an item without screws is counted as. */
const LOOSE: Readonly<Partial<Record<AccessPart, readonly [CountKind, string]>>> = {
  hose: ['hoses', 'hoses'],
  duct: ['hoses', 'duct clamps'],
  connector: ['connectors', 'connectors'],
  fuel_line: ['hoses', 'fuel line locks'],
};

/** Its screws or ends, counted where it comes off and where it goes on; the ports under an intake with their rags. */
function itemCounts({ key, part, what, fasteners, minutesOn, opens }: AccessItem, isLid: boolean): readonly Counted[] {
  if (minutesOn === 0) return [];
  const [out, back] = [stepOf('open', key), stepOf(isLid ? 'lids' : 'close', key)];
  const loose = LOOSE[part];
  const count = fasteners?.count ?? null;
  return [
    ...(fasteners?.size && !fasteners.captive
      ? [{ kind: 'screws' as const, key: `screws_${key}`, what: `screws ${fasteners.size}, ${what}`, count, out, back }]
      : []),
    ...(loose && !fasteners?.size
      ? [{ kind: loose[0], key: `${loose[0]}_${key}`, what: `${loose[1]}, ${what}`, count, out, back }]
      : []),
    ...(part === 'intake'
      ? [
          {
            kind: 'rags' as const,
            key: `rags_${key}`,
            what: `rags in ports under the ${what}`,
            count: opens.length,
            out: stepOf('rags', key),
            back,
          },
        ]
      : []),
  ];
}

/** Screws of coils, rails and other parts that are lifted; where only some are, as many as are found. */
function coilScrews(input: ProcedureInput): readonly Counted[] {
  const lifted = coilsLifted(input);
  if (lifted === 0) return [];
  const isSome = lifted < input.layout.model.coils.length;
  return input.fasteners
    .filter(({ captive, holds }) => !captive && (holds === 'coil' || holds === 'other'))
    .map(({ what, size, count, holds }, i) => ({
      kind: 'screws',
      key: `screws_${i + 1}`,
      what: `${what} ${size}`,
      count: isSome && holds === 'coil' ? null : count,
      out: 'leads',
      back: 'refit',
    }));
}
