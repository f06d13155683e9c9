import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays } from '../calendar/plain-date';
import { DUE_STATES } from '../due/due';
import { anyEngine } from '../engine/any-engine.fixture';
import { layoutOf } from '../engine/layout';
import type { EngineModel } from '../engine/model';
import { allPlaces, choosePlaces } from '../engine/places';
import { plainEngine } from './procedure/engine.fixture';
import { type ComponentFacts, type ProposalInput, proposeVisit } from './proposal';
import { TASK_COMPONENTS } from './task';

const TODAY = '2026-11-16';
const V6: EngineModel = {
  arrangement: 'v',
  mounting: 'transverse',
  ignition: 'coil_on_plug',
  plugsPerCylinder: 1,
  firingOrder: [1, 2, 3, 4, 5, 6],
  banks: [
    { place: 'rear', cylinders: [1, 3, 5] },
    { place: 'front', cylinders: [2, 4, 6] },
  ],
  coils: [1, 2, 3, 4, 5, 6].map((cylinder) => ({
    name: String(cylinder),
    fires: [{ cylinder, position: 'A' as const }],
  })),
  distributor: null,
};
/** The same with leads from a pack of three coils. */
const W6: EngineModel = {
  ...V6,
  ignition: 'waste_spark',
  coils: [
    [1, 4],
    [2, 5],
    [3, 6],
  ].map((pair) => ({ name: pair.join('+'), fires: pair.map((cylinder) => ({ cylinder, position: 'A' as const })) })),
};
const facts = (over: Partial<ComponentFacts>): ComponentFacts => ({
  component: 'plug',
  state: 'past',
  certainty: 'exact',
  due: addDays(TODAY, -20),
  lifeUsed: 1.05,
  price: 10,
  quantity: 6,
  ...over,
});
const coil = (over: Partial<ComponentFacts> = {}) =>
  facts({ component: 'coil', state: 'no-date', due: null, lifeUsed: null, price: 40, ...over });
const input = (over: Partial<ProposalInput>): ProposalInput => ({
  today: TODAY,
  engine: plainEngine(layoutOf(V6), {
    access: [
      { access: 'under_intake', minutes: 150 },
      { access: 'open', minutes: 60 },
    ],
    minutes: 210,
  }),
  components: [facts({}), coil()],
  options: { coils_with_plugs: 'by_cost', leads_with_plugs: 'when_worn', inspection_sample: 'one' },
  money: { labourPerHour: 50, downtimePerVisit: 200 },
  retires: null,
  coilChance: 0.1,
  findings: [],
  ...over,
});
const said = (over: Partial<ProposalInput>) =>
  proposeVisit(input(over)).map(({ action, component, isTaken, reason }) => [action, component, isTaken, reason.kind]);

