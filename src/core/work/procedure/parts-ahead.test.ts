import { describe, expect, it } from 'vitest';
import type { AccessItem } from '../../engine/access-items';
import { type ItemAhead, partsAhead } from './parts-ahead';

const manifold = {
  key: 'intake_manifold',
  what: 'intake manifold',
  breaks: { what: 'elbow', number: 'PW-9911', chance: 0.2 },
  seal: { what: 'manifold gaskets', number: 'PW-3320', rule: 'new' },
} as AccessItem;
const at = (order: number, over: Partial<ItemAhead> = {}): ItemAhead => ({
  order,
  item: manifold,
  isDefect: false,
  isOn: false,
  ...over,
});
const of = (items: readonly ItemAhead[]) =>
  partsAhead(items).map(({ number, quantity, why }) => [number, quantity, why]);

describe('parts that open orders will want', () => {
  it('are the seals that are always new, and no breakage of one visit in five', () => {
    expect(of([at(1)])).toEqual([['PW-3320', 1, 'new_seal']]);
  });

  it('are as many of what breaks as are expected over all of them', () => {
    expect(of([at(1), at(2), at(3)])).toEqual([
      ['PW-9911', 1, 'likely_to_break'],
      ['PW-3320', 3, 'new_seal'],
    ]);
  });

  it('are what was found broken, at once', () => {
    expect(partsAhead([at(7, { isDefect: true })])[0]).toEqual({
      number: 'PW-9911',
      what: 'elbow',
      quantity: 1,
      orders: [7],
      why: 'found_broken',
    });
  });

  it('are none once the item is on again, and none without a number', () => {
    expect(partsAhead([at(1, { isOn: true })])).toEqual([]);
    const unnamed = { ...manifold, seal: null, breaks: { what: 'clip', number: null, chance: 1 } };
    expect(partsAhead([at(1, { item: unnamed })])).toEqual([]);
  });
});
