import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyEngine } from '../engine/any-engine.fixture';
import { layoutOf, neighbours } from '../engine/layout';
import { crossfirePairs, routingNotes } from './lead-routing';

const SIX = [{ place: 'only' as const, cylinders: [1, 2, 3, 4, 5, 6] }];

describe('crossfirePairs', () => {
  it('finds the pairs of an inline six that are fired in turn, over the end of the order too', () => {
    expect(crossfirePairs(SIX, [1, 5, 3, 6, 2, 4])).toEqual([]);
    expect(crossfirePairs(SIX, [1, 2, 4, 6, 5, 3])).toEqual([
      [1, 2],
      [5, 6],
    ]);
    expect(crossfirePairs(SIX, [2, 5, 3, 6, 4, 1])).toEqual([[1, 2]]);
  });

  it('names only neighbours of one bank, whatever the engine', () => {
    fc.assert(
      fc.property(anyEngine, (model) => {
        const layout = layoutOf(model);
        for (const [a, b] of crossfirePairs(model.banks, model.firingOrder)) expect(neighbours(layout, a)).toContain(b);
      }),
    );
  });

  it('does not depend on which cylinder the order begins with', () => {
    fc.assert(
      fc.property(anyEngine, fc.nat(15), ({ banks, firingOrder }, by) => {
        const turn = by % firingOrder.length;
        const turned = [...firingOrder.slice(turn), ...firingOrder.slice(0, turn)];
        expect(crossfirePairs(banks, turned)).toEqual(crossfirePairs(banks, firingOrder));
      }),
    );
  });
});

describe('routingNotes', () => {
  it('tells of loops from 50 mm on, and always of clips', () => {
    expect(routingNotes(SIX, [1, 5, 3, 6, 2, 4], [0, 10, 49, 0, 0, 0])).toHaveLength(1);
    expect(routingNotes(SIX, [1, 5, 3, 6, 2, 4], [0, 60, 50, 0, 0, 0])[0]).toContain('2 (60 mm), 3 (50 mm)');
  });
});
