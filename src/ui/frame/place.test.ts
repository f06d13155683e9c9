import { describe, expect, it } from 'vitest';
import { groupAt, type PlaceGroup, placeAt } from './place';

const groups: readonly PlaceGroup[] = [
  {
    label: 'Watch',
    places: [
      { href: '/pressure', label: 'Pressure' },
      { href: '/due', label: 'Due', also: '/vehicles' },
    ],
  },
  { label: 'Plan', places: [{ href: '/pressure/horizon', label: 'Horizon' }] },
  { label: 'Work', places: [{ href: '/work-orders', label: 'Work orders' }] },
];
const places = groups.flatMap((group) => group.places);

describe('where a page belongs', () => {
  it.each([
    ['/pressure', 'Pressure', 'Watch'],
    ['/pressure/horizon', 'Horizon', 'Plan'],
    ['/pressure/horizontal', 'Pressure', 'Watch'],
    ['/vehicles/1', 'Due', 'Watch'],
    ['/work-orders/1/floor', 'Work orders', 'Work'],
  ])('%s belongs to %s of %s', (path, place, group) => {
    expect(placeAt(places, path)?.label).toBe(place);
    expect(groupAt(groups, path)?.label).toBe(group);
  });

  it('is nowhere for an address of none', () => {
    expect([placeAt(places, '/duel'), groupAt(groups, '/')]).toEqual([null, null]);
  });
});
