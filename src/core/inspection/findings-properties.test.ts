import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyEngine } from '../engine/any-engine.fixture';
import { layoutOf } from '../engine/layout';
import type { SiteKey } from '../engine/model';
import { siteId } from '../engine/model';
import { type Cause, type EngineReading, type Finding, isUnplaced, type SiteReading } from './finding';
import { readEngine } from './findings';
import { reading } from './reading.fixture';
import { ALL_CONDITIONS, type Condition, NORMAL } from './vocabulary';

/** At its site, or of one of the banks where nobody declared which end of the tray is which. */
const speaksOf = (findings: readonly Finding[], site: SiteReading, word: Condition): boolean =>
  findings.some(
    (finding) =>
      finding.evidence.some((one) => siteId(one) === siteId(site) && one.words.includes(word)) ||
      (isUnplaced(finding) && finding.next[0]?.includes(word) === true),
  );

describe('the cause', () => {
  const someShown = fc.dictionary(
    fc.constantFrom('1', '2', '3', '4', '5', '6', '7', '8', 'rest'),
    fc.record({
      conditions: fc.option(
        fc.uniqueArray(fc.constantFrom(...(ALL_CONDITIONS as readonly Condition[])), { maxLength: 3 }),
      ),
      severity: fc.constantFrom(1 as const, 2 as const, 3 as const),
      gap: fc.constantFrom(1, 1.3, 1.5, 1.8),
      breakaway: fc.constantFrom('loose' as const, 'normal' as const, 'seized' as const, null),
      differs: fc.boolean(),
    }),
    { maxKeys: 6 },
  );

  /** The same engine with its cylinders numbered otherwise. Cylinder 1 stays, as bank 1 is the one that holds it. */
  function renumbered(given: EngineReading, turn: number): EngineReading {
    const { model } = given.layout;
    const n = given.layout.cylinders;
    const other = (cylinder: number): number => (cylinder === 1 ? 1 : ((cylinder - 2 + turn) % (n - 1)) + 2);
    const site = <S extends SiteKey>(key: S): S => ({ ...key, cylinder: other(key.cylinder) });
    const layout = layoutOf({
      ...model,
      banks: model.banks.map((bank) => ({ ...bank, cylinders: bank.cylinders.map(other) })),
      firingOrder: model.firingOrder.map(other),
      holes: model.holes?.map((bank) => bank.map(site)) ?? null,
      coils: model.coils.map((coil) => ({ ...coil, fires: coil.fires.map(site) })),
    });
    return { ...given, layout, deactivated: given.deactivated.map(other), sites: given.sites.map(site) };
  }

  /** Each bank from its other end. */
  function mirrored(given: EngineReading): EngineReading {
    const { model } = given.layout;
    const banks = model.banks.map((bank) => ({ ...bank, cylinders: [...bank.cylinders].reverse() }));
    return { ...given, layout: layoutOf({ ...model, banks }) };
  }

  const causes = (given: EngineReading): readonly (readonly [Cause, string, string])[] =>
    readEngine(given).map(({ cause, shape, confidence }) => [cause, shape, confidence] as const);

  it('does not change when cylinders are numbered otherwise or banks are mirrored', () => {
    fc.assert(
      fc.property(anyEngine, someShown, fc.nat(7), fc.boolean(), (model, shown, turn, rests) => {
        const given = reading(model, shown, { deactivated: rests ? [1] : [] });
        expect(causes(mirrored(given))).toEqual(causes(given));
        if (given.layout.cylinders > 1) expect(causes(renumbered(given, turn))).toEqual(causes(given));
      }),
    );
  });

  it('rests on evidence from sites that were looked at, and says what to do next unless all is normal', () => {
    fc.assert(
      fc.property(anyEngine, someShown, (model, shown) => {
        const given = reading(model, shown);
        const looked = new Set(given.sites.filter(({ seen }) => seen !== null).map(siteId));
        for (const finding of readEngine(given)) {
          expect(finding.evidence.length).toBeGreaterThan(0);
          for (const site of finding.sites) expect(looked.has(siteId(site))).toBe(true);
          expect(finding.next.length > 0).toBe(finding.cause !== 'healthy');
        }
      }),
    );
  });

  it('is found for everything that is not as it should be, wherever it stands', () => {
    const unwell = (ALL_CONDITIONS as readonly Condition[]).filter((word) => !NORMAL.has(word));
    fc.assert(
      fc.property(anyEngine, fc.constantFrom(...unwell), fc.nat(), fc.boolean(), (model, word, mask, declared) => {
        const given = reading(model, {}, { directionKnown: declared });
        const shows = (i: number): boolean => i === mask % given.sites.length || ((mask >> (i % 31)) & 1) === 1;
        const sites = given.sites.map((site, i) =>
          shows(i) ? { ...site, seen: [{ condition: word, severity: 2 as const }] } : site,
        );
        const findings = readEngine({ ...given, sites });
        for (const site of sites.filter((_, i) => shows(i))) expect(speaksOf(findings, site, word)).toBe(true);
      }),
    );
  });

  it('is found for every word of a random tray, resting cylinders and both plugs of a cylinder included', () => {
    fc.assert(
      fc.property(anyEngine, someShown, fc.boolean(), fc.boolean(), (model, shown, rests, declared) => {
        const { layout } = reading(model, {});
        const deactivated = rests
          ? layout.sites.filter(({ place }) => place % 2 === 1).map(({ cylinder }) => cylinder)
          : [];
        const given = reading(model, shown, { deactivated, directionKnown: declared });
        const findings = readEngine(given);
        for (const site of given.sites)
          for (const { condition } of site.seen ?? [])
            if (!NORMAL.has(condition))
              expect(speaksOf(findings, site, condition), `${condition} at ${siteId(site)}`).toBe(true);
      }),
    );
  });

  it('that stops the work is never taken back by more of the same, until every plug of the engine is alike', () => {
    const words = ['nose coloured trace', 'nose washed clean'] as const;
    const signAt = fc.record({ site: fc.nat(), word: fc.constantFrom(...words), severity: fc.constantFrom(1, 2, 3) });
    const add = (
      sites: readonly SiteReading[],
      { site: at, word, severity }: { site: number; word: Condition; severity: number },
    ) =>
      sites.map((site, i) => {
        if (i !== at % sites.length) return site;
        const others = (site.seen ?? []).filter(({ condition }) => condition !== word);
        const before = site.seen?.find(({ condition }) => condition === word)?.severity ?? 1;
        return { ...site, seen: [...others, { condition: word, severity: Math.max(before, severity) as 1 | 2 | 3 }] };
      });
    const stops = (given: EngineReading) => readEngine(given).some(({ urgency }) => urgency === 'stop');
    fc.assert(
      fc.property(anyEngine, someShown, fc.array(signAt, { maxLength: 12 }), signAt, (model, shown, before, more) => {
        const given = reading(model, shown);
        const less = { ...given, sites: before.reduce(add, given.sites) };
        const grown = { ...given, sites: add(less.sites, more) };
        const shows = grown.sites.filter(({ seen }) =>
          seen?.some(({ condition }) => words.some((word) => word === condition)),
        );
        if (shows.length < grown.sites.length && stops(less)) expect(stops(grown)).toBe(true);
      }),
    );
  });

  it('of what can stop the work is never lost, whatever else is seen', () => {
    fc.assert(
      fc.property(anyEngine, someShown, (model, shown) => {
        const given = reading(model, shown);
        const [first, ...others] = given.sites;
        if (!first) return;
        const melted: SiteReading = { ...first, seen: [{ condition: 'electrodes melted', severity: 3 }] };
        expect(readEngine({ ...given, sites: [melted, ...others] })[0]).toMatchObject({ urgency: 'stop' });
      }),
    );
  });
});
