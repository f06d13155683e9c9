import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays } from '../calendar/plain-date';
import { COMPONENTS } from '../engine/quantities';
import { DUE_STATES } from './due';
import { bindsFirst } from './vehicle-due';

const of = (over: object) => ({
  component: 'plug' as const,
  state: 'later' as const,
  due: '2027-05-01',
  lifeUsed: 0.5,
  pressure: 2,
  ...over,
});

const anyComponent = fc.record({
  component: fc.constantFrom(...COMPONENTS),
  state: fc.constantFrom(...DUE_STATES),
  due: fc.option(fc.integer({ min: 0, max: 2000 }).map((days) => addDays('2024-01-01', days))),
  lifeUsed: fc.option(fc.double({ min: 0, max: 3, noNaN: true })),
  pressure: fc.option(fc.double({ min: 0, max: 500, noNaN: true })),
});

describe('the component that binds first', () => {
  it('is the one that is past its limit, however little another has left', () => {
    const cap = of({ component: 'cap', state: 'past', due: '2026-01-01', lifeUsed: 1.1 });
    expect(bindsFirst([of({ state: 'soon', due: '2026-11-20' }), cap])).toBe(cap);
  });

  it('is the soonest among those that wait, and the plugs where nothing tells them apart', () => {
    const rotor = of({ component: 'rotor', due: '2027-02-01' });
    expect(bindsFirst([of({}), rotor])).toBe(rotor);
    const plug = of({});
    expect(bindsFirst([of({ component: 'cap' }), plug])).toBe(plug);
  });

  it('is never a part without an interval while another has a date', () => {
    const coil = of({ component: 'coil', state: 'no-date', due: null, lifeUsed: null, pressure: null });
    expect(bindsFirst([coil, of({})])?.component).toBe('plug');
    expect(bindsFirst([])).toBeNull();
  });

  it('is the same in whatever order they are listed, and past wherever one is past', () => {
    fc.assert(
      fc.property(fc.uniqueArray(anyComponent, { selector: ({ component }) => component, minLength: 1 }), (all) => {
        const first = bindsFirst(all);
        const again = bindsFirst([...all].reverse());
        expect([again?.state, again?.due, again?.lifeUsed ?? 0]).toEqual([
          first?.state,
          first?.due,
          first?.lifeUsed ?? 0,
        ]);
        if (all.some(({ state }) => state === 'past')) expect(first?.state).toBe('past');
      }),
    );
  });
});
