import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { TASK_COMPONENTS } from '../work/task';
import { anyEngine } from './any-engine.fixture';
import { layoutOf } from './layout';
import { siteId } from './model';
import { allPlaces, choosePlaces, isOfEngine, placeId, placesOf, servedBy } from './places';

const anyComponent = fc.constantFrom(...TASK_COMPONENTS);

describe('places', () => {
  it('name each part once, and every plug is served by exactly one of each kind that the engine has', () => {
    fc.assert(
      fc.property(anyEngine, anyComponent, (model, component) => {
        const layout = layoutOf(model);
        const places = allPlaces(layout, component);
        expect(new Set(places.map(placeId)).size).toBe(places.length);
        const served = places.flatMap((place) => servedBy(layout, component, place)).map(siteId);
        if (places.length > 0) expect(served.sort()).toEqual(layout.sites.map(siteId).sort());
      }),
    );
  });

  it('of some plugs are those that serve them, and no others', () => {
    fc.assert(
      fc.property(anyEngine, anyComponent, fc.nat(), (model, component, n) => {
        const layout = layoutOf(model);
        const site = layout.sites[n % layout.sites.length];
        if (!site) return;
        for (const place of placesOf(layout, component, [site]))
          expect(servedBy(layout, component, place).map(siteId)).toContain(siteId(site));
      }),
    );
  });

  it('are chosen by all, by bank or by any plug that they serve, and what is chosen can be named again', () => {
    fc.assert(
      fc.property(anyEngine, anyComponent, fc.nat(), (model, component, n) => {
        const layout = layoutOf(model);
        const all = choosePlaces(layout, component, 'all');
        if (!all.ok) {
          expect(allPlaces(layout, component)).toEqual([]);
          return;
        }
        expect(choosePlaces(layout, component, all.value.map(placeId))).toEqual(all);
        const banks = model.banks.flatMap(({ place }) => {
          const chosen = choosePlaces(layout, component, { bank: place });
          return chosen.ok ? chosen.value.map(placeId) : [];
        });
        expect(new Set(banks)).toEqual(new Set(all.value.map(placeId)));
        const site = layout.sites[n % layout.sites.length];
        if (!site || isOfEngine(component)) return;
        const one = choosePlaces(layout, component, [siteId(site).toLowerCase()]);
        expect(one.ok && one.value.length).toBe(1);
      }),
    );
  });

  it('that there are not are refused by name', () => {
    fc.assert(
      fc.property(anyEngine, (model) => {
        const layout = layoutOf(model);
        expect(choosePlaces(layout, 'plug', ['99A'])).toEqual({ ok: false, error: 'This engine has no plug at 99A.' });
        expect(choosePlaces(layout, 'plug', ['engine']).ok).toBe(false);
        if (model.ignition !== 'distributor')
          expect(choosePlaces(layout, 'cap', 'all')).toEqual({ ok: false, error: 'This engine has no cap.' });
      }),
    );
  });
});
