import type { Ask, Counted } from '../ask';
import { type ProcedureInput, SIDE } from './step';

/** The counts that are made at a step, as its asks. */
export const countsAt = (counts: readonly Counted[], step: string): readonly Ask[] =>
  counts.flatMap(({ key, what, out, back }): readonly Ask[] => [
    ...(out === step ? [{ key: `out:${key}`, what: `${what}, out`, kind: 'count' as const }] : []),
    ...(back === step ? [{ key: `back:${key}`, what: `${what}, back`, kind: 'count' as const }] : []),
  ]);

/** What is counted out and in, with the steps at which it is. A captive screw stays in its part. */
export function counted({ layout, access, fasteners, plug, policies }: ProcedureInput): readonly Counted[] {
  const loose = fasteners.filter((f) => !f.captive);
  const banks = layout.model.banks.map((bank, i) => ({ bank, n: i + 1, access: access[i]?.access ?? 'open' }));
  const covered = banks.filter((b) => b.access === 'cover');
  const under = banks.filter((b) => b.access === 'under_intake');
  const lidsLast = policies.first_start === 'before_covers';
  const screws = loose.map((f, i): Counted => {
    const lid = /cover|cowl/i.test(f.what) ? covered[0] : undefined;
    const manifold = /intake|manifold|duct/i.test(f.what) ? under[0] : undefined;
    const at = manifold ?? lid;
    return {
      key: `screws_${i + 1}`,
      what: `${f.what} ${f.size}`,
      count: f.count,
      out: at ? `open_${at.n}` : 'leads',
      back: manifold ? `close_${manifold.n}` : lid ? (lidsLast ? 'lids_1' : `close_${lid.n}`) : 'refit',
    };
  });
  return [
    { key: 'tools', what: 'tools in the bay', count: null, out: 'parts', back: 'count' },
    ...screws,
    ...under.flatMap(({ bank, n }): readonly Counted[] => [
      {
        key: `hoses_${n}`,
        what: `hoses and plugs parted${SIDE[bank.place]}`,
        count: null,
        out: `open_${n}`,
        back: `close_${n}`,
      },
      {
        key: `rags_${n}`,
        what: `rags in ports${SIDE[bank.place]}`,
        count: bank.cylinders.length,
        out: `rags_${n}`,
        back: `close_${n}`,
      },
    ]),
    ...(plug.seat === 'gasket'
      ? [
          {
            key: 'gaskets',
            what: 'gaskets: off the old plugs, on with the new',
            count: layout.sites.length,
            out: 'count',
            back: 'count',
          },
        ]
      : []),
  ];
}