describe('a visit that is opened', () => {
  it('takes what is past its limit, in the minutes of the plug service', () => {
    const [first] = proposeVisit(input({}));
    expect(first).toMatchObject({
      action: 'replace',
      component: 'plug',
      places: 'all',
      why: 'due',
      isTaken: true,
      partsCost: 60,
    });
    expect(first?.minutes).toBeGreaterThan(195);
    expect(first?.minutes).toBeLessThan(225);
  });

  it('takes with it what falls due within the window, and leaves what does not', () => {
    const cap = (days: number) =>
      facts({ component: 'boot', state: 'later', due: addDays(TODAY, days), lifeUsed: 0.7 });
    expect(said({ components: [facts({}), cap(80)] })).toContainEqual(['replace', 'boot', true, 'due']);
    expect(said({ components: [facts({}), cap(300)] })).toEqual([['replace', 'plug', true, 'due']]);
  });

  it('proposes what binds first long before its day, and takes neither that nor what comes with it', () => {
    const plugs = facts({ state: 'later', due: addDays(TODAY, 700), lifeUsed: 0.2 });
    const boots = facts({ component: 'boot', state: 'later', due: addDays(TODAY, 900), lifeUsed: 0.9 });
    const coils = facts({ component: 'coil', state: 'no-date', due: null, lifeUsed: null });
    const options = { ...input({}).options, coils_with_plugs: 'with_plugs' as const };
    expect(said({ components: [plugs, boots, coils], options })).toEqual([
      ['replace', 'plug', false, 'due'],
      ['replace', 'boot', false, 'nearly_used'],
      ['replace', 'coil', false, 'policy'],
    ]);
  });

  it('asks before a set goes into a vehicle that leaves the fleet before half of it is used', () => {
    const leaving = (share: number) => proposeVisit(input({ retires: { on: addDays(TODAY, 200), share } }))[0];
    expect(leaving(0.2)).toMatchObject({ isTaken: false, reason: { kind: 'due', retires: addDays(TODAY, 200) } });
    expect(leaving(0.8)).toMatchObject({ isTaken: true, reason: { retires: null } });
  });

  it('takes what is nearly used while the cover is open', () => {
    const boots = facts({ component: 'boot', state: 'later', due: addDays(TODAY, 400), lifeUsed: 0.9 });
    expect(said({ components: [facts({}), boots] })).toContainEqual(['replace', 'boot', true, 'nearly_used']);
  });

  it('looks at what nobody knows the age of, so many as the policy says, and buys nothing', () => {
    const assumed = [facts({ state: 'inspect', certainty: 'assumed', lifeUsed: 2 })];
    const places = (inspection_sample: 'one' | 'bank' | 'all') =>
      proposeVisit(input({ components: assumed, options: { ...input({}).options, inspection_sample } })).map((one) => [
        one.action,
        one.places,
        one.partsCost,
      ]);
    expect(places('one')).toEqual([['inspect', ['1A'], 0]]);
    expect(places('bank')).toEqual([['inspect', { bank: 'rear' }, 0]]);
    expect(places('all')).toEqual([['inspect', 'all', 0]]);
  });

  it('works out coils by expected cost: taken only where it pays, and never on failure', () => {
    const by = (coils_with_plugs: 'by_cost' | 'on_failure' | 'with_plugs', coilChance: number) =>
      said({ coilChance, options: { ...input({}).options, coils_with_plugs } }).filter(
        ([, component]) => component === 'coil',
      );
    expect(by('by_cost', 0.05)).toEqual([['replace', 'coil', false, 'policy']]);
    expect(by('by_cost', 0.2)).toEqual([['replace', 'coil', true, 'policy']]);
    expect(by('with_plugs', 0)).toEqual([['replace', 'coil', true, 'policy']]);
    expect(by('on_failure', 1)).toEqual([]);
  });

  it('buys leads of unknown age where the policy changes them with the plugs, and looks at them where it does not', () => {
    const leads = facts({ component: 'lead_set', state: 'inspect', certainty: 'assumed', lifeUsed: 2, quantity: 1 });
    const with_ = (leads_with_plugs: 'always' | 'when_worn') =>
      said({
        engine: plainEngine(layoutOf(W6)),
        components: [facts({}), leads],
        options: { ...input({}).options, leads_with_plugs },
      }).at(-1);
    expect(with_('when_worn')).toEqual(['inspect', 'lead_set', true, 'assumed']);
    expect(with_('always')).toEqual(['replace', 'lead_set', true, 'policy']);
  });

  it('answers a confirmed finding at its places, once', () => {
    const findings = [
      { key: 'k', answers: [{ action: 'replace' as const, component: 'boot' as const, places: ['3A'] }] },
    ];
    expect(proposeVisit(input({ findings })).at(-1)).toMatchObject({
      component: 'boot',
      places: ['3A'],
      why: 'finding',
    });
    expect(
      said({ findings, components: [facts({}), facts({ component: 'boot' })] }).filter(([, one]) => one === 'boot'),
    ).toHaveLength(1);
  });

  it('proposes only what the engine has, each component once, and its minutes add up', () => {
    fc.assert(
      fc.property(
        anyEngine,
        fc.array(fc.tuple(fc.constantFrom(...DUE_STATES), fc.option(fc.integer({ min: -400, max: 900 }))), {
          minLength: TASK_COMPONENTS.length,
          maxLength: TASK_COMPONENTS.length,
        }),
        (model, states) => {
          const layout = layoutOf(model);
          const components = TASK_COMPONENTS.flatMap((component, i) => {
            const [state, days] = states[i] ?? ['later', null];
            const quantity = allPlaces(layout, component).length;
            const due = days === null ? null : addDays(TODAY, days);
            return quantity > 0 ? [facts({ component, state, due, quantity, lifeUsed: 0.5 })] : [];
          });
          const found = proposeVisit(input({ engine: plainEngine(layout), components }));
          expect(new Set(found.map(({ component }) => component)).size).toBe(found.length);
          for (const { component, places, minutes } of found) {
            expect(choosePlaces(layout, component, places).ok).toBe(true);
            expect(minutes).toBeGreaterThanOrEqual(0);
          }
          const past = components.filter(({ state }) => state === 'past').map(({ component }) => component);
          expect(found.filter(({ isTaken }) => isTaken).map(({ component }) => component)).toEqual(
            expect.arrayContaining(past),
          );
        },
      ),
    );
  });
});
