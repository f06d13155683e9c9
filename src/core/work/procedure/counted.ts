import type { AccessClass, Fastener } from '../../engine/access';
import type { Ask, Counted } from '../ask';
import { bankStep, type ProcedureInput, SIDE } from './step';
import { banksOpened, coilsLifted, placesWith } from './visit';

/** The counts that are made at a step, as its asks. */
export const countsAt = (counts: readonly Counted[], step: string): readonly Ask[] =>
  counts.flatMap(({ key, what, out, back }): readonly Ask[] => [
    ...(out === step ? [{ key: `out:${key}`, what: `${what}, out`, kind: 'count' as const }] : []),
    ...(back === step ? [{ key: `back:${key}`, what: `${what}, back`, kind: 'count' as const }] : []),
  ]);

/** What is counted out and in, with the steps at which it is. A captive screw stays in its part. */
export function counted(input: ProcedureInput): readonly Counted[] {
  const { layout, access, plug } = input;
  const opened = banksOpened(input);
  const under = layout.model.banks.flatMap((bank, i) =>
    access[i]?.access === 'under_intake' && opened.has(i + 1) ? [{ bank, n: i + 1 }] : [],
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

/** Which screws a bank of each access is opened by. */
const HOLDS: Readonly<Partial<Record<AccessClass, Fastener['holds']>>> = { cover: 'cover', under_intake: 'intake' };

/** A screw comes out where the part it holds is opened, and is counted back where that part goes on again. */
function screws(input: ProcedureInput): readonly Counted[] {
  const { access, fasteners, policies } = input;
  const opened = banksOpened(input);
  const bankWith = (kind: AccessClass): number =>
    access.findIndex((bank, i) => bank.access === kind && opened.has(i + 1)) + 1;
  const [covered, under] = [bankWith('cover'), bankWith('under_intake')];
  const lifted = coilsLifted(input);
  return fasteners
    .filter((fastener) => !fastener.captive)
    .flatMap((fastener, i): readonly Counted[] => {
      const base = {
        kind: 'screws' as const,
        key: `screws_${i + 1}`,
        what: `${fastener.what} ${fastener.size}`,
        count: fastener.count,
      };
      if (fastener.holds === 'intake' && under > 0)
        return [{ ...base, out: bankStep('open', under), back: bankStep('close', under) }];
      if (fastener.holds === 'cover' && covered > 0) {
        const back = policies.first_start === 'before_covers' ? bankStep('lids', 1) : bankStep('close', covered);
        return [{ ...base, out: bankStep('open', covered), back }];
      }
      // What holds a part of a bank that stays shut stays where it is.
      const isFarther = fastener.holds === 'intake' || fastener.holds === 'cover';
      const some = lifted < input.layout.model.coils.length && fastener.holds === 'coil';
      if (lifted === 0 || (isFarther && access.some(({ access: kind }) => HOLDS[kind] === fastener.holds))) return [];
      return [{ ...base, count: some ? null : base.count, out: 'leads', back: 'refit' }];
    });
}
