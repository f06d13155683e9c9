import type { AccessClass } from '../../engine/access';
import type { Ask, Counted } from '../ask';
import { bankStep, type ProcedureInput, SIDE } from './step';

/** The counts that are made at a step, as its asks. */
export const countsAt = (counts: readonly Counted[], step: string): readonly Ask[] =>
  counts.flatMap(({ key, what, out, back }): readonly Ask[] => [
    ...(out === step ? [{ key: `out:${key}`, what: `${what}, out`, kind: 'count' as const }] : []),
    ...(back === step ? [{ key: `back:${key}`, what: `${what}, back`, kind: 'count' as const }] : []),
  ]);

/** What is counted out and in, with the steps at which it is. A captive screw stays in its part. */
export function counted(input: ProcedureInput): readonly Counted[] {
  const { layout, access, plug } = input;
  const under = layout.model.banks.flatMap((bank, i) =>
    access[i]?.access === 'under_intake' ? [{ bank, n: i + 1 }] : [],
  );
  return [
    { kind: 'tools', key: 'tools', what: 'tools in the bay', count: null, out: 'parts', back: 'count' },
    ...screws(input),
    ...under.flatMap(({ bank, n }): readonly Counted[] => [
      {
        kind: 'hoses',
        key: `hoses_${n}`,
        what: `hoses and plugs parted${SIDE[bank.place]}`,
        count: null,
        out: bankStep('open', n),
        back: bankStep('close', n),
      },
      {
        kind: 'rags',
        key: `rags_${n}`,
        what: `rags in ports${SIDE[bank.place]}`,
        count: bank.cylinders.length,
        out: bankStep('rags', n),
        back: bankStep('close', n),
      },
    ]),
    ...(plug.seat === 'gasket' ? [gaskets(layout.sites.length)] : []),
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

/** A screw comes out where the part it holds is opened, and is counted back where that part goes on again. */
function screws({ access, fasteners, policies }: ProcedureInput): readonly Counted[] {
  const bankWith = (kind: AccessClass): number => access.findIndex((bank) => bank.access === kind) + 1;
  const [covered, under] = [bankWith('cover'), bankWith('under_intake')];
  return fasteners
    .filter((fastener) => !fastener.captive)
    .map((fastener, i): Counted => {
      const base = {
        kind: 'screws' as const,
        key: `screws_${i + 1}`,
        what: `${fastener.what} ${fastener.size}`,
        count: fastener.count,
      };
      if (fastener.holds === 'intake' && under > 0)
        return { ...base, out: bankStep('open', under), back: bankStep('close', under) };
      if (fastener.holds === 'cover' && covered > 0) {
        const back = policies.first_start === 'before_covers' ? bankStep('lids', 1) : bankStep('close', covered);
        return { ...base, out: bankStep('open', covered), back };
      }
      return { ...base, out: 'leads', back: 'refit' };
    });
}
